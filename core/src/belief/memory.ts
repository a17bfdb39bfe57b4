import type { Prediction } from './prediction.ts';

/** So many predictions are remembered at once, each a kilobyte or more: the first checks of a unit still wholly unknown have fifteen thousand. */
const most = 36_000;

/**
 * What was worked out of one case, under whatever conditions. Beyond `most` predictions those of the checks and builds
 * that were not asked for longest are forgotten: what was read is seldom asked for again, and is worked out anew then.
 */
export class Memory {
  readonly #all = new Set<Remembered>();
  #held = 0;
  #asked = 0;

  /** A place for one check on one build. */
  open(): Remembered {
    return new Remembered(this);
  }

  /** Called by a place that is asked; the higher the number, the later. */
  ask(): number {
    return ++this.#asked;
  }

  /** Called by a place that took one prediction more. */
  took(place: Remembered): void {
    this.#all.add(place);
    if (++this.#held <= most) return;
    const longestUnasked = [...this.#all].filter((one) => one !== place).sort((a, b) => a.asked - b.asked);
    for (const one of longestUnasked) {
      if (this.#held <= most / 2) break;
      this.#held -= one.forget();
      this.#all.delete(one);
    }
  }
}

/** What a prediction depends on. */
export type Key = number | string;

/** Predictions of one check on one build, by what they depend on. */
export class Remembered {
  readonly #memory: Memory;
  readonly #predictions = new Map<Key, Prediction>();
  /** When it was asked last. */
  asked = 0;

  constructor(memory: Memory) {
    this.#memory = memory;
  }

  /** The prediction under a key, worked out if it isn't remembered. */
  get(key: Key, make: () => Prediction): Prediction {
    this.asked = this.#memory.ask();
    const known = this.#predictions.get(key);
    if (known) return known;
    const made = make();
    // In making it, the same may have been asked for.
    if (!this.#predictions.has(key)) this.#memory.took(this);
    this.#predictions.set(key, made);
    return made;
  }

  /** Lets go of everything; how many there were. */
  forget(): number {
    const held = this.#predictions.size;
    this.#predictions.clear();
    return held;
  }
}
