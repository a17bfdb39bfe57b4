import { type Belief, chanceThat, priorBelief, type Scope } from './belief.ts';
import type { Case, Reading } from './case.ts';
import { type Counted, countedReadings } from './counted.ts';
import type { Particle } from './hypotheses.ts';
import { slipChance } from './likelihood.ts';
import { atOnce, type Steps } from './steps.ts';
import { type Followed, Trail } from './trail.ts';

/** So likely unlike its kind, or something that such a unit is taken for, and it is weighed as `any` unit. */
const anyFrom = 0.5;
/** From here on that is worth preparing for [our estimate]. */
const preparedFrom = 0.2;
/** A reading that was a slip as likely as this contradicts what was believed. */
const contradicts = 0.5;
/** One entry in a list does so now and then. */
const fewEntries = 1;
/** What had dropped is as likely as all that was left, where an order makes what was read so much likelier. */
const asLikelyAgain = Math.LN2;

/** An order in which a list is followed: some readings before all others. */
interface Way {
  readonly order: readonly Counted[];
  readonly trail: Trail;
}

/** Beliefs along a list of readings. */
export class History {
  readonly #opened: Case;
  readonly #before: (scope: Scope) => Belief;
  readonly #trails = { 'its kind': new Map<string, Trail>(), any: new Map<string, Trail>() };
  /** Faults that a sound unit may be taken for which differs from its kind in some things alone. */
  readonly #takenFor: ReadonlySet<number>;

  /** `before`: what was believed before the first reading; the prior when it isn't said. */
  constructor(opened: Case, before = (scope: Scope) => priorBelief(opened, scope)) {
    this.#opened = opened;
    this.#before = before;
    const species = (opened.subject.strewnApart ?? []).flatMap(({ takenFor }) => takenFor);
    this.#takenFor = new Set([...opened.faults.keys()].filter((f) => species.includes(opened.faults[f]!.species)));
  }

  follow(readings: readonly Reading[]): Followed {
    const counted = countedReadings(readings);
    const usual = this.#trail('its kind').follow(counted);
    const { trail, order } = atOnce(this.#likeliest(this.#mayBeAny(usual, anyFrom) ? 'any' : 'its kind', counted));
    return trail.follow(order);
  }

  /** Follows a unit as `any` beforehand, a small step at a time, when it may soon have to be. */
  *prepare(readings: readonly Reading[]): Steps<void> {
    const counted = countedReadings(readings);
    const usual = this.#trail('its kind').follow(counted);
    if (!this.#mayBeAny(usual, preparedFrom)) return;
    const { trail, order } = yield* this.#likeliest('any', counted);
    yield* trail.prepare(order);
  }

  /**
   * It looks unlike its kind; or wrong in two things, or slightly in what may be another on a sound unit: that is what a
   * unit a little unlike its kind, or so in some things alone, is taken for.
   */
  #mayBeAny({ belief }: Followed, least: number): boolean {
    const isMistakable = ({ faults, soundAbove }: Particle) =>
      faults.some((f, n) => this.#takenFor.has(f) && (soundAbove[n]! || !this.#opened.faults[f]!.severity.soundAbove));
    const chance = chanceThat(
      this.#opened,
      belief,
      (faults, particle, { strewn }) => strewn !== undefined || faults.length > 1 || isMistakable(particle),
    );
    return chance >= least;
  }

  /**
   * What is true may have dropped for good before the readings that show it: those before them slipped, or were foreseen
   * badly. What shows it fits nothing then. The list is followed anew with such readings first, and once more when more of
   * them have come than there were; of two orders that holds from then on which makes likelier what was read by then.
   */
  *#likeliest(scope: Scope, counted: readonly Counted[]): Steps<Way> {
    let held: Way = { trail: this.#trail(scope), order: counted };
    let known: readonly Counted[] = [];
    const asked = [held.trail];
    for (;;) {
      const misfits: Counted[] = [];
      const isContradicted = () => entriesOf(misfits) > Math.max(fewEntries, entriesOf(known));
      const walked = yield* held.trail.walk(held.order, (one, doubt) => {
        if (doubt >= contradicts && !known.includes(one) && this.#isMeasuredAtRest(one)) misfits.push(one);
        return isContradicted();
      });
      if (!isContradicted()) break;
      known = [...known, ...misfits];
      const trail = this.#trail(scope, known);
      asked.push(trail);
      const anew = yield* trail.walk(firstOf(walked.counted, known));
      if (anew.logLikelihood > walked.logLikelihood + asLikelyAgain) held = { trail, order: firstOf(counted, known) };
    }
    for (const [key, trail] of this.#trails[scope]) {
      if (!asked.includes(trail)) this.#trails[scope].delete(key);
      else if (trail !== held.trail) trail.letGo();
    }
    return held;
  }

  #isMeasuredAtRest({ reading: { check, slip = slipChance } }: Counted): boolean {
    const running = this.#opened.subject.assemblies.some(({ id, running }) => running && id === check.assembly);
    return slip <= slipChance && !running;
  }

  /** `first`: the readings that are followed before all others. */
  #trail(scope: Scope, first: readonly Counted[] = []): Trail {
    const key = first.map(({ reading }) => reading.check.id).join(', ');
    const faults = scope === 'any' && !this.#opened.subject.twoAtMost ? 'further ones too' : 'those it began with';
    const trail = this.#trails[scope].get(key) ?? new Trail(this.#opened, this.#before(scope), faults);
    this.#trails[scope].set(key, trail);
    return trail;
  }
}

const entriesOf = (counted: readonly Counted[]): number => counted.reduce((sum, { entries }) => sum + entries, 0);

/** Some of a list before all others. */
const firstOf = (counted: readonly Counted[], first: readonly Counted[]): readonly Counted[] => [
  ...first,
  ...counted.filter((one) => !first.includes(one)),
];
