import type { Prediction } from './prediction.ts';

/**
 * So many predictions are remembered at once, half a kilobyte or more each: the first checks of a unit still wholly unknown
 * have fifteen thousand each.
 */
const usualMost = 54_000;
/** The share of them that is kept when that is too much. */
const keptShare = 2 / 3;

/**
 * What was worked out of one case, under whatever conditions. Beyond `most` predictions those of the checks and builds
 * that were not asked for longest are forgotten: what was read is seldom asked for again, and is worked out anew then.
 */
export class Memory {
  /** How many predictions are remembered at once; more where there is room for the like of many units. */
  most = usualMost;
  readonly #all = new Set<Remembered>();
  #held = 0;
  #asked = 0;
  /** When what is wanted together was begun, and how many of it are held by now. */
  #begun = 0;
  #together = 0;

  /** From here on predictions are asked for that will be wanted together. */
  begin(): void {
    this.#begun = this.#asked;
    this.#together = 0;
  }

  /** Whether those are so many that one more could push out another of them. */
  get isFull(): boolean {
    return this.#together >= this.kept;
  }

  /** So many are kept when it is more. */
  get kept(): number {
    return keptShare * this.most;
  }

  /** A place for one check on one build. */
  open(): Remembered {
    return new Remembered(this);
  }

  /** Called by a place that is asked; the higher the number, the later. */
  ask(place: Remembered): number {
    if (place.asked <= this.#begun) this.#together += place.size;
    return ++this.#asked;
  }

  /** Called by a place that took one prediction more. */
  took(place: Remembered): void {
    this.#all.add(place);
    this.#together++;
    if (++this.#held <= this.most) return;
    const longestUnasked = [...this.#all].filter((one) => one !== place).sort((a, b) => a.asked - b.asked);
    for (const one of longestUnasked) {
      if (this.#held <= this.kept) break;
      if (one.asked > this.#begun) this.#together -= one.size;
      this.#held -= one.size;
      one.forget();
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
    this.asked = this.#memory.ask(this);
    const known = this.#predictions.get(key);
    if (known) return known;
    const made = make();
    // In making it, the same may have been asked for.
    if (!this.#predictions.has(key)) this.#memory.took(this);
    this.#predictions.set(key, made);
    return made;
  }

  get size(): number {
    return this.#predictions.size;
  }

  /** Lets go of everything. */
  forget(): void {
    this.#predictions.clear();
  }
}
