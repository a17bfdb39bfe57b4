/**
 * A small Gaussian state: mean (n) and covariance (n × n, row major). Values of this type are never
 * changed once made, so that many hypotheses can share one.
 */
export interface Gaussian {
  readonly mean: Float64Array;
  readonly covariance: Float64Array;
}

/** Independent components with the given standard deviations, mean zero. */
export function gaussianOf(sigmas: readonly number[]): Gaussian {
  const n = sigmas.length;
  const covariance = new Float64Array(n * n);
  sigmas.forEach((sigma, i) => (covariance[i * n + i] = sigma * sigma));
  return { mean: new Float64Array(n), covariance };
}

/** Where a linear observation `offset + slope · x` falls under a state: its mean and variance, without noise. */
export function gaussianProject(
  state: Gaussian,
  offset: number,
  slope: Float64Array,
): { mean: number; variance: number; gain: Float64Array } {
  const n = state.mean.length;
  const gain = new Float64Array(n);
  let mean = offset;
  for (let j = 0; j < n; j++) {
    const s = slope[j]!;
    if (s === 0) continue;
    mean += s * state.mean[j]!;
    for (let i = 0; i < n; i++) gain[i]! += s * state.covariance[i * n + j]!;
  }
  let variance = 0;
  for (let i = 0; i < n; i++) variance += slope[i]! * gain[i]!;
  return { mean, variance, gain };
}

/** The state after observing `value` with independent noise (Kalman step; Kalman 1960). */
export function gaussianUpdate(
  state: Gaussian,
  projected: { mean: number; variance: number; gain: Float64Array },
  value: number,
  noiseVariance: number,
): Gaussian {
  const n = state.mean.length;
  const { gain } = projected;
  const total = projected.variance + noiseVariance;
  const step = (value - projected.mean) / total;
  const mean = new Float64Array(state.mean);
  const covariance = new Float64Array(state.covariance);
  for (let i = 0; i < n; i++) {
    const g = gain[i]!;
    if (g === 0) continue;
    mean[i]! += g * step;
    const scaled = g / total;
    for (let j = 0; j < n; j++) covariance[i * n + j]! -= scaled * gain[j]!;
  }
  return { mean, covariance };
}
