export { normalFrom, seeded } from './dice.ts';
export { type Fit, fit, type Observation, type PriorParameter } from './fit.ts';
export {
  type Gaussian,
  gaussianAbove,
  gaussianAlong,
  gaussianBefore,
  gaussianCovariance,
  gaussianOf,
  gaussianProject,
  gaussiansForget,
  gaussianUpdate,
  type Slope,
  slopeOf,
  slopePart,
  type Step,
} from './gaussian.ts';
export { normalBetween, normalCdf, normalPdf } from './normal.ts';
