import type { Counting } from '../belief/index.ts';
import type { Word } from '../checks/index.ts';
import type { CourseId } from '../verdict/index.ts';

/** What is believed of a unit, and why. */
export interface Diagnosis {
  /** Probability that nothing is wrong. */
  readonly sound: number;
  /** `contrary`: not what it was checked in as. */
  readonly builds: readonly { readonly name: string; readonly chance: number; readonly contrary?: true | undefined }[];
  /** Chance that the unit differs more from its kind than usual; limits are taken wider by as much. */
  readonly unlike: number;
  /** What it differs in alone, if that is likelier than in all. */
  readonly unlikeIn: string | undefined;
  readonly suspects: readonly Suspect[];
  readonly cleared: readonly { readonly fault: string; readonly name: string; readonly bits: number }[];
  readonly parts: readonly {
    readonly id: string;
    readonly name: string;
    readonly word: Word;
    readonly chance: number;
  }[];
  readonly readings: readonly JudgedReading[];
  /** The points of the output that count, each judged by what came before it. */
  readonly output: readonly JudgedReading[];
  /** Copper that the readings beside the output's points tell the resistance of: ln of it over the plate's, and its standard deviation. */
  readonly windings: readonly Winding[];
  /** Whether it may run; undefined for what never does. */
  readonly gate: Gate | undefined;
}

export interface Winding {
  readonly id: string;
  readonly name: string;
  readonly mean: number;
  readonly sigma: number;
}

/** What to do about it. */
export interface Outlook {
  readonly next: readonly NextCheck[];
  /** Set when no check at hand pays for its minutes any more. */
  readonly stop: string | undefined;
  /** The next check wants it taken further apart, and its light is green: it should be run on the stand before. */
  readonly runFirst: boolean;
  /** Every two of the open suspects, likeliest first. */
  readonly apart: readonly Apart[];
  readonly hidden: readonly string[];
}

/** All that follows from a job's readings, ready to be shown, stored or printed: plain data. */
export interface Assessment extends Diagnosis, Outlook {
  readonly engine: string;
  readonly verdict: AssessedVerdict;
}

export interface Suspect {
  readonly fault: string;
  readonly name: string;
  readonly part: string;
  readonly chance: number;
  readonly severity: string | undefined;
  /** Readings that speak for (positive bits) or against it, strongest first. */
  readonly evidence: readonly {
    readonly reading: string;
    readonly check: string;
    readonly shown: string;
    readonly bits: number;
  }[];
}

export interface JudgedReading {
  readonly id: string;
  readonly check: string;
  readonly name: string;
  readonly shown: string;
  /** The reading less the leads' null, where one was taken and matters. */
  readonly net: string | undefined;
  readonly expected: string;
  readonly word: Word;
  /** What a finding means for the work. */
  readonly then: string | undefined;
  /** How it counts beside others of its check; undefined where nothing could be read. */
  readonly counting: Counting | undefined;
  /** What else there is to know of how it counts. */
  readonly aside: string | undefined;
  /** Set when the entry should be taken again, with the reason. */
  readonly repeat: string | undefined;
}

/** The light before a run: green, or why not, with the check that would settle it where one is missing. */
export interface Gate {
  readonly green: boolean;
  /** `id` names a reason for good: what hasn't been looked at by its check, a danger by its species. */
  readonly reasons: readonly { readonly id: string; readonly check: string | undefined; readonly why: string }[];
}

export interface NextCheck {
  readonly check: string;
  readonly name: string;
  readonly minutes: number;
  /** Of taking apart or putting back before it, or of rest. */
  readonly setupMinutes: number;
  readonly bits: number;
  readonly reason: string;
}

/** What would tell two suspects apart, or one from nothing more wrong: faults by id, `nothing` for the latter. */
export interface Apart {
  readonly between: readonly [string, string];
  readonly names: readonly [string, string];
  /** The check that tells them apart best, where one does or hints at it. */
  readonly check: string | undefined;
  readonly name: string | undefined;
  readonly clearly: boolean;
}

export interface AssessedCourse {
  readonly id: CourseId;
  readonly name: string;
  readonly actions: readonly {
    readonly kind: 'repair' | 'replace';
    readonly id: string;
    readonly name: string;
    readonly why: string;
    readonly chance: number;
  }[];
  readonly minutes: number;
  readonly cost: number | undefined;
  readonly unknownPrices: readonly string[];
  readonly risk: number;
  readonly barred: string | undefined;
}

export interface AssessedVerdict {
  readonly courses: readonly AssessedCourse[];
  readonly inMoney: boolean;
  readonly recommended: CourseId | undefined;
  readonly reason: string;
}

/** A scale for one check: where sound and faulty units read with this meter. */
export interface Ruler {
  readonly check: string;
  readonly unit: 'volts' | 'amps' | 'ohms' | 'millimetres' | 'rpm' | 'newtonMetres';
  /** Ends of the scale drawn, in the check's unit. */
  readonly from: number;
  readonly to: number;
  /** The value at which this meter shows over-range. */
  readonly top: number | undefined;
  readonly sound: readonly (RulerBand & { readonly name: string })[];
  readonly suspects: readonly (RulerBand & { readonly name: string; readonly chance: number })[];
  readonly canTell: boolean;
  /** What would tell, when this meter can't. */
  readonly instead: readonly string[];
  readonly expected: string;
}

export interface RulerBand {
  readonly low: number;
  readonly high: number;
  readonly over: boolean;
}
