import { type ReadSpeed, steadyEnd, straightened } from './commutator.ts';

/** What comes again with each turn of an armature, in the ripple and in the current itself. */
export interface Turns {
  /** So many were laid over one another. */
  readonly count: number;
  /** Size of the ripple at equal steps through a turn, two for each, over what most of them are. */
  readonly ripples: readonly number[];
  /** Places in a turn where it is all but gone. */
  readonly gaps: number;
  /** How far the current sways once a turn, over its mean. */
  readonly swell: number;
}
export type ReadTurns = ({ readonly kind: 'read' } & Turns) | { readonly kind: 'refused'; readonly why: string };

/** A ripple of less than this, of what most are, is gone. */
const gone = 0.5;
/** What two halves of the trace may differ by, in one ripple, before nothing is told of any. */
const mostNoise = 0.25;
/** A ripple larger than this, of the mean, is that of a trace without its mean. */
const mostRipple = 0.25;
const leastTurns = 4;
/** Ripples under the window that follows their size, and under that which follows the angle. */
const [sizeWindow, angleWindow] = [2, 24];

interface Complex {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

/**
 * Lays the turns at the steady end of a trace over one another, by the angle that the ripple's own phase tells: times in
 * seconds ascending, `speed` read from the same trace, `ripplesPerTurn` as it was read with.
 */
export function turnsOf(
  times: readonly number[],
  values: readonly number[],
  speed: ReadSpeed,
  ripplesPerTurn: number,
): ReadTurns {
  if (speed.kind === 'refused') return { kind: 'refused', why: speed.why };
  const { step, own } = steadyEnd(times, values);
  const mean = own.reduce((sum, one) => sum + one, 0) / own.length;
  const cycles = speed.rippleHertz * step;
  const turns = (own.length * cycles) / ripplesPerTurn;
  if (turns < leastTurns + angleWindow / ripplesPerTurn)
    return { kind: 'refused', why: `It holds ${turns.toFixed(1)} even turns: run it longer before the trace ends.` };
  const samples = straightened(own);
  const shifted = shiftedBy(samples, cycles);
  const coarse = smoothed(shifted, angleWindow / cycles);
  const fine = smoothed(shifted, sizeWindow / cycles);
  // The ripple's phase is the angle; cut where the window hangs over the end.
  const edge = Math.ceil(angleWindow / cycles / 2);
  const angle = ripplesPassed(coarse, cycles);
  const size = (n: number): number => {
    const along = Math.hypot(coarse.re[n]!, coarse.im[n]!);
    return (fine.re[n]! * coarse.re[n]! + fine.im[n]! * coarse.im[n]!) / along;
  };
  const whole = Math.floor((angle[own.length - 1 - edge]! - angle[edge]!) / ripplesPerTurn);
  if (whole < leastTurns)
    return { kind: 'refused', why: `It holds ${whole} even turns: run it longer before the trace ends.` };
  const steps = 2 * ripplesPerTurn;
  const halves = [0, 1].map(() => ({ sum: new Float64Array(steps), count: new Float64Array(steps) }));
  let [cosine, sine, taken] = [0, 0, 0];
  for (let n = edge; angle[n]! - angle[edge]! < whole * ripplesPerTurn; n++) {
    const passed = Math.max(angle[n]! - angle[edge]!, 0);
    const { sum, count } = halves[Math.floor(passed / ripplesPerTurn) % 2]!;
    const at = Math.floor(2 * passed) % steps;
    sum[at]! += size(n);
    count[at]!++;
    const turned = (2 * Math.PI * passed) / ripplesPerTurn;
    cosine += samples[n]! * Math.cos(turned);
    sine += samples[n]! * Math.sin(turned);
    taken++;
  }
  const profiles = halves.map(({ sum, count }) => [...sum].map((one, k) => one / count[k]!));
  const both = profiles[0]!.map((one, k) => (one + profiles[1]![k]!) / 2);
  const usual = [...both].sort((a, b) => a - b)[Math.floor(both.length / 2)]!;
  const noise = Math.sqrt(
    both.reduce((sum, _, k) => sum + (profiles[0]![k]! - profiles[1]![k]!) ** 2, 0) / both.length,
  );
  if (!(noise / 2 < mostNoise * usual))
    return { kind: 'refused', why: 'The ripple is too faint beside the noise to tell one bar from the next.' };
  if (usual > mostRipple * Math.abs(mean))
    return {
      kind: 'refused',
      why: 'It swings about zero: couple the oscilloscope for direct current, and zero the clamp.',
    };
  const ripples = both.map((one) => one / usual);
  return {
    kind: 'read',
    count: whole,
    ripples,
    gaps: ripples.filter((one, k) => one < gone && !(ripples.at(k - 1)! < gone)).length,
    swell: (2 * Math.hypot(cosine, sine)) / taken / Math.abs(mean),
  };
}

/** Down by so many cycles a sample. */
function shiftedBy(samples: Float64Array, cycles: number): Complex {
  const turn = (n: number) => 2 * Math.PI * cycles * n;
  return {
    re: samples.map((one, n) => one * Math.cos(turn(n))),
    im: samples.map((one, n) => -one * Math.sin(turn(n))),
  };
}

/** Under a Hann window of so many samples, wherever it is laid; its sides hang over the ends. */
function smoothed({ re, im }: Complex, samples: number): Complex {
  const side = Math.max(1, Math.floor(samples / 2));
  const weights = Float64Array.from({ length: 2 * side + 1 }, (_, k) => {
    return 1 + Math.cos((Math.PI * (k - side)) / (side + 1));
  });
  const total = weights.reduce((sum, one) => sum + one, 0);
  const under = (of: Float64Array) =>
    of.map((_, n) => {
      let sum = 0;
      for (let k = -side; k <= side; k++) sum += weights[k + side]! * (of[n + k] ?? 0);
      return sum / total;
    });
  return { re: under(re), im: under(im) };
}

/** Ripples that have passed since the first sample, whole and in part. */
function ripplesPassed({ re, im }: Complex, cycles: number): Float64Array {
  let [wound, last] = [0, Math.atan2(im[0]!, re[0]!)];
  return re.map((_, n) => {
    const phase = Math.atan2(im[n]!, re[n]!);
    wound += Math.round((last - phase) / (2 * Math.PI)) * 2 * Math.PI;
    last = phase;
    return cycles * n + (phase + wound) / (2 * Math.PI);
  });
}
