import type { Hidden, Preparation } from '../advice/index.ts';
import { type Band, type Case, type Counting, type SeverityEstimate, slipChance } from '../belief/index.ts';
import { anyOutcomes, type Check, findingsOf, type Outcome } from '../checks/index.ts';
import type { Severity } from '../machines/index.ts';
import { formatQuantity, formatReading } from '../quantity/index.ts';

/** An outcome as it is written on the tape. */
export function outcomeText(check: Check, outcome: Outcome): string {
  const any = anyOutcomes.find(({ kind }) => kind === outcome.kind);
  if (any) return any.name;
  if (outcome.kind === 'over-range') return 'OL';
  if (outcome.kind === 'value') return formatReading(outcome.value, check.unit);
  if (outcome.kind !== 'finding') throw new RangeError(`no words for “${outcome.kind}”`);
  return findingsOf(check).find((finding) => finding.id === outcome.finding)?.name ?? outcome.finding;
}

/** A band as a range, or OL. */
export function bandText(check: Check, band: Band): string {
  if (band.over >= 0.5) return 'OL';
  const low = formatQuantity(Math.max(band.low, 0), check.unit);
  return band.over > 0.005 ? `${low} to OL` : `${low} to ${formatQuantity(band.high, check.unit)}`;
}

export const bandsText = (check: Check, bands: readonly Band[]): string =>
  [...new Set(bands.map((band) => bandText(check, band)))].join(', or ');

/** An interval wider than this factor says nothing. */
const vague = 60;

export function severityText(severity: Severity, estimate: SeverityEstimate | undefined): string | undefined {
  if (!estimate || severity.unit === 'none' || estimate.high > estimate.low * vague) return undefined;
  if (severity.unit === 'turns' || severity.unit === 'share') {
    const percent = (share: number) => Math.round(100 * Math.min(share, 1));
    const of = severity.unit === 'turns' ? ' of the turns' : '';
    return `about ${percent(estimate.middle)} %${of} (${percent(estimate.low)} to ${percent(estimate.high)} %)`;
  }
  if (severity.unit === 'times') {
    const times = (value: number) => Number(value.toPrecision(2));
    return `about ${times(estimate.middle)} times (${times(estimate.low)} to ${times(estimate.high)})`;
  }
  const { unit } = severity;
  const shown = (value: number) => formatQuantity(value, unit);
  return `about ${shown(estimate.middle)} (${shown(estimate.low)} to ${shown(estimate.high)})`;
}

export const faultName = (opened: Case, fault: number | undefined): string =>
  fault === undefined ? 'nothing more wrong' : opened.faults[fault]!.name;

type Pair = readonly [number | undefined, number | undefined];

/** Two that are to be told apart as one says it: a fault first, “nothing more wrong” second. */
export const faultFirst = ([a, b]: Pair): Pair => (a === undefined ? [b, a] : [a, b]);

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What may hide, and where it would show. */
export function hiddenText(opened: Case, { faults, seenBy, clearly }: Hidden): string {
  const name = `${faultName(opened, faults[0])}${faults.length > 1 ? ' (or a sibling)' : ''}`;
  if (!seenBy) return `${name}: no check at rest shows it`;
  return clearly ? `${name}: seen by “${seenBy.name}”` : `${name}: only hinted at, by “${seenBy.name}”`;
}

/** Why a check is worth doing, in a sentence. */
export function adviceText(
  opened: Case,
  check: Check,
  { kind, for: state, minutes }: Preparation,
  between: Pair | undefined,
): string {
  const what = between
    ? `Tells ${faultFirst(between)
        .map((fault) => faultName(opened, fault))
        .join(' from ')}`
    : capital(check.tells);
  const work = {
    none: 'nothing to take apart',
    way: `${minutes} min to get to “${opened.subject.assemblies.find(({ id }) => id === state)?.name.toLowerCase()}”`,
    rest: `${minutes} min of rest before another run`,
  }[kind];
  return `${what}; ${check.minutes} min, ${work}.`;
}

/** What is said of a reading that doesn't count as it stands. */
export const otherLeads =
  'Other leads from here on: what was read before keeps its own null. If it was a slip, strike it out.';
export const undecided = 'Readings of this check disagree: until it is taken once more the last one counts.';
export const asides: Partial<Record<Counting, string>> = {
  outvoted: 'More readings of this check agree on something else: this one doesn’t count.',
  replaced: 'Another reading counts in its place: surer, or taken anew.',
};

/**
 * A slip as likely as this isn't believed; one of ours that became this much likelier is asked for once more, counted by
 * `study bench`.
 */
const unbelievable = 0.5;
const repeatRatio = 1.5;

/** Whether a reading should be taken once more before it is believed. */
export function slipWords(slip: number, before = slipChance): string | undefined {
  if (slip > unbelievable) return 'Fits nothing expected: take it again before believing it.';
  return slip > repeatRatio * before
    ? 'Much hangs on this one reading: take it once more to be sure of it.'
    : undefined;
}
