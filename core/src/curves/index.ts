export {
  type Foreseen,
  type OutputAt,
  type OutputCurve,
  outputCurve,
  type OutputModel,
  type OutputPoint,
} from './output-curve.ts';
