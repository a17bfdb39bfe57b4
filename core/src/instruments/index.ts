export { type Feed, measure, type MeterFunction, rangesOf, type Setup, type Shown } from './measure.ts';
export {
  countSigma,
  gainSigma,
  type Multimeter,
  multimeterById,
  multimeters,
  type OhmsRange,
  type Range,
  rangeFor,
  readingSigma,
} from './multimeter.ts';
export {
  benchSupply,
  currentClamp,
  insulationTester,
  lampAmps,
  type RunInstrument,
  runRanges,
  seriesOhms,
  testLamp,
  type TestLamp,
} from './others.ts';
export { flicker, type Hold, type Sample, Steadiness } from './steady.ts';
