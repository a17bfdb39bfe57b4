import { type Check, findingsOf, type Outcome } from '../checks/index.ts';
import { type Gaussian, gaussianProject, gaussianUpdate, normalCdf, normalPdf } from '../numeric/index.ts';
import type { Prediction } from './expected.ts';
import { toScale } from './scale.ts';

/** Chance that an entry has nothing to do with the unit: a slipped probe, a wrong key [design rule "floor"]. */
export const slipChance = 0.02;

export interface Likelihood {
  /** Density or chance of the outcome if it was honestly taken. */
  readonly honest: number;
  /** The same if it was a slip. */
  readonly slip: number;
  /** The state of what is uncertain, after the outcome. */
  readonly state: Gaussian;
}

/**
 * How likely an outcome is under a prediction and a state, and what the state becomes. Numbers are densities on the
 * comparison scale. A slip shows over-range in half of the cases, else anything the meter can show.
 */
export function likelihood(check: Check, outcome: Outcome, prediction: Prediction, state: Gaussian): Likelihood {
  if (prediction.kind === 'chances') {
    const findings = findingsOf(check);
    const at = findings.findIndex((f) => outcome.kind === 'finding' && f.id === outcome.finding);
    if (at < 0) throw new RangeError(`${check.name}: no such finding`);
    return { honest: prediction.chances[at]!, slip: 1 / findings.length, state };
  }
  if (outcome.kind === 'finding') throw new RangeError(`${check.name} gives a number, not a finding`);
  const projected = gaussianProject(state, prediction.mean, prediction.slope);
  const sigma = Math.sqrt(projected.variance + prediction.noiseVariance);
  if (outcome.kind === 'over-range') {
    return { honest: 1 - normalCdf((prediction.top - projected.mean) / sigma), slip: 0.5, state };
  }
  const y = toScale(outcome.value, check.unit);
  const slip = (prediction.top === Infinity ? 1 : 0.5) / prediction.span;
  const honest = normalPdf(y, projected.mean, sigma);
  if ((1 - slipChance) * honest <= slipChance * slip) return { honest, slip, state };
  return { honest, slip, state: gaussianUpdate(state, projected, y, prediction.noiseVariance) };
}
