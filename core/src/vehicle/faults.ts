import type { Edit } from '../circuit/index.ts';
import type { Fault, Machine, OnVehicle, Part, Item } from '../machines/index.ts';
import { familyOf, runningFault, subjectOf } from '../machines/index.ts';
import { starterAtWork } from './cranking.ts';
import { fieldLost } from './network.ts';
import { sets, type Vehicle } from './vehicle.ts';

/** Where a fault can lie: what check-in wants to know. */
export const places: readonly (Part & Item)[] = [
  { id: 'unit', name: 'the unit', item: 'unit', minutes: 45 },
  { id: 'battery', name: 'battery', item: 'battery', minutes: 10 },
  { id: 'wiring', name: 'cables, fuses and connectors', item: 'wiring', minutes: 30 },
  { id: 'belt', name: 'belt', item: 'belt', minutes: 20 },
  { id: 'consumer', name: 'something that drains', item: 'consumer', minutes: 60 },
  { id: 'starting', name: 'starter and its command', item: 'starting', minutes: 45 },
  { id: 'engine', name: 'the engine', item: 'engine', minutes: 120 },
];

interface Plain {
  readonly id: string;
  readonly part: string;
  readonly name: string;
  /** What to do about it, for the customer too. */
  readonly repair: string;
  readonly weight: number;
  readonly unit?: Fault['severity']['unit'];
  readonly grades?: readonly number[];
  readonly edits: Fault['edits'];
}

const fault = ({ id, part, name, repair, weight, unit = 'none', grades = [1], edits }: Plain): Fault => ({
  id,
  species: id,
  place: '',
  part,
  name,
  repair,
  weight,
  severity: { unit, grades },
  edits,
});

const more = (element: string) => (ohms: number) => [{ element, add: ohms }];
const lost = 1e7;
/** A starter that is asked for so many times its amps. */
const pulls = (times: number): readonly Edit[] => [{ element: 'starter-pull', scale: 1 / times }];
/** Without its engine it spins up until it draws about 60 A of 150 [from memory]. */
const uncoupled = 0.4;
const cableGrades = [0.015, 0.05, 0.15, 0.5];

/** What can be wrong beside the unit. Weights are how often each is met, relative to one another [from memory]. */
function beside(n: number): Fault[] {
  return [
    fault({
      id: 'battery-flat',
      part: 'battery',
      name: 'battery flat',
      repair: 'charge the battery, and find what left it flat',
      weight: 10,
      unit: 'volts',
      grades: [0.25, 0.5, 1, 2].map((v) => v * n),
      edits: (volts) => [{ element: 'cells', add: -volts }],
    }),
    fault({
      id: 'battery-worn',
      part: 'battery',
      name: 'battery worn out',
      repair: 'replace the battery',
      weight: 12,
      grades: [2, 4, 8],
      edits: (times) => [{ element: 'battery', scale: times }],
    }),
    fault({
      id: 'battery-sulphated',
      part: 'battery',
      name: 'battery sulphated',
      repair: 'charge it slowly and test again; replace it if it fails',
      weight: 5,
      grades: [2, 4],
      edits: (times) => [
        { element: 'battery', scale: times },
        { element: 'cells', add: -0.3 * n },
      ],
    }),
    fault({
      id: 'battery-cell',
      part: 'battery',
      name: 'battery with a dead cell',
      repair: 'replace the battery: a cell is dead',
      weight: 3,
      edits: () => [
        { element: 'cells', add: -2.1 },
        { element: 'battery', scale: 1.5 },
      ],
    }),
    fault({
      id: 'charge-cable',
      part: 'wiring',
      name: 'resistance in the charge cable',
      repair: 'clean and tighten the charge cable’s joints from the unit to the battery, replace what stays warm',
      weight: 6,
      unit: 'ohms',
      grades: cableGrades,
      edits: more('charge-cable'),
    }),
    fault({
      id: 'ground-path',
      part: 'wiring',
      name: 'resistance in the ground path',
      repair: 'clean and tighten the ground strap and its joints at engine, body and battery',
      weight: 6,
      unit: 'ohms',
      grades: cableGrades,
      edits: more('ground-path'),
    }),
    fault({
      id: 'fuse-blown',
      part: 'wiring',
      name: 'fuse or fusible link blown',
      repair: 'find what blew the fuse or fusible link of the charge cable, then replace it',
      weight: 4,
      edits: () => [{ element: 'fuse-link', set: lost }],
    }),
    fault({
      id: 'excitation-lost',
      part: 'wiring',
      name: 'no excitation',
      repair: 'follow the excitation feed from the plug back: fuse, charge lamp, connector',
      weight: 6,
      edits: () => fieldLost(n),
    }),
    fault({
      id: 'sense-bad',
      part: 'wiring',
      name: 'bad sense or regulator ground',
      repair: 'follow the sense feed and the regulator’s ground: corroded pin, broken wire, rust under the case',
      weight: 3,
      unit: 'volts',
      grades: [0.8, 1.6, 3.2].map((v) => v * n),
      edits: (volts) => [{ element: 'regulated', add: volts }],
    }),
    fault({
      id: 'belt-slip',
      part: 'belt',
      name: 'belt slipping',
      repair: 'replace or tension the belt, look at tensioner and pulleys',
      weight: 7,
      grades: [1.5, 3, 9],
      edits: (times) => [{ element: 'output-limit', scale: times }],
    }),
    fault({
      id: 'body-drain',
      part: 'consumer',
      name: 'a consumer drains with the key off',
      repair: 'pull fuses one by one with everything asleep until the drain falls, and follow that circuit',
      weight: 5,
      unit: 'ohms',
      grades: [90, 30, 9, 3].map((ohms) => ohms * n),
      edits: (ohms) => [{ element: 'drain', set: ohms }],
    }),
    fault({
      id: 'starter-cable',
      part: 'wiring',
      name: 'resistance in the starter cable',
      repair: 'clean and tighten the starter cable’s joints',
      weight: 2,
      unit: 'ohms',
      grades: [0.004, 0.015, 0.05],
      edits: more('starter-cable'),
    }),
    fault({
      id: 'contacts-burnt',
      part: 'starting',
      name: 'solenoid contacts burnt',
      repair: 'replace the solenoid’s contacts or the solenoid',
      weight: 2,
      unit: 'ohms',
      grades: [0.006, 0.03, 0.2],
      edits: more('contacts'),
    }),
    fault({
      id: 'starter-drag',
      part: 'starting',
      name: 'starter drags',
      repair: 'take the starter off and bench it; turn the engine by hand first',
      weight: 3,
      grades: [1.3, 1.8, 2.5],
      edits: pulls,
    }),
    fault({
      id: 'starter-open',
      part: 'starting',
      name: 'starter open',
      repair: 'take the starter off and bench it',
      weight: 2,
      edits: () => [{ element: 'starter', set: lost }],
    }),
    fault({
      id: 'starter-drive',
      part: 'starting',
      name: 'starter spins without turning the engine',
      repair: 'look at pinion and ring gear through the opening; take the starter off and bench its drive',
      weight: 2,
      edits: () => pulls(uncoupled),
    }),
    fault({
      id: 'engine-tight',
      part: 'engine',
      name: 'engine hard to turn',
      repair:
        'turn the engine by hand: bearings, a seized pump or compressor, oil as thick as tar, water in a cylinder',
      weight: 2,
      grades: [1.4, 2, 3],
      edits: pulls,
    }),
    fault({
      id: 'no-command',
      part: 'starting',
      name: 'no command at the solenoid',
      repair: 'follow the command: ignition switch, relay, interlock, plug at the solenoid',
      weight: 2,
      edits: () => [{ element: 'contacts', set: lost }],
    }),
  ];
}

/** The unit's own species, as they show on a vehicle: weights add up to `total`. */
function within(vehicle: Vehicle, unit: Machine, total: number): Fault[] {
  const weights = new Map<string, number>();
  for (const { species, weight } of subjectOf(unit).faults) weights.set(species, (weights.get(species) ?? 0) + weight);
  const rows = familyOf(unit).onVehicle(unit);
  const cranking = familyOf(unit).drives ? crankingEdits(vehicle, unit) : undefined;
  const sum = rows.reduce((s, row) => s + row.share * (weights.get(row.species) ?? 0), 0);
  return rows.map((row) => ({
    id: row.id,
    species: row.id,
    place: '',
    part: 'unit',
    name: row.name,
    weight: (total * row.share * (weights.get(row.species) ?? 0)) / sum,
    severity: cranking?.(row).severity ?? { unit: 'none', grades: row.leakOhms ?? [1] },
    edits: (severity) => [...(cranking?.(row).edits(severity) ?? []), ...editsOf(sets(vehicle), row, severity)],
  }));
}

/** What a starter's own fault does to the vehicle's cranking, as bad as it is: worked out by running it. */
function crankingEdits(vehicle: Vehicle, unit: Machine): (row: OnVehicle) => Pick<Fault, 'severity' | 'edits'> {
  const sound = starterAtWork(vehicle, unit);
  const faults = new Map(subjectOf(unit).faults.map((fault) => [fault.species, fault]));
  return ({ species }) => {
    const fault = faults.get(species)!;
    const edits = (severity: number): readonly Edit[] => {
      const { contactOhms, ohms, amps } = starterAtWork(vehicle, unit, [runningFault(fault, severity)]);
      // One that draws less for its resistance is stopped by that alone.
      const starves = amps < sound.amps && contactOhms + ohms > sound.contactOhms + sound.ohms;
      return [
        ...(contactOhms > sound.contactOhms ? [{ element: 'contacts', add: contactOhms - sound.contactOhms }] : []),
        ...(ohms === sound.ohms ? [] : [{ element: 'starter', set: Math.min(ohms, lost) }]),
        ...(amps === sound.amps || starves ? [] : pulls(amps / sound.amps)),
      ];
    };
    return { severity: fault.severity, edits };
  };
}

function editsOf(
  n: number,
  { output, regulatedVolts, leakOhms, edits = [] }: OnVehicle,
  severity: number,
): ReturnType<Fault['edits']> {
  return [
    ...edits,
    ...(output === 0 ? fieldLost(n) : output < 1 ? [{ element: 'output-limit', scale: 1 / output }] : []),
    ...(regulatedVolts === undefined ? [] : [{ element: 'regulated', add: regulatedVolts }]),
    ...(leakOhms ? [{ element: 'unit-leak', set: severity }] : []),
  ];
}

/** What is wrong with the starter is beside the unit, unless the unit is the starter. */
const ofStarter = ['contacts-burnt', 'starter-drag', 'starter-open', 'starter-drive'];
const isOfUnit = (unit: Machine, id: string): boolean => familyOf(unit).drives !== undefined && ofStarter.includes(id);

/** `unitWeight`: of all single faults, the weight that the unit's have together, against the rest's own. */
export const vehicleFaults = (vehicle: Vehicle, unit: Machine, unitWeight: number): readonly Fault[] => [
  ...beside(sets(vehicle)).filter(({ id }) => !isOfUnit(unit, id)),
  ...within(vehicle, unit, unitWeight),
];
