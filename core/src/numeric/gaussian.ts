import { normalCdf, normalPdf } from './normal.ts';

/**
 * A Gaussian state: a diagonal prior less one rank-one term for every observation made, kept as a chain.
 * Never changed once made, so that many hypotheses can share one; a step costs one vector, not a matrix.
 * Covariance = diag(sigma²) − Σ k·kᵀ over the chain.
 */
export interface Gaussian {
  readonly mean: Float64Array;
  readonly priorVariance: Float64Array;
  readonly before: Gaussian | undefined;
  /** The rank-one term of the newest observation; undefined at the root. */
  readonly term: Float64Array | undefined;
}

/** Independent components with the given standard deviations, mean zero. */
export function gaussianOf(sigmas: readonly number[]): Gaussian {
  return {
    mean: new Float64Array(sigmas.length),
    priorVariance: Float64Array.from(sigmas, (sigma) => sigma * sigma),
    before: undefined,
    term: undefined,
  };
}

/** A sparse vector, its components ascending: most readings follow few of them. */
export interface Slope {
  readonly index: Int32Array;
  readonly value: Float64Array;
}

/** The components larger than `least`. */
export function slopeOf(dense: Float64Array, least: number): Slope {
  let count = 0;
  for (let i = 0; i < dense.length; i++) if (Math.abs(dense[i]!) > least) count++;
  const index = new Int32Array(count);
  const value = new Float64Array(count);
  for (let i = 0, n = 0; i < dense.length; i++) {
    if (Math.abs(dense[i]!) <= least) continue;
    index[n] = i;
    value[n++] = dense[i]!;
  }
  return { index, value };
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
  for (let link: Gaussian | undefined = state; link?.term; link = link.before) variance -= dot(slope, link.term) ** 2;
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
  for (let link: Gaussian | undefined = state; link?.term; link = link.before)
    covariance -= dot(a, link.term) * dot(b, link.term);
  return covariance;
}

/** Mean and variance of one component. */
export function gaussianAlong(state: Gaussian, component: number): { mean: number; variance: number } {
  let variance = state.priorVariance[component]!;
  for (let link: Gaussian | undefined = state; link?.term; link = link.before) variance -= link.term[component]! ** 2;
  return { mean: state.mean[component]!, variance: Math.max(variance, 0) };
}

/** The state with one component as before any observation, of another standard deviation: nothing of it is known. */
export function gaussianForget(state: Gaussian, component: number, sigma: number): Gaussian {
  const priorVariance = state.priorVariance.with(component, sigma * sigma);
  const forget = (link: Gaussian): Gaussian => ({
    mean: link.mean.with(component, 0),
    priorVariance,
    before: link.before && forget(link.before),
    term: link.term?.with(component, 0),
  });
  return forget(state);
}

/** The state after observing `offset + slope · x` as `value` with independent noise (Kalman step; Kalman 1960). */
export function gaussianUpdate(
  state: Gaussian,
  offset: number,
  slope: Slope,
  value: number,
  noiseVariance: number,
): Gaussian {
  const { term, total } = along(state, slope, noiseVariance);
  return learnt(state, term, (value - offset - dot(slope, state.mean)) / total, 1 / Math.sqrt(total));
}

/** What narrows less than this share of an observation's variance isn't worth a link of the chain. */
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
): Gaussian {
  const { term, total } = along(state, slope, noiseVariance);
  const sigma = Math.sqrt(total);
  const cut = (bound - offset - dot(slope, state.mean)) / sigma;
  const shift = normalPdf(cut, 0, 1) / (1 - normalCdf(cut));
  const narrowed = shift * (shift - cut);
  if (!(narrowed > leastNarrowed)) return state;
  return learnt(state, term, shift / sigma, Math.sqrt(narrowed) / sigma);
}

/** How all components go with an observation (their covariance with it), and the variance of that observation. */
function along(state: Gaussian, slope: Slope, noiseVariance: number): { term: Float64Array; total: number } {
  const n = state.mean.length;
  const term = new Float64Array(n);
  slope.index.forEach((at, i) => (term[at] = state.priorVariance[at]! * slope.value[i]!));
  for (let link: Gaussian | undefined = state; link?.term; link = link.before) {
    const share = dot(slope, link.term);
    if (share !== 0) for (let i = 0; i < n; i++) term[i]! -= share * link.term[i]!;
  }
  return { term, total: Math.max(dot(slope, term), 0) + noiseVariance };
}

/** The mean moved by so many of the term, and a link with the term scaled; takes the term over. */
function learnt(before: Gaussian, term: Float64Array, step: number, scale: number): Gaussian {
  const mean = new Float64Array(before.mean);
  for (let i = 0; i < mean.length; i++) {
    mean[i]! += term[i]! * step;
    term[i]! *= scale;
  }
  return { mean, priorVariance: before.priorVariance, before, term };
}
