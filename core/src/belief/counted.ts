import { type Check, findingsOf } from '../checks/index.ts';
import { countSigma, rangeFor, rangesOf } from '../instruments/index.ts';
import type { Reading } from './case.ts';
import { slipChance } from './likelihood.ts';

/** A reading as the belief takes it: repeats of one check are one reading. */
export interface Counted {
  readonly reading: Reading;
  /** How many entries it stands for. */
  readonly entries: number;
  /** Whether as many entries of this check agree on something else, differing by more than the meter's own steps explain. */
  readonly undecided: boolean;
  /** A null unlike the meter's last, or unlike its own leads: of others, of which nothing was known. */
  readonly otherLeads: boolean;
}

/**
 * Settles repeats. A repeat that agrees makes a slip unlikely (its chance to the power of the number of entries) but
 * is no second evidence; of entries that disagree count those that most agree on, of as many the last ones. One taken
 * another way, with another meter, at another warmth or touched, takes the place of those before it; what was told gives way to
 * what was measured. The place in the order is the first's. A place that couldn't be reached says nothing.
 * Each meter's leads have nulls of their own, and one unlike the last begins anew: they were changed.
 */
export function countedReadings(readings: readonly Reading[]): Counted[] {
  const places: Reading[][] = [];
  for (const reading of readings) {
    if (reading.outcome.kind === 'no-access') continue;
    const at = places.findLastIndex(([first]) => isRepeat(first!, reading));
    const entries = places[at];
    const [first] = entries ?? [];
    if (!entries || !first || (isNull(reading) && !agree(first, reading))) places.push([reading]);
    else if (slipOf(reading) > slipOf(first)) continue;
    else if (isAlike(first, reading)) entries.push(reading);
    else places[at] = [reading];
  }
  return places.map((entries, at) => {
    const [first] = entries as [Reading];
    const known = places.slice(0, at).some(([other]) => isRepeat(other!, first));
    return { ...mostAgreed(entries), otherLeads: isNull(first) && (known || !areItsOwn(first)) };
  });
}

function mostAgreed(entries: readonly Reading[]): Omit<Counted, 'otherLeads'> {
  const voices: Reading[][] = [];
  for (const entry of entries) {
    const voice = voices.find(([first]) => agree(first!, entry));
    if (voice) voice.push(entry);
    else voices.push([entry]);
  }
  const most = Math.max(...voices.map(({ length }) => length));
  const loudest = voices.filter(({ length }) => length === most);
  const lastOf = (voice: readonly Reading[]) => entries.lastIndexOf(voice.at(-1)!);
  const [reading] = loudest.reduce((a, b) => (lastOf(b) > lastOf(a) ? b : a)) as [Reading];
  return { reading, entries: most, undecided: loudest.length > 1 };
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

/** What becomes of a reading beside the others of its check. */
export function countingOf({ reading: counts, undecided }: Counted, reading: Reading): Counting {
  if (!isAlike(counts, reading)) return 'replaced';
  if (undecided) return 'undecided';
  return agree(counts, reading) ? 'counts' : 'outvoted';
}
/** Whether a reading is the one that counts of its check. */
export type Counting = 'counts' | 'undecided' | 'outvoted' | 'replaced';

/**
 * Whether one reading can stand against another: told as surely, and numbers read the same way. What is steady says nothing
 * against what changed when it was touched.
 */
const isAlike = (a: Reading, b: Reading): boolean =>
  slipOf(a) === slipOf(b) &&
  (a.outcome.kind === 'changes') === (b.outcome.kind === 'changes') &&
  (a.outcome.kind === 'finding' || (a.meter.id === b.meter.id && a.celsius === b.celsius));

function agree(a: Reading, b: Reading): boolean {
  if (a.outcome.kind !== b.outcome.kind || !isAlike(a, b)) return false;
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
