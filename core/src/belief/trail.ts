import { type Belief, beliefInSteps, beliefWithout, type Outset, slipChanceOf } from './belief.ts';
import type { Case, Reading } from './case.ts';
import { type Counted, isSame, slipAfter } from './counted.ts';
import { leadsOf } from './dimensions.ts';
import { beliefInSet, type FaultSet, setsFound, withSet } from './further.ts';
import { atOnce, type Steps } from './steps.ts';

/** What is believed along a list of readings. */
export interface Followed {
  /** In the order in which they were followed. */
  readonly counted: readonly Counted[];
  /** What each of the counted readings met, and what the next will. */
  readonly outsets: readonly Outset[];
  /** What is believed after the last. */
  readonly belief: Belief;
  /** What is believed after so many of the counted; to be asked before another list is followed. */
  readonly after: (many: number) => Belief;
}

/** How far a list was followed. */
interface Walked {
  readonly counted: readonly Counted[];
  /** How likely those are: its natural logarithm. */
  readonly logLikelihood: number;
}

/** Told of each reading how doubtful it was when it was read, says whether to follow no further. */
type Until = (counted: Counted, doubt: number) => boolean;

/** A place along a trail. */
interface Place {
  readonly outset: Outset;
  /** The chance that the last reading before it was a slip, as things stood then. */
  readonly doubt: number;
  readonly logLikelihood: number;
  /** Let go where all of them hold too much; it is thought through anew when it is asked for. */
  readonly belief: Belief | undefined;
  /** How many states it holds, those of its neighbours among them. */
  readonly states: number;
}

/** What was believed after one reading or another, of those that might come next. */
interface Branches {
  readonly from: Belief;
  readonly tried: { readonly counted: Counted; readonly belief: Belief }[];
}

/** So many states are held along a trail, each a kilobyte or more; beyond that the beliefs that hold most are let go. */
const mostStates = 6_000;
/** The last places are kept: what is struck out again is most often the last. */
const lastKept = 3;
/** Beside faults found together with this chance a further one is weighed [our estimate]. */
const foundFrom = 0.25;
/** From here on that is worth preparing for [our estimate]. */
const soonFoundFrom = 0.1;

/** Which faults are weighed along a list: further ones stand beside two and more that were found. */
type Weighed = 'those it began with' | 'further ones too';

/**
 * Beliefs along a list: one that begins like the last one is not worked out anew, nor is what was tried where it ends.
 * What comes after a list that ends earlier is kept.
 */
export class Trail {
  readonly #opened: Case;
  readonly #before: Belief;
  readonly #faults: Weighed;
  readonly #most: number;
  #counted: readonly Counted[] = [];
  #places: Place[];
  #branches: Branches | undefined;

  constructor(opened: Case, before: Belief, faults: Weighed = 'those it began with', most = mostStates) {
    this.#opened = opened;
    this.#before = before;
    this.#faults = faults;
    this.#most = most;
    this.#places = [placeAt(before)];
  }

  follow(counted: readonly Counted[]): Followed {
    atOnce(this.walk(counted));
    const outsets = this.#places.slice(0, counted.length + 1).map(({ outset }) => outset);
    return { counted, outsets, belief: this.#beliefAt(counted.length), after: (many) => this.#beliefAt(many) };
  }

  /** Follows a list a small step at a time, then weighs what may soon be weighed beside what was found in it. */
  *prepare(counted: readonly Counted[]): Steps<void> {
    yield* this.walk(counted);
    const belief = this.#beliefAt(counted.length);
    if (this.#faults === 'those it began with') return;
    for (const set of setsFound(this.#opened, belief, soonFoundFrom)) yield* this.#beside(belief, set).prepare(counted);
  }

  /** Follows a list a small step at a time, and no further than a reading that `until` is true of. */
  *walk(counted: readonly Counted[], until: Until = () => false): Steps<Walked> {
    const same = this.#same(counted);
    if (same < counted.length) {
      this.#counted = counted.slice(0, same);
      this.#places.length = same + 1;
    }
    for (const [at, one] of counted.entries()) {
      if (at >= this.#counted.length) {
        const read = counted.slice(0, at + 1);
        const belief = yield* this.#after(this.#beliefAt(at), read);
        this.#counted = read;
        this.#places.push(placeAt(belief));
        this.letGo(this.#most);
        yield;
      }
      const { doubt, logLikelihood } = this.#places[at + 1]!;
      if (until(one, doubt)) return { counted: counted.slice(0, at + 1), logLikelihood };
    }
    return { counted, logLikelihood: this.#places[counted.length]!.logLikelihood };
  }

  /** How many of a list are those followed last. */
  #same(counted: readonly Counted[]): number {
    let same = 0;
    while (same < this.#counted.length && same < counted.length && isSame(this.#counted[same]!, counted[same]!)) same++;
    return same;
  }

  /** The belief after so many, from the last before it that is still held. */
  #beliefAt(many: number): Belief {
    let held = many;
    while (!this.#places[held]!.belief) held--;
    let belief = this.#places[held]!.belief!;
    for (let at = held + 1; at <= many; at++) belief = atOnce(this.#after(belief, this.#counted.slice(0, at)));
    this.#places[many] = { ...this.#places[many]!, belief };
    return belief;
  }

  /** Holds beliefs of no more states than `most`, its last ones apart. */
  letGo(most = 0): void {
    let held = this.#places.reduce((sum, { belief, states }) => sum + (belief ? states : 0), 0);
    if (held <= most) return;
    const older = [...this.#places.entries()].slice(1, -lastKept);
    for (const [at, place] of older.sort(([, a], [, b]) => b.states - a.states)) {
      if (held <= most) break;
      if (!place.belief) continue;
      this.#places[at] = { ...place, belief: undefined };
      held -= place.states;
    }
  }

  /** The belief after one more, the last of those read. */
  *#after(last: Belief, read: readonly Counted[]): Steps<Belief> {
    const counted = read.at(-1)!;
    if (this.#branches?.from !== last) this.#branches = { from: last, tried: [] };
    const { tried } = this.#branches;
    const known = tried.find((one) => isSame(one.counted, counted));
    if (known) return known.belief;
    const { reading, otherLeads } = counted;
    const before = otherLeads ? withOtherLeads(this.#opened, last, reading) : last;
    const alone = yield* beliefInSteps(this.#opened, before, reading, slipAfter(counted));
    const belief = this.#faults === 'those it began with' ? alone : yield* this.#withFurther(alone, read);
    // A number seldom comes a second time to the last digit.
    if (reading.outcome.kind !== 'value') tried.push({ counted, belief });
    return belief;
  }

  /** Weighs a further fault beside those that were found by now, as though it had been from the first. */
  *#withFurther(belief: Belief, read: readonly Counted[]): Steps<Belief> {
    let joined = belief;
    for (const set of setsFound(this.#opened, belief, foundFrom)) {
      yield;
      const beside = this.#beside(joined, set);
      yield* beside.walk(read);
      joined = withSet(joined, beside.#beliefAt(read.length));
    }
    return joined;
  }

  /** Where a set of faults is, those alone or with a further one. */
  #beside(now: Belief, set: FaultSet): Trail {
    return new Trail(this.#opened, beliefInSet(this.#opened, this.#before, now, set));
  }
}

/** Before their null is taken, other leads may be as far from the meter's own as it will say. */
function withOtherLeads(opened: Case, belief: Belief, { outcome, meter }: Reading): Belief {
  const off = outcome.kind === 'value' ? Math.abs(outcome.value - meter.leadOhms) : 0;
  return beliefWithout(opened, belief, leadsOf(meter), Math.max(off, meter.leadOhmsSigma));
}

const knownOutsets = new WeakMap<Belief, Outset>();

/** One for each belief. */
function outsetOf(belief: Belief): Outset {
  let outset = knownOutsets.get(belief);
  if (!outset) {
    outset = { rows: belief.rows.map(({ chance, sound }) => ({ chance, sound })) };
    knownOutsets.set(belief, outset);
  }
  return outset;
}

function placeAt(belief: Belief): Place {
  const read = belief.evidence.length;
  const doubt = read > 0 ? slipChanceOf(belief, read - 1) : 0;
  return { outset: outsetOf(belief), doubt, logLikelihood: belief.logLikelihood, belief, states: statesOf(belief) };
}

const statesOf = ({ rows }: Belief): number => new Set(rows.flatMap(({ states }) => states)).size;
