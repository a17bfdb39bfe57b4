import type { Check, Outcome } from '../checks/index.ts';
import { type Gaussian, gaussianProject, type Slope, slopePart } from '../numeric/index.ts';
import type { Dimensions } from './dimensions.ts';
import type { KindBend, NumberPrediction, Prediction } from './prediction.ts';

/** A bend that makes up less than this share of a reading's noise isn't straightened anew. */
const leastBend = 0.1;
/** A chord was drawn between nodes so many standard deviations out; beyond them the curve goes on straight. */
const nodes = Math.sqrt(3);
/** No reading falls where what it follows rises. */
const flattest = 0.05;

/**
 * A prediction whose bends are straightened anew where the state has the unit, and over the width that it has there: what
 * a bend put into the noise before any reading is no noise of its own for each of several readings of the same leaks.
 * Readings that are alike share their bend and keep it. Over-range asks how far the flat side reaches, which a parabola
 * knows less of than the chord: there the chord stays.
 */
export function straightenedAt(
  { method }: Check,
  outcome: Outcome,
  prediction: Prediction,
  state: Gaussian,
  dimensions: Dimensions,
): Prediction {
  if (prediction.kind === 'chances' || (method.kind === 'meter' && method.alike)) return prediction;
  const least = leastBend * prediction.noiseVariance;
  return prediction.bends
    .filter(({ variance }) => variance > least)
    .reduce((straight, bend) => straightenedAlong(straight, bend, outcome, state, dimensions), prediction);
}

/**
 * Along what the reading sees of one kind, z with the prior variance v, it is taken for mean + z + q (z²/v − 1): before
 * any reading that has the bend's shift q and its variance 2 q².
 */
function straightenedAlong(
  prediction: NumberPrediction,
  { kind, shift, variance, batch }: KindBend,
  outcome: Outcome,
  state: Gaussian,
  { kinds }: Dimensions,
): NumberPrediction {
  const { mean, slope, noiseVariance } = prediction;
  const isOfKind = (i: number) => kinds[i] === kind;
  const seen = slopePart(slope, isOfKind);
  const { middle, variance: before } = beforeReadings(state, seen, batch);
  if (before === 0) return prediction;
  const z = gaussianProject(state, 0, seen);
  const known = Math.min(z.variance / before, 1);
  const sigma = Math.sqrt(before);
  const at = Math.max(-nodes, Math.min(nodes, (z.mean - middle) / sigma));
  if (outcome.kind === 'over-range' && at * shift <= 0) return prediction;
  const steeper = Math.max(flattest, 1 + (2 * shift * at) / sigma);
  return {
    ...prediction,
    mean: mean + z.mean + shift * (at * at + known - 1) - steeper * z.mean,
    slope: {
      index: slope.index,
      value: slope.value.map((one, n) => (isOfKind(slope.index[n]!) ? steeper * one : one)),
    },
    noiseVariance: noiseVariance - variance * (1 - known * known),
  };
}

/** Where z lay, and how widely, when its chord was drawn. */
function beforeReadings({ priorVariance }: Gaussian, { index, value }: Slope, batch: KindBend['batch']) {
  let [middle, variance] = [0, 0];
  index.forEach((i, n) => {
    const shared = i === batch?.dimension;
    variance += priorVariance[i]! * (shared ? batch.focus.width * value[n]! : value[n]!) ** 2;
    if (shared) middle = batch.focus.at * Math.sqrt(priorVariance[i]!) * value[n]!;
  });
  return { middle, variance };
}
