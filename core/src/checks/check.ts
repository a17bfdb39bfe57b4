import type { Setup } from '../instruments/index.ts';
import type { Unit } from '../quantity/index.ts';

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
}

/** How a check's result comes about. */
export type Method =
  /** A meter, tester or lamp between two places. `isolation`: more ohms are never worse. */
  | { readonly kind: 'meter'; readonly setup: Setup; readonly isolation?: boolean }
  /** The meter's own leads held together. */
  | { readonly kind: 'leads' }
  /** A length in mm under a caliper, with the least that may stay in service. */
  | {
      readonly kind: 'length';
      readonly least: number;
      readonly expected: (faults: readonly PresentFault[]) => { readonly mean: number; readonly sigma: number };
    }
  /** Seen or felt: one of several outcomes, with the chance of each given the faults present. */
  | {
      readonly kind: 'finding';
      readonly outcomes: readonly FindingOutcome[];
      readonly chances: (faults: readonly PresentFault[]) => readonly number[];
    };

/** A thing done at the bench. */
export interface Check {
  /** `species` or `species:place`. */
  readonly id: string;
  readonly species: string;
  readonly place: string;
  readonly name: string;
  /** State of assembly the unit has to be in; empty: any. */
  readonly assembly: string;
  readonly minutes: number;
  readonly unit: Unit;
  /** Where the probes go and what to do, in one or two sentences. */
  readonly how: string;
  /** What the check is good for, in half a sentence. */
  readonly tells: string;
  readonly cautions: readonly string[];
  readonly method: Method;
}

/** The result of a check: a value in the check's unit, over-range, or a named finding (a lamp: `lit`, `dark`). */
export type Outcome =
  | { readonly kind: 'value'; readonly value: number }
  | { readonly kind: 'over-range' }
  | { readonly kind: 'finding'; readonly finding: string };

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
