import { fluxAt, type Motor, motorBrake, type MotorSource, type Turn } from './motor.ts';

/** What keeps a motor from being where its equations at rest have it: inductance of its windings, inertia of what turns. */
export interface MotorDynamics {
  readonly henries: number;
  /** Of armature, gear and pinion, at the armature. */
  readonly kilogramSquareMetres: number;
  /** Bars of the commutator: their passing ripples the current. */
  readonly bars: number;
  /** Of the current, peak [from memory: some hundredths]. */
  readonly rippleShare: number;
}

/** A run-up as clamp and tachometer would show it, at equal steps from the moment it is fed. */
export interface RunUp {
  readonly secondsPerSample: number;
  readonly amps: Float64Array;
  /** Of the pinion. */
  readonly rpm: Float64Array;
}

/** Of each sample, so many steps: the inductance's time constant is a few milliseconds. */
const stepsPerSample = 4;

/** How many times a revolution of the armature the current ripples: an odd number of bars passes two brushes by turns [common practice, no source]. */
export const ripplesPerTurn = (bars: number): number => (bars % 2 === 1 ? 2 * bars : bars);

/**
 * The ripple's sine, but for the bars of dead coils, which pass a brush twice a turn: by turns where their number is odd,
 * else together with another, and half of the ripple is left.
 */
function rippleAt(turned: number, bars: number, { deadCoils }: Turn): number {
  const ripples = ripplesPerTurn(bars);
  const at = (turned / (2 * Math.PI)) * ripples;
  const isDead = at % (ripples / 2) < deadCoils;
  return (isDead ? 1 - ripples / (2 * bars) : 1) * Math.sin(2 * Math.PI * at);
}

/**
 * Fed at rest, against a torque at the pinion: L·di/dt = U − Ub − R·i − K(i)·ω, J·dω/dt = K(i)·i − drag − load, by
 * Runge's and Kutta's fourth order. A leak beside the motor is left out: it takes what it takes from the first moment.
 */
export function motorRunUp(
  motor: Motor,
  source: MotorSource,
  { henries, kilogramSquareMetres, bars, rippleShare }: MotorDynamics,
  newtonMetres: number,
  seconds: number,
  samples: number,
): RunUp {
  const meanOhms = source.ohms + motor.ohms;
  const slips = newtonMetres > motor.clutchNewtonMetres;
  const load = Math.min(newtonMetres, motor.clutchNewtonMetres) / (motor.gear.ratio * motor.gear.efficiency);
  const turns = 1 - motor.shortedCoils / motor.coil.coils;
  type State = readonly [amps: number, radians: number];
  let turned = 0;
  const slope = ([amps, radians]: State): State => {
    const flux = fluxAt(motor, amps) * turns;
    const drive = flux * amps;
    const once = Math.sin(turned);
    const ohms = meanOhms + motor.turn.ohms * once;
    const brake = motorBrake(motor, flux, radians) + motor.turn.newtonMetres * once + load;
    // Standing, drag holds it as long as the torque is less.
    const net = radians <= 0 && drive < brake ? 0 : drive - brake;
    return [(source.volts - motor.brushVolts - ohms * amps - flux * radians) / henries, net / kilogramSquareMetres];
  };
  const secondsPerSample = seconds / samples;
  const dt = secondsPerSample / stepsPerSample;
  const ahead = ([amps, radians]: State, [da, dr]: State, by: number): State => [
    Math.max(amps + by * da, 0),
    Math.max(radians + by * dr, 0),
  ];
  let now: State = [0, 0];
  const amps = new Float64Array(samples);
  const rpm = new Float64Array(samples);
  for (let n = 0; n < samples; n++) {
    for (let s = 0; s < stepsPerSample; s++) {
      const k1 = slope(now);
      const k2 = slope(ahead(now, k1, dt / 2));
      const k3 = slope(ahead(now, k2, dt / 2));
      const k4 = slope(ahead(now, k3, dt));
      const mean = [0, 1].map((i) => (k1[i]! + 2 * k2[i]! + 2 * k3[i]! + k4[i]!) / 6) as unknown as State;
      now = ahead(now, mean, dt);
      turned += now[1] * dt;
    }
    amps[n] = now[0] * (1 + rippleShare * rippleAt(turned, bars, motor.turn));
    rpm[n] = slips ? 0 : (now[1] * 60) / (2 * Math.PI * motor.gear.ratio);
  }
  return { secondsPerSample, amps, rpm };
}
