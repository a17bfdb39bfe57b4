export { beliefAfterWork } from './after-work.ts';
export {
  learntOf,
  type Belief,
  beliefAfter,
  buildChances,
  chanceThat,
  type Evidence,
  faultChances,
  type Outset,
  priorBelief,
  unlikeChance,
  type Scope,
  type SeverityEstimate,
  severityOf,
  slipChanceOf,
  soundChance,
  type StandingParticle,
  standingParticles,
} from './belief.ts';
export { type Case, checkOf, complaintOf, openCase, type Reading } from './case.ts';
export { type Band, bandOf, canTell, conformity, faultBand, soundBands, wordOf } from './expectation.ts';
export { type NumberPrediction, type Prediction } from './prediction.ts';
export { type Counted, type Counting, countedAt, countedReadings, countingOf } from './counted.ts';
export { History } from './history.ts';
export { type Followed } from './trail.ts';
export { type Particle } from './hypotheses.ts';
export { hearsay, likelihood, type Likelihood, slipChance, type Teller } from './likelihood.ts';
export { type Conditions, Predictor } from './predictor.ts';
export { fromScale, toScale } from './scale.ts';
export { type Steps } from './steps.ts';
export { partWords, type Standing, standings } from './marks.ts';
export { separation, type View, viewOf } from './separation.ts';
