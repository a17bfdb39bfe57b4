import type { Item, Part } from '../family.ts';
import { hasGears, hasMagnets, hasSolenoid, type Starter } from './parameters.ts';

export function starterParts(machine: Starter): readonly Part[] {
  const solenoid = hasSolenoid(machine);
  const box = solenoid ? 'solenoid' : 'switch';
  return [
    ...(solenoid ? [{ id: 'pull-in', name: 'Pull-in winding', item: box }] : []),
    { id: 'hold-in', name: solenoid ? 'Hold-in winding' : 'Switch coil', item: box },
    { id: 'contacts', name: solenoid ? 'Solenoid contacts' : 'Switch contacts', item: box },
    ...(solenoid
      ? [
          { id: 'plunger', name: 'Plunger and its spring', item: box },
          { id: 'fork', name: 'Engaging fork', item: 'fork' },
        ]
      : []),
    { id: 'terminals', name: 'Terminals and motor lead', item: 'terminals' },
    hasMagnets(machine)
      ? { id: 'magnets', name: 'Magnets', item: 'frame' }
      : { id: 'field', name: 'Field coils', item: 'field' },
    { id: 'armature', name: 'Armature winding', item: 'armature' },
    { id: 'armature-shaft', name: 'Armature shaft and core', item: 'armature' },
    { id: 'commutator', name: 'Commutator', item: 'armature' },
    { id: 'brushes', name: 'Brushes', item: 'brushes' },
    { id: 'bushes', name: 'Bushes and bearings', item: 'bushes' },
    ...(hasGears(machine) ? [{ id: 'gears', name: 'Gears', item: 'gears' }] : []),
    { id: 'drive', name: solenoid ? 'Drive clutch' : 'Inertia drive', item: 'drive' },
    { id: 'pinion', name: 'Pinion', item: 'drive' },
    { id: 'case', name: 'Case and nose', item: 'case' },
    { id: 'bench-battery', name: 'The bench battery', item: 'bench-battery', ofBench: true as const },
  ];
}

/** Minutes are those of the work itself, the unit being open [from memory]. */
export const starterItems = (machine: Starter): readonly Item[] => [
  hasSolenoid(machine)
    ? { id: 'solenoid', name: 'Solenoid', minutes: 15 }
    : { id: 'switch', name: 'Starter switch', minutes: 10 },
  ...(hasSolenoid(machine) ? [{ id: 'fork', name: 'Engaging fork', minutes: 15 }] : []),
  { id: 'terminals', name: 'Terminals and motor lead', minutes: 20 },
  hasMagnets(machine)
    ? { id: 'frame', name: 'Frame with magnets', minutes: 25 }
    : { id: 'field', name: 'Field coils', minutes: 60 },
  { id: 'armature', name: 'Armature', minutes: 25 },
  { id: 'brushes', name: 'Brush set', minutes: 25 },
  { id: 'bushes', name: 'Bushes and bearings', minutes: 30 },
  ...(hasGears(machine) ? [{ id: 'gears', name: 'Gears', minutes: 20 }] : []),
  { id: 'drive', name: 'Drive', minutes: 20 },
  { id: 'case', name: 'Nose or end frame', minutes: 25 },
  { id: 'bench-battery', name: 'Bench battery', minutes: 10 },
];
