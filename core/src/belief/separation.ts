import { type Gaussian, gaussianProject, normalCdf } from '../numeric/index.ts';
import type { Prediction } from './prediction.ts';

/** One hypothesis about one check: what it expects, in the form that outcomes are weighed with. */
export type View =
  | {
      readonly kind: 'number';
      readonly mean: number;
      readonly sigma: number;
      readonly over: number;
      readonly span: number;
    }
  | { readonly kind: 'chances'; readonly chances: readonly number[] };

export function viewOf(prediction: Prediction, state: Gaussian): View {
  if (prediction.kind === 'chances') return prediction;
  const { mean, variance } = gaussianProject(state, prediction.mean, prediction.slope);
  const sigma = Math.sqrt(variance + prediction.noiseVariance);
  return { kind: 'number', mean, sigma, over: 1 - normalCdf((prediction.top - mean) / sigma), span: prediction.span };
}

/**
 * How well one check tells two hypotheses apart, 0 to 1: the total variation between what they expect, over-range
 * an outcome of its own, numbers taken as normal with a common spread.
 */
export function separation(a: View, b: View): number {
  if (a.kind === 'chances' || b.kind === 'chances') {
    if (a.kind !== 'chances' || b.kind !== 'chances') return 0;
    return a.chances.reduce((sum, chance, i) => sum + Math.abs(chance - b.chances[i]!), 0) / 2;
  }
  const over = Math.abs(a.over - b.over);
  const apart = 2 * normalCdf(Math.abs(a.mean - b.mean) / Math.hypot(a.sigma, b.sigma) / Math.SQRT2) - 1;
  const shown = apart * (2 - a.over - b.over) + (1 - apart) * over;
  return (over + shown) / 2;
}
