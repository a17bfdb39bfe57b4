import type { Fault } from '../../family.ts';
import type { Starter } from '../parameters.ts';
import { motorFaults } from './motor.ts';
import { runningGear } from './running-gear.ts';
import { solenoidFaults } from './solenoid.ts';

/** Weights throughout are from memory: how often each is met on the bench, relative to one another. */
export const starterFaults = (machine: Starter): readonly Fault[] =>
  [solenoidFaults, motorFaults, runningGear].flatMap((make) => make(machine));

/** Damage that comes in chains [common practice, no source; size from memory]. */
const chains: readonly (readonly [string, string, number])[] = [
  ['brush-worn', 'commutator-dirty', 5],
  ['bushes-worn', 'shaft-rubs', 5],
  ['contacts-welded', 'armature-turns', 4],
  ['contacts-welded', 'drive-seized', 3],
  ['drive-seized', 'armature-turns', 3],
  ['drive-slips', 'pinion-chipped', 3],
  ['contacts-burnt', 'terminals-burnt', 2],
  ['armature-turns', 'commutator-dirty', 2],
];

export function starterChain(a: Fault, b: Fault): number {
  const chain = chains.find(([x, y]) => (x === a.species && y === b.species) || (y === a.species && x === b.species));
  return chain ? chain[2] : 1;
}
