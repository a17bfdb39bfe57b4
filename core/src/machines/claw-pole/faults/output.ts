import type { Fault } from '../../family.ts';

export const outputLeak = (): Fault[] => [
  {
    id: 'output-leak',
    species: 'output-leak',
    place: '',
    part: 'output',
    name: 'output insulator or capacitor leaking',
    weight: 1.5,
    severity: { unit: 'ohms', grades: [1.5, 150, 1.5e4, 1.5e6], soundAbove: true },
    edits: (ohms) => [{ element: 'output-leak', set: ohms }],
  },
];
