import { countSigma, gainSigma, type Range } from '@refectum/core/instruments';
import { overRange } from '../scpi/index.ts';

/** What one range of an instrument makes of a true value: its own gain, its counts anew each time, its steps. */
export class Converter {
  readonly #gains = new Map<number, number>();
  readonly #normal: () => number;

  constructor(normal: () => number) {
    this.#normal = normal;
  }

  /** `noise`: how many times its usual counts. */
  shown(value: number, range: Range, fullScale: number, noise = 1): number {
    const gain = this.#gains.get(range.fullScale) ?? gainSigma(range) * this.#normal();
    this.#gains.set(range.fullScale, gain);
    // Most of a meter's counts are an offset that stays; a quarter of them flickers [our estimate].
    const read = value * (1 + gain) + (countSigma(range) * noise * this.#normal()) / 4;
    if (Math.abs(read) > fullScale) return Math.sign(read) * overRange;
    return Math.round(read / range.step) * range.step;
  }
}

export const wait = (milliseconds: number): Promise<void> => new Promise((done) => setTimeout(done, milliseconds));
