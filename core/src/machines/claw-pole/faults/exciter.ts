import type { Fault } from '../../family.ts';
import { type ClawPole, phases } from '../parameters.ts';

const each = (machine: ClawPole, make: (phase: string) => Fault): Fault[] =>
  machine.exciterDiodes ? phases.map(make) : [];
const at = (species: string, phase: string, what: string) => ({
  id: `${species}:${phase}`,
  species,
  place: phase,
  part: `exciter:${phase}`,
  name: `exciter diode ${phase} ${what}`,
});

export const exciterOpen = (machine: ClawPole): Fault[] =>
  each(machine, (phase) => ({
    ...at('exciter-open', phase, 'open'),
    weight: 1,
    severity: { unit: 'none', grades: [1] },
    edits: () => [
      { element: `exciter:${phase}`, open: true },
      { element: `exciter-leak:${phase}`, set: 1e10 },
    ],
  }));

export const exciterShorted = (machine: ClawPole): Fault[] =>
  each(machine, (phase) => ({
    ...at('exciter-shorted', phase, 'shorted'),
    weight: 0.7,
    severity: { unit: 'ohms', grades: [0.03, 0.3] },
    edits: (ohms) => [{ element: `exciter-leak:${phase}`, set: ohms }],
  }));
