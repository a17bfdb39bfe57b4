import type { Check, Odds, Outcome, PresentFault, RunSetup } from '../checks/index.ts';
import type { Celsius, Edit, Network, Settled } from '../circuit/index.ts';
import type {
  Motor,
  MotorDynamics,
  MotorPoint,
  MotorPriors,
  MotorSource,
  OutputAt,
  OutputModel,
} from '../curves/index.ts';
import type { PriorParameter } from '../numeric/index.ts';
import type { Orders } from '../waveform/index.ts';
import type { AssemblyState } from './assembly.ts';
import type { Fact } from './fact.ts';
import type { Build, StrewnApart } from './build.ts';

/** A number a machine is described by, with all that is known of it: the schema reads as its manual. */
export interface NumberParameter {
  readonly name: string;
  readonly symbol: string;
  readonly least: number;
  readonly most: number;
  /** Relative standard deviation between sound machines of one model. */
  readonly relativeSigma: number;
  readonly source: string;
}

/**
 * How bad a fault is. One grade: it is there or not. Several are equally likely before any reading, each a cell that
 * reaches half-way to its neighbours in ln(severity).
 */
export interface Severity {
  readonly unit: 'ohms' | 'volts' | 'turns' | 'share' | 'times' | 'none';
  readonly grades: readonly number[];
  /** More than the last grade's cell is no fault: a leak of so many ohms is a sound part's. */
  readonly soundAbove?: true;
}

/** A fault as a running machine has it. */
export interface RunningFault extends PresentFault {
  readonly edits: readonly Edit[];
}

/** A fault at a severity as a running machine has it. */
export const runningFault = ({ species, place, edits }: Fault, severity: number): RunningFault => ({
  species,
  place,
  severity,
  edits: edits(severity),
});

/** A shape that an output curve can have, and the fault that stands for it; none for a sound machine. */
export interface OutputShape {
  readonly name: string;
  readonly fault?: { readonly id: string; readonly severity: number };
}

/** What a running machine shows. */
export interface Ran {
  readonly value: number;
  /** How far the value moves for one unit of an uncertain quantity, by its name. */
  readonly moves: Readonly<Record<string, number>>;
  /** Standard uncertainty of the model itself. */
  readonly sigma: number;
  /** Chance that it is foreseen badly; none where it isn't said. */
  readonly astray?: number;
  /** The value on a handful of units strewn as their kind is; none where it follows what is uncertain in a straight line. */
  readonly strewn?: readonly { readonly off: Off; readonly value: number }[];
}

/** Runs one machine; what was run once is remembered. */
export type Runner = (build: Build, setup: RunSetup, faults: readonly RunningFault[]) => Ran;

/** By how much of itself an uncertain quantity is off, by its name; `celsius` in kelvin, `rpm` as a share. */
export type Off = Readonly<Record<string, number>>;

/** What a machine is run against. */
export interface Stand {
  readonly rpm: number;
  /** Ohms of the load; beside it the battery. */
  readonly loadOhms: number;
  readonly batteryVolts: number;
  readonly batteryOhms: number;
  readonly cableOhms: number;
  readonly celsius: Celsius;
  /**
   * Full field by way of the regulator, or past it, or so many amperes: from where the machine feeds it.
   */
  readonly field: 'own' | 'bypassed' | { readonly amps: number };
}

/** Post and case held at so many volts, whatever the machine gives. */
export const heldAt = (batteryVolts: number) => ({ batteryVolts, batteryOhms: 1e-4, cableOhms: 1e-4, loadOhms: 1e3 });

/** A running machine as instruments see it, one electrical period of its steady state. */
export interface Run {
  readonly rpm: number;
  readonly electricalHertz: number;
  readonly fieldAmps: number;
  /** Of the current from the output post. */
  readonly amps: Orders;
  /** Of output post against case. */
  readonly volts: Orders;
  /** Of a phase tap (phase A's leg) against case. */
  readonly tap: Orders;
  /** Of what exciter diodes give the field against case, where there are any. */
  readonly exciter?: Orders;
  readonly trace: { readonly amps: Float64Array; readonly volts: Float64Array; readonly tap: Float64Array };
  readonly settled: SettledRun;
}

/** What the next run near it may begin from: its period, and the volts that feed its field. */
export interface SettledRun {
  readonly period: Settled;
  readonly fieldVolts: number;
}

/** What an instrument shows on a running machine whose quantities are off by so much; a practice unit's readings. */
export type Shows = (build: Build, setup: RunSetup, faults: readonly RunningFault[], off: Off) => number;

/** Spins one machine whose quantities are off by so much, its own regulator at work or bypassed. */
export type Spin = (
  build: Build,
  stand: Omit<Stand, 'field'> & {
    readonly field: 'regulated' | 'bypassed';
    /** Share of the time that a commander's signal is on; nothing where none is connected. */
    readonly command?: number | undefined;
  },
  faults: readonly RunningFault[],
  off: Off,
) => Run;

/** What must be known before a machine may run, and what then forbids it. */
export interface StandRules {
  /** Checks at rest, by id: done, or somebody answers for it. */
  readonly first: readonly string[];
  readonly dangers: readonly { readonly species: readonly string[]; readonly name: string; readonly why: string }[];
}

/** What is wrong with a part. */
export interface Fault {
  readonly id: string;
  readonly species: string;
  readonly place: string;
  readonly part: string;
  readonly name: string;
  /** Relative weight among single faults, before the complaint is heard. */
  readonly weight: number;
  readonly severity: Severity;
  /** What it does to the circuit; nothing for what no circuit shows. */
  readonly edits: (severity: number) => readonly Edit[];
  /** What mends it when the part need not be replaced. */
  readonly repair?: string;
}

/** Something that can be replaced, and where it shows in the drawing. */
export interface Part {
  readonly id: string;
  readonly name: string;
  /** The item bought to replace it: several diodes are one rectifier. */
  readonly item: string;
  /** Of the bench, not of the unit: no course for the unit mends it. */
  readonly ofBench?: true;
}

export interface Item {
  readonly id: string;
  readonly name: string;
  /** Work to replace it with the unit open, in minutes [from memory]. */
  readonly minutes: number;
}

/** An uncertain quantity shared by all hypotheses: standard deviation in V, K or as a relative value. */
export interface Nuisance {
  readonly name: string;
  readonly sigma: number;
  /** A sound part has hardly more, however widely units are strewn: beyond it is a fault. No border is sharp: its own sigma. */
  readonly most?: PriorParameter;
}

export interface Complaint {
  readonly id: string;
  readonly name: string;
  /** How much likelier a fault species becomes; 1 when not named. */
  readonly factors: Readonly<Record<string, number>>;
  /** Prior chance that the unit has no fault at all [from memory]. */
  readonly sound: number;
  /** Whether the complaint says that the unit doesn't charge as it should. */
  readonly charging: boolean;
}

/** Copper whose own resistance readings at rest tell, by the uncertainty (ln of ohms over the plate's) that stands for it. */
export interface Winding {
  readonly nuisance: string;
  readonly name: string;
}

/**
 * What is reasoned about, all of it settled: a family applied to one machine, or a vehicle. The belief and all that
 * follows from it know nothing else.
 */
export interface Subject {
  readonly name: string;
  readonly complaints: readonly Complaint[];
  readonly assemblies: readonly AssemblyState[];
  readonly symmetries: readonly Readonly<Record<string, string>>[];
  readonly builds: readonly Build[];
  readonly network: (build: Build, assembly: string) => Network;
  /** For what is read while it runs; a subject without such checks has none. */
  readonly run?: Runner;
  /** Two faults at once are run as such, where a run costs next to nothing; else put together from one and one. */
  readonly runsPairs?: true | undefined;
  /** No fault is weighed beside two others: one of them may be what the other left behind. */
  readonly twoAtMost?: true | undefined;
  readonly shows?: Shows;
  /** One machine that generates on a stand, as all its instruments see it. */
  readonly spin?: Spin | undefined;
  readonly standRules?: StandRules;
  readonly nuisances: (build: Build) => readonly Nuisance[];
  readonly parts: readonly Part[];
  readonly items: readonly Item[];
  readonly faults: readonly Fault[];
  readonly checks: readonly Check[];
  /** A point of its output as a check: its speed is chosen at the stand. */
  readonly outputCheck?: ((at: OutputAt) => Check) | undefined;
  readonly windings?: readonly Winding[] | undefined;
  readonly strewnApart?: readonly StrewnApart[] | undefined;
  /** How many minutes of checking a wrong verdict costs: a check pays that lowers its chance by more than it takes. */
  readonly wrongVerdictMinutes: number;
  /** How much likelier two faults come together than chance has it. */
  readonly chain: (a: Fault, b: Fault) => number;
  /** What to do when every check has been done, and when none pays any more. */
  readonly stops: { readonly done: string; readonly idle: string };
}

/**
 * How one kind of fault shows while the machine is still on its vehicle. Rows of one species share its weight: a
 * regulator may be dead or run away.
 */
export interface OnVehicle {
  readonly id: string;
  readonly species: string;
  readonly name: string;
  /** Of the species' weight. */
  readonly share: number;
  /** Of the current a sound machine can give; none where its field carries nothing. */
  readonly output: number;
  /** Shift of the regulated volts. */
  readonly regulatedVolts?: number;
  /** Between output post and case at rest, in ohms: grades. */
  readonly leakOhms?: readonly number[];
  /** What it does to the vehicle's own circuit. */
  readonly edits?: readonly Edit[] | undefined;
  /** Chances of the outcomes of the vehicle's checks by eye, ear and hand, by the check's id; as usual where none are given. */
  readonly odds?: Odds;
}

/** What must hold between the facts of a machine; `say` is what is told where it doesn't. */
export interface Rule<M> {
  readonly name: string;
  readonly holds: (machine: M) => boolean;
  readonly say: string;
}

/** What a family of generators has beside. */
export interface Generates<M> {
  readonly spin: (machine: M) => Spin;
  /** Where its rated amps hold. */
  readonly rating: (machine: M) => { readonly rpm: number; readonly volts: number; readonly amps: number };
  /** Of the rated volts: with more at its post its regulator doesn't hold it. */
  readonly runAwayShare: number;
  readonly polePairs: (machine: M) => number;
  /** Its output against speed. `stator`: what readings at rest say of the winding, ln of its ohms over the plate's. */
  readonly output: (machine: M, build: Build, faults: readonly RunningFault[], stator?: PriorParameter) => OutputModel;
  /** Which of its windings that output hangs on. */
  readonly outputWinding: string;
  /** The sound machine's shape first. */
  readonly outputShapes: readonly OutputShape[];
  readonly outputCheck: (machine: M, at: OutputAt) => Check;
}

/** A motor and what feeds it. */
export interface Fed {
  readonly motor: Motor;
  readonly source: MotorSource;
  /** Of the motor's feed, the contacts alone. */
  readonly contactOhms: number;
}

/** A check and what it showed. */
export interface Read {
  readonly check: string;
  readonly outcome: Outcome;
}

/** How amperes and speed lie beside those of a sound machine, and what that points to. */
export interface NoLoadWord {
  readonly amps: string;
  readonly speed: string;
  readonly pointsTo: string;
}

/** What a family of motors has beside. */
export interface Drives<M> {
  /** The machine on its bench battery, less what faults do to both; at a temperature, its quantities off by so much. */
  readonly fed: (machine: M, faults: readonly RunningFault[], celsius: number, off?: Off) => Fed;
  readonly dynamics: (machine: M) => MotorDynamics;
  readonly priors: MotorPriors;
  /** The battery that its power is rated on. */
  readonly ratedOn: (machine: M) => MotorSource;
  /** Rated power at the pinion, W. */
  readonly ratedWatts: (machine: M) => number;
  /** The points of its curve among what was read. */
  readonly points: (machine: M, readings: readonly Read[]) => readonly MotorPoint[];
  /** What the trade's table says of a run without load, beside which the belief's suspects stand. */
  readonly noLoad: (machine: M, point: MotorPoint, celsius: number) => NoLoadWord | undefined;
  /** The sound machine first. */
  readonly shapes: readonly OutputShape[];
}

/** A family of machines: all that the rest of the core knows of one. `M` is its parameter type. */
export interface Family<M> {
  readonly id: string;
  readonly name: string;
  readonly complaints: readonly Complaint[];
  /** What describes a machine, by the names of its parameters. */
  readonly facts: readonly Fact[];
  /** What of a machine must hold beside the ranges of its facts. */
  readonly rules: readonly Rule<M>[];
  /** The fact that says how large a machine is, and of which size most are. */
  readonly size: { readonly fact: string & keyof M; readonly usual: number };
  /** Machines that have, between them, every part and item that one of the family can have. */
  readonly every: readonly M[];
  /** A machine of which only the plate is known; `known` is what else is, where the usual values follow it. */
  readonly usual: (ratedVolts: 12 | 24, size: number, known?: Partial<M>) => M;
  /** In the order of taking apart. */
  readonly assemblies: readonly AssemblyState[];
  /** Relabellings of places (one letter each) that leave a sound machine as it is. */
  readonly symmetries: readonly Readonly<Record<string, string>>[];
  readonly builds: (machine: M) => readonly Build[];
  /** Builds of the same parts that it may have all the same where the plate, or who read it, is wrong. */
  readonly contrary?: (machine: M) => readonly Build[];
  readonly network: (machine: M, build: Build, assembly: string) => Network;
  readonly runner: (machine: M) => Runner;
  readonly runsPairs?: true;
  readonly shows: (machine: M) => Shows;
  readonly standRules: StandRules;
  readonly generates?: Generates<M>;
  readonly drives?: Drives<M>;
  readonly nuisances: (machine: M, build: Build) => readonly Nuisance[];
  readonly parts: (machine: M) => readonly Part[];
  readonly items: (machine: M) => readonly Item[];
  readonly windings?: readonly Winding[];
  readonly strewnApart?: readonly StrewnApart[];
  readonly faults: (machine: M) => readonly Fault[];
  readonly checks: (machine: M) => readonly Check[];
  readonly wrongVerdictMinutes: number;
  /** What is said when every check that may be advised has been done, and when none pays any more. */
  readonly done: string;
  readonly idle: string;
  /** How much likelier two faults come together than chance has it. */
  readonly chain: (a: Fault, b: Fault) => number;
  /** Every species of fault as the vehicle knows it. */
  readonly onVehicle: (machine: M) => readonly OnVehicle[];
}
