import { starterRestMinutes } from '../../handbook/index.ts';
import type { AssemblyState } from '../assembly.ts';
import type { Family } from '../family.ts';
import { starterBenchRules } from './bench-rules.ts';
import { starterBuilds, starterNuisances } from './builds.ts';
import { starterChecks } from './checks/index.ts';
import { type StarterAssembly, starterNetwork } from './circuit.ts';
import { starterComplaints } from './complaints.ts';
import { starterFacts, starterRules } from './facts.ts';
import { starterChain, starterFaults } from './faults/index.ts';
import { dynamicsOf, starterFed, ratedOn, starterPriors, starterShapes } from './motor.ts';
import { noLoadWord, starterPoints } from './no-load.ts';
import { starterOnVehicle } from './on-vehicle.ts';
import { layoutNames, type Starter, starterGeneric } from './parameters.ts';
import { starterItems, starterParts } from './parts.ts';
import { starterRunner, starterShows } from './runner.ts';

/** Minutes of taking apart [from memory]. */
const assemblies: readonly AssemblyState[] = [
  { id: 'clamped', name: 'Clamped, on battery', minutes: 0, running: true, restMinutes: starterRestMinutes },
  { id: 'closed', name: 'Closed', minutes: 2 },
  { id: 'lead-off', name: 'Motor lead off', minutes: 1 },
  { id: 'cover-off', name: 'End cover off', minutes: 4 },
  { id: 'opened', name: 'Taken apart', minutes: 6 },
];

/** [our estimate: by `study bench`, half of the minutes that every check takes] */
const wrongVerdictMinutes = 370;

export const starter: Family<Starter> = {
  id: 'starter',
  name: 'Starter',
  complaints: starterComplaints,
  facts: starterFacts,
  rules: starterRules,
  size: { fact: 'ratedKilowatts', usual: 1.4 },
  every: (Object.keys(layoutNames) as Starter['layout'][]).map((layout) => starterGeneric(12, 1.4, layout)),
  usual: (volts, kilowatts, known) => starterGeneric(volts, kilowatts, known?.layout),
  assemblies,
  symmetries: [{}],
  builds: starterBuilds,
  runner: starterRunner,
  runsPairs: true,
  shows: starterShows,
  standRules: starterBenchRules,
  drives: {
    fed: starterFed,
    dynamics: dynamicsOf,
    priors: starterPriors,
    ratedOn,
    ratedWatts: ({ ratedKilowatts }) => 1000 * ratedKilowatts,
    points: starterPoints,
    noLoad: noLoadWord,
    shapes: starterShapes,
  },
  network: (machine, _, assembly) => starterNetwork(machine, assembly as StarterAssembly),
  nuisances: starterNuisances,
  parts: starterParts,
  items: starterItems,
  faults: starterFaults,
  checks: starterChecks,
  wrongVerdictMinutes,
  chain: starterChain,
  done: 'Every check has been done.',
  idle: 'No check pays for its minutes any more: decide.',
  onVehicle: starterOnVehicle,
};
export { hasGears, hasMagnets, hasSolenoid, type Starter, starterGeneric } from './parameters.ts';
export { starterFed } from './motor.ts';
