import type { SpreadKind } from '../circuit/index.ts';
import type { Fault } from '../machines/index.ts';
import { type Slope, slopeOf } from '../numeric/index.ts';
import type { Bend } from './chord.ts';
import type { Focus } from './focus.ts';

/** A number expected on the comparison scale: its mean, what moves it, and the noise each reading has anew. */
export interface NumberPrediction {
  readonly kind: 'number';
  readonly mean: number;
  readonly slope: Slope;
  readonly noiseVariance: number;
  /** Of the noise, how far such a unit lies from what its plate foresees: no error of the instrument. */
  readonly ownVariance?: number;
  /** Chance that it is foreseen badly, so that it may as well be anything; none where it isn't said. */
  readonly astray?: number;
  /** Beyond this the instrument shows over-range. */
  readonly top: number;
  /** What a slipped probe could show lies between 0 and here. */
  readonly span: number;
  /** Of mean and noise, what the curve over each kind of the unit's uncertain quantities put there. */
  readonly bends: readonly KindBend[];
}

/** What one kind of uncertain quantity bends a reading by. */
export interface KindBend extends Bend {
  readonly kind: string;
  /** Where what its batch shares was taken to lie. */
  readonly batch?: Batch | undefined;
}

/** Where the share of a kind that a batch has in common lies, in its standard deviations. */
export interface Batch {
  readonly kind: SpreadKind;
  readonly dimension: number;
  readonly focus: Focus;
}

export interface ChancePrediction {
  readonly kind: 'chances';
  readonly chances: readonly number[];
}

export type Prediction = NumberPrediction | ChancePrediction;

/** The chance that a reading has nothing to do with what is foreseen of it: a slip, or foreseen badly. */
export const strayChance = (prediction: Prediction, slips: number): number =>
  Math.max(slips, prediction.kind === 'number' ? (prediction.astray ?? 0) : 0);

/** A fault at one severity, that of its focus; `sigma` is the standard deviation of ln(severity) over its whole cell. */
export interface FaultAt {
  readonly fault: Fault;
  readonly severity: number;
  readonly sigma: number;
  readonly focus: Focus;
}

/** A slope that moves the reading by less than this share of its noise is left out. */
const unfelt = 1e-4;
export const kept = (slope: Float64Array, noiseVariance: number): Slope =>
  slopeOf(slope, unfelt * Math.sqrt(noiseVariance));

/** What a slipped probe can show on a vehicle, V. */
export const liveVolts = 30;
