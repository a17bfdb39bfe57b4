import type { Fault } from '../../family.ts';
import { heldNewtonMetres } from '../motor.ts';
import { hasGears, hasSolenoid, type Starter } from '../parameters.ts';
import { fault, leakGrades } from './make.ts';

/** What turns, throws and holds, and how it is joined to the battery. */
export const runningGear = (machine: Starter): Fault[] => [
  fault({
    id: 'bushes-worn',
    part: 'bushes',
    name: 'bushes or bearings drag or have play',
    weight: 9,
    unit: 'times',
    grades: [1.8, 3, 5],
    edits: (times) => [{ element: 'drag', scale: times }],
  }),
  fault({
    id: 'shaft-rubs',
    part: 'armature-shaft',
    name: 'armature bent or rubbing',
    weight: 2,
    unit: 'times',
    grades: [2, 4, 8],
    // It rubs where it is bent: half of what it adds comes and goes with the turn [from memory].
    edits: (times) => [
      { element: 'drag', scale: times },
      { element: 'turn-drag', add: (times - 1) / (2 * times) },
    ],
  }),
  ...(hasGears(machine)
    ? [
        fault({
          id: 'gears-worn',
          part: 'gears',
          name: 'gears worn or a tooth gone',
          weight: 2.5,
          unit: 'times',
          grades: [1.3, 2],
          edits: (times) => [{ element: 'drag', scale: times }],
        }),
      ]
    : []),
  fault({
    id: 'drive-slips',
    part: 'drive',
    name: hasSolenoid(machine) ? 'drive clutch slips' : 'inertia drive sticks on its thread',
    weight: 8,
    unit: 'share',
    // Of the torque that it has held; the worst free run drags along, the best lets go only when held.
    grades: hasSolenoid(machine) ? [0.04, 0.18, 0.7] : [0.01],
    edits: (share) => [{ element: 'clutch', set: share * heldNewtonMetres(machine) }],
    ...(hasSolenoid(machine) ? {} : { repair: 'clean the thread dry, no oil; renew the drive if it still sticks' }),
  }),
  fault({
    id: 'drive-seized',
    part: 'drive',
    name: hasSolenoid(machine) ? 'drive clutch seized' : 'inertia drive’s spring broken',
    weight: 1.5,
  }),
  fault({ id: 'pinion-chipped', part: 'pinion', name: 'pinion chipped or worn', weight: 4 }),
  fault({ id: 'case-cracked', part: 'case', name: 'nose or end frame cracked', weight: 1.5 }),
  fault({
    id: 'terminals-burnt',
    part: 'terminals',
    name: 'terminal or motor lead burnt or loose',
    weight: 3,
    unit: 'ohms',
    grades: [0.005, 0.015, 0.045],
    edits: (ohms) => [{ element: 'joint', add: ohms }],
    repair: 'clean the joint to bright metal and tighten it; renew a burnt stud',
  }),
  fault({
    id: 'main-case',
    part: 'terminals',
    name: 'main terminal to case',
    weight: 0.7,
    unit: 'ohms',
    grades: leakGrades,
    edits: (ohms) => [{ element: 'main-case', set: ohms }],
  }),
  fault({
    id: 'bench-battery-weak',
    part: 'bench-battery',
    name: 'the bench battery weak',
    weight: 3,
    unit: 'times',
    grades: [1.6, 2.4, 4],
    edits: (times) => [
      { element: 'battery', scale: times },
      { element: 'cells', scale: 1 - 0.02 * times },
    ],
    repair: 'charge or change the bench battery and run it again',
  }),
];
