import type { Fault } from '../../family.ts';

export const outputLeak = (): Fault[] => [
  {
    id: 'output-leak',
    species: 'output-leak',
    place: '',
    part: 'output',
    name: 'output insulator or capacitor leaking',
    weight: 1.5,
    severity: { unit: 'ohms', grades: [1, 30, 1e3, 3e4, 1e6] },
    edits: (ohms) => [{ element: 'output-leak', set: ohms }],
  },
];
