import { fluxAt, type Motor, motorRun, type MotorSource } from './motor.ts';
import type { MotorDynamics } from './run-up.ts';

/** By how little the current is off for its flux's steepness. */
const aside = 1e-4;

/**
 * How far the current of a motor without load swells and sinks once in a turn of its armature, as a share of itself, for
 * what comes and goes with the turn: the run-up's equations about the steady run, small signals [ordinary circuit
 * theory]. A volt that comes and goes drives a current through resistance, inductance and what the flux answers; a
 * torque sways the speed first, and with it the EMF. Both at their crest at once. 0 for a motor that stands; a leak
 * beside it is left out.
 */
export function swellShare(motor: Motor, source: MotorSource, dynamics: MotorDynamics): number {
  const { amps, rpm } = motorRun({ ...motor, leakOhms: Infinity, clutchNewtonMetres: Infinity }, source, {
    newtonMetres: 0,
  });
  const radians = (rpm * motor.gear.ratio * 2 * Math.PI) / 60;
  if (!(amps > 0 && radians > 1)) return 0;
  const turns = 1 - motor.shortedCoils / motor.coil.coils;
  const flux = (at: number) => turns * fluxAt(motor, at);
  const k = flux(amps);
  const perAmp = (flux(amps * (1 + aside)) - flux(amps * (1 - aside))) / (2 * aside * amps);
  // The shaft: jνJ + d; what a newton metre does to the volts is k through it.
  const shaft = { re: motor.drag.perRadian, im: radians * dynamics.kilogramSquareMetres };
  const size = shaft.re ** 2 + shaft.im ** 2;
  const throughShaft = { re: (k * shaft.re) / size, im: (-k * shaft.im) / size };
  const torquePerAmp = k + perAmp * amps;
  const impedance = Math.hypot(
    source.ohms + motor.ohms + perAmp * radians + torquePerAmp * throughShaft.re,
    radians * dynamics.henries + torquePerAmp * throughShaft.im,
  );
  const volts = Math.hypot(
    amps * motor.turn.ohms + motor.turn.newtonMetres * throughShaft.re,
    motor.turn.newtonMetres * throughShaft.im,
  );
  return volts / impedance / amps;
}
