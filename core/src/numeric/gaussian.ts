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

export interface Projection {
  readonly mean: number;
  readonly variance: number;
  /** Covariance · slope. */
  readonly gain: Float64Array;
}

const dot = (a: Float64Array, b: Float64Array): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
};

/** Where a linear observation `offset + slope · x` falls under a state: its mean and variance, without noise. */
export function gaussianProject(state: Gaussian, offset: number, slope: Float64Array): Projection {
  const n = slope.length;
  const gain = new Float64Array(n);
  for (let i = 0; i < n; i++) gain[i] = state.priorVariance[i]! * slope[i]!;
  for (let link: Gaussian | undefined = state; link?.term; link = link.before) {
    const share = dot(link.term, slope);
    if (share === 0) continue;
    for (let i = 0; i < n; i++) gain[i]! -= share * link.term[i]!;
  }
  return { mean: offset + dot(slope, state.mean), variance: Math.max(dot(slope, gain), 0), gain };
}

/** The state after observing `value` with independent noise (Kalman step; Kalman 1960). */
export function gaussianUpdate(state: Gaussian, projected: Projection, value: number, noiseVariance: number): Gaussian {
  const total = projected.variance + noiseVariance;
  const step = (value - projected.mean) / total;
  const root = Math.sqrt(total);
  const mean = new Float64Array(state.mean);
  const term = new Float64Array(mean.length);
  for (let i = 0; i < mean.length; i++) {
    mean[i]! += projected.gain[i]! * step;
    term[i] = projected.gain[i]! / root;
  }
  return { mean, priorVariance: state.priorVariance, before: state, term };
}
