import { currentClamp, flicker } from '@refectum/core/instruments';
import type { LiveWord } from '../instruments.ts';

/** What is read for a point is the mean of so long, and rests within these shares [our estimate]. */
export const restSeconds = 1.2;
/** Of that at least so many readings; a slow instrument may take so long for them. */
const fewest = 3;
const slowestSeconds = 4;
const restShare = { volts: 0.004, amps: 0.02, rpm: 0.006 } as const;

export type Figure = keyof typeof restShare;
export const figures = Object.keys(restShare) as Figure[];

/** Readings further apart than this still move; a clamp's own counts flicker by half of what they may be off [our estimate]. */
const restlessFrom = (figure: Figure, mean: number): number =>
  Math.max(
    restShare[figure] * Math.abs(mean),
    figure === 'rpm' ? 8 : figure === 'amps' ? flicker(currentClamp, Math.abs(mean)) / 2 : 0.15,
  );

const figuresOf = (word: LiveWord): Partial<Record<Figure, number>> => {
  if (word.state === 'gone') return {};
  if (word.kind === 'stand') return { rpm: word.rpm };
  if (word.kind === 'clamp' && word.amps !== null) return { amps: word.amps };
  return word.kind === 'multimeter' && word.use === 'volts' && word.value !== null ? { volts: word.value } : {};
};

/** What meter, clamp and tachometer read just now, and whether it rests. */
export class RecentFigures {
  /** Milliseconds of some clock. */
  readonly #now: () => number;
  /** Before this it was another state. */
  #since = -Infinity;
  #seen: { readonly at: number; readonly figures: Partial<Record<Figure, number>> }[] = [];

  constructor(now: () => number = Date.now) {
    this.#now = now;
  }

  hear(word: LiveWord): void {
    this.#seen.push({ at: this.#now(), figures: figuresOf(word) });
    while (this.#seen.length > 200) this.#seen.shift();
  }

  /** Something was changed: what was read before says nothing any more. */
  forget(): void {
    this.#since = this.#now();
    this.#seen = [];
  }

  /** What was read of a figure in the last second; of a slow instrument the last few. */
  #newest(figure: Figure): readonly number[] {
    const now = this.#now();
    const all = this.#seen.flatMap(({ at, figures: { [figure]: value } }) =>
      value === undefined ? [] : [{ at, value }],
    );
    const fresh = all.filter(({ at }) => now - at < 1000 * restSeconds);
    const last = all.slice(-fewest).filter(({ at }) => now - at < 1000 * slowestSeconds);
    return (fresh.length >= fewest ? fresh : last).map(({ value }) => value);
  }

  /** The mean of the last second, where it rests; else whether it came in at all. */
  rested(figure: Figure): number | 'moves' | 'missing' {
    const read = this.lastSecond(figure);
    if (!read) return 'missing';
    // What was asked before a change may come in after it.
    if (this.#now() - this.#since < 1000 * restSeconds) return 'moves';
    return read.swing > restlessFrom(figure, read.mean) ? 'moves' : read.mean;
  }

  /** Mean, and lowest to highest, of what was read in the last second; nothing where that is too little. */
  lastSecond(figure: Figure): { readonly mean: number; readonly swing: number } | undefined {
    const seen = this.#newest(figure);
    if (seen.length < fewest) return undefined;
    const mean = seen.reduce((sum, one) => sum + one, 0) / seen.length;
    return { mean, swing: Math.max(...seen) - Math.min(...seen) };
  }
}
