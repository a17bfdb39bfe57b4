import type { Build } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import type { Prediction } from './prediction.ts';
import type { Likelihood } from './likelihood.ts';

/** A prediction, settled at what was read, and how likely it makes that. */
interface Weighed {
  readonly prediction: Prediction;
  readonly likely: Likelihood;
}

/**
 * The particles of one build while one reading is weighed. Particles that share state and prediction share the work:
 * most faults don't touch most readings.
 */
export class Row {
  readonly build: Build;
  /** The particles that still stand; arrays below go by particle where it isn't said otherwise. */
  readonly awake: readonly number[];
  readonly before: Float64Array;
  readonly after: Float64Array;
  readonly #states: readonly Gaussian[];
  /** By place among those awake. */
  readonly #likely: Likelihood[] = [];
  readonly #predictions: Prediction[] = [];
  readonly #known = new Map<Gaussian, Map<Prediction, Weighed>>();

  constructor(build: Build, before: Float64Array, states: readonly Gaussian[]) {
    this.build = build;
    this.before = before;
    this.after = new Float64Array(before.length);
    this.awake = awakeOf(before);
    this.#states = states;
  }

  /** Multiplies every weight by its likelihood, slips allowed for. */
  weigh(find: (particle: number, state: Gaussian) => Weighed, slips: number): void {
    for (const p of this.awake) {
      const { prediction, likely } = find(p, this.#states[p]!);
      this.#predictions.push(prediction);
      this.#likely.push(likely);
      this.after[p] = this.before[p]! * ((1 - slips) * likely.honest + slips * likely.slip);
    }
  }

  /** What a state and a prediction make of the reading, worked out the first time. */
  once(state: Gaussian, prediction: Prediction, make: () => Weighed): Weighed {
    let row = this.#known.get(state);
    if (!row) this.#known.set(state, (row = new Map()));
    let found = row.get(prediction);
    if (!found) row.set(prediction, (found = make()));
    return found;
  }

  /** For each particle the chance that the entry was a slip, if it is true. */
  slipped(slips: number): Float32Array {
    const chances = new Float32Array(this.before.length);
    this.awake.forEach((p, at) => (chances[p] = (this.before[p]! * slips * this.#likely[at]!.slip) / this.after[p]!));
    return chances;
  }

  /** The states afterwards, for particles that still stand; shared where state and prediction were. */
  learn(least: number, after: (state: Gaussian, prediction: Prediction, likely: Likelihood) => Gaussian): Gaussian[] {
    const learnt = new Map<Likelihood, Gaussian>();
    const states = [...this.#states];
    this.awake.forEach((p, at) => {
      const likely = this.#likely[at]!;
      if (this.after[p]! < least) return;
      let next = learnt.get(likely);
      if (!next) learnt.set(likely, (next = after(states[p]!, this.#predictions[at]!, likely)));
      states[p] = next;
    });
    return states;
  }
}

function awakeOf(weights: Float64Array): number[] {
  const awake: number[] = [];
  for (let p = 0; p < weights.length; p++) if (weights[p]! > 0) awake.push(p);
  return awake;
}
