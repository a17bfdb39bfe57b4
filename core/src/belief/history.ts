import { type Belief, priorBelief, unlikeChance } from './belief.ts';
import type { Case, Reading } from './case.ts';
import { countedReadings } from './counted.ts';
import { type Followed, Trail } from './trail.ts';

/** So likely unlike its kind, and two faults at once are weighed on such a unit too. */
const unlike = 0.5;
/** From here on that is worth preparing for [our estimate]. */
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

  follow(readings: readonly Reading[]): Followed {
    const counted = countedReadings(readings);
    const usual = this.#usual.follow(counted);
    return this.#before || unlikeChance(this.#opened, usual.belief) < unlike
      ? usual
      : this.#unlikeTrail().follow(counted);
  }

  /** Follows a unit as one unlike its kind beforehand, a reading in each step: when it may soon look so, or does. */
  *prepare(readings: readonly Reading[], when: 'soon' | 'when it does' = 'soon'): Generator<undefined, void> {
    const counted = countedReadings(readings);
    const least = when === 'soon' ? soonUnlike : unlike;
    if (this.#before || unlikeChance(this.#opened, this.#usual.follow(counted).belief) < least) return;
    yield* this.#unlikeTrail().prepare(counted);
  }

  #unlikeTrail(): Trail {
    return (this.#ofUnlike ??= new Trail(this.#opened, priorBelief(this.#opened, 'on any')));
  }
}
