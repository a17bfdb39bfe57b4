export { normalFrom, seeded } from './dice.ts';
export { type Fit, fit, type Observation, type PriorParameter } from './fit.ts';
export {
  type Gaussian,
  gaussianAbove,
  gaussianAlong,
  gaussianCovariance,
  gaussianForget,
  gaussianOf,
  gaussianProject,
  gaussianUpdate,
  type Slope,
  slopeOf,
  slopePart,
} from './gaussian.ts';
export { normalBetween, normalCdf, normalPdf } from './normal.ts';
