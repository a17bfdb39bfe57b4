import type { Fault } from '../../family.ts';
import { type ClawPole, phases, windingName } from '../parameters.ts';

const each = (machine: ClawPole, species: string, what: string, rest: (phase: string) => Rest): Fault[] =>
  phases.map((phase) => ({
    id: `${species}:${phase}`,
    species,
    place: phase,
    part: `stator:${phase}`,
    name: `${windingName(machine, phase)} ${what}`,
    ...rest(phase),
  }));
type Rest = Pick<Fault, 'weight' | 'severity' | 'edits'>;

export const statorOpen = (machine: ClawPole): Fault[] =>
  each(machine, 'stator-open', 'open', (phase) => ({
    weight: 1,
    severity: { unit: 'none', grades: [1] },
    edits: () => [{ element: `winding:${phase}`, set: 1e9 }],
  }));

/** Severity: the share of the phase's turns out of the circuit. */
export const statorTurns = (machine: ClawPole): Fault[] =>
  each(machine, 'stator-turns', 'with shorted turns', (phase) => ({
    weight: 1,
    severity: { unit: 'turns', grades: [0.05, 0.15, 0.45] },
    edits: (share) => [{ element: `winding:${phase}`, scale: 1 - Math.min(share, 0.99) }],
  }));

/**
 * Severity: ohms to the core. Which phase it is can't be told while they hang together, and changes nothing: the leak
 * is put to a third on each.
 */
export const statorCore = (): Fault[] => [
  {
    id: 'stator-core',
    species: 'stator-core',
    place: '',
    part: 'stator-insulation',
    name: 'stator winding to core',
    weight: 3,
    severity: { unit: 'ohms', grades: [0.3, 30, 3e3, 3e5], soundAbove: true },
    edits: (ohms) => phases.map((phase) => ({ element: `core:${phase}`, set: phases.length * ohms })),
  },
];
