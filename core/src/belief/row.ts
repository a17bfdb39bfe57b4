import type { Gaussian } from '../numeric/index.ts';

/** The particles of one build that still stand. */
export interface Row {
  /** Places in the case's list, ascending; the arrays below go by them. */
  readonly particles: Int32Array;
  readonly weights: Float64Array;
  readonly states: readonly Gaussian[];
  /** How likely the build is: the sum of the weights. */
  readonly chance: number;
  /** The state of a unit with nothing wrong, also when that stands no more. */
  readonly sound: Gaussian;
}

/** A row from a weight for each particle, all in one state. */
export function rowOf(weights: Float64Array, state: Gaussian): Row {
  const particles = Int32Array.from(weights.keys()).filter((p) => weights[p]! > 0);
  return {
    particles,
    weights: weights.filter((weight) => weight > 0),
    states: Array.from(particles, () => state),
    chance: totalOf(weights),
    sound: state,
  };
}

export const totalOf = (weights: Float64Array): number => weights.reduce((sum, weight) => sum + weight, 0);
