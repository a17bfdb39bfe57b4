import type { Fault } from '../../family.ts';
import { hasMagnets, type Starter } from '../parameters.ts';
import { fault, leakGrades, open } from './make.ts';

/** What makes torque. */
export const motorFaults = (machine: Starter): Fault[] => [
  ...(hasMagnets(machine) ? magnets() : field()),
  fault({
    id: 'armature-turns',
    part: 'armature',
    name: 'armature with shorted coils',
    weight: 4,
    unit: 'none',
    grades: [1, 2, 4],
    edits: (coils) => [
      { element: 'shorted-coils', add: coils },
      { element: 'armature', scale: 1 - coils / 25 },
    ],
  }),
  fault({
    id: 'armature-open',
    part: 'armature',
    name: 'armature coil open',
    weight: 3,
    // A wave winding has two ways through; one is lost while the bar stands between the brushes.
    edits: () => [
      { element: 'armature', scale: 1.8 },
      { element: 'open-coils', add: 1 },
    ],
  }),
  fault({
    id: 'armature-core',
    part: 'armature',
    name: 'armature winding to core',
    weight: 2.5,
    unit: 'ohms',
    grades: leakGrades,
    edits: (ohms) => [{ element: 'armature-core', set: ohms }],
  }),
  fault({
    id: 'brush-worn',
    part: 'brushes',
    name: 'brushes worn or stuck',
    weight: 14,
    unit: 'ohms',
    grades: [0.008, 0.05, 10, 1e6],
    edits: (ohms) => [{ element: 'brushes', add: ohms }],
  }),
  fault({
    id: 'commutator-dirty',
    part: 'commutator',
    name: 'commutator dirty, burnt or out of round',
    weight: 7,
    unit: 'ohms',
    grades: [0.004, 0.012, 0.036],
    // Dirt, burnt bars and run-out: not alike all round [half of it, from memory].
    edits: (ohms) => [
      { element: 'brushes', add: ohms },
      { element: 'turn-ohms', add: ohms / 2 },
    ],
    repair: 'turn the commutator, undercut the mica',
  }),
  ...(machine.commutatorLeastMillimetres === undefined
    ? []
    : [fault({ id: 'commutator-worn', part: 'commutator', name: 'commutator below its least diameter', weight: 1 })]),
];

const field = (): Fault[] => [
  fault({
    id: 'field-open',
    part: 'field',
    name: 'field coils open',
    weight: 1.5,
    edits: () => [{ element: 'field', set: open }],
  }),
  fault({
    id: 'field-turns',
    part: 'field',
    name: 'field coils with shorted turns',
    weight: 1.5,
    unit: 'turns',
    grades: [0.2, 0.35, 0.6],
    edits: (share) => [
      { element: 'field-turns', scale: 1 - Math.min(share, 0.95) },
      { element: 'field', scale: 1 - Math.min(share, 0.95) },
    ],
  }),
  fault({
    id: 'field-case',
    part: 'field',
    name: 'field coils to case',
    weight: 2,
    unit: 'ohms',
    grades: leakGrades,
    edits: (ohms) => [{ element: 'field-case', set: ohms }],
  }),
];

const magnets = (): Fault[] => [
  fault({
    id: 'magnets-weak',
    part: 'magnets',
    name: 'magnets weak, cracked or loose',
    weight: 3,
    unit: 'share',
    grades: [0.15, 0.25, 0.4],
    edits: (share) => [{ element: 'flux', scale: 1 - Math.min(share, 0.9) }],
  }),
];
