import type { Fault } from '../../family.ts';

/**
 * No circuit at rest shows it: it keeps its prior until something runs, or until it is compared with a twin, so sound
 * readings alone never clear it.
 */
export const regulator = (): Fault[] => [
  {
    id: 'regulator',
    species: 'regulator',
    place: '',
    part: 'regulator',
    name: 'regulator at fault',
    weight: 20,
    severity: { unit: 'none', grades: [1] },
    edits: () => [],
  },
];
