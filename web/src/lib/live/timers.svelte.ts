import { starterRestMinutes } from '@refectum/core/handbook';
import { allowSound, play } from './tones.ts';

/** What is timed where a unit runs, in seconds [common practice, no source]; `next` starts when it is over or stopped. */
const kinds = {
  load: { name: 'Load on', seconds: 10, then: 'Load off, let it cool.', next: undefined },
  cool: { name: 'Cool down', seconds: 60, then: 'Cool enough for the next load.', next: undefined },
  warm: { name: 'Warm-up', seconds: 900, then: 'Warm: a two-contact regulator may be read now.', next: undefined },
  spin: { name: 'Spin', seconds: 10, then: 'Off: let it rest.', next: 'rest' },
  held: { name: 'Held', seconds: 3, then: 'Off at once: let it rest.', next: 'rest' },
  rest: { name: 'Rest', seconds: 60 * starterRestMinutes, then: 'Rested: it may be fed again.', next: undefined },
  pile: { name: 'Battery load', seconds: 15, then: 'Read the volts, then pile off.', next: undefined },
} as const;
export type Timed = keyof typeof kinds;
/** What is timed at the run stand, and at the starter bench. */
export const timed: Readonly<Record<'generator' | 'starter', readonly Timed[]>> = {
  generator: ['load', 'cool', 'warm'],
  starter: ['spin', 'held', 'rest', 'pile'],
};
export const timedAs = (id: Timed): { readonly name: string; readonly seconds: number } => kinds[id];

/** A run that is over: of what kind, for how long, and when it ended. */
export interface PastRun {
  readonly kind: Timed;
  readonly seconds: number;
  readonly ended: number;
  /** Of which unit. */
  readonly tag: number;
}

/** After so long nothing is left of a run's heat. */
const coolingMilliseconds = 3_600_000;

/** Timers that go on whatever screen is looked at, each with a sound at its end. */
class Timers {
  #ends = $state<Partial<Record<Timed, number>>>({});
  /** Which unit each is timed for. */
  readonly #tags: Partial<Record<Timed, number>> = {};
  #now = $state(Date.now());
  #ticking: ReturnType<typeof setInterval> | undefined;
  /** What ended last. */
  said = $state('');
  /** Runs that called for a rest, newest last. */
  #past = $state.raw<readonly PastRun[]>([]);

  /** Now, by the clock that ticks while anything is timed. */
  get now(): number {
    return this.#now;
  }

  /** What is over of one unit. */
  pastOf(tag: number): readonly PastRun[] {
    return this.#past.filter((run) => run.tag === tag);
  }
  /** Seconds that a unit rests yet: another one's rest is none of its own. */
  restOf(tag: number): number | undefined {
    return this.#past.at(-1)?.tag === tag ? this.left('rest') : undefined;
  }

  left(id: Timed): number | undefined {
    const end = this.#ends[id];
    return end === undefined ? undefined : Math.max(0, Math.ceil((end - this.#now) / 1000));
  }

  start(id: Timed, tag: number): void {
    allowSound();
    this.#tags[id] = tag;
    this.said = '';
    this.#now = Date.now();
    this.#ends[id] = this.#now + kinds[id].seconds * 1000;
    this.#ticking ??= setInterval(() => this.#tick(), 250);
  }

  stop(id: Timed): void {
    const end = this.#ends[id];
    if (end === undefined) return;
    this.#now = Date.now();
    this.#over(id, end);
  }

  #over(id: Timed, end: number): void {
    delete this.#ends[id];
    const { seconds, next } = kinds[id];
    if (!next) return;
    const ended = Math.min(this.#now, end);
    const tag = this.#tags[id]!;
    this.#past = [...this.#past, { kind: id, seconds: seconds - Math.max(end - ended, 0) / 1000, ended, tag }];
    this.#ends[next] = ended + kinds[next].seconds * 1000;
  }

  #tick(): void {
    this.#now = Date.now();
    for (const id of Object.keys(this.#ends) as Timed[]) {
      const end = this.#ends[id]!;
      if (end > this.#now) continue;
      this.#over(id, end);
      this.said = kinds[id].then;
      play([[880, 0.6]]);
    }
    // What is warm cools on while nothing is timed.
    const cools = this.#past.some(({ ended }) => this.#now - ended < coolingMilliseconds);
    if (Object.keys(this.#ends).length > 0 || cools) return;
    clearInterval(this.#ticking);
    this.#ticking = undefined;
  }
}

export const timers = new Timers();
