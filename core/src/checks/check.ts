import type { RunInstrument, Setup } from '../instruments/index.ts';
import type { Unit } from '../quantity/index.ts';
import type { Orders, Turns } from '../waveform/index.ts';

/** A fault as a check sees it: which species, where, and how bad (in the fault's own severity unit). */
export interface PresentFault {
  readonly species: string;
  readonly place: string;
  readonly severity: number;
}

export interface FindingOutcome {
  readonly id: string;
  readonly name: string;
  /** What the outcome alone says of the part looked at. */
  readonly word: 'sound' | 'doubtful' | 'failed';
  /** What follows for the work, in a sentence. */
  readonly then?: string;
}

/** What a meter showed between the same pins of a part and of its known-good twin, in ohms; over-range is Infinity. */
export interface TwinPair {
  readonly own: number;
  readonly twin: number;
}

/** What a stand holds while its meter is read. */
export interface StandState {
  readonly name: string;
  /** Of the rotor. */
  readonly rpm: number;
  readonly amps: number;
  /** Share of the time that a commander's signal is on; without one it says nothing. */
  readonly duty?: number;
  /** Stopped and started before it. */
  readonly fromRest?: true;
}

/** A meter watched while something turns, or read in one state after the other. */
export interface Watched {
  /** Which two numbers are typed of it. */
  readonly asks: string;
  /** Which outcome the readings stand for, in the check's unit and as they were taken; over-range is Infinity. */
  readonly says: (readings: readonly number[], celsius: number) => string;
  /** Where the program may go through the states by itself; whether it looks first for the speed that begins to charge. */
  readonly course?: readonly StandState[];
  readonly fromCutIn?: true;
}

/** What a running unit is held to, and what is read of it meanwhile. */
export interface RunSetup {
  /** Speed, volts at its post, amps of a pile, torque at its shaft: what stand, load and brake hold; how warm its windings are. */
  readonly held: {
    readonly rpm?: number;
    readonly volts?: number;
    readonly amps?: number;
    readonly newtonMetres?: number;
    readonly celsius?: number;
  };
  /** What is read, by its family's own name. */
  readonly shows: string;
  readonly instrument: RunInstrument;
  /** Where a voltmeter's probes sit meanwhile. */
  readonly probes: { readonly red: string; readonly black: string };
  /** More of it is never worse. */
  readonly moreIsBetter?: true;
}

/** A phase tap's trace over the same periods as another's. */
export interface TapTrace {
  readonly orders: Orders;
  /** Its mean over the output's mean volts. */
  readonly share: number;
}

/** How a check's result comes about. */
export type Method =
  /**
   * A meter, tester or lamp between two places. `isolation`: more ohms are never worse. `alike`: one name for all that
   * read the same on a sound unit because their places are joined; what one is beside its straight line, so are they.
   */
  | { readonly kind: 'meter'; readonly setup: Setup; readonly isolation?: boolean; readonly alike?: string }
  /** The meter's own leads held together. */
  | { readonly kind: 'leads' }
  /** An instrument on the running unit. */
  | { readonly kind: 'run'; readonly setup: RunSetup }
  /** A length in mm under a caliper, with the least that may stay in service. */
  | {
      readonly kind: 'length';
      /** When it was new, where that is known. */
      readonly fresh?: number;
      readonly least: number;
      readonly expected: (faults: readonly PresentFault[]) => { readonly mean: number; readonly sigma: number };
    }
  /** Seen or felt: one of several outcomes, with the chance of each given the faults present. */
  | {
      readonly kind: 'finding';
      readonly outcomes: readonly FindingOutcome[];
      readonly chances: (faults: readonly PresentFault[]) => readonly number[];
      readonly watched?: Watched;
      /** Which outcome a table of pairs stands for, where the part is compared with a twin. */
      readonly compared?: (pairs: readonly TwinPair[]) => string;
      /** Which outcome the orders of a trace stand for; none where they fit no pattern, or need the tap beside them. */
      readonly traced?: (orders: Orders, tap?: TapTrace) => string | undefined;
      /** Which outcome the turns of an armature stand for, read from the trace of its current. */
      readonly turned?: (turns: Turns) => string;
      /** Whether the trace is of use only with the phase tap beside it. */
      readonly needsTap?: boolean;
    };

/** Equipment that a shop may lack: what some checks need, and the run stand. */
export type Equipment = 'brake' | 'commander' | 'oscilloscope' | 'stand';

/** A thing done at the bench. */
export interface Check {
  /** `species` or `species:place`. */
  readonly id: string;
  readonly species: string;
  readonly place: string;
  readonly name: string;
  /** State of assembly the unit has to be in; empty: any. */
  readonly assembly: string;
  /** The last state, in the order of taking apart, that it can still be done in; where none is named, that one alone. */
  readonly upTo?: string;
  readonly minutes: number;
  /** The run it is seen or read in, with the others of that run: another one waits until the unit has rested. */
  readonly run?: string;
  readonly unit: Unit;
  /** Where the probes go and what to do, in one or two sentences. */
  readonly how: string;
  /** What the check is good for, in half a sentence. */
  readonly tells: string;
  readonly cautions: readonly string[];
  /** What not every shop has. */
  readonly needs?: Equipment;
  readonly method: Method;
}

/**
 * The result of a check: a value in the check's unit, over-range, a named finding (a lamp: `lit`, `dark`), a reading
 * that changes when lead or part is touched, or a place that can't be reached.
 */
export type Outcome =
  | { readonly kind: 'value'; readonly value: number }
  | { readonly kind: 'over-range' }
  | { readonly kind: 'finding'; readonly finding: string }
  | { readonly kind: 'changes' }
  | { readonly kind: 'no-access' };

/** Outcomes that every check may have, as they are named and typed. */
export const anyOutcomes = [
  { kind: 'changes', name: 'Changes when touched', key: 't' },
  { kind: 'no-access', name: 'Not accessible', key: 'n' },
] as const;

/** Whether a check can have an outcome. */
export function mayShow(check: Check, outcome: Outcome): boolean {
  if (outcome.kind === 'changes' || outcome.kind === 'no-access') return check.method.kind !== 'leads';
  const findings = findingsOf(check);
  if (outcome.kind === 'finding') return findings.some(({ id }) => id === outcome.finding);
  return findings.length === 0 && (outcome.kind === 'value' || check.unit !== 'millimetres');
}

export const lampOutcomes: readonly FindingOutcome[] = [
  { id: 'dark', name: 'Lamp stays dark', word: 'sound' },
  { id: 'lit', name: 'Lamp lights', word: 'failed' },
];

/** The named outcomes a check can have; none when it gives a number. */
export function findingsOf(check: Check): readonly FindingOutcome[] {
  if (check.method.kind === 'finding') return check.method.outcomes;
  if (check.method.kind === 'meter' && check.method.setup.function === 'lamp') return lampOutcomes;
  return [];
}

/** Smallest caliper step and its standard uncertainty in mm: ±0.1 mm, rectangular [common practice, no source]. */
export const caliperSigma = 0.1 / Math.sqrt(3);

/** The five words for a reading and for a part; design rule "a reading's word". */
export type Word = 'sound' | 'doubtful' | 'failed' | "can't tell" | 'not looked at';
