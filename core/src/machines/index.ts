import { type ClawPole, clawPole } from './claw-pole/index.ts';
import { apply, type Family, type Subject, type Variant as VariantOf } from './family.ts';

/** Any machine the program knows. A new family is a new folder and one more member here and in the register. */
export type Machine = ClawPole;

export const families = { 'claw-pole': clawPole } as const;

export const familyOf = (machine: Machine): Family<Machine> => families[machine.family];

/** What else a model is built as. */
export type Variant = VariantOf<Machine>;

/** A machine as the belief knows it. */
export const subjectOf = (machine: Machine, variants: readonly Variant[] = []): Subject =>
  apply(familyOf(machine), machine, variants);

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
  usualPolePairs,
} from './claw-pole/index.ts';
export type { Choice, Fact, FactValue } from './fact.ts';
export { asReceived, heldAt, kinOf, runningFault } from './family.ts';
export type {
  AssemblyState,
  Build,
  Complaint,
  Family,
  Fault,
  Item,
  NumberParameter,
  OnVehicle,
  Nuisance,
  Part,
  Off,
  Ran,
  Run,
  Runner,
  RunningFault,
  Severity,
  Spin,
  Stand,
  Subject,
} from './family.ts';
