import type { Build } from '../machines/index.ts';
import { type Gaussian, gaussianAlong, gaussiansForget, type PriorParameter } from '../numeric/index.ts';
import { boundsFactor } from './bounds.ts';
import type { Case, Reading } from './case.ts';
import type { Particle } from './hypotheses.ts';
import {
  isHonest,
  likelihood,
  looseLikelihood,
  loosePredictions,
  settle,
  slipChance,
  stateAfter,
} from './likelihood.ts';
import { type Prediction, strayChance } from './prediction.ts';
import { reconsider } from './reconsider.ts';
import { type Row, rowOf } from './row.ts';
import { toScale } from './scale.ts';
import { placeIn, type Slips } from './slips.ts';
import { atOnce, type Steps } from './steps.ts';
import { straightenedAt } from './straighten.ts';
import { type Weighed, Weighing } from './weighing.ts';

/** What one reading did. */
export interface Evidence {
  readonly reading: Reading;
  /** Weight of evidence for each fault, in bits: log2 of P(reading | fault there) / P(reading | fault not there). */
  readonly bits: Float64Array;
  /** Which faults the check could feel at all; a fault can also lose odds to a better explanation. */
  readonly felt: readonly boolean[];
  /**
   * For each build, of the particles that stood when it was read: the chance that it was a slip, if that particle is true;
   * reconsidered where a later reading contradicts it.
   */
  readonly slips: readonly Slips[];
}

/** As much of a belief as says what a sound unit would show: what the word of the next reading is judged by. */
export interface Outset {
  readonly rows: readonly Pick<Row, 'chance' | 'sound'>[];
}

/** Which hypotheses still stand, and how likely each is. Never changed once made. */
export interface Belief extends Outset {
  /** One for each build; all weights together sum to one. */
  readonly rows: readonly Row[];
  readonly scope: Scope;
  readonly evidence: readonly Evidence[];
  /** Sets of two faults and more beside which a further one is weighed. */
  readonly beside: readonly (readonly number[])[];
  /** What was believed before the first reading; undefined where there is none yet. */
  readonly before: Belief | undefined;
  /** How likely all that was read is, by what is weighed: its natural logarithm. */
  readonly logLikelihood: number;
}

/**
 * A particle this unlikely stays out for good: two slipped entries in a row would not bring it back. Units of its kind are told
 * apart sooner, which saves a third of the time: what looks wrong in two things is weighed as `any`, from the first reading on.
 * At a millionth so many would be left out at once that the order of readings mattered.
 */
const asleep: Readonly<Record<Scope, number>> = { 'its kind': 3e-7, any: 1e-8 };

/** For less weight than this a reading isn't straightened anew. */
const unsettled = 1e-4;
/** For less weight than this a reading that looks like a slip is taken for one. */
const worthReconsidering = 1e-3;

/**
 * How a unit unlike its kind is strewn, two faults at once on one, and builds contrary to what was checked in are weighed
 * only once it may be so: on `any` unit, as is a fault beside two others. Until then they aren't worth the time: strewn
 * widely stands for all, and one fault for all that is wrong there.
 */
export type Scope = 'its kind' | 'any';

const knownPriors = { 'its kind': new WeakMap<Case, Belief>(), any: new WeakMap<Case, Belief>() };

/** Before any reading. */
export function priorBelief(opened: Case, scope: Scope = 'its kind'): Belief {
  const known = knownPriors[scope];
  let prior = known.get(opened);
  if (!prior) known.set(opened, (prior = makePrior(opened, scope)));
  return prior;
}

function makePrior(opened: Case, scope: Scope): Belief {
  const { builds, particles } = opened;
  const priorOf = ({ prior, priorAsItsKind = prior }: Build) => (scope === 'any' ? prior : priorAsItsKind);
  const total = builds.reduce((sum, build) => sum + priorOf(build), 0);
  const singles = particles.reduce((sum, { faults, prior }) => sum + (faults.length === 1 ? prior : 0), 0);
  const wrong = particles.reduce((sum, { faults, prior }) => sum + (faults.length > 0 ? prior : 0), 0);
  const onStrewn = ({ faults, prior }: Particle) =>
    scope === 'any' ? prior : [prior, (prior * wrong) / singles, 0][faults.length]!;
  const rows = builds.map((build, b) => {
    const share = (particle: Particle) => (build.strewn ? onStrewn(particle) : particle.prior);
    const weights = Float64Array.from(particles, (particle) => (share(particle) * priorOf(build)) / total);
    return rowOf(weights, opened.priorStates[b]!);
  });
  return { rows, scope, evidence: [], beside: [], before: undefined, logLikelihood: 0 };
}

/**
 * The belief after one more reading: Bayes' rule over all particles, each carrying its own state of what is uncertain.
 * `slips`: chance of a slipped entry; smaller for a reading that was repeated and agreed.
 */
export const beliefAfter = (opened: Case, belief: Belief, reading: Reading, slips = slipChance): Belief =>
  atOnce(beliefInSteps(opened, belief, reading, slips));

/** The same, a build in each step. */
export function* beliefInSteps(opened: Case, belief: Belief, reading: Reading, slips: number): Steps<Belief> {
  const { check, outcome } = reading;
  const predictor = opened.predictor(reading);
  const weighings = belief.rows.map((row, b) => new Weighing(opened.builds[b]!, row));
  const before = new Float64Array(opened.faults.length);
  const after = new Float64Array(opened.faults.length);
  let total = 0;
  const feels = weighings.map(({ build, row }) => (row.particles.length ? predictor.feels(check, build) : []));
  for (const [b, weighing] of weighings.entries()) {
    yield;
    const { build, row } = weighing;
    const particleAt = (at: number) => opened.particles[row.particles[at]!]!;
    const within = (at: number, known: Gaussian, learnt: Gaussian) =>
      boundsFactor(particleAt(at), opened.dimensions, known, learnt);
    if (outcome.kind === 'changes')
      weighing.weigh(
        slips,
        (at) => loosePredictions[particleAt(at).faults.some((f) => feels[b]![f]) ? 'felt' : 'unfelt'],
        ({ prediction, state }) => {
          return { prediction, likely: looseLikelihood(prediction === loosePredictions.felt), learnt: state };
        },
        within,
      );
    else
      weighing.weigh(
        slips,
        (at, state) => predictor.predict(check, build, particleAt(at), state),
        ({ first, state, prediction, weight }) => {
          const about = (known: Gaussian) => predictor.predict(check, build, particleAt(first), known);
          const foreseen = weight < unsettled ? prediction : settle(check, outcome, prediction, state, about);
          const settled = straightenedAt(check, outcome, foreseen, state, opened.dimensions);
          const likely = likelihood(check, outcome, settled, state);
          const stray = strayChance(settled, slips);
          if (weight >= worthReconsidering && !isHonest(likely, stray)) {
            const instead = takenInstead(opened, reading, settled, state, about, slips);
            if (instead && isHonest(instead.likely, stray)) return instead;
          }
          return { prediction: settled, likely, learnt: stateAfter(reading, settled, state, likely, stray) };
        },
        within,
      );
    row.particles.forEach((p, at) => {
      total += weighing.after[at]!;
      for (const f of opened.particles[p]!.faults) {
        before[f]! += row.weights[at]!;
        after[f]! += weighing.after[at]!;
      }
    });
  }
  const felt = opened.faults.map((_, f) => feels.some((faults) => faults[f]));
  const least = asleep[belief.scope] * total;
  let kept = 0;
  for (const weighing of weighings) for (const weight of weighing.after) if (weight >= least) kept += weight;
  const slipped = weighings.map((weighing) => ({
    particles: weighing.row.particles,
    chances: weighing.slipped(slips),
  }));
  const evidence = { reading, bits: bitsOf(before, after, total), felt, slips: slipped };
  return {
    rows: weighings.map((weighing) => weighing.left(least, kept)),
    scope: belief.scope,
    evidence: [...revised(belief.evidence, weighings), evidence],
    beside: belief.beside,
    before: belief.before ?? belief,
    logLikelihood: belief.logLikelihood + Math.log(kept),
  };
}

/** A reading that looks like a slip, taken for honest because an earlier one was the slip: how likely both are. */
function takenInstead(
  { dimensions }: Case,
  reading: Reading,
  prediction: Prediction,
  state: Gaussian,
  about: (state: Gaussian) => Prediction,
  slips: number,
): Weighed | undefined {
  const { check, outcome } = reading;
  if (outcome.kind !== 'value' || prediction.kind !== 'number') return undefined;
  const other = reconsider(state, prediction, toScale(outcome.value, check));
  if (!other) return undefined;
  const foreseen = settle(check, outcome, about(other.state), other.state, about);
  const settled = straightenedAt(check, outcome, foreseen, other.state, dimensions);
  const { honest, slip } = likelihood(check, outcome, settled, other.state);
  const likely = { honest: other.odds * honest, slip };
  const learnt = stateAfter(reading, settled, other.state, likely, strayChance(settled, slips));
  return { prediction: settled, likely, learnt, instead: other.reading };
}

/** Earlier readings with what is now thought of them. */
function revised(evidence: readonly Evidence[], weighings: readonly Weighing[]): readonly Evidence[] {
  const chances = new Map<Reading, Float32Array[]>();
  for (const [b, { row, revisions }] of weighings.entries())
    for (const { reading, at, chance } of revisions) {
      const slips = evidence.find((one) => one.reading === reading)?.slips;
      if (!slips) continue;
      let mine = chances.get(reading);
      if (!mine) chances.set(reading, (mine = slips.map((of) => of.chances.slice())));
      const place = placeIn(slips[b]!.particles, row.particles[at]!);
      mine[b]![place] = chance + (1 - chance) * mine[b]![place]!;
    }
  return evidence.map((one) => {
    const now = chances.get(one.reading);
    return now ? { ...one, slips: one.slips.map(({ particles }, b) => ({ particles, chances: now[b]! })) } : one;
  });
}

/** The belief with what was known of one uncertain quantity forgotten: it was exchanged, for one known to `sigma`. */
export function beliefWithout(opened: Case, belief: Belief, name: string, sigma: number): Belief {
  const component = opened.dimensions.index.get(name)!;
  const held = belief.rows.flatMap(({ states, sound }) => [...states, sound]);
  const forgot = gaussiansForget(held, component, sigma).values();
  const next = () => forgot.next().value!;
  const rows = belief.rows.map((row) => ({ ...row, states: row.states.map(next), sound: next() }));
  return { ...belief, rows };
}

/** Chance that the entry of one reading was a slip, after all that was read since. Who stands now stood then; both ascend. */
export function slipChanceOf(belief: Belief, reading: number): number {
  const { slips } = belief.evidence[reading]!;
  let sum = 0;
  belief.rows.forEach(({ particles, weights }, b) => {
    const { particles: were, chances } = slips[b]!;
    let at = 0;
    particles.forEach((particle, i) => {
      while (were[at]! < particle) at++;
      sum += weights[i]! * chances[at]!;
    });
  });
  return sum;
}

/** log2 of P(reading | fault) / P(reading | no such fault), from each fault's share before and after. */
function bitsOf(before: Float64Array, after: Float64Array, total: number): Float64Array {
  return before.map((mass, f) => {
    const withFault = after[f]! / mass;
    const without = (total - after[f]!) / (1 - mass);
    return withFault > 0 && without > 0 && mass < 1 ? Math.log2(withFault / without) : 0;
  });
}

/** Probability of each build. */
export const buildChances = ({ rows }: Outset): readonly number[] => rows.map(({ chance }) => chance);

/** Probability that the unit is unlike its kind: in whatever, or in some things alone. */
export const unlikeChance = ({ builds }: Case, { rows }: Outset, apart?: string): number => {
  const isOne = ({ strewn }: Build) => strewn !== undefined && (apart === undefined || strewn.apart?.name === apart);
  return rows.reduce((sum, { chance }, b) => sum + (isOne(builds[b]!) ? chance : 0), 0);
};

/** A hypothesis that still carries weight. */
export interface StandingParticle {
  readonly build: number;
  readonly particle: number;
  readonly weight: number;
  readonly state: Gaussian;
}

const negligible = 1e-7;
const knownStanding = new WeakMap<Belief, readonly StandingParticle[]>();

/** Every hypothesis whose weight still matters to a sum, heaviest first. */
export function standingParticles(belief: Belief): readonly StandingParticle[] {
  let standing = knownStanding.get(belief);
  if (!standing) {
    const found: StandingParticle[] = [];
    belief.rows.forEach(({ particles, weights, states }, build) =>
      particles.forEach((particle, at) => {
        const weight = weights[at]!;
        if (weight > negligible) found.push({ build, particle, weight, state: states[at]! });
      }),
    );
    standing = found.sort((a, b) => b.weight - a.weight);
    knownStanding.set(belief, standing);
  }
  return standing;
}

/** Readings that leave more than this of a variance have said next to nothing. */
const leastLearnt = 0.5;

const knownChances = new WeakMap<Belief, Float64Array>();

/** Probability of each fault, alone or in company. */
export function faultChances(opened: Case, belief: Belief): Float64Array {
  const known = knownChances.get(belief);
  if (known) return known;
  const chances = new Float64Array(opened.faults.length);
  for (const { particles, weights } of belief.rows) {
    particles.forEach((p, at) => {
      for (const f of opened.particles[p]!.faults) chances[f]! += weights[at]!;
    });
  }
  knownChances.set(belief, chances);
  return chances;
}

/** Probability that the faults that are there, alone or in company, hold what is asked, or their severities and the build. */
export function chanceThat(
  opened: Case,
  belief: Belief,
  holds: (faults: readonly number[], particle: Particle, build: Build) => boolean,
): number {
  let sum = 0;
  belief.rows.forEach(({ particles, weights }, b) =>
    particles.forEach((p, at) => {
      const particle = opened.particles[p]!;
      if (holds(particle.faults, particle, opened.builds[b]!)) sum += weights[at]!;
    }),
  );
  return sum;
}

/** Probability that nothing at all is wrong. */
export const soundChance = (belief: Belief): number =>
  belief.rows.reduce((sum, { particles, weights }) => sum + (particles[0] === 0 ? weights[0]! : 0), 0);

export interface SeverityEstimate {
  /** Geometric mean, in the fault's severity unit. */
  readonly middle: number;
  /** 90 % interval, taken as log-normal. */
  readonly low: number;
  readonly high: number;
}

/**
 * What the readings alone say of an uncertainty of the unit's own, over the hypotheses of its likeliest build; what
 * was believed of it before is taken out again. Undefined where they say next to nothing.
 */
export function learntOf(opened: Case, belief: Belief, name: string): PriorParameter | undefined {
  const dimension = opened.dimensions.index.get(name)!;
  const chances = buildChances(belief);
  const likeliest = chances.indexOf(Math.max(...chances));
  let [mass, sum, square] = [0, 0, 0];
  for (const { build, state, weight } of standingParticles(belief)) {
    if (build !== likeliest) continue;
    const { mean, variance } = gaussianAlong(state, dimension);
    mass += weight;
    sum += weight * mean;
    square += weight * (mean * mean + variance);
  }
  const mean = sum / mass;
  const variance = square / mass - mean * mean;
  const before = opened.priorStates[likeliest]!.priorVariance[dimension]!;
  if (!(variance < leastLearnt * before)) return undefined;
  const precision = 1 / variance - 1 / before;
  return { mean: mean / variance / precision, sigma: precision ** -0.5 };
}

/** How bad a fault is, if it is there: over all particles that hold it. Undefined for a fault with one grade. */
export function severityOf(opened: Case, belief: Belief, fault: number): SeverityEstimate | undefined {
  if (opened.faults[fault]!.severity.grades.length === 1) return undefined;
  let mass = 0;
  let sum = 0;
  let square = 0;
  for (const { particle: p, state, weight } of standingParticles(belief)) {
    const particle = opened.particles[p]!;
    const slot = particle.faults.indexOf(fault);
    if (slot < 0) continue;
    const { mean, variance } = gaussianAlong(state, opened.dimensions.severity[slot]!);
    const cell = particle.cellSigmas[slot]!;
    const log = Math.log(particle.severities[slot]!) + mean * cell;
    mass += weight;
    sum += weight * log;
    square += weight * (log * log + variance * cell * cell);
  }
  if (mass === 0) return undefined;
  const mean = sum / mass;
  const reach = 1.645 * Math.sqrt(Math.max(square / mass - mean * mean, 0));
  return { middle: Math.exp(mean), low: Math.exp(mean - reach), high: Math.exp(mean + reach) };
}
