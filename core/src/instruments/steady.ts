import { countSigma, type Range, rangeFor } from './multimeter.ts';

/** What an instrument told of itself at a moment; over-range is Infinity. */
export interface Sample {
  readonly seconds: number;
  readonly value: number;
}

/** What the newest samples say of the hands that hold the probes. */
export type Hold =
  | { readonly kind: 'moving' }
  /** Over-range since so many seconds: nothing between the tips, or nothing that conducts. */
  | { readonly kind: 'open'; readonly seconds: number }
  /** Within the meter's own noise; the mean of what was shown meanwhile. */
  | { readonly kind: 'steady'; readonly value: number };

/** So long and so many samples alike, and a reading has settled [our estimate]. */
const settledSeconds = 0.55;
const settledSamples = 4;
/** How far apart they may lie, in standard uncertainties of the counts, and at least in steps: flicker of a digit either way. */
const apartSigmas = 3;
const apartSteps = 3;

/** How far two readings of the same thing may lie apart on a meter's ranges, in the base unit. */
export function flicker(ranges: readonly Range[], value: number): number {
  const range = rangeFor(ranges, value);
  return Math.max(apartSigmas * countSigma(range), apartSteps * range.step);
}

/** Watches a stream of readings until it comes to rest. */
export class Steadiness {
  readonly #ranges: readonly Range[];
  #samples: readonly Sample[] = [];
  #openSince: number | undefined;

  /** `ranges`: those that the meter reads on, lowest first. */
  constructor(ranges: readonly Range[]) {
    this.#ranges = ranges;
  }

  feed(sample: Sample): Hold {
    if (!Number.isFinite(sample.value)) {
      this.#samples = [];
      this.#openSince ??= sample.seconds;
      return { kind: 'open', seconds: sample.seconds - this.#openSince };
    }
    this.#openSince = undefined;
    const apart = flicker(this.#ranges, sample.value);
    // From the newest back, as long as they agree with it and no pause lies between.
    const alike = [...this.#samples, sample];
    const from = alike.findLastIndex(({ value }) => Math.abs(value - sample.value) > apart) + 1;
    this.#samples = alike.slice(from);
    const oldest = this.#samples[0]!;
    if (this.#samples.length < settledSamples || sample.seconds - oldest.seconds < settledSeconds)
      return { kind: 'moving' };
    const settled = this.#samples.slice(-settledSamples);
    return { kind: 'steady', value: settled.reduce((sum, { value }) => sum + value, 0) / settled.length };
  }
}
