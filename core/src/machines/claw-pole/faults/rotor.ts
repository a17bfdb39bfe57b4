import type { Fault } from '../../family.ts';
import { turnsLeftAt } from '../parameters.ts';

const at = (species: string, what: string) => ({
  id: species,
  species,
  place: '',
  part: 'rotor',
  name: `rotor winding ${what}`,
});

export const rotorOpen = (): Fault[] => [
  {
    ...at('rotor-open', 'open'),
    weight: 3,
    severity: { unit: 'none', grades: [1] },
    edits: () => [{ element: 'rotor', set: 1e9 }],
  },
];

/** Severity: the share of turns out of the circuit. */
export const rotorTurns = (): Fault[] => [
  {
    ...at('rotor-turns', 'with shorted turns'),
    weight: 1.5,
    severity: { unit: 'turns', grades: [0.1, 0.2, 0.4, 0.8] },
    edits: (share) => [{ element: 'rotor', scale: turnsLeftAt(share) }],
  },
];

export const rotorCore = (): Fault[] => [
  {
    ...at('rotor-core', 'to core'),
    weight: 1.5,
    severity: { unit: 'ohms', grades: [1, 100, 1e4, 1e6], soundAbove: true },
    edits: (ohms) => [{ element: 'rotor-core', set: ohms }],
  },
];
