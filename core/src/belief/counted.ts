import { type Check, findingsOf } from '../checks/index.ts';
import { countSigma, rangeFor, rangesOf } from '../instruments/index.ts';
import type { Reading } from './case.ts';
import { slipChance } from './likelihood.ts';

/** A reading as the belief takes it: repeats of one check are one reading. */
export interface Counted {
  readonly reading: Reading;
  /** How many entries it stands for. */
  readonly entries: number;
  /** Whether the entries of this check differ by more than the meter's own steps explain. */
  readonly disagree: boolean;
  /** A null unlike the meter's last, or unlike its own leads: of others, of which nothing was known. */
  readonly otherLeads: boolean;
}

const once = (reading: Reading): Counted => ({
  reading,
  entries: 1,
  disagree: false,
  otherLeads: isNull(reading) && !areItsOwn(reading),
});

/**
 * Settles repeats. A repeat that agrees makes a slip unlikely (its chance to the power of the number of entries) but
 * is no second evidence; one that disagrees takes the place of what stood before it. What was told gives way to what
 * was measured. The place in the order is the first's. A place that couldn't be reached says nothing. Each meter's
 * leads have nulls of their own, and one unlike the last begins anew: they were changed.
 */
export function countedReadings(readings: readonly Reading[]): Counted[] {
  const counted: Counted[] = [];
  for (const reading of readings) {
    if (reading.outcome.kind === 'no-access') continue;
    const at = counted.findLastIndex(({ reading: other }) => isRepeat(other, reading));
    const first = counted[at];
    if (!first) counted.push(once(reading));
    else if (slipOf(reading) > slipOf(first.reading)) continue;
    else if (slipOf(reading) < slipOf(first.reading)) counted[at] = once(reading);
    else if (agree(first.reading, reading)) counted[at] = { ...first, entries: first.entries + 1 };
    else if (isNull(reading)) counted.push({ ...once(reading), otherLeads: true });
    else counted[at] = { ...once(reading), disagree: true };
  }
  return counted;
}

/** Where among the counted a reading went. */
export function countedAt(counted: readonly Counted[], reading: Reading): number {
  const agreeing = counted.findIndex(({ reading: other }) => isRepeat(other, reading) && agree(other, reading));
  return agreeing >= 0 ? agreeing : counted.findIndex(({ reading: other }) => isRepeat(other, reading));
}

/** Whether a null is one of the leads that the meter is described with. */
function areItsOwn({ outcome, meter }: Reading): boolean {
  const sigma = Math.hypot(meter.leadOhmsSigma, countSigma(meter.ohms[0]!));
  return outcome.kind !== 'value' || Math.abs(outcome.value - meter.leadOhms) <= ownLeads * sigma;
}
const ownLeads = 3;

const isNull = ({ check }: Reading): boolean => check.method.kind === 'leads';
const isRepeat = (a: Reading, b: Reading): boolean =>
  a.check.id === b.check.id && (!isNull(a) || a.meter.id === b.meter.id);

const slipOf = (reading: Reading): number => reading.slip ?? slipChance;

/** What we measure again is surer; what is told again is told by the same. */
export const slipAfter = ({ reading, entries }: Counted): number =>
  slipOf(reading) > slipChance ? slipOf(reading) : slipOf(reading) ** entries;

function agree(a: Reading, b: Reading): boolean {
  if (a.meter.id !== b.meter.id || a.celsius !== b.celsius || a.outcome.kind !== b.outcome.kind) return false;
  if (a.outcome.kind === 'finding')
    return b.outcome.kind === 'finding' && sameFinding(a.check, a.outcome.finding, b.outcome.finding);
  if (a.outcome.kind !== 'value' || b.outcome.kind !== 'value') return true;
  const method = a.check.method;
  if (method.kind === 'length') return Math.abs(a.outcome.value - b.outcome.value) <= 0.3;
  const use = method.kind === 'meter' ? method.setup.function : 'ohms';
  const ranges = rangesOf(a.meter, use);
  const sigma = countSigma(rangeFor(ranges, a.outcome.value));
  return Math.abs(a.outcome.value - b.outcome.value) <= 3 * sigma + 0.02 * Math.abs(a.outcome.value);
}

/** Two looks that both find something wrong agree that it is, whatever they call it. */
function sameFinding(check: Check, a: string, b: string): boolean {
  const failed = (id: string) => findingsOf(check).find((finding) => finding.id === id)?.word === 'failed';
  return a === b || (failed(a) && failed(b));
}

/** Whether two tell the same. */
export const isSame = (a: Counted, b: Counted): boolean =>
  a.reading.check.id === b.reading.check.id &&
  a.entries === b.entries &&
  a.otherLeads === b.otherLeads &&
  a.reading.meter.id === b.reading.meter.id &&
  a.reading.celsius === b.reading.celsius &&
  slipOf(a.reading) === slipOf(b.reading) &&
  JSON.stringify(a.reading.outcome) === JSON.stringify(b.reading.outcome);
