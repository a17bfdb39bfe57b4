/**
 * A direct-current motor behind its gear by the equations of every textbook: U = E + R·I, E = K(I)·ω, T = K(I)·I, less
 * drag. SI throughout; `ohms` is all between the terminal that is fed and the case, windings as warm as they are.
 */
export interface Motor {
  /** Its field by windings in series with the armature, or by magnets. */
  readonly field: 'series' | 'magnets';
  readonly ohms: number;
  /** Of `ohms`, what lies before the point where a leak would take its current: contacts and joint. */
  readonly feedOhms: number;
  /** Both brushes, whatever the current. */
  readonly brushVolts: number;
  /** Volts for each radian per second, and newton metres for each ampere, at `referenceAmps`. */
  readonly fluxWebers: number;
  readonly referenceAmps: number;
  /** How much its iron saturates: flux = (1+s)·x/(1+s·x) of that at the reference, x of its ampere-turns. */
  readonly saturation: number;
  /** Share of the field's turns that still carry current. */
  readonly fieldTurns: number;
  /** Lost before the gear: what is always there, and what grows with speed. */
  readonly drag: { readonly newtonMetres: number; readonly perRadian: number };
  readonly gear: { readonly ratio: number; readonly efficiency: number };
  /** Armature coils shorted in themselves. */
  readonly shortedCoils: number;
  readonly coil: ArmatureCoil;
  readonly turn: Turn;
  /** From the terminal to the case beside the motor; Infinity for none. */
  readonly leakOhms: number;
  /** The most its drive carries to the pinion before it slips; Infinity for a sound one. */
  readonly clutchNewtonMetres: number;
}

/** What changes as an armature goes round once. */
export interface Turn {
  /** Neighbouring coils that leave no ripple as their bars pass the brush: shorted or open. */
  readonly deadCoils: number;
  /** Resistance and drag that come and go, to either side of their mean. */
  readonly ohms: number;
  readonly newtonMetres: number;
}

/** One coil of an armature, as far as a short in it goes. */
export interface ArmatureCoil {
  readonly coils: number;
  readonly polePairs: number;
  readonly ohms: number;
  readonly henries: number;
}

/** A battery or supply and its leads. */
export interface MotorSource {
  readonly volts: number;
  readonly ohms: number;
}

/** Turning against so many newton metres at the pinion, or held. */
export type MotorLoad = { readonly newtonMetres: number } | 'held';

/** A motor at rest with itself: pinion speed and torque, amperes from the source. */
export interface MotorRun {
  readonly amps: number;
  /** Between its terminal and the case. */
  readonly volts: number;
  /** Across what lies before the motor itself. */
  readonly feedVolts: number;
  readonly rpm: number;
  readonly newtonMetres: number;
  readonly watts: number;
  readonly efficiency: number;
}

const rpmPerRadian = 60 / (2 * Math.PI);
const mostSteps = 100;
const settled = 1e-10;
/** Slower than this it stands. */
const standing = 1e-6;

/** Volt-seconds at a current. */
export function fluxAt(motor: Motor, amps: number): number {
  if (motor.field === 'magnets') return motor.fluxWebers;
  const { saturation: s, referenceAmps, fieldTurns } = motor;
  const x = (fieldTurns * Math.max(amps, 0)) / referenceAmps;
  return (motor.fluxWebers * (1 + s) * x) / (1 + s * x);
}

/**
 * Shorted coils carry a current of their own as the armature turns and brake it: P = ½·e²·r/(r² + (pωL)²) for each, e
 * being π/2 times its share of the EMF [ordinary circuit theory; that a coil lies in a field of sine shape is ours].
 */
function shortTorque({ shortedCoils, coil }: Motor, flux: number, radians: number): number {
  if (shortedCoils === 0 || radians <= 0) return 0;
  const peak = (Math.PI * flux) / coil.coils;
  const reactance = coil.polePairs * radians * coil.henries;
  return (0.5 * shortedCoils * peak * peak * coil.ohms * radians) / (coil.ohms ** 2 + reactance ** 2);
}

/** All that brakes a motor at a speed, before the gear. */
export const motorBrake = (motor: Motor, flux: number, radians: number): number =>
  motor.drag.newtonMetres + motor.drag.perRadian * radians + shortTorque(motor, flux, radians);

/**
 * Where the motor's torque, less all that brakes it, comes to what the pinion asks; it stands where that is too much.
 * Where its drive slips the motor turns against what that carries, and the pinion stands.
 */
export function motorRun(motor: Motor, source: MotorSource, load: MotorLoad): MotorRun {
  const { clutchNewtonMetres: carried } = motor;
  if (carried === Infinity) return coupledRun(motor, source, load);
  const asked = load === 'held' ? coupledRun(motor, source, 'held').newtonMetres : load.newtonMetres;
  if (asked <= carried) return coupledRun(motor, source, load);
  return { ...coupledRun(motor, source, { newtonMetres: carried }), rpm: 0, watts: 0, efficiency: 0 };
}

/** With a drive that doesn't slip. */
function coupledRun(motor: Motor, source: MotorSource, load: MotorLoad): MotorRun {
  const { gear, drag, leakOhms, feedOhms } = motor;
  // What lies before the leak and the source are one source to the motor behind it (Thévenin).
  const before = source.ohms + feedOhms;
  const share = leakOhms === Infinity ? 1 : leakOhms / (leakOhms + before);
  const [openVolts, ohms] = [source.volts * share, before * share + (motor.ohms - feedOhms)];
  const held = Math.max((openVolts - motor.brushVolts) / ohms, 0);
  const turns = 1 - motor.shortedCoils / motor.coil.coils;
  const flux = (amps: number) => fluxAt(motor, amps) * turns;
  const speedAt = (amps: number) =>
    Math.max(openVolts - motor.brushVolts - amps * ohms, 0) / Math.max(flux(amps), 1e-12);
  const dragAt = (amps: number, radians: number) => motorBrake(motor, flux(amps), radians);
  const wanted = load === 'held' ? Infinity : load.newtonMetres / (gear.ratio * gear.efficiency);
  const left = (amps: number) => flux(amps) * amps - dragAt(amps, speedAt(amps)) - wanted;
  const most = left(held);
  const amps = most > 0 ? crossing(left, held, most) : held;
  const radians = speedAt(amps);
  const turning = radians > standing && load !== 'held' ? radians : 0;
  const own = flux(amps) * amps - (turning ? dragAt(amps, turning) : drag.newtonMetres);
  const newtonMetres = turning && load !== 'held' ? load.newtonMetres : Math.max(own, 0) * gear.ratio * gear.efficiency;
  const across = openVolts - amps * (ohms - (motor.ohms - feedOhms));
  const total = amps + (leakOhms === Infinity ? 0 : across / leakOhms);
  const volts = source.volts - total * source.ohms;
  const watts = (newtonMetres * turning) / gear.ratio;
  return {
    amps: total,
    volts,
    feedVolts: total * feedOhms,
    rpm: (turning / gear.ratio) * rpmPerRadian,
    newtonMetres,
    watts,
    efficiency: volts * total > 0 ? watts / (volts * total) : 0,
  };
}

/** Where a rising function crosses zero between 0 and `high`: by the straight line, Illinois's way (Dowell and Jarratt 1971). */
function crossing(of: (x: number) => number, high: number, atHigh: number): number {
  let [a, fa, b, fb] = [settled * high, of(settled * high), high, atHigh];
  for (let n = 0; n < mostSteps && b - a > settled * high; n++) {
    // Far below zero the line is blind: there the middle.
    const x = fa < -10 * fb ? (a + b) / 2 : b - (fb * (b - a)) / (fb - fa);
    const fx = of(x);
    if (fx === 0) return x;
    if (fx > 0) {
      if (Math.abs(b - x) < settled * high) return x;
      [b, fb, fa] = [x, fx, fa / 2];
    } else {
      if (Math.abs(x - a) < settled * high) return x;
      [a, fa, fb] = [x, fx, fb / 2];
    }
  }
  return (a + b) / 2;
}

/** The whole curve at a source, from no load to held: so many points, evenly over the current. */
export function motorCurve(motor: Motor, source: MotorSource, points = 40): readonly MotorRun[] {
  const most = motorRun(motor, source, 'held').newtonMetres;
  return Array.from({ length: points }, (_, n) => {
    // Evenly over torque crowds no-load's end; a square spreads it.
    const share = n / (points - 1);
    return n === points - 1
      ? motorRun(motor, source, 'held')
      : motorRun(motor, source, { newtonMetres: most * share ** 1.5 });
  });
}

/** The most power at the pinion, W. */
export const motorPeak = (motor: Motor, source: MotorSource): number =>
  Math.max(...motorCurve(motor, source).map(({ watts }) => watts));
