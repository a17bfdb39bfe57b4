import type { Fault } from '../../family.ts';
import { hasSolenoid, type Starter } from '../parameters.ts';
import { fault, open } from './make.ts';

/** What throws the pinion and closes the circuit. */
export function solenoidFaults(machine: Starter): Fault[] {
  const solenoid = hasSolenoid(machine);
  const [coil, contacts] = solenoid ? ['hold-in winding', 'solenoid contacts'] : ['switch coil', 'switch contacts'];
  return [
    ...(solenoid
      ? [
          fault({
            id: 'pull-in-open',
            part: 'pull-in',
            name: 'pull-in winding open',
            weight: 2,
            edits: () => [{ element: 'pull-in', set: open }],
          }),
          fault({
            id: 'pull-in-turns',
            part: 'pull-in',
            name: 'pull-in winding with shorted turns',
            weight: 1,
            unit: 'turns',
            grades: [0.3, 0.5, 0.8],
            edits: (share) => [{ element: 'pull-in', scale: 1 - Math.min(share, 0.95) }],
          }),
        ]
      : []),
    fault({
      id: 'hold-in-open',
      part: 'hold-in',
      name: `${coil} open`,
      weight: 2,
      edits: () => [{ element: 'hold-in', set: open }],
    }),
    fault({
      id: 'hold-in-turns',
      part: 'hold-in',
      name: `${coil} with shorted turns or to case`,
      weight: 1,
      unit: 'turns',
      grades: [0.3, 0.5, 0.8],
      edits: (share) => [{ element: 'hold-in', scale: 1 - Math.min(share, 0.95) }],
    }),
    fault({
      id: 'contacts-burnt',
      part: 'contacts',
      name: `${contacts} burnt`,
      weight: 12,
      unit: 'ohms',
      grades: [0.006, 0.018, 0.055],
      edits: (ohms) => [{ element: 'closed-contacts', add: ohms }],
    }),
    fault({
      id: 'contacts-welded',
      part: 'contacts',
      name: `${contacts} welded`,
      weight: 1.5,
      edits: () => [{ element: 'contacts', set: 1e-3 }],
    }),
    ...(solenoid
      ? [
          fault({
            id: 'plunger-sticks',
            part: 'plunger',
            name: 'plunger sticks or its spring is gone',
            weight: 4,
            repair: 'clean the plunger and its bore, renew the return spring',
          }),
          fault({ id: 'fork-worn', part: 'fork', name: 'engaging fork worn or broken', weight: 1.5 }),
        ]
      : []),
  ];
}
