import type { OnVehicle } from '../family.ts';
import type { Starter } from './parameters.ts';
import { starterFaults } from './faults/index.ts';

type Key = readonly [
  cranks: number,
  slow: number,
  click: number,
  chatter: number,
  silent: number,
  spins: number,
  grinds: number,
];

/** What the key does, by what is wrong: chances from memory. */
const key: Readonly<Record<string, Key>> = {
  'pull-in-open': [0.02, 0.01, 0.05, 0.02, 0.89, 0.005, 0.005],
  'pull-in-turns': [0.75, 0.05, 0.05, 0.08, 0.06, 0.005, 0.005],
  'hold-in-open': [0.02, 0.02, 0.05, 0.89, 0.01, 0.005, 0.005],
  'hold-in-turns': [0.65, 0.05, 0.04, 0.22, 0.03, 0.005, 0.005],
  'contacts-burnt': [0.2, 0.3, 0.46, 0.01, 0.02, 0.005, 0.005],
  'contacts-welded': [0.6, 0.05, 0.1, 0.05, 0.05, 0.1, 0.05],
  'plunger-sticks': [0.35, 0.03, 0.25, 0.05, 0.25, 0.02, 0.05],
  'fork-worn': [0.25, 0.01, 0.03, 0.01, 0.02, 0.53, 0.15],
  'field-open': [0.01, 0.01, 0.95, 0.01, 0.01, 0.005, 0.005],
  'field-turns': [0.55, 0.4, 0.02, 0.01, 0.01, 0.005, 0.005],
  'field-case': [0.4, 0.4, 0.15, 0.02, 0.02, 0.005, 0.005],
  'magnets-weak': [0.45, 0.48, 0.03, 0.02, 0.01, 0.005, 0.005],
  'armature-turns': [0.3, 0.62, 0.05, 0.01, 0.01, 0.005, 0.005],
  'armature-open': [0.25, 0.35, 0.37, 0.01, 0.01, 0.005, 0.005],
  'armature-core': [0.35, 0.4, 0.2, 0.02, 0.02, 0.005, 0.005],
  'brush-worn': [0.15, 0.32, 0.5, 0.01, 0.01, 0.005, 0.005],
  'commutator-dirty': [0.3, 0.55, 0.12, 0.01, 0.01, 0.005, 0.005],
  'bushes-worn': [0.25, 0.65, 0.06, 0.01, 0.01, 0.005, 0.015],
  'shaft-rubs': [0.15, 0.65, 0.16, 0.01, 0.01, 0.005, 0.015],
  'gears-worn': [0.6, 0.1, 0.05, 0.01, 0.01, 0.03, 0.2],
  'drive-slips': [0.25, 0.02, 0.01, 0.01, 0.01, 0.65, 0.05],
  'drive-seized': [0.6, 0.1, 0.05, 0.01, 0.01, 0.03, 0.2],
  'pinion-chipped': [0.45, 0.01, 0.03, 0.005, 0.005, 0.15, 0.35],
  'case-cracked': [0.6, 0.05, 0.05, 0.01, 0.01, 0.03, 0.25],
  'terminals-burnt': [0.35, 0.4, 0.21, 0.01, 0.02, 0.005, 0.005],
  'main-case': [0.5, 0.3, 0.1, 0.03, 0.06, 0.005, 0.005],
};

/** Every species as it shows while the starter is still on its engine. */
export const starterOnVehicle = (machine: Starter): readonly OnVehicle[] =>
  starterFaults(machine)
    .filter(({ part }) => part !== 'bench-battery')
    .map(({ species, name }): OnVehicle => ({
      id: species,
      species,
      name,
      share: 1,
      output: 1,
      // No contact closes: all else is what the motor does while it runs.
      ...(species === 'pull-in-open' ? { edits: [{ element: 'contacts', set: 1e7 }] } : {}),
      ...(key[species] ? { odds: { 'key-in-start': key[species] } } : {}),
    }));
