import { fit, type Fit, type Observation, type PriorParameter } from '../numeric/index.ts';

/** A point of the output test: speed of the rotor, volts held at the post, amperes drawn. */
export interface OutputPoint {
  readonly rpm: number;
  readonly volts: number;
  readonly amps: number;
  /** Of the windings; without it a point says less, and nothing of how the machine is when hot. */
  readonly celsius?: number | undefined;
}

export type OutputAt = Omit<OutputPoint, 'amps'>;

/** A machine's output as its family reckons it, by parameters of which something is known beforehand. */
export interface OutputModel {
  readonly priors: readonly PriorParameter[];
  readonly amps: (at: OutputAt, parameters: readonly number[]) => number;
}

/** An output foreseen, with its 95 % interval. */
export interface Foreseen {
  readonly rpm: number;
  readonly amps: number;
  readonly low: number;
  readonly high: number;
}

export interface OutputCurve {
  readonly fit: Fit<OutputAt>;
  readonly foresee: (at: OutputAt) => Foreseen;
}

/** Relative standard uncertainty of one point beside its instrument: speed, a needle that moves, the model [from memory]. */
const pointShare = 0.015;
const pointAmps = 0.4;
/** More where the windings' temperature isn't known. */
const unknownHeatShare = 0.03;
const twoSided = 1.96;
/** Of each prior's width: the model is a simulation that settles to a few parts in ten thousand. */
const tried = 0.15;

const sigmaOf = ({ amps, celsius }: OutputPoint): number =>
  Math.hypot((celsius === undefined ? Math.hypot(pointShare, unknownHeatShare) : pointShare) * amps, pointAmps);

/** The curve through the points. At least one is needed; few leave the interval wide. */
export function outputCurve(model: OutputModel, points: readonly OutputPoint[]): OutputCurve {
  if (points.length === 0) throw new RangeError('an output curve needs a point');
  const observations = points.map((point): Observation<OutputAt> => ({
    at: point,
    value: point.amps,
    sigma: sigmaOf(point),
  }));
  const found = fit((at, parameters) => model.amps(at, parameters), observations, model.priors, tried);
  const foresee = (at: OutputAt): Foreseen => {
    const { mean, sigma } = found.predict(at);
    // The parameters' own straight lines leave out about what a point errs by: on 30 machines drawn by lot.
    const reach = twoSided * Math.hypot(sigma, pointShare * mean);
    return { rpm: at.rpm, amps: mean, low: Math.max(mean - reach, 0), high: mean + reach };
  };
  return { fit: found, foresee };
}
