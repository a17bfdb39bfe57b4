import {
  type Gaussian,
  gaussianAbove,
  gaussianBefore,
  gaussianCovariance,
  gaussianProject,
  gaussianUpdate,
  normalPdf,
  type Step,
} from '../numeric/index.ts';
import type { Reading } from './case.ts';
import type { NumberPrediction } from './prediction.ts';

/** What a state was learnt from. */
export interface Lesson {
  readonly reading: Reading;
  readonly prediction: NumberPrediction;
  /** On the comparison scale; undefined where it showed over-range. */
  readonly shown: number | undefined;
  /** Density of the reading as a slip, times the chance of a slip against that of none. */
  readonly slip: number;
}

/** The state after a lesson, which its newest step remembers. */
export function learn(state: Gaussian, lesson: Lesson): Gaussian {
  const { mean, slope, noiseVariance, top } = lesson.prediction;
  return lesson.shown === undefined
    ? gaussianAbove(state, mean, slope, top, noiseVariance, lesson)
    : gaussianUpdate(state, mean, slope, lesson.shown, noiseVariance, lesson);
}

/** An earlier reading as the slip. */
export interface Reconsidered {
  readonly reading: Reading;
  /** How likely that is, against that it was honest; by all the others before the new one. */
  readonly odds: number;
  /** What is known without it. */
  readonly state: Gaussian;
}

/** A reading that leaves less than this share of its noise to learn from can't be taken out again. */
const leastLeft = 1e-6;

/**
 * A reading that others leave so far off that its density is nothing to a computer is a slip by so much and no more:
 * weights stay numbers.
 */
const mostOdds = 1e250;

/**
 * Where a number contradicts what a state knows: which one of the readings that it was learnt from, taken for a slip
 * instead, makes it likeliest; undefined where none says anything of it. What is expected without a reading is the Kalman
 * step undone (leave-one-out; Rasmussen and Williams, Gaussian Processes for Machine Learning, 5.4.2, place from memory).
 */
export function reconsider(
  state: Gaussian,
  { mean, slope, noiseVariance }: NumberPrediction,
  shown: number,
): Reconsidered | undefined {
  const expected = gaussianProject(state, mean, slope);
  let best: (Learnt & { readonly odds: number }) | undefined;
  let most = 0;
  for (const { step, lesson } of learning(state)) {
    if (lesson.shown === undefined) continue;
    const noise = lesson.prediction.noiseVariance;
    const known = gaussianProject(state, lesson.prediction.mean, lesson.prediction.slope);
    const left = noise - known.variance;
    const shared = gaussianCovariance(state, slope, lesson.prediction.slope);
    if (left < leastLeft * noise || shared === 0) continue;
    const off = lesson.shown - known.mean;
    const odds = Math.min(lesson.slip / normalPdf((off * noise) / left, 0, noise / Math.sqrt(left)), mostOdds);
    const sigma = Math.sqrt(expected.variance + shared ** 2 / left + noiseVariance);
    const likely = odds * normalPdf(shown, expected.mean - (shared * off) / left, sigma);
    if (likely > most) [most, best] = [likely, { step, lesson, odds }];
  }
  return best && { reading: best.lesson.reading, odds: best.odds, state: without(state, best.step) };
}

interface Learnt {
  readonly step: Step;
  readonly lesson: Lesson;
}

/** The steps of a state with what each was learnt from, newest first, as far as that is known. */
function* learning({ newest }: Gaussian): Generator<Learnt, void> {
  for (let step = newest; step; step = step.before) {
    const lesson = step.of as Lesson | undefined;
    if (!lesson) return;
    yield { step, lesson };
  }
}

/** The state with one of its steps never made. */
function without(state: Gaussian, step: Step): Gaussian {
  const all = [...learning(state)];
  const since = all.slice(0, all.map((one) => one.step).indexOf(step));
  return since.reduceRight((known, { lesson }) => learn(known, lesson), gaussianBefore(state, step));
}
