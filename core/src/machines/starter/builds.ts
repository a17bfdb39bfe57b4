import type { Build } from '../build.ts';
import type { Nuisance } from '../family.ts';
import type { Starter } from './parameters.ts';

/** A plate says how a starter is built; what isn't known of it is a matter of degree. */
export const starterBuilds = (_: Starter): readonly Build[] => [{ id: 'as plated', name: 'as plated', prior: 1 }];

/** The spreads of sound starters, relative [from memory, chosen wide]. */
export const starterNuisances = (): readonly Nuisance[] => [
  { name: 'celsius', sigma: 4 },
  { name: 'motor', sigma: 0.12 },
  { name: 'brushes', sigma: 0.3 },
  { name: 'contacts', sigma: 0.4 },
  { name: 'flux', sigma: 0.08 },
  { name: 'drag', sigma: 0.22 },
  { name: 'saturation', sigma: 0.25 },
  { name: 'pull-in', sigma: 0.1 },
  { name: 'hold-in', sigma: 0.1 },
  { name: 'cells', sigma: 0.012 },
  { name: 'battery', sigma: 0.25 },
  ...['contacts', 'main-case', 'field-case', 'armature-core'].map((place) => ({
    name: `insulation-${place}`,
    sigma: 1.2,
  })),
];
