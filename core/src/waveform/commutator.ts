/** The speed of an armature from the ripple that its commutator leaves in the current. */
export type ReadSpeed =
  | {
      readonly kind: 'read';
      /** Of the armature. */
      readonly rpm: number;
      /** Standard uncertainty, of the frequency alone. */
      readonly sigma: number;
      readonly rippleHertz: number;
      /** How far the ripple stands out of the strongest thing beside it, as a ratio of amplitudes. */
      readonly standsOut: number;
    }
  | { readonly kind: 'refused'; readonly why: string };

/** Of the trace, the end, where it runs evenly: a share, and no longer than so many seconds, for it still gathers speed. */
const steadyShare = 0.3;
const steadySeconds = 0.1;
/** Speeds of an armature that are looked for, rpm. */
const slowest = 500;
const fastest = 30_000;
/** A ripple that stands out by less is none. */
const clear = 2;
const leastSamples = 64;
const mostSamples = 16_384;
/** An armature that is uneven sways current and ripple once a turn and in multiples of it: so many are its own. */
const mostSwaying = 6;
/** Samples of one ripple. */
const leastPerRipple = 4;

/**
 * Reads the speed from a trace of the current, times in seconds ascending: the strongest frequency of its steady end is
 * taken for the bars that pass. `ripplesPerTurn`: how many of them a turn of the armature leaves.
 */
export function commutatorSpeed(
  times: readonly number[],
  values: readonly number[],
  ripplesPerTurn: number,
): ReadSpeed {
  if (times.length < leastSamples) return { kind: 'refused', why: `Under ${leastSamples} samples: that is no trace.` };
  const { step, own } = steadyEnd(times, values);
  if (!(step > 0)) return { kind: 'refused', why: 'The times don’t ascend: is it another column that holds them?' };
  const seconds = step * own.length;
  const highest = Math.min((fastest / 60) * ripplesPerTurn, 1 / (leastPerRipple * step));
  const lowest = Math.max((slowest / 60) * ripplesPerTurn, 8 / seconds);
  if (!(highest > lowest))
    return {
      kind: 'refused',
      why: `${(1 / step).toFixed(0)} samples a second over ${seconds.toFixed(2)} s can’t show bars passing: sample faster or longer.`,
    };
  const weighed = windowed(own);
  const bin = 1 / (2 * seconds);
  const bins = Math.ceil((highest - lowest) / bin);
  const amplitudes = Float64Array.from({ length: bins }, (_, n) => amplitude(weighed, (lowest + n * bin) * step));
  const at = amplitudes.indexOf(Math.max(...amplitudes));
  // A Hann window is four bins wide; what lies at a multiple of the ripple is its own, and what a turn sways lies beside it.
  const hertz = lowest + at * bin;
  const near = (off: number, of: number, most: number) => {
    const times = Math.min(Math.round(Math.abs(off) / of), most);
    return Math.abs(Math.abs(off) - times * of) < 8 * bin;
  };
  const beside = (n: number) => {
    const [turn, off] = [hertz / ripplesPerTurn, (n - at) * bin];
    return !near(off, hertz, Infinity) && ![off, lowest + n * bin].some((one) => near(one, turn, mostSwaying));
  };
  const next = Math.max(...[...amplitudes].filter((_, n) => beside(n)), 1e-12);
  const standsOut = amplitudes[at]! / next;
  if (standsOut < clear)
    return {
      kind: 'refused',
      why: 'No ripple stands out of the rest: a longer trace, run up to its end, or faster samples. Or it sways too much with each turn: that shows by eye.',
    };
  const rippleHertz = peakOf(weighed, hertz, bin, step);
  // The least variance that a frequency in white noise can have (Rife and Boorstyn 1974), the noise as what stands beside.
  const sigma = Math.sqrt(6) / (Math.PI * seconds * standsOut);
  const rpm = (60 * rippleHertz) / ripplesPerTurn;
  return { kind: 'read', rpm, sigma: (60 * sigma) / ripplesPerTurn, rippleHertz, standsOut };
}

/** The end of a trace, where it runs evenly, and the seconds from sample to sample. */
export function steadyEnd(
  times: readonly number[],
  values: readonly number[],
): { readonly step: number; readonly own: readonly number[] } {
  const length = times.at(-1)! - times[0]!;
  const share = Math.min(steadyShare, steadySeconds / length);
  const from = Math.max(0, times.length - Math.max(leastSamples, Math.floor(times.length * share)));
  const count = Math.min(times.length - from, mostSamples);
  const step = (times[from + count - 1]! - times[from]!) / (count - 1);
  return { step, own: values.slice(from, from + count) };
}

/** Less a straight line. */
export function straightened(values: readonly number[]): Float64Array {
  const n = values.length;
  const mean = values.reduce((sum, one) => sum + one, 0) / n;
  const middle = (n - 1) / 2;
  const [along, squares] = values.reduce(
    ([a, s], one, i) => [a + (one - mean) * (i - middle), s + (i - middle) ** 2],
    [0, 0],
  );
  const slope = along / squares;
  return Float64Array.from(values, (one, i) => one - mean - slope * (i - middle));
}

/** Less a straight line, under a Hann window. */
const windowed = (values: readonly number[]): Float64Array =>
  straightened(values).map((one, i, { length }) => one * (1 - Math.cos((2 * Math.PI * i) / (length - 1))));

/** Of one frequency, in cycles a sample, by Goertzel's recursion (1958). */
function amplitude(samples: Float64Array, cycles: number): number {
  const turn = 2 * Math.cos(2 * Math.PI * cycles);
  let [a, b] = [0, 0];
  for (let n = 0; n < samples.length; n++) [a, b] = [samples[n]! + turn * a - b, a];
  return Math.sqrt(Math.max(a * a + b * b - turn * a * b, 0)) / samples.length;
}

/** The crest between bins, by a parabola. */
function peakOf(samples: Float64Array, hertz: number, bin: number, step: number): number {
  const [low, middle, high] = [-1, 0, 1].map((by) => amplitude(samples, (hertz + by * bin) * step)) as [
    number,
    number,
    number,
  ];
  const bend = low - 2 * middle + high;
  return bend === 0 ? hertz : hertz + (bin * (low - high)) / (2 * bend);
}
