export {
  anyOutcomes,
  caliperSigma,
  type Check,
  type Equipment,
  type FindingOutcome,
  findingsOf,
  lampOutcomes,
  mayShow,
  type Method,
  type Outcome,
  type PresentFault,
  type RunSetup,
  type TapTrace,
  type StandState,
  type TwinPair,
  type Watched,
  type Word,
} from './check.ts';
export { leadsNull } from './leads.ts';
export { findingCheck, meterCheck, type Odds, tilted } from './make.ts';
