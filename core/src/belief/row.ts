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

/** A particle's place in a row. */
export interface Entry {
  readonly particle: number;
  readonly weight: number;
  readonly state: Gaussian;
}

/** A row from its entries, in any order. */
export function rowFrom(entries: readonly Entry[], sound: Gaussian): Row {
  const ascending = [...entries].sort((a, b) => a.particle - b.particle);
  const weights = Float64Array.from(ascending, ({ weight }) => weight);
  return {
    particles: Int32Array.from(ascending, ({ particle }) => particle),
    weights,
    states: ascending.map(({ state }) => state),
    chance: totalOf(weights),
    sound,
  };
}

export const entriesOf = ({ particles, weights, states }: Row): Entry[] =>
  Array.from(particles, (particle, at) => ({ particle, weight: weights[at]!, state: states[at]! }));

export const totalOf = (weights: Float64Array): number => weights.reduce((sum, weight) => sum + weight, 0);
