import { caliperSigma, type Check, findingsOf, type Outcome, type Word } from '../checks/index.ts';
import { type Build, kinOf } from '../machines/index.ts';
import { type Gaussian, gaussianProject, normalBetween, slopePart } from '../numeric/index.ts';
import { type Belief, buildChances, type Outset } from './belief.ts';
import { withinBounds } from './bounds.ts';
import type { Case } from './case.ts';
import type { NumberPrediction } from './prediction.ts';
import type { Conditions } from './predictor.ts';
import { fromScale, toScale } from './scale.ts';

/** Where readings are expected, in the check's unit; `over` is the chance of over-range. */
export interface Band {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  readonly over: number;
}

/** Limits lie this many standard deviations from the mean of sound units: about 99 in 100 lie inside. */
const coverage = 2.5;
/** A word needs this probability; JCGM 106 leaves the figure to the user, design rule "a reading's word" sets it. */
const enough = 0.95;

/** Limits of a sound unit's true value on the comparison scale, and how well the instrument sees it. */
interface Limits {
  readonly build: Build;
  readonly weight: number;
  readonly low: number;
  readonly high: number;
  readonly top: number;
  /** What the instrument adds on average, as known by now. */
  readonly bias: number;
  readonly sigma: number;
}

/** The band of likely readings under one state of one prediction: mean ± coverage. */
export function bandOf(check: Check, prediction: NumberPrediction, state: Gaussian): Band {
  const { mean, variance } = gaussianProject(state, prediction.mean, prediction.slope);
  const sigma = Math.sqrt(variance + prediction.noiseVariance);
  const least = check.unit === 'volts' ? -Infinity : 0;
  const at = (y: number) => fromScale(Math.max(y, least), check);
  return {
    low: at(mean - coverage * sigma),
    middle: at(mean),
    high: at(mean + coverage * sigma),
    over: normalBetween(prediction.top, Infinity, mean, sigma),
  };
}

/** What a sound unit would show, for each build that is still likely. */
export function soundBands(
  opened: Case,
  outset: Outset,
  check: Check,
  conditions: Conditions,
): (Band & { readonly build: Build })[] {
  const predictor = opened.predictor(conditions);
  return likeliestKin(opened, outset).flatMap((b) => {
    const prediction = predictor.predict(check, opened.builds[b]!, opened.particles[0]!);
    if (prediction.kind !== 'number') return [];
    const sound = withinBounds(opened.dimensions, outset.rows[b]!.sound);
    return [{ ...bandOf(check, prediction, sound), build: opened.builds[b]! }];
  });
}

/** The builds still likely; of one and the same strewn wider, the likelier. */
function likeliestKin({ builds }: Case, outset: Outset): number[] {
  const chances = buildChances(outset);
  const rivals = (b: number) => [...builds.keys()].filter((other) => kinOf(builds[other]!) === kinOf(builds[b]!));
  return [...builds.keys()].filter(
    (b) =>
      rivals(b).reduce((sum, other) => sum + chances[other]!, 0) >= 0.03 &&
      rivals(b).every((other) => chances[other]! < chances[b]! || (other >= b && chances[other] === chances[b])),
  );
}

/** What the unit would show with a fault, by its likeliest hypothesis. */
export function faultBand(
  opened: Case,
  belief: Belief,
  check: Check,
  conditions: Conditions,
  fault: number,
): Band | undefined {
  let best: { build: Build; p: number; weight: number; state: Gaussian } | undefined;
  for (const [b, { particles, weights, states }] of belief.rows.entries())
    for (const [at, p] of particles.entries())
      if (weights[at]! > (best?.weight ?? 0) && opened.particles[p]!.faults.includes(fault))
        best = { build: opened.builds[b]!, p, weight: weights[at]!, state: states[at]! };
  if (!best) return undefined;
  const prediction = opened.predictor(conditions).predict(check, best.build, opened.particles[best.p]!);
  return prediction.kind === 'number' ? bandOf(check, prediction, best.state) : undefined;
}

/** More megohms are never worse, nor more of what a check says so of. */
const isNeverTooHigh = ({ method }: Check): boolean =>
  (method.kind === 'meter' && method.isolation === true) ||
  (method.kind === 'run' && method.setup.moreIsBetter === true);

function limitsOf(opened: Case, outset: Outset, check: Check, conditions: Conditions): Limits[] {
  const { instruments } = opened.dimensions;
  const predictor = opened.predictor(conditions);
  return buildChances(outset).flatMap((weight, b): Limits[] => {
    const build = opened.builds[b]!;
    const prediction = predictor.predict(check, build, opened.particles[0]!);
    if (weight < 1e-6 || prediction.kind !== 'number') return [];
    const ofUnit = slopePart(prediction.slope, (i) => i >= instruments);
    const ofInstrument = slopePart(prediction.slope, (i) => i < instruments);
    const unit = gaussianProject(withinBounds(opened.dimensions, opened.priorStates[b]!), prediction.mean, ofUnit);
    const instrument = gaussianProject(outset.rows[b]!.sound, 0, ofInstrument);
    const { noiseVariance, ownVariance = 0 } = prediction;
    const reach = coverage * Math.sqrt(unit.variance + ownVariance);
    const moreIsBetter = isNeverTooHigh(check);
    return [
      {
        build,
        weight,
        low: unit.mean - reach,
        high: moreIsBetter ? Infinity : unit.mean + reach,
        top: prediction.top,
        bias: instrument.mean,
        sigma: Math.sqrt(instrument.variance + noiseVariance - ownVariance),
      },
    ];
  });
}

/** Probability (JCGM 106:2012, 7) that the true value lies inside a sound unit's limits, given the outcome. */
export function conformity(
  opened: Case,
  outset: Outset,
  check: Check,
  conditions: Conditions,
  outcome: Outcome,
): number {
  if (outcome.kind !== 'value' && outcome.kind !== 'over-range') return Number.NaN;
  const { method } = check;
  if (method.kind === 'length') {
    return outcome.kind === 'value' ? normalBetween(method.least, Infinity, outcome.value, caliperSigma) : 1;
  }
  let probability = 0;
  for (const { weight, low, high, top, bias, sigma } of limitsOf(opened, outset, check, conditions)) {
    if (outcome.kind === 'over-range') probability += high + bias >= top ? weight : 0;
    else {
      const y = Math.min(toScale(outcome.value, check), top);
      probability += weight * normalBetween(low + bias, high >= top ? Infinity : high + bias, y, sigma);
    }
  }
  return probability;
}

/** Whether any value this meter could show would be enough for "sound". */
export function canTell(opened: Case, outset: Outset, check: Check, conditions: Conditions): boolean {
  if (check.method.kind !== 'meter') return true;
  const limits = limitsOf(opened, outset, check, conditions);
  if (limits.length === 0) return true;
  return limits.some(({ low, high, top, sigma }) => {
    const middle = (low + Math.min(high, top)) / 2;
    return low >= top || normalBetween(low, high >= top ? Infinity : high, middle, sigma) >= enough;
  });
}

/** The word of one reading, before what other readings say; design rule "a reading's word". */
export function wordOf(opened: Case, outset: Outset, check: Check, conditions: Conditions, outcome: Outcome): Word {
  if (outcome.kind === 'no-access') return 'not looked at';
  if (outcome.kind === 'changes') return 'doubtful';
  if (outcome.kind === 'finding') {
    return findingsOf(check).find((finding) => finding.id === outcome.finding)?.word ?? 'doubtful';
  }
  if (check.method.kind === 'leads') return 'sound';
  const probability = conformity(opened, outset, check, conditions, outcome);
  if (probability <= 1 - enough) return 'failed';
  if (!canTell(opened, outset, check, conditions)) return "can't tell";
  return probability >= enough ? 'sound' : 'doubtful';
}
