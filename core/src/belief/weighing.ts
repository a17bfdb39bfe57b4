import type { Build } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import type { Reading } from './case.ts';
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

/** A prediction, settled at what was read, how likely it makes that, and what is known after it. */
export interface Weighed {
  readonly prediction: Prediction;
  readonly likely: Likelihood;
  readonly learnt: Gaussian;
  /** The earlier reading that was the slip, where this one is honest. */
  readonly instead?: Reading;
}

/** That an earlier reading was a slip, for the particle at some place in the row. */
export interface Revision {
  readonly reading: Reading;
  readonly at: number;
  readonly chance: number;
}

/** The particles of one build while one reading is weighed, by their place in its row; what is alike shares the work. */
export class Weighing {
  readonly build: Build;
  readonly row: Row;
  /** Weights with the reading, not yet made to sum to one. */
  readonly after: Float64Array;
  /** By place in the row. */
  readonly #weighed: Weighed[] = [];
  readonly #states: Gaussian[] = [];
  /** What is to be thought of earlier readings now. */
  readonly revisions: Revision[] = [];

  constructor(build: Build, row: Row) {
    this.build = build;
    this.row = row;
    this.after = new Float64Array(row.weights.length);
  }

  /**
   * Multiplies every weight by its likelihood, slips allowed for. `within`: by how much what was learnt lies better within
   * a particle's bounds than what was known before.
   */
  weigh(
    slips: number,
    predict: (at: number, state: Gaussian) => Prediction,
    judge: (alike: Alike) => Weighed,
    within: (at: number, before: Gaussian, learnt: Gaussian) => number,
  ): void {
    const alike = this.#alike(predict);
    const judged = new Map<Alike, Weighed>();
    this.row.weights.forEach((before, at) => {
      const mine = alike[at]!;
      let weighed = judged.get(mine);
      if (!weighed) judged.set(mine, (weighed = judge(mine)));
      this.#weighed.push(weighed);
      const stray = strayChance(weighed.prediction, slips);
      const state = this.row.states[at]!;
      const honest = (1 - stray) * weighed.likely.honest * within(at, state, weighed.learnt);
      const slipped = stray * weighed.likely.slip;
      this.after[at] = before * (honest + slipped);
      this.#states.push(honest > slipped ? weighed.learnt : state);
      const { instead } = weighed;
      if (instead) this.revisions.push({ reading: instead, at, chance: honest / (honest + slipped) });
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

  /** The particles that are left with at least so much weight, their weights by the sum of all that are left. */
  left(least: number, total: number): Row {
    const { particles, sound } = this.row;
    const stands = (at: number) => this.after[at]! >= least;
    const statesLeft = this.#states.filter((_, at) => stands(at));
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
