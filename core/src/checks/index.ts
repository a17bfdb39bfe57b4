export {
  anyOutcomes,
  caliperSigma,
  type Check,
  type Equipment,
  type FindingOutcome,
  findingsOf,
  lampOutcomes,
  type LowAndHigh,
  mayShow,
  type Method,
  type Outcome,
  type PresentFault,
  type RunSetup,
  type TapTrace,
  type TwinPair,
  type Word,
} from './check.ts';
export { leadsNull } from './leads.ts';
export { findingCheck, meterCheck, type Odds } from './make.ts';
