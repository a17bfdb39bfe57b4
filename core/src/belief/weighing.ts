import type { Build } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import type { Likelihood } from './likelihood.ts';
import { type Prediction, strayChance } from './prediction.ts';
import { type Row, totalOf } from './row.ts';

/** Particles of one state that foresee the same; most faults don't touch most readings. */
interface Alike {
  /** The place in the row of one of them. */
  readonly first: number;
  readonly state: Gaussian;
  readonly prediction: Prediction;
  /** Of all of them, before the reading. */
  weight: number;
}

/** A prediction, settled at what was read, and how likely it makes that. */
interface Weighed {
  readonly prediction: Prediction;
  readonly likely: Likelihood;
}

/** The particles of one build while one reading is weighed, by their place in its row; what is alike shares the work. */
export class Weighing {
  readonly build: Build;
  readonly row: Row;
  /** Weights with the reading, not yet made to sum to one. */
  readonly after: Float64Array;
  /** By place in the row. */
  readonly #weighed: Weighed[] = [];

  constructor(build: Build, row: Row) {
    this.build = build;
    this.row = row;
    this.after = new Float64Array(row.weights.length);
  }

  /** Multiplies every weight by its likelihood, slips allowed for. */
  weigh(slips: number, predict: (at: number, state: Gaussian) => Prediction, judge: (alike: Alike) => Weighed): void {
    const alike = this.#alike(predict);
    const judged = new Map<Alike, Weighed>();
    this.row.weights.forEach((before, at) => {
      const mine = alike[at]!;
      let weighed = judged.get(mine);
      if (!weighed) judged.set(mine, (weighed = judge(mine)));
      this.#weighed.push(weighed);
      const stray = strayChance(weighed.prediction, slips);
      this.after[at] = before * ((1 - stray) * weighed.likely.honest + stray * weighed.likely.slip);
    });
  }

  /** For each particle those that it is alike with. */
  #alike(predict: (at: number, state: Gaussian) => Prediction): Alike[] {
    const known = new Map<Gaussian, Map<Prediction, Alike>>();
    return this.row.states.map((state, at) => {
      const prediction = predict(at, state);
      let row = known.get(state);
      if (!row) known.set(state, (row = new Map()));
      let alike = row.get(prediction);
      if (!alike) row.set(prediction, (alike = { first: at, state, prediction, weight: 0 }));
      alike.weight += this.row.weights[at]!;
      return alike;
    });
  }

  /** For each particle the chance that the entry was a slip, if it is true. */
  slipped(slips: number): Float32Array {
    return Float32Array.from(
      this.row.weights,
      (before, at) => (before * slips * this.#weighed[at]!.likely.slip) / this.after[at]!,
    );
  }

  /**
   * The particles that are left with at least so much weight, their weights by the sum of all that are left, and what
   * they learnt; shared where state and prediction were.
   */
  left(
    least: number,
    total: number,
    learn: (state: Gaussian, prediction: Prediction, likely: Likelihood) => Gaussian,
  ): Row {
    const { particles, states, sound } = this.row;
    const stands = (at: number) => this.after[at]! >= least;
    const learnt = new Map<Weighed, Gaussian>();
    const statesLeft: Gaussian[] = [];
    states.forEach((state, at) => {
      if (!stands(at)) return;
      const weighed = this.#weighed[at]!;
      let next = learnt.get(weighed);
      if (!next) learnt.set(weighed, (next = learn(state, weighed.prediction, weighed.likely)));
      statesLeft.push(next);
    });
    const weights = this.after.filter((_, at) => stands(at)).map((weight) => weight / total);
    return {
      particles: particles.filter((_, at) => stands(at)),
      weights,
      states: statesLeft,
      chance: totalOf(weights),
      sound: particles[0] === 0 && stands(0) ? statesLeft[0]! : sound,
    };
  }
}
