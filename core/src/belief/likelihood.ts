import { type Check, findingsOf, type Outcome } from '../checks/index.ts';
import { type Gaussian, gaussianProject, gaussianUpdate, normalCdf, normalPdf } from '../numeric/index.ts';
import type { Reading } from './case.ts';
import type { Prediction } from './prediction.ts';
import { learn } from './reconsider.ts';
import { toScale } from './scale.ts';

/** Chance that an entry has nothing to do with the unit: a slipped probe, a wrong key; more when another shop or the customer told it [our estimate, design rules "floor" and "hearsay"]. */
export const hearsay = { own: 0.02, shop: 0.15, customer: 0.35 } as const;
export type Teller = keyof typeof hearsay;
export const slipChance: number = hearsay.own;

export interface Likelihood {
  /** Density or chance of the outcome if it was honestly taken. */
  readonly honest: number;
  /** The same if it was a slip. */
  readonly slip: number;
}

/**
 * How likely an outcome is under a prediction and a state. Numbers are densities on the comparison scale. A slip
 * shows over-range in half of the cases, else anything the meter can show.
 */
export function likelihood(check: Check, outcome: Outcome, prediction: Prediction, state: Gaussian): Likelihood {
  if (prediction.kind === 'chances') {
    const findings = findingsOf(check);
    const at = findings.findIndex((f) => outcome.kind === 'finding' && f.id === outcome.finding);
    if (at < 0) throw new RangeError(`${check.name}: no such finding`);
    return { honest: prediction.chances[at]!, slip: 1 / findings.length };
  }
  if (outcome.kind !== 'value' && outcome.kind !== 'over-range')
    throw new RangeError(`${check.name} gives a number, not “${outcome.kind}”`);
  const { mean, variance } = gaussianProject(state, prediction.mean, prediction.slope);
  const sigma = Math.sqrt(variance + prediction.noiseVariance);
  if (outcome.kind === 'over-range') return { honest: 1 - normalCdf((prediction.top - mean) / sigma), slip: 0.5 };
  const slip = (prediction.top === Infinity ? 1 : 0.5) / prediction.span;
  return { honest: normalPdf(toScale(outcome.value, check), mean, sigma), slip };
}

/**
 * A reading that changes when touched, by whether the check feels any fault that is there: a bond lifts, a brush
 * floats, a winding is torn; on a sound part it was the probe [from memory].
 */
export const looseLikelihood = (felt: boolean): Likelihood => ({ honest: felt ? 0.15 : 0.01, slip: 0.05 });
/** What stands for a prediction there: nothing is learnt of the unit's numbers. */
export const loosePredictions = {
  felt: { kind: 'chances', chances: [] },
  unfelt: { kind: 'chances', chances: [] },
} as const;

const mostRounds = 3;

/**
 * The prediction straightened about where the reading itself puts the severities (the iterated Kalman step; Bell and
 * Cathey 1993): over a wide cell the straight line would put them elsewhere, and too surely. `about` gives the
 * prediction for a state.
 */
export function settle(
  check: Check,
  outcome: Outcome,
  prediction: Prediction,
  state: Gaussian,
  about: (state: Gaussian) => Prediction,
): Prediction {
  if (outcome.kind !== 'value') return prediction;
  const y = toScale(outcome.value, check);
  let settled = prediction;
  for (let round = 0; round < mostRounds && settled.kind === 'number'; round++) {
    const next = about(gaussianUpdate(state, settled.mean, settled.slope, y, settled.noiseVariance));
    if (next === settled) break;
    settled = next;
  }
  return settled;
}

/** The state of what is uncertain after a reading: learnt from what was more likely honest than not. */
export function stateAfter(
  reading: Reading,
  prediction: Prediction,
  state: Gaussian,
  likely: Likelihood,
  slips: number,
): Gaussian {
  const { check, outcome } = reading;
  if (prediction.kind === 'chances' || !isHonest(likely, slips)) return state;
  const shown = outcome.kind === 'value' ? toScale(outcome.value, check) : undefined;
  return learn(state, { reading, prediction, shown, slip: (slips * likely.slip) / (1 - slips) });
}

/** Whether it is more likely honest than a slip. */
export const isHonest = ({ honest, slip }: Likelihood, slips: number): boolean => (1 - slips) * honest > slips * slip;
