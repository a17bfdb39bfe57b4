import { type Gaussian, gaussianAbove, gaussianAlong, normalCdf, type PriorParameter } from '../numeric/index.ts';
import type { Dimensions } from './dimensions.ts';
import type { Particle } from './hypotheses.ts';

/** Half a cell, in its standard deviations: those of what is uniform within it. */
const edge: PriorParameter = { mean: Math.sqrt(3), sigma: 0 };
/** Less is as good as nothing. */
const least = 1e-9;
/** By dimension. */
const knownBelow: WeakMap<Gaussian, number>[] = [];

/**
 * How much likelier what was learnt is because some of what is uncertain goes no further than its bound: by how much of it
 * lies within after it and before (truncated normal, exact for straight lines). A severity is a fault only up to the edge
 * of its last cell, what is milder is a sound part's; and a sound part has no more of what has a bound.
 */
export function boundsFactor(
  { soundAbove }: Particle,
  { severity, bounded }: Dimensions,
  known: Gaussian,
  learnt: Gaussian,
): number {
  if (known === learnt) return 1;
  let factor = 1;
  const within = (dimension: number, most: PriorParameter): void => {
    if (isMoved(dimension, known, learnt))
      factor *= chanceBelow(learnt, dimension, most) / chanceBelow(known, dimension, most);
  };
  for (const { dimension, most } of bounded) within(dimension, most);
  for (const [slot, isBound] of soundAbove.entries()) if (isBound) within(severity[slot]!, edge);
  return factor;
}

/** What is known of a sound unit, and that it has no more than its bounds. */
export const withinBounds = ({ bounded }: Dimensions, state: Gaussian): Gaussian =>
  bounded.reduce(
    (known, { dimension, most: { mean, sigma } }) =>
      gaussianAbove(known, 0, { index: [dimension], value: [-1] }, -mean, sigma ** 2),
    state,
  );

/** Whether a component isn't what it was; one step that doesn't touch it leaves it as it is. */
const isMoved = (dimension: number, known: Gaussian, { newest }: Gaussian): boolean =>
  newest?.before !== known.newest || newest?.term[dimension] !== 0;

function chanceBelow(state: Gaussian, dimension: number, most: PriorParameter): number {
  const known = (knownBelow[dimension] ??= new WeakMap());
  let below = known.get(state);
  if (below === undefined) {
    const { mean, variance } = gaussianAlong(state, dimension);
    const sigma = Math.sqrt(Math.max(variance + most.sigma ** 2, 1e-12));
    known.set(state, (below = Math.max(normalCdf((most.mean - mean) / sigma), least)));
  }
  return below;
}
