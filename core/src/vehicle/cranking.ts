import { type Motor, type MotorRun, motorRun } from '../curves/index.ts';
import { type Cells, cellsOf } from '../handbook/index.ts';
import { type Drives, familyOf, type Machine, type RunningFault, starterGeneric } from '../machines/index.ts';
import { type StarterAtWork, usual } from './network.ts';
import { type Fuel, sets, type Vehicle } from './vehicle.ts';

/** What a starter cranks: battery, cables and engine. */
export interface Crank {
  readonly ratedVolts: 12 | 24;
  /** Cold-cranking amps of the battery or of the whole set. */
  readonly crankingAmps: number;
  readonly batteryCelsius: number;
  /** State of charge, 0 to 1. */
  readonly charge: number;
  /** Both ways, from the battery's posts to the starter's. */
  readonly cableOhms: number;
  /** What the engine asks at the pinion. */
  readonly newtonMetres: number;
}

export interface Cranked extends MotorRun {
  readonly batteryVolts: number;
}

/** Mean torque of an engine turned over: petrol, diesel, Nm at the crank for each litre at 20 °C [our estimate: so that
 * one and a half litres draw what shops see of four cylinders, 130 to 150 A]. */
const crankTorque: Readonly<Record<Fuel, number>> = { petrol: 20, diesel: 35 };
/** Litres that a kilowatt of starter turns in any weather [from memory]. */
const litresPerKilowatt: Readonly<Record<Fuel, number>> = { petrol: 1.1, diesel: 0.9 };
/** Ring gear over pinion, and what the mesh loses [from memory]. */
const mesh = { ratio: 12, efficiency: 0.85 } as const;
/** Thicker oil: more for each kelvin below 20 °C [from memory]. */
const torquePerKelvin = 0.012;

/** Newton metres that an engine asks at the pinion. */
export const engineTorque = (litres: number, fuel: Fuel, celsius: number): number =>
  (litres * crankTorque[fuel] * (1 + torquePerKelvin * Math.max(20 - celsius, 0))) / (mesh.ratio * mesh.efficiency);

/** What starts a vehicle: the unit itself, or a starter as most have. */
interface OwnStarter {
  readonly machine: Machine;
  readonly drives: Drives<Machine>;
}
/** Rated power of a starter that isn't the unit [from memory]. */
const usualKilowatts = { 12: 1.4, 24: 4 } as const;

function starterOf({ ratedVolts }: Vehicle, unit: Machine): OwnStarter {
  const machine = familyOf(unit).drives ? unit : starterGeneric(ratedVolts, usualKilowatts[ratedVolts], 'direct');
  return { machine, drives: familyOf(machine).drives! };
}

/** The engine that a starter turns: as it is known, else of the size and fuel that most have. */
export function engineOf({ ratedVolts, engineLitres, fuel }: Vehicle, ratedWatts = 1000 * usualKilowatts[ratedVolts]) {
  const burns: Fuel = fuel ?? (ratedVolts === 24 ? 'diesel' : 'petrol');
  return { litres: engineLitres ?? Math.round(litresPerKilowatt[burns] * ratedWatts) / 1000, fuel: burns };
}

/** The vehicle's starter while it cranks, at 20 °C, from a battery that doesn't sag. */
export function starterAtWork(vehicle: Vehicle, unit: Machine, faults: readonly RunningFault[] = []): StarterAtWork {
  const { machine, drives } = starterOf(vehicle, unit);
  const { motor, contactOhms } = drives.fed(machine, faults, 20);
  const { litres, fuel } = engineOf(vehicle, drives.ratedWatts(machine));
  const stiff = { volts: usual.restedVolts * sets(vehicle), ohms: 0 };
  const { amps } = motorRun(motor, stiff, { newtonMetres: engineTorque(litres, fuel, 20) });
  return { contactOhms, ohms: motor.ohms - contactOhms, amps };
}

const crankBattery = ({ ratedVolts, crankingAmps, batteryCelsius, charge }: Crank): Cells =>
  cellsOf(ratedVolts, crankingAmps, batteryCelsius, charge);

/** Amps, volts and speed while it cranks and doesn't fire. */
export function crankRun(motor: Motor, crank: Crank): Cranked {
  const { volts, ohms } = crankBattery(crank);
  const run = motorRun(motor, { volts, ohms: ohms + crank.cableOhms }, { newtonMetres: crank.newtonMetres });
  return { ...run, batteryVolts: volts - run.amps * ohms };
}

/** Where a measured cranking lies: what it speaks for, in words. */
export interface CrankWord {
  readonly points: 'as foreseen' | 'battery' | 'tight' | 'resistance';
  readonly say: string;
}

/** Beside what is foreseen by more than this it is another [our estimate: battery and engine are known roughly]. */
const aside = { battery: 1.6, amps: 0.25 } as const;

/**
 * Places amps and battery volts that were read while cranking. Volts and amps together give the battery's resistance,
 * whatever the starter does; at the volts that are left the amps tell a tight engine. The engine's torque settles the amps:
 * a resistance on the way takes speed, and amps only once it stands.
 *
 * @param slow whether somebody saw it crank slowly, or not at all
 */
export function crankWord(motor: Motor, crank: Crank, amps: number, batteryVolts: number, slow: boolean): CrankWord {
  const own = crankBattery(crank);
  const times = Math.max(own.volts - batteryVolts, 0) / Math.max(amps, 1) / own.ohms;
  if (times > aside.battery)
    return {
      points: 'battery',
      say: `The battery sags as if it had ${times.toFixed(1)} times its resistance: charge and test it before the starter is blamed.`,
    };
  const fed = motorRun(motor, { volts: batteryVolts, ohms: crank.cableOhms }, { newtonMetres: crank.newtonMetres });
  const share = amps / fed.amps - 1;
  const percent = `${Math.round(100 * Math.abs(share))} %`;
  if (share > aside.amps)
    return {
      points: 'tight',
      say: `${percent} more amps than this engine asks: a tight engine, or a starter that drags or is shorted. Turn the engine by hand first.`,
    };
  const say = 'resistance in cables, contacts or brushes. Drops along the way say where.';
  if (share < -aside.amps)
    return { points: 'resistance', say: `${percent} fewer amps with the battery holding: ${say}` };
  if (slow) return { points: 'resistance', say: `Amps and battery as foreseen, and yet slow: ${say}` };
  return { points: 'as foreseen', say: 'As foreseen for this battery and engine.' };
}

/** Rules that shops go by [common practice, no source], as rules: nothing follows from them by itself. */
export const crankRules = { leastVolts: 9.6, mostBelowLoaded: 1 } as const;
