import { type Belief, chanceThat, priorBelief, type Scope } from './belief.ts';
import type { Case, Reading } from './case.ts';
import { type Counted, countedReadings } from './counted.ts';
import type { Particle } from './hypotheses.ts';
import type { Steps } from './steps.ts';
import { type Followed, Trail } from './trail.ts';

/** So likely unlike its kind, or something that such a unit is taken for, and it is weighed as `any` unit. */
const anyFrom = 0.5;
/** From here on that is worth preparing for [our estimate]. */
const preparedFrom = 0.2;
/** A reading that was a slip as likely as this contradicts what was believed; one in a list does so now and then. */
const contradicts = 0.5;
const fewContradict = 1;

/** Beliefs along a list of readings. */
export class History {
  readonly #opened: Case;
  readonly #before: (scope: Scope) => Belief;
  readonly #trails = new Map<string, Trail>();
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
    const scope = this.#mayBeAny(usual, anyFrom) ? 'any' : 'its kind';
    const asTold = scope === 'any' ? this.#trail(scope).follow(counted) : usual;
    return this.#isContradicted(asTold) ? this.#trail(scope, 'run last').follow(this.#runLast(counted)) : asTold;
  }

  /** Follows a unit as `any` beforehand, a small step at a time, when it may soon have to be. */
  *prepare(readings: readonly Reading[]): Steps<void> {
    const counted = countedReadings(readings);
    const usual = this.#trail('its kind').follow(counted);
    if (!this.#mayBeAny(usual, preparedFrom)) return;
    yield* this.#trail('any').prepare(counted);
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
   * Whether what was read at rest contradicts what running left: what two faults make of a unit that runs may be foreseen
   * badly, from one and one, and what was true have dropped for good.
   */
  #isContradicted({ counted, belief }: Followed): boolean {
    if (this.#opened.subject.runsPairs) return false;
    const first = counted.findIndex((one) => this.#ran(one));
    if (first < 0) return false;
    const atRest = belief.evidence.filter(
      ({ doubt }, r) => r > first && doubt >= contradicts && !this.#ran(counted[r]!),
    );
    return atRest.length > fewContradict;
  }

  /** All that is foreseen well before what ran. */
  #runLast(counted: readonly Counted[]): readonly Counted[] {
    return [...counted.filter((one) => !this.#ran(one)), ...counted.filter((one) => this.#ran(one))];
  }

  #ran({ reading }: Counted): boolean {
    return this.#opened.subject.assemblies.some(({ id, running }) => running && id === reading.check.assembly);
  }

  #trail(scope: Scope, order: 'as told' | 'run last' = 'as told'): Trail {
    const key = `${scope}, ${order}`;
    const faults = scope === 'any' && !this.#opened.subject.twoAtMost ? 'further ones too' : 'those it began with';
    const trail = this.#trails.get(key) ?? new Trail(this.#opened, this.#before(scope), faults);
    this.#trails.set(key, trail);
    return trail;
  }
}
