/** What a battery's volts, amps and hours say, from tables. Volts are for a 12 V set; others scale with the cells. */

export type Chemistry = 'flooded' | 'mat';

/** Rested volts at a state of charge [from memory: handbook table, flooded; absorbed mat reads about 0.2 V more when full]. */
const restedVolts: Readonly<Record<Chemistry, readonly (readonly [volts: number, charge: number])[]>> = {
  flooded: [
    [11.89, 0],
    [12.06, 0.25],
    [12.24, 0.5],
    [12.45, 0.75],
    [12.65, 1],
  ],
  mat: [
    [11.9, 0],
    [12.12, 0.25],
    [12.35, 0.5],
    [12.6, 0.75],
    [12.85, 1],
  ],
};

/** Least volts at the end of a load test at half the cold-cranking amps, by temperature [from memory: battery handbook table]. */
const leastUnderLoad: readonly (readonly [celsius: number, volts: number])[] = [
  [-18, 8.5],
  [-12, 8.7],
  [-7, 8.9],
  [-1, 9.1],
  [4, 9.3],
  [10, 9.4],
  [16, 9.5],
  [21, 9.6],
];
/** Below this, rested, a load test is void: charge first [common practice, no source]. */
export const leastForLoadTest = 12.45;

function between(table: readonly (readonly [number, number])[], x: number): number {
  const first = table[0]!;
  const last = table[table.length - 1]!;
  if (x <= first[0]) return first[1];
  if (x >= last[0]) return last[1];
  const at = table.findIndex(([known]) => known > x);
  const [x0, y0] = table[at - 1]!;
  const [x1, y1] = table[at]!;
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
}

/** A sound set's own resistance: ohms times cold-cranking amperes of 12 V, less when warm, more when flat [from memory: 8 mΩ at 600 A]. */
export const batteryOhmAmps = 4.8;
export const batteryPerKelvin = -0.012;
const emptyTimes = 1.8;

export interface Cells {
  readonly volts: number;
  readonly ohms: number;
}

/** Rested volts and resistance of a 12 or 24 V set. `charge`: 0 to 1. Warmer than 25 °C it gets no stiffer. */
export function cellsOf(ratedVolts: 12 | 24, crankingAmps: number, celsius: number, charge: number): Cells {
  const sets = ratedVolts / 12;
  const volts = between(
    restedVolts.flooded.map(([v, share]) => [share, v] as const),
    charge,
  );
  const cold = 1 + batteryPerKelvin * (Math.min(celsius, 25) - 20);
  const flat = 1 + (emptyTimes - 1) * (1 - charge);
  return { volts: volts * sets, ohms: ((batteryOhmAmps * sets) / crankingAmps) * cold * flat };
}

/** State of charge, 0 to 1, from rested volts of a 12 or 24 V set. */
export const stateOfCharge = (volts: number, ratedVolts: 12 | 24, chemistry: Chemistry): number =>
  between(restedVolts[chemistry], (volts * 12) / ratedVolts);

export interface LoadTestLimit {
  readonly volts: number;
  /** Why the test says nothing; undefined when it may be done. */
  readonly barred: string | undefined;
}

/** The least volts under half the cold-cranking amps after 15 s, and whether the test may be done at all. */
export function loadTestLimit(celsius: number, rested: number, ratedVolts: 12 | 24): LoadTestLimit {
  const sets = ratedVolts / 12;
  const enough = leastForLoadTest * sets;
  const barred =
    rested < enough
      ? `Rested at ${rested.toFixed(2)} V: under ${enough.toFixed(2)} V the test is void, charge first.`
      : undefined;
  return { volts: between(leastUnderLoad, celsius) * sets, barred };
}

/** Hours until a drain has taken half of a full battery. */
export function hoursToHalf(ampHours: number, amps: number): number {
  if (!(ampHours > 0) || !(amps > 0)) throw new RangeError('Hours to half charge need ampere-hours and amps above 0.');
  return ampHours / 2 / amps;
}
