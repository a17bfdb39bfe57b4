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
  /** The most that it gives at any of these volts, and at which. */
  readonly most: (at: Omit<OutputAt, 'volts'>, volts: readonly number[]) => Foreseen & { readonly volts: number };
  /** Of the points that could be taken, the one that narrows most what is foreseen at a place, and how far. */
  readonly narrowedBy: (
    at: OutputAt,
    points: readonly OutputAt[],
  ) => { point: OutputAt; foreseen: Foreseen } | undefined;
}

/** Relative standard uncertainty of one point beside its instrument: speed, a needle that moves, the model [from memory]. */
const pointShare = 0.015;
const pointAmps = 0.4;
/** More where the windings' temperature isn't known. */
const unknownHeatShare = 0.03;
const twoSided = 1.96;
/** Few points leave the parameters wide, where straight lines miss: over their number, counted on machines drawn by lot. */
const bentShare = 0.0375;
/** Of each prior's width: the model is a simulation that settles to a few parts in ten thousand. */
const tried = 0.15;

/** Volts that a pile may leave, of the rated: up to what a regulator holds, from there down [from memory]. */
const pileShares = Array.from({ length: 14 }, (_, n) => 0.8 + 0.02 * n);
/** The volts that a pile may leave at a post of so many rated volts, low to high. */
export const pileVolts = (rated: number): readonly number[] => pileShares.map((share) => share * rated);

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
  const within = ({ rpm }: OutputAt, mean: number, variance: number, count = points.length): Foreseen => {
    const reach = twoSided * Math.hypot(Math.sqrt(variance), (bentShare * mean) / count);
    return { rpm, amps: mean, low: Math.max(mean - reach, 0), high: mean + reach };
  };
  const foresee = (at: OutputAt): Foreseen => {
    const { mean, sigma } = found.predict(at);
    return within(at, mean, sigma ** 2);
  };
  const most = (at: Omit<OutputAt, 'volts'>, volts: readonly number[]) => {
    const amps = (of: number) => model.amps({ ...at, volts: of }, found.parameters);
    const [best] = volts.map((of) => ({ of, amps: amps(of) })).sort((a, b) => b.amps - a.amps);
    if (!best) throw new RangeError('the most is asked for at no volts');
    return { ...foresee({ ...at, volts: best.of }), volts: best.of };
  };
  const narrowedBy = (at: OutputAt, others: readonly OutputAt[]) => {
    const now = found.predict(at);
    const takenBy = others.map((point) => {
      const there = found.predict(point);
      const noise = sigmaOf({ ...point, amps: there.mean });
      return { point, variance: found.covary(at, point) ** 2 / (there.sigma ** 2 + noise ** 2) };
    });
    const chosen = takenBy.reduce((best, one) => (one.variance > best.variance ? one : best), takenBy[0]!);
    return (
      chosen && {
        point: chosen.point,
        foreseen: within(at, now.mean, now.sigma ** 2 - chosen.variance, points.length + 1),
      }
    );
  };
  return { fit: found, foresee, most, narrowedBy };
}
