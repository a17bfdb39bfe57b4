import { mostOrder, type Orders, ordersOf } from './orders.ts';

/** A trace from an oscilloscope, with its electrical frequency found and its orders. */
export type ReadTrace =
  | {
      readonly kind: 'read';
      readonly electricalHertz: number;
      /** Whole periods that the trace holds. */
      readonly periods: number;
      /** Mean of those periods, for drawing: one period at equal steps. */
      readonly period: readonly number[];
      readonly orders: Orders;
    }
  | { readonly kind: 'refused'; readonly why: string };

/** The frequency may lie this far from what the stand's speed says: a belt slips, a display rounds. */
const reach = 0.12;
const searched = 240;
/** Of so many periods first, then of all within a narrower share. */
const searchedPeriods = 30;
const refined = 0.004;
const steps = 144;
const leastPeriods = 3;
/** Orders that a rectifier's ripple has, sound or not. */
export const tellingOrders = [1, 2, 3, 4, 6, 12] as const;
const mostSamples = 48_000;

/**
 * Reads a trace: times in seconds, ascending, and values in volts or amperes. The frequency is the one near what is
 * expected at which the telling orders carry the most; it needs three periods and a sampling of at least 24 a period.
 */
export function readTrace(times: readonly number[], values: readonly number[], expectedHertz: number): ReadTrace {
  if (times.length < 2)
    return { kind: 'refused', why: 'No two numbers stand side by side in this file: time and value, one line each.' };
  if (!(expectedHertz > 0)) return { kind: 'refused', why: 'At what rotor speed was it taken? Type it first.' };
  if (times.some((time, i) => i > 0 && !(time > times[i - 1]!)))
    return {
      kind: 'refused',
      why: 'The times in the first column don’t ascend: is it another column that holds them?',
    };
  const length = times.at(-1)! - times[0]!;
  const held = length * expectedHertz;
  if (held < leastPeriods)
    return {
      kind: 'refused',
      why: `The trace holds ${held.toFixed(1)} periods at this speed; ${leastPeriods} are needed. Take a longer one.`,
    };
  const perPeriod = times.length / held;
  if (perPeriod < 2 * mostOrder)
    return {
      kind: 'refused',
      why: `Only ${perPeriod.toFixed(0)} samples a period at this speed: order ${mostOrder} needs ${2 * mostOrder}. Sample faster.`,
    };
  // Never so few that the highest order is averaged away.
  const most = Math.floor(perPeriod / (8 * mostOrder));
  const thin = thinned(times, values, Math.max(1, Math.min(Math.floor(times.length / mostSamples), most)));
  const some = firstOf(thin, searchedPeriods / expectedHertz);
  const near = strongest(some, expectedHertz, reach, searched);
  const electricalHertz = strongest(thin, near, refined, searched / 8);
  const periods = Math.floor(length * electricalHertz);
  const period = folded(thin, electricalHertz, periods);
  return { kind: 'read', electricalHertz, periods, period, orders: ordersOf(period) };
}

interface Samples {
  readonly times: readonly number[];
  readonly values: readonly number[];
}

/** The mean period of a trace taken at the same times as another, whose frequency was found. */
export function periodAt(
  times: readonly number[],
  values: readonly number[],
  electricalHertz: number,
): readonly number[] {
  const periods = Math.floor((times.at(-1)! - times[0]!) * electricalHertz);
  return folded({ times, values }, electricalHertz, periods);
}

/** Neighbours averaged until few enough are left, `by` at a time. */
function thinned(times: readonly number[], values: readonly number[], by: number): Samples {
  const mean = (of: readonly number[], from: number) =>
    of.slice(from, from + by).reduce((sum, one) => sum + one, 0) / by;
  const starts = Array.from({ length: Math.floor(times.length / by) }, (_, i) => i * by);
  return { times: starts.map((from) => mean(times, from)), values: starts.map((from) => mean(values, from)) };
}

/** As much of a trace as lasts so many seconds. */
function firstOf({ times, values }: Samples, seconds: number): Samples {
  const end = times.findIndex((time) => time - times[0]! > seconds);
  return end < 0 ? { times, values } : { times: times.slice(0, end), values: values.slice(0, end) };
}

/** The frequency around `middle`, a share of it either way, at which the telling orders carry the most. */
function strongest({ times, values }: Samples, middle: number, share: number, tries: number): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const [first, last] = [times[0]!, times.at(-1)!];
  // A Hann window, so that the trace's ends don't speak.
  const weighed = values.map((value, i) => {
    return (value - mean) * (1 - Math.cos((2 * Math.PI * (times[i]! - first)) / (last - first)));
  });
  const power = (hertz: number): number => {
    let [cos, sin] = [0, 0];
    for (let i = 0; i < times.length; i++) {
      const angle = 2 * Math.PI * hertz * (times[i]! - first);
      cos += weighed[i]! * Math.cos(angle);
      sin += weighed[i]! * Math.sin(angle);
    }
    return cos * cos + sin * sin;
  };
  let best = { hertz: middle, power: -1 };
  for (let i = 0; i <= tries; i++) {
    const hertz = middle * (1 + share * ((2 * i) / tries - 1));
    const found = tellingOrders.reduce((sum, order) => sum + power(hertz * order), 0);
    if (found > best.power) best = { hertz, power: found };
  }
  return best.hertz;
}

/** Whole periods laid over one another at equal steps. */
function folded({ times, values }: Samples, hertz: number, periods: number): number[] {
  const sums = new Float64Array(steps);
  const counts = new Float64Array(steps);
  const first = times[0]!;
  for (let i = 0; i < times.length; i++) {
    const turns = (times[i]! - first) * hertz;
    if (turns >= periods) break;
    const at = Math.min(Math.floor((turns % 1) * steps), steps - 1);
    sums[at]! += values[i]!;
    counts[at]! += 1;
  }
  const known = [...sums].map((sum, at) => (counts[at]! > 0 ? sum / counts[at]! : Number.NaN));
  return known.map((value, at) => (Number.isNaN(value) ? between(known, at) : value));
}

/** A step that no sample fell on, from its neighbours round the period. */
function between(known: readonly number[], at: number): number {
  const beside = (by: number) => {
    for (let k = 1; k < known.length; k++) {
      const value = known[(at + by * k + known.length * k) % known.length]!;
      if (!Number.isNaN(value)) return value;
    }
    return 0;
  };
  return (beside(1) + beside(-1)) / 2;
}
