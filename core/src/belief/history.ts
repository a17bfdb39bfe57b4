import { type Check, findingsOf } from '../checks/index.ts';
import { countSigma, rangeFor, rangesOf } from '../instruments/index.ts';
import { type Belief, beliefAfter, beliefWithout, priorBelief, unlikeChance } from './belief.ts';
import type { Case, Reading } from './case.ts';
import { leadsOf } from './dimensions.ts';
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

/** Before their null is taken, other leads may be as far from the meter's own as it will say. */
function withOtherLeads(opened: Case, belief: Belief, { outcome, meter }: Reading): Belief {
  const off = outcome.kind === 'value' ? Math.abs(outcome.value - meter.leadOhms) : 0;
  return beliefWithout(opened, belief, leadsOf(meter), Math.max(off, meter.leadOhmsSigma));
}

const isNull = ({ check }: Reading): boolean => check.method.kind === 'leads';
const isRepeat = (a: Reading, b: Reading): boolean =>
  a.check.id === b.check.id && (!isNull(a) || a.meter.id === b.meter.id);

const slipOf = (reading: Reading): number => reading.slip ?? slipChance;

/** What we measure again is surer; what is told again is told by the same. */
const slipAfter = (reading: Reading, entries: number): number =>
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

/** What was believed after one reading or another, of those that might come next. */
interface Branches {
  readonly from: Belief;
  readonly tried: { readonly counted: Counted; readonly belief: Belief }[];
}

/** So likely unlike its kind, and two faults at once are weighed on such a unit too. */
const unlike = 0.5;
/** From here on that is worth preparing for: its pairs fill the worker's memory, two to three times as much as usual. */
const soonUnlike = 0.2;

/** Beliefs along a list of readings. */
export class History {
  readonly #opened: Case;
  readonly #usual: Trail;
  readonly #before: Belief | undefined;
  #ofUnlike: Trail | undefined;

  /** `before`: what was believed before the first reading; the prior when it isn't said. */
  constructor(opened: Case, before?: Belief) {
    this.#opened = opened;
    this.#before = before;
    this.#usual = new Trail(opened, before ?? priorBelief(opened));
  }

  /** The counted readings, and the belief before each and after the last. */
  follow(readings: readonly Reading[]): { counted: readonly Counted[]; beliefs: readonly Belief[] } {
    const counted = countedReadings(readings);
    const beliefs = this.#usual.follow(counted);
    if (this.#before || unlikeChance(this.#opened, beliefs.at(-1)!) < unlike) return { counted, beliefs };
    return { counted, beliefs: this.#unlikeTrail().follow(counted) };
  }

  /** Follows a unit as one unlike its kind beforehand, a reading in each step: when it may soon look so, or does. */
  *prepare(readings: readonly Reading[], when: 'soon' | 'when it does' = 'soon'): Generator<undefined, void> {
    const counted = countedReadings(readings);
    const least = when === 'soon' ? soonUnlike : unlike;
    if (this.#before || unlikeChance(this.#opened, this.#usual.follow(counted).at(-1)!) < least) return;
    yield* this.#unlikeTrail().prepare(counted);
  }

  #unlikeTrail(): Trail {
    return (this.#ofUnlike ??= new Trail(this.#opened, priorBelief(this.#opened, 'on any')));
  }
}

/** A list that begins like the last one is not worked out anew, nor is what was tried where it ends. */
class Trail {
  readonly #opened: Case;
  #counted: readonly Counted[] = [];
  #beliefs: readonly Belief[];
  #branches: Branches | undefined;

  constructor(opened: Case, before: Belief) {
    this.#opened = opened;
    this.#beliefs = [before];
  }

  /** The belief before each and after the last. */
  follow(counted: readonly Counted[]): readonly Belief[] {
    const same = this.#same(counted);
    const beliefs = this.#beliefs.slice(0, same + 1);
    for (const next of counted.slice(same)) beliefs.push(this.#after(beliefs[beliefs.length - 1]!, next));
    this.#counted = counted;
    this.#beliefs = beliefs;
    return beliefs;
  }

  /** Follows a list one by one. */
  *prepare(counted: readonly Counted[]): Generator<undefined, void> {
    for (let to = this.#same(counted) + 1; to <= counted.length; to++) {
      this.follow(counted.slice(0, to));
      yield;
    }
  }

  /** How many of a list are those followed last. */
  #same(counted: readonly Counted[]): number {
    let same = 0;
    while (same < this.#counted.length && same < counted.length && equal(this.#counted[same]!, counted[same]!)) same++;
    return same;
  }

  #after(last: Belief, counted: Counted): Belief {
    if (this.#branches?.from !== last) this.#branches = { from: last, tried: [] };
    const known = this.#branches.tried.find((one) => equal(one.counted, counted));
    if (known) return known.belief;
    const { reading, entries, otherLeads } = counted;
    const before = otherLeads ? withOtherLeads(this.#opened, last, reading) : last;
    const belief = beliefAfter(this.#opened, before, reading, slipAfter(reading, entries));
    // A number seldom comes a second time to the last digit.
    if (reading.outcome.kind !== 'value') this.#branches.tried.push({ counted, belief });
    return belief;
  }
}

const equal = (a: Counted, b: Counted): boolean =>
  a.reading.check.id === b.reading.check.id &&
  a.entries === b.entries &&
  a.otherLeads === b.otherLeads &&
  a.reading.meter.id === b.reading.meter.id &&
  a.reading.celsius === b.reading.celsius &&
  slipOf(a.reading) === slipOf(b.reading) &&
  JSON.stringify(a.reading.outcome) === JSON.stringify(b.reading.outcome);
