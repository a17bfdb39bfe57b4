import { allowSound, play } from './tones.ts';

/** What is timed at the run stand, in seconds [common practice, no source]. */
export const timed = [
  { id: 'load', name: 'Load on', seconds: 10, then: 'Load off, let it cool.' },
  { id: 'cool', name: 'Cool down', seconds: 60, then: 'Cool enough for the next load.' },
  { id: 'warm', name: 'Warm-up', seconds: 900, then: 'Warm: a two-contact regulator may be read now.' },
] as const;
type Timed = (typeof timed)[number]['id'];

/** Timers that go on whatever screen is looked at, each with a sound at its end. */
class Timers {
  #ends = $state<Partial<Record<Timed, number>>>({});
  #now = $state(Date.now());
  #ticking: ReturnType<typeof setInterval> | undefined;
  /** What ended last. */
  said = $state('');

  left(id: Timed): number | undefined {
    const end = this.#ends[id];
    return end === undefined ? undefined : Math.max(0, Math.ceil((end - this.#now) / 1000));
  }

  start(id: Timed): void {
    allowSound();
    this.said = '';
    this.#now = Date.now();
    this.#ends[id] = this.#now + timed.find((one) => one.id === id)!.seconds * 1000;
    this.#ticking ??= setInterval(() => this.#tick(), 250);
  }

  stop(id: Timed): void {
    delete this.#ends[id];
  }

  #tick(): void {
    this.#now = Date.now();
    for (const { id, then } of timed) {
      if ((this.#ends[id] ?? Infinity) > this.#now) continue;
      delete this.#ends[id];
      this.said = then;
      play([[880, 0.6]]);
    }
    if (Object.keys(this.#ends).length > 0) return;
    clearInterval(this.#ticking);
    this.#ticking = undefined;
  }
}

export const timers = new Timers();
