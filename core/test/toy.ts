import type { Situation, TapeReading } from '../src/assess/index.ts';
import {
  type Belief,
  type Case,
  checkOf,
  complaintOf,
  faultChances,
  openCase,
  type Reading,
} from '../src/belief/index.ts';
import type { Check, Outcome } from '../src/checks/index.ts';
import { type Multimeter, multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric, type Fault, type Machine, type Subject, subjectOf } from '../src/machines/index.ts';

const fault = (id: string, weight: number): Fault => ({
  id,
  species: id,
  place: '',
  part: id,
  name: id,
  weight,
  severity: { unit: 'none', grades: [1] },
  edits: () => [],
});

/** A check by eye with two outcomes; `chance` is that of the first. */
const look = (id: string, chance: (species: readonly string[]) => number): Check => ({
  id,
  species: id,
  place: '',
  name: id,
  assembly: 'closed',
  minutes: 1,
  unit: 'ohms',
  how: '',
  tells: '',
  cautions: [],
  method: {
    kind: 'finding',
    outcomes: [
      { id: 'yes', name: 'yes', word: 'failed' },
      { id: 'no', name: 'no', word: 'sound' },
    ],
    chances: (faults) => {
      const p = chance(faults.map((f) => f.species));
      return [p, 1 - p];
    },
  },
});

const complaint = { id: 'toy', name: 'Toy', factors: {}, sound: 0.5, charging: false };

/** Two faults, three looks: one sees a, one sees b, one sees neither. Small enough to reckon by hand. */
const toy: Subject = {
  name: 'Toy',
  complaints: [complaint],
  assemblies: [{ id: 'closed', name: 'Closed', minutes: 0 }],
  symmetries: [{}],
  builds: [{ id: 'only', name: 'only', prior: 1 }],
  network: () => ({ resistors: [], junctions: [] }),
  nuisances: () => [{ name: 'celsius', sigma: 1 }],
  parts: ['a', 'b'].map((id) => ({ id, name: id, item: id })),
  items: ['a', 'b'].map((id) => ({ id, name: id, minutes: 10 })),
  faults: [fault('a', 3), fault('b', 1)],
  checks: [
    look('sees-a', (s) => (s.includes('a') ? 0.8 : 0.1)),
    look('sees-b', (s) => (s.includes('b') ? 0.9 : 0.2)),
    look('sees-nothing', () => 0.3),
  ],
  wrongVerdictMinutes: 500,
  chain: () => 1,
  stops: { done: 'done', idle: 'idle' },
};

export const toyCase = (): Case => openCase(toy, complaint, [multimeterById('workshop')]);

/** The same with so many looks that all see `a`, and see it well: `sees-a:0` and so on. */
export const toyOfMany = (looks: number): Case => {
  const checks = Array.from({ length: looks }, (_, at) =>
    look(`sees-a:${at}`, (s) => (s.includes('a') ? 1 - 1e-6 : 1e-6)),
  );
  return openCase({ ...toy, checks }, complaint, [multimeterById('workshop')]);
};

/** A unit's case, by the ids of its complaint and meters. */
export function openUnit(machine: Machine, complaintId: string, meters: readonly string[]): Case {
  const subject = subjectOf(machine);
  return openCase(subject, complaintOf(subject, complaintId), meters.map(multimeterById));
}

export const openKnown = (
  more: Partial<ReturnType<typeof clawPoleGeneric>> = {},
  complaintId = 'no-charge',
  meter = 'workshop',
): Case =>
  openUnit({ ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon', ...more }, complaintId, [meter]);

/** A check and what it showed. */
export type Taken = readonly [string, Outcome];

/** A unit at 20 °C in a state of assembly, all read of it with one meter, in this order. */
export const situationOf = (meter: string, assembly: string, read: readonly Taken[]): Situation => ({
  readings: read.map(([check, outcome], at): TapeReading => ({ id: String(at), check, outcome, meter, celsius: 20 })),
  assembly,
  meter,
  celsius: 20,
});

export const reading = (
  opened: Case,
  check: string,
  outcome: Outcome,
  meter: Multimeter = multimeterById('workshop'),
  celsius = 20,
): Reading => ({ check: checkOf(opened, check), outcome, meter, celsius });
export const chanceOf = (opened: Case, belief: Belief, fault: string): number =>
  faultChances(opened, belief)[opened.faults.findIndex((f) => f.id === fault)]!;
