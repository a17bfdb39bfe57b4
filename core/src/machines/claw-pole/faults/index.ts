import type { Fault } from '../../family.ts';
import type { ClawPole } from '../parameters.ts';
import { brushContact, brushWorn, ringsDirty, ringsGouged, ringsWorn } from './brushes.ts';
import { diodeLeaky, diodeOpen, diodeShorted } from './diode.ts';
import { exciterOpen, exciterShorted } from './exciter.ts';
import { outputLeak } from './output.ts';
import { rotorCore, rotorOpen, rotorTurns } from './rotor.ts';
import { statorCore, statorOpen, statorTurns } from './stator.ts';
import { regulator } from './regulator.ts';
import { runningGear } from './running-gear.ts';

/** Weights throughout are from memory: how often each is met on the bench, relative to one another. */
const catalogue: readonly ((machine: ClawPole) => Fault[])[] = [
  diodeOpen,
  diodeShorted,
  diodeLeaky,
  exciterOpen,
  exciterShorted,
  outputLeak,
  rotorOpen,
  rotorTurns,
  rotorCore,
  brushWorn,
  brushContact,
  ringsDirty,
  ringsGouged,
  ringsWorn,
  statorOpen,
  statorTurns,
  statorCore,
  regulator,
  runningGear,
];

export const clawPoleFaults = (machine: ClawPole): readonly Fault[] => catalogue.flatMap((make) => make(machine));

/** Damage that comes in chains: a worn brush gouges its ring, a short cooks its phase [common practice, no source; size from memory]. */
const chains: readonly (readonly [string, string, number])[] = [
  ['brush-worn', 'rings-dirty', 3],
  ['brush-worn', 'rings-gouged', 8],
  ['brush-contact', 'rings-dirty', 3],
  ['brush-contact', 'rings-gouged', 5],
  ['brush-worn', 'rings-worn', 4],
  ['bearing-worn', 'shaft-damaged', 4],
  ['diode-shorted', 'stator-turns', 3],
  ['diode-shorted', 'diode-open', 3],
  ['rotor-turns', 'regulator', 2],
];

export function clawPoleChain(a: Fault, b: Fault): number {
  const chain = chains.find(([x, y]) => (x === a.species && y === b.species) || (y === a.species && x === b.species));
  return chain ? chain[2] : 1;
}
