import type { Gaussian } from '../numeric/index.ts';
import type { Case, Reading } from './case.ts';
import type { Prediction } from './expected.ts';
import { type Likelihood, likelihood, slipChance } from './likelihood.ts';

/** What one reading did. */
export interface Evidence {
  /** Weight of evidence for each fault, in bits: log2 of P(reading | fault there) / P(reading | fault not there). */
  readonly bits: Float64Array;
  /** Chance, after the fact, that the entry was a slip. */
  readonly slip: number;
}

/** Which hypotheses still stand, and how likely each is. Never changed once made. */
export interface Belief {
  /** One row for each build, one weight for each particle; all together sum to one. */
  readonly weights: readonly Float64Array[];
  readonly states: readonly (readonly Gaussian[])[];
  readonly evidence: readonly Evidence[];
}

/** A particle this unlikely stays out for good: three slipped entries in a row would not bring it back. */
const asleep = 1e-9;

export function priorBelief(opened: Case): Belief {
  const buildTotal = opened.builds.reduce((sum, build) => sum + build.prior, 0);
  return {
    weights: opened.builds.map((build) =>
      Float64Array.from(opened.particles, (particle) => (particle.prior * build.prior) / buildTotal),
    ),
    states: opened.priorStates.map((state) => opened.particles.map(() => state)),
    evidence: [],
  };
}

/**
 * The belief after one more reading: Bayes' rule over all particles, each carrying its own state of what is uncertain.
 * `slips`: chance of a slipped entry; smaller for a reading that was repeated and agreed.
 */
export function beliefAfter(opened: Case, belief: Belief, reading: Reading, slips = slipChance): Belief {
  const predictor = opened.predictor(reading);
  const faultCount = opened.faults.length;
  const before = new Float64Array(faultCount);
  const after = new Float64Array(faultCount);
  let total = 0;
  let slipped = 0;
  const states: Gaussian[][] = [];
  const weights = belief.weights.map((row, b) => {
    const build = opened.builds[b]!;
    const known = new Map<Gaussian, Map<Prediction, Likelihood>>();
    const own: Gaussian[] = (states[b] = [...belief.states[b]!]);
    const next = new Float64Array(row.length);
    for (let p = 0; p < row.length; p++) {
      const weight = row[p]!;
      if (weight === 0) continue;
      const particle = opened.particles[p]!;
      const found = remember(known, own[p]!, predictor.predict(reading.check, build, particle), reading);
      const slip = slips * found.slip;
      next[p] = weight * ((1 - slips) * found.honest + slip);
      own[p] = found.state;
      total += next[p]!;
      slipped += weight * slip;
      for (const f of particle.faults) {
        before[f]! += weight;
        after[f]! += next[p]!;
      }
    }
    return next;
  });
  for (const row of weights) {
    for (let p = 0; p < row.length; p++) row[p] = row[p]! < asleep * total ? 0 : row[p]! / total;
  }
  renormalise(weights);
  const bits = before.map((mass, f) => {
    if (mass <= 0 || mass >= 1) return 0;
    const withFault = after[f]! / mass;
    const without = (total - after[f]!) / (1 - mass);
    return withFault > 0 && without > 0 ? Math.log2(withFault / without) : 0;
  });
  return { weights, states, evidence: [...belief.evidence, { bits, slip: slipped / total }] };
}

function remember(
  known: Map<Gaussian, Map<Prediction, Likelihood>>,
  state: Gaussian,
  prediction: Prediction,
  reading: Reading,
): Likelihood {
  let row = known.get(state);
  if (!row) known.set(state, (row = new Map()));
  let found = row.get(prediction);
  if (!found) row.set(prediction, (found = likelihood(reading.check, reading.outcome, prediction, state)));
  return found;
}

function renormalise(weights: readonly Float64Array[]): void {
  const total = weights.reduce((sum, row) => sum + row.reduce((s, w) => s + w, 0), 0);
  for (const row of weights) for (let p = 0; p < row.length; p++) row[p]! /= total;
}

/** Probability of each build. */
export const buildChances = (belief: Belief): number[] =>
  belief.weights.map((row) => row.reduce((sum, w) => sum + w, 0));

/** Probability of each fault, alone or in company. */
export function faultChances(opened: Case, belief: Belief): Float64Array {
  const chances = new Float64Array(opened.faults.length);
  for (const row of belief.weights) {
    row.forEach((weight, p) => {
      if (weight > 0) for (const f of opened.particles[p]!.faults) chances[f]! += weight;
    });
  }
  return chances;
}

/** Probability that nothing at all is wrong. */
export const soundChance = (belief: Belief): number => belief.weights.reduce((sum, row) => sum + row[0]!, 0);

export interface SeverityEstimate {
  /** Geometric mean, in the fault's severity unit. */
  readonly middle: number;
  /** 90 % interval, taken as log-normal. */
  readonly low: number;
  readonly high: number;
}

/** How bad a fault is, if it is there: over all particles that hold it. Undefined for a fault with one grade. */
export function severityOf(opened: Case, belief: Belief, fault: number): SeverityEstimate | undefined {
  if (opened.faults[fault]!.severity.grades.length === 1) return undefined;
  let mass = 0;
  let sum = 0;
  let square = 0;
  belief.weights.forEach((row, b) =>
    row.forEach((weight, p) => {
      const particle = opened.particles[p]!;
      const slot = particle.faults.indexOf(fault);
      if (weight === 0 || slot < 0) return;
      const { mean, variance } = offsetOf(belief.states[b]![p]!, opened.dimensions.severity[slot]!);
      const cell = particle.cellSigmas[slot]!;
      const log = Math.log(particle.severities[slot]!) + mean * cell;
      mass += weight;
      sum += weight * log;
      square += weight * (log * log + variance * cell * cell);
    }),
  );
  if (mass === 0) return undefined;
  const mean = sum / mass;
  const reach = 1.645 * Math.sqrt(Math.max(square / mass - mean * mean, 0));
  return { middle: Math.exp(mean), low: Math.exp(mean - reach), high: Math.exp(mean + reach) };
}

function offsetOf(state: Gaussian, index: number): { mean: number; variance: number } {
  let variance = state.priorVariance[index]!;
  for (let link: Gaussian | undefined = state; link?.term; link = link.before) variance -= link.term[index]! ** 2;
  return { mean: state.mean[index]!, variance: Math.max(variance, 0) };
}
