export {
  type Foreseen,
  type OutputAt,
  type OutputCurve,
  outputCurve,
  type OutputModel,
  type OutputPoint,
  pileVolts,
} from './output-curve.ts';
export {
  type ArmatureCoil,
  fluxAt,
  type Motor,
  motorCurve,
  type MotorLoad,
  motorPeak,
  type MotorRun,
  motorRun,
  type MotorSource,
  type Turn,
} from './motor.ts';
export {
  type FittedMotor,
  type Interval,
  type MotorPoint,
  type MotorPriors,
  motorThrough,
  ofFaulty,
  scaledMotor,
} from './motor-fit.ts';
export { type MotorDynamics, motorRunUp, ripplesPerTurn, type RunUp } from './run-up.ts';
export { swellShare } from './turn.ts';
