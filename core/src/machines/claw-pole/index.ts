import type { AssemblyState } from '../assembly.ts';
import type { Family } from '../family.ts';
import {
  clawPoleStrewnApart,
  type ClawPoleBuild,
  clawPoleBuilds,
  clawPoleContrary,
  clawPoleNuisances,
} from './builds.ts';
import { clawPoleChecks, outputPoint } from './checks/index.ts';
import { type Assembly, clawPoleNetwork } from './circuit.ts';
import { clawPoleComplaints } from './complaints.ts';
import { clawPoleFacts, clawPoleRules } from './facts.ts';
import { clawPoleChain, clawPoleFaults } from './faults/index.ts';
import { clawPoleOnVehicle } from './on-vehicle.ts';
import { type ClawPole, clawPoleGeneric } from './parameters.ts';
import { clawPoleOutput, clawPoleShapes } from './output.ts';
import { clawPoleItems, clawPoleParts } from './parts.ts';
import { clawPoleRunner } from './runner.ts';
import { polePairsOf, ratingPoint } from './running.ts';
import { clawPoleShows, clawPoleSpin } from './spin.ts';
import { clawPoleStandRules, runAwayShare } from './stand-rules.ts';

/** Minutes of taking apart [from memory]. */
const assemblies: readonly AssemblyState[] = [
  { id: 'stand', name: 'On the stand', minutes: 0, running: true, whenThere: true },
  { id: 'closed', name: 'Closed', minutes: 4 },
  { id: 'opened', name: 'Opened, regulator off', minutes: 5 },
  { id: 'unsoldered', name: 'Stator unsoldered', minutes: 15 },
];

/** Any phase may change places with any other: a sound machine stays the same. */
const symmetries = ['ABC', 'BCA', 'CAB', 'ACB', 'CBA', 'BAC'].map((order) => ({
  A: order[0]!,
  B: order[1]!,
  C: order[2]!,
}));

/**
 * [our estimate: by `study bench`, what the advice tells is then as right as by every check within half a point, in two
 * fifths of the minutes]
 */
const wrongVerdictMinutes = 5000;

export const clawPole: Family<ClawPole> = {
  id: 'claw-pole',
  name: 'Claw-pole alternator',
  complaints: clawPoleComplaints,
  facts: clawPoleFacts,
  rules: clawPoleRules,
  size: { fact: 'ratedAmps', usual: 90 },
  every: [
    { ...clawPoleGeneric(12, 90), diodes: 8, connection: 'star' },
    { ...clawPoleGeneric(12, 90), regulator: 'commanded' },
    { ...clawPoleGeneric(12, 90), regulator: 'two-contact' },
  ],
  usual: clawPoleGeneric,
  assemblies,
  symmetries,
  builds: clawPoleBuilds,
  contrary: clawPoleContrary,
  runner: clawPoleRunner,
  shows: clawPoleShows,
  standRules: clawPoleStandRules,
  generates: {
    spin: clawPoleSpin,
    rating: (machine) => ({ ...ratingPoint(machine), amps: machine.ratedAmps }),
    runAwayShare,
    output: (machine, build, faults, stator) => clawPoleOutput(machine, build as ClawPoleBuild, faults, stator),
    polePairs: polePairsOf,
    outputWinding: 'stator',
    outputShapes: clawPoleShapes,
    outputCheck: (_machine, at) => outputPoint(at),
  },
  network: (machine, build, assembly) => clawPoleNetwork(machine, build as ClawPoleBuild, assembly as Assembly),
  nuisances: (machine, build) => clawPoleNuisances(machine, build as ClawPoleBuild),
  parts: clawPoleParts,
  items: clawPoleItems,
  windings: [
    { nuisance: 'stator', name: 'Stator' },
    { nuisance: 'rotor', name: 'Rotor' },
  ],
  strewnApart: clawPoleStrewnApart,
  faults: clawPoleFaults,
  checks: clawPoleChecks,
  wrongVerdictMinutes,
  chain: clawPoleChain,
  done: 'Every check at rest has been done.',
  idle: 'No check at rest pays for its minutes any more: decide, or run the unit.',
  onVehicle: clawPoleOnVehicle,
};
export { type ClawPoleBuild, clawPoleBuilds } from './builds.ts';
export { type Assembly, clawPoleNetwork, diodeLaws } from './circuit.ts';
export { clawPoleRun, clawPoleTurning, type Excitation, excitationOf } from './running.ts';
export {
  type ClawPole,
  clawPoleGeneric,
  type ClawPoleNumber,
  clawPoleNumbers,
  diodePlaces,
  phases,
} from './parameters.ts';
