import { fit, type Fit, type Observation } from '../numeric/index.ts';
import { type Motor, type MotorLoad, motorPeak, motorRun, type MotorSource } from './motor.ts';

/** A point taken at the bench: what was read of volts at the terminal, amperes, speed and torque. */
export interface MotorPoint {
  readonly load: 'none' | 'loaded' | 'held';
  /** Where nobody read them, the bench battery gives them. */
  readonly volts?: number | undefined;
  readonly amps?: number | undefined;
  /** Of the pinion; none where it is held. */
  readonly rpm?: number | undefined;
  /** Braked with; where it is held, what it pulls. */
  readonly newtonMetres?: number | undefined;
}

/** How far a motor may lie from its plate, in ln: resistance, flux, drag, saturation. */
export interface MotorPriors {
  readonly ohms: number;
  readonly flux: number;
  readonly drag: number;
  readonly saturation: number;
}

/** A motor with a fault lies anywhere about its plate. */
export const ofFaulty = { ohms: 0.8, flux: 0.4, drag: 1 } as const;

/** Something foreseen, with its 95 % interval. */
export interface Interval {
  readonly mean: number;
  readonly low: number;
  readonly high: number;
}

export interface FittedMotor {
  readonly motor: Motor;
  readonly fit: Fit<Asked>;
  /** At a source and a load, each figure with its interval. */
  readonly foresee: (source: MotorSource, load: MotorLoad) => Readonly<Record<Shown, Interval>>;
  /** The most power at the pinion at a source, W. */
  readonly peak: (source: MotorSource) => Interval;
}

type Shown = 'amps' | 'rpm' | 'newtonMetres' | 'watts';
interface Asked {
  readonly plate: Motor;
  readonly source: MotorSource;
  readonly load: MotorLoad;
  readonly of: Shown | 'peak';
}

/** Relative standard uncertainty of a point's figures: clamp, tachometer, arm, and that nothing stands still [from memory]. */
const pointShare = { amps: 0.025, rpm: 0.015, newtonMetres: 0.03 } as const;
const twoSided = 1.96;
/** A terminal that is held at its volts. */
const stiff = 1e-6;

/** The motor whose resistance, flux, drag and saturation are so many times the plate's, in ln. */
export function scaledMotor(plate: Motor, [ohms = 0, flux = 0, drag = 0, saturation = 0]: readonly number[]): Motor {
  const by = Math.exp(drag);
  return {
    ...plate,
    ohms: plate.ohms * Math.exp(ohms),
    feedOhms: plate.feedOhms * Math.exp(ohms),
    fluxWebers: plate.fluxWebers * Math.exp(flux),
    drag: { newtonMetres: plate.drag.newtonMetres * by, perRadian: plate.drag.perRadian * by },
    saturation: plate.saturation * Math.exp(saturation),
  };
}

/**
 * The whole curve from a no-load point and one loaded or held: resistance, flux and drag are what two points say, the
 * rest comes from the plate with its own uncertainty. At least one point is needed; one alone leaves the interval wide.
 *
 * @param plate as warm as it was at the points
 * @param battery that fed it where a point has no volts
 * @param asked the same plate at the temperature that is asked about
 */
export function motorThrough(
  plate: Motor,
  points: readonly MotorPoint[],
  priors: MotorPriors,
  battery: MotorSource,
  asked: Motor = plate,
): FittedMotor {
  if (points.length === 0) throw new RangeError('a motor’s curve needs a point');
  const observations = points.flatMap((point): Observation<Asked>[] => {
    const source = point.volts === undefined ? battery : { volts: point.volts, ohms: stiff };
    const load: MotorLoad = point.load === 'held' ? 'held' : { newtonMetres: point.newtonMetres ?? 0 };
    const one = (of: Shown, value: number | undefined): Observation<Asked>[] =>
      value === undefined
        ? []
        : [{ at: { plate, source, load, of }, value, sigma: pointShare[of as keyof typeof pointShare] * value + 1e-3 }];
    return [
      ...one('amps', point.amps),
      ...(point.load === 'held' ? one('newtonMetres', point.newtonMetres) : one('rpm', point.rpm)),
    ];
  });
  const model = ({ plate: known, source, load, of }: Asked, parameters: readonly number[]): number => {
    const motor = scaledMotor(known, parameters);
    return of === 'peak' ? motorPeak(motor, source) : motorRun(motor, source, load)[of];
  };
  const { ohms, flux, drag, saturation } = priors;
  const found = fit(
    model,
    observations,
    [ohms, flux, drag, saturation].map((sigma) => ({ mean: 0, sigma })),
    0.02,
  );
  const interval = (at: Asked): Interval => {
    const { mean, sigma } = found.predict(at);
    return { mean, low: Math.max(mean - twoSided * sigma, 0), high: mean + twoSided * sigma };
  };
  return {
    motor: scaledMotor(asked, found.parameters),
    fit: found,
    foresee: (source, load) => ({
      amps: interval({ plate: asked, source, load, of: 'amps' }),
      rpm: interval({ plate: asked, source, load, of: 'rpm' }),
      newtonMetres: interval({ plate: asked, source, load, of: 'newtonMetres' }),
      watts: interval({ plate: asked, source, load, of: 'watts' }),
    }),
    peak: (source) => interval({ plate: asked, source, load: 'held', of: 'peak' }),
  };
}
