import { type Gaussian, gaussianAlong, normalCdf } from '../numeric/index.ts';
import type { Dimensions } from './dimensions.ts';
import type { Particle } from './hypotheses.ts';

/** Half a cell, in its standard deviations: those of what is uniform within it. */
const edge = Math.sqrt(3);
/** Less is as good as nothing. */
const least = 1e-9;
/** By severity. */
const knownBelow: WeakMap<Gaussian, number>[] = [];

/**
 * How much likelier what was learnt is because a severity is a fault only up to the edge of its last cell: by how much of
 * it lies within after it and before (truncated normal, exact for straight lines). What is milder is a sound part's.
 */
export const boundsFactor = (particle: Particle, dimensions: Dimensions, known: Gaussian, learnt: Gaussian): number =>
  known === learnt ? 1 : within(particle, dimensions, learnt) / within(particle, dimensions, known);

/** The chance that the severities of a particle lie where they are faults at all. */
function within({ soundAbove }: Particle, { severity }: Dimensions, state: Gaussian): number {
  return soundAbove.reduce((chance, bound, slot) => {
    if (!bound) return chance;
    const known = (knownBelow[slot] ??= new WeakMap());
    let below = known.get(state);
    if (below === undefined) {
      const { mean, variance } = gaussianAlong(state, severity[slot]!);
      known.set(state, (below = Math.max(normalCdf((edge - mean) / Math.sqrt(Math.max(variance, 1e-12))), least)));
    }
    return chance * below;
  }, 1);
}
