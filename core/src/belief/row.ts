import type { Build } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import type { Prediction } from './expected.ts';
import type { Likelihood } from './likelihood.ts';

/**
 * The particles of one build while one reading is weighed. Particles that share state and prediction share the work:
 * most faults don't touch most readings.
 */
export class Row {
  readonly build: Build;
  readonly before: Float64Array;
  readonly after: Float64Array;
  readonly likely: (Likelihood | undefined)[];
  readonly #states: readonly Gaussian[];
  readonly #predictions: (Prediction | undefined)[];
  readonly #known = new Map<Gaussian, Map<Prediction, Likelihood>>();

  constructor(build: Build, before: Float64Array, states: readonly Gaussian[]) {
    this.build = build;
    this.before = before;
    this.after = new Float64Array(before.length);
    this.likely = new Array<Likelihood | undefined>(before.length);
    this.#predictions = new Array<Prediction | undefined>(before.length);
    this.#states = states;
  }

  /** Multiplies every weight by its likelihood, slips allowed for. */
  weigh(
    find: (particle: number, state: Gaussian) => { prediction: Prediction; likely: Likelihood },
    slips: number,
  ): void {
    for (let p = 0; p < this.before.length; p++) {
      if (this.before[p] === 0) continue;
      const { prediction, likely } = find(p, this.#states[p]!);
      this.#predictions[p] = prediction;
      this.likely[p] = likely;
      this.after[p] = this.before[p]! * ((1 - slips) * likely.honest + slips * likely.slip);
    }
  }

  /** The likelihood for a state and a prediction, worked out the first time. */
  once(state: Gaussian, prediction: Prediction, make: () => Likelihood): Likelihood {
    let row = this.#known.get(state);
    if (!row) this.#known.set(state, (row = new Map()));
    let found = row.get(prediction);
    if (!found) row.set(prediction, (found = make()));
    return found;
  }

  /** For each particle the chance that the entry was a slip, if it is true. */
  slipped(slips: number): Float32Array {
    return Float32Array.from(this.before, (before, p) => {
      const likely = this.likely[p];
      return likely && before > 0 ? (before * slips * likely.slip) / this.after[p]! : 0;
    });
  }

  /** The states afterwards, for particles that still stand; shared where state and prediction were. */
  learn(least: number, after: (state: Gaussian, prediction: Prediction, likely: Likelihood) => Gaussian): Gaussian[] {
    const learnt = new Map<Likelihood, Gaussian>();
    return this.#states.map((state, p) => {
      const likely = this.likely[p];
      if (!likely || this.after[p]! < least) return state;
      let next = learnt.get(likely);
      if (!next) learnt.set(likely, (next = after(state, this.#predictions[p]!, likely)));
      return next;
    });
  }
}
