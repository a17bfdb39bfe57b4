import { normalCdf, normalPdf } from './normal.ts';

/**
 * A Gaussian state: a diagonal prior less one rank-one term for every observation made, kept as a chain.
 * Never changed once made, so that many hypotheses can share one; a step costs one vector, not a matrix.
 * Covariance = diag(sigma²) − Σ k·kᵀ over the chain.
 */
export interface Gaussian {
  readonly mean: Float64Array;
  readonly priorVariance: Float64Array;
  /** The newest observation; undefined before the first. */
  readonly newest: Step | undefined;
}

/** What one observation did to a state. Holds no state, so that those nobody asks for any more can be let go. */
export interface Step {
  /** The rank-one term k. */
  readonly term: Float64Array;
  /** How many of it the mean moved by. */
  readonly moved: number;
  readonly before: Step | undefined;
  /** What it was learnt from, as whoever learnt it put it. */
  readonly of: object | undefined;
}

/** Independent components with the given standard deviations, mean zero. */
export function gaussianOf(sigmas: readonly number[]): Gaussian {
  return {
    mean: new Float64Array(sigmas.length),
    priorVariance: Float64Array.from(sigmas, (sigma) => sigma * sigma),
    newest: undefined,
  };
}

/**
 * A sparse vector, its components ascending: most readings follow few of them. Plain arrays, since a typed one of so few
 * weighs four times what it holds, and tens of thousands are kept.
 */
export interface Slope {
  readonly index: readonly number[];
  readonly value: readonly number[];
}

/** The components larger than `least`. */
export function slopeOf(dense: Float64Array, least: number): Slope {
  const index: number[] = [];
  for (let i = 0; i < dense.length; i++) if (Math.abs(dense[i]!) > least) index.push(i);
  return { index, value: index.map((i) => dense[i]!) };
}

/** The components whose index is wanted. */
export function slopePart({ index, value }: Slope, wanted: (i: number) => boolean): Slope {
  return { index: index.filter(wanted), value: value.filter((_, at) => wanted(index[at]!)) };
}

function dot({ index, value }: Slope, dense: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < index.length; i++) sum += value[i]! * dense[index[i]!]!;
  return sum;
}

/** Where a linear observation `offset + slope · x` falls under a state: its mean and variance, without noise. */
export function gaussianProject(state: Gaussian, offset: number, slope: Slope): { mean: number; variance: number } {
  const { index, value } = slope;
  let variance = 0;
  for (let i = 0; i < index.length; i++) variance += state.priorVariance[index[i]!]! * value[i]! * value[i]!;
  for (let one = state.newest; one; one = one.before) variance -= dot(slope, one.term) ** 2;
  return { mean: offset + dot(slope, state.mean), variance: Math.max(variance, 0) };
}

/** How two linear observations go together under a state: their covariance, without noise. */
export function gaussianCovariance(state: Gaussian, a: Slope, b: Slope): number {
  let covariance = 0;
  for (let i = 0, j = 0; i < a.index.length && j < b.index.length;) {
    const apart = a.index[i]! - b.index[j]!;
    if (apart === 0) covariance += state.priorVariance[a.index[i]!]! * a.value[i]! * b.value[j]!;
    if (apart <= 0) i++;
    if (apart >= 0) j++;
  }
  for (let one = state.newest; one; one = one.before) covariance -= dot(a, one.term) * dot(b, one.term);
  return covariance;
}

/** Mean and variance of one component. */
export function gaussianAlong(state: Gaussian, component: number): { mean: number; variance: number } {
  let variance = state.priorVariance[component]!;
  for (let one = state.newest; one; one = one.before) variance -= one.term[component]! ** 2;
  return { mean: state.mean[component]!, variance: Math.max(variance, 0) };
}

/**
 * States with one component as before any observation, of another standard deviation: nothing of it is known. What they
 * had in common they have in common.
 */
export function gaussiansForget(states: readonly Gaussian[], component: number, sigma: number): Gaussian[] {
  const forgot = new Map<object, object>();
  const once = <T extends object>(of: T, forget: () => T): T => {
    const known = forgot.get(of) ?? forget();
    forgot.set(of, known);
    return known as T;
  };
  const without = (dense: Float64Array) => once(dense, () => dense.with(component, 0));
  const steps = (newest: Step | undefined): Step | undefined =>
    newest &&
    once(newest, () => ({ ...newest, term: without(newest.term), before: steps(newest.before), of: undefined }));
  return states.map((state) =>
    once(state, () => ({
      mean: without(state.mean),
      priorVariance: once(state.priorVariance, () => state.priorVariance.with(component, sigma * sigma)),
      newest: steps(state.newest),
    })),
  );
}

/** The state as it was before one of its steps, and all since. */
export function gaussianBefore(state: Gaussian, step: Step): Gaussian {
  const mean = new Float64Array(state.mean);
  for (let one = state.newest; one && one !== step.before; one = one.before)
    for (let i = 0; i < mean.length; i++) mean[i]! -= one.term[i]! * one.moved;
  return { mean, priorVariance: state.priorVariance, newest: step.before };
}

/**
 * The state after observing `offset + slope · x` as `value` with independent noise (Kalman step; Kalman 1960). The same
 * object where nothing moves what was observed.
 */
export function gaussianUpdate(
  state: Gaussian,
  offset: number,
  slope: Slope,
  value: number,
  noiseVariance: number,
  of?: object,
): Gaussian {
  if (slope.index.length === 0) return state;
  const { term, total } = along(state, slope, noiseVariance);
  return learnt(state, term, (value - offset - dot(slope, state.mean)) / total, 1 / Math.sqrt(total), of);
}

/** What narrows less than this share of an observation's variance isn't worth an observation. */
const leastNarrowed = 0.02;

/**
 * The state after observing no more than that `offset + slope · x` with independent noise lies above `bound`: mean and
 * variance of what was observed become those of a normal cut off there (Johnson, Kotz and Balakrishnan, Continuous
 * Univariate Distributions, 13.10; place from memory). The same object where that tells next to nothing.
 */
export function gaussianAbove(
  state: Gaussian,
  offset: number,
  slope: Slope,
  bound: number,
  noiseVariance: number,
  of?: object,
): Gaussian {
  const { term, total } = along(state, slope, noiseVariance);
  const sigma = Math.sqrt(total);
  const cut = (bound - offset - dot(slope, state.mean)) / sigma;
  const shift = normalPdf(cut, 0, 1) / (1 - normalCdf(cut));
  const narrowed = shift * (shift - cut);
  if (!(narrowed > leastNarrowed)) return state;
  return learnt(state, term, shift / sigma, Math.sqrt(narrowed) / sigma, of);
}

/** How all components go with an observation (their covariance with it), and the variance of that observation. */
function along(state: Gaussian, slope: Slope, noiseVariance: number): { term: Float64Array; total: number } {
  const n = state.mean.length;
  const term = new Float64Array(n);
  slope.index.forEach((at, i) => (term[at] = state.priorVariance[at]! * slope.value[i]!));
  for (let one = state.newest; one; one = one.before) {
    const share = dot(slope, one.term);
    if (share !== 0) for (let i = 0; i < n; i++) term[i]! -= share * one.term[i]!;
  }
  return { term, total: Math.max(dot(slope, term), 0) + noiseVariance };
}

/** The mean moved by so many of the term, and an observation with the term scaled; takes the term over. */
function learnt(state: Gaussian, term: Float64Array, step: number, scale: number, of: object | undefined): Gaussian {
  const mean = new Float64Array(state.mean);
  for (let i = 0; i < mean.length; i++) {
    mean[i]! += term[i]! * step;
    term[i]! *= scale;
  }
  const newest = { term, moved: step / scale, before: state.newest, of };
  return { mean, priorVariance: state.priorVariance, newest };
}
