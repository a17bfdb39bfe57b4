import { type ClawPole, clawPole } from './claw-pole/index.ts';
import {
  hasGears,
  hasMagnets,
  hasSolenoid,
  type Starter,
  starter,
  starterFed,
  starterGeneric,
} from './starter/index.ts';
import { apply } from './apply.ts';
import type { Fact, FactValue } from './fact.ts';
import type { Family, Subject } from './family.ts';
import type { Variant as VariantOf } from './build.ts';

/** Any machine the program knows. A new family is a new folder and one more member here and in the register. */
export type Machine = ClawPole | Starter;
export type FamilyId = Machine['family'];

export const families = { 'claw-pole': clawPole, starter } as const;

/** A family by its name, for whoever needs to know no more of a machine than that it is of it. */
export const familyBy = (id: FamilyId): Family<Machine> => families[id] as unknown as Family<Machine>;
export const familyOf = (machine: Machine): Family<Machine> => familyBy(machine.family);

/** What else a model is built as. */
export type Variant = VariantOf<Machine>;

/** A machine as the belief knows it. */
export const subjectOf = (machine: Machine, variants: readonly Variant[] = [], unlikeShare?: number): Subject =>
  apply(familyOf(machine), machine, variants, unlikeShare);

export { usualUnlikeShare } from './apply.ts';
export {
  type Assembly,
  type ClawPole,
  type ClawPoleBuild,
  clawPoleBuilds,
  clawPoleGeneric,
  clawPoleNetwork,
  type ClawPoleNumber,
  clawPoleNumbers,
  clawPoleRun,
  clawPoleTurning,
  diodeLaws,
  diodePlaces,
  type Excitation,
  excitationOf,
  phases,
} from './claw-pole/index.ts';
export { hasGears, hasMagnets, hasSolenoid, type Starter, starterFed, starterGeneric };
export type { Choice, Fact, FactValue } from './fact.ts';

/** What a machine has of one of its family's facts; nothing where it isn't known. */
export const factValue = (machine: Machine, { id, unsaid }: Fact): FactValue | undefined =>
  (machine as unknown as Record<string, FactValue | undefined>)[id] ?? unsaid;
export { asReceived, type AssemblyState, stateFor } from './assembly.ts';
export { kinOf, timesWider } from './build.ts';
export { heldAt, runningFault } from './family.ts';
export type { Build } from './build.ts';
export type {
  Complaint,
  Drives,
  Family,
  Fault,
  Fed,
  Generates,
  Item,
  NoLoadWord,
  NumberParameter,
  OnVehicle,
  Nuisance,
  Part,
  Off,
  Ran,
  Read,
  Run,
  Runner,
  Rule,
  RunningFault,
  Severity,
  Shows,
  Spin,
  Stand,
  Subject,
  Winding,
} from './family.ts';
