import type { Check } from '../checks/index.ts';
import type { Limit } from '../shelf/index.ts';
import { studentT } from './student.ts';

/** The three schools of what a reading is held against; the first named is the usual one [common practice, no source]. */
export const schools = {
  published: 'Published',
  siblings: 'Siblings alike',
  own: 'Our known-good ones',
} as const;
export type School = keyof typeof schools;

/** What one school allows, in the check's unit; an open end is undefined. */
export interface SchoolLimit {
  readonly school: School;
  readonly least: number | undefined;
  readonly most: number | undefined;
  /** Where it comes from, in words. */
  readonly source: string;
}

/** What is there to hold a reading against. */
export interface Known {
  /** The model's published limit. */
  readonly published: Limit | undefined;
  /** What the same check showed at its other places, on this unit, by the same meter. */
  readonly siblings: readonly number[];
  /** What the check showed on units that a lead vouched for. */
  readonly own: readonly number[];
}

/** A known-good unit says nothing, two say little: from three on they count. */
export const fewestOwn = 3;
/** How far siblings may lie from their mean: copper in its share, junctions in volts [common practice, no source]. */
const alike = { ohms: 0.05, drop: 0.03, diode: 0.015, volts: 0.03 } as const;

/** What each school allows a check, of those that have anything to say. */
export function limitsFor({ method }: Check, { published, siblings, own }: Known): readonly SchoolLimit[] {
  const found: SchoolLimit[] = [];
  if (published) {
    const { least, most } = published;
    const source = [...new Set([least?.source, most?.source].filter(Boolean))].join('; ');
    const read = (known: typeof least) => (known === undefined ? undefined : Number(known.value));
    found.push({ school: 'published', least: read(least), most: read(most), source });
  }
  const allowed =
    method.kind === 'meter' && !method.isolation ? allowanceOf(method.setup.function, siblings) : undefined;
  if (allowed !== undefined) {
    const mean = meanOf(siblings);
    const source = `${siblings.length} siblings on this unit, same meter`;
    found.push({ school: 'siblings', least: mean - allowed, most: mean + allowed, source });
  }
  if (own.length >= fewestOwn) {
    const mean = meanOf(own);
    const deviation = Math.sqrt(own.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (own.length - 1));
    // Where the next reading of such a unit is expected, 95 in 100.
    const reach = studentT(own.length - 1) * deviation * Math.sqrt(1 + 1 / own.length);
    found.push({
      school: 'own',
      least: mean - reach,
      most: mean + reach,
      source: `${own.length} known-good units of this model, 95 in 100`,
    });
  }
  return found;
}

const meanOf = (values: readonly number[]): number => values.reduce((sum, x) => sum + x, 0) / values.length;

function allowanceOf(use: string, siblings: readonly number[]): number | undefined {
  if (siblings.length < 2 || !(use in alike)) return undefined;
  const share = alike[use as keyof typeof alike];
  return use === 'diode' ? share : share * meanOf(siblings);
}

/** Whether a reading keeps a limit: `unsure` when the meter's uncertainty reaches over it. */
export type Keeps = 'inside' | 'outside' | 'unsure';

/** `sigma`: standard uncertainty of the reading. Twice that on the right side is asked for. */
export function keeps({ least = -Infinity, most = Infinity }: SchoolLimit, value: number, sigma: number): Keeps {
  const margin = 2 * sigma;
  if (value >= least + margin && value <= most - margin) return 'inside';
  return value < least - margin || value > most + margin ? 'outside' : 'unsure';
}

/** The limits in the order of the house, and whether those that are sure of a reading contradict each other. */
export function inHouseOrder(limits: readonly SchoolLimit[], order: readonly School[]): readonly SchoolLimit[] {
  return [...limits].sort((a, b) => order.indexOf(a.school) - order.indexOf(b.school));
}

export function contradict(words: readonly Keeps[]): boolean {
  return words.includes('inside') && words.includes('outside');
}

/** Largest deviation from the mean over the mean: what "all three alike" is measured by. */
export function unbalance(values: readonly number[]): number {
  const mean = meanOf(values);
  return Math.max(...values.map((x) => Math.abs(x - mean))) / Math.abs(mean);
}
