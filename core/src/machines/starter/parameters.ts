import type { NumberParameter } from '../family.ts';

/**
 * What is known of one starter. Resistances at 20 °C; speed and torque at the pinion.
 *
 * `direct`: series-wound, armature and pinion on one shaft. `reduction`: series-wound, a pair of gears between.
 * `planetary`: field by magnets, planetary gear. `inertia`: series-wound, the pinion thrown by its own inertia, the
 * switch apart from it.
 */
export interface Starter {
  readonly family: 'starter';
  readonly ratedVolts: 12 | 24;
  readonly ratedKilowatts: number;
  readonly layout: 'direct' | 'reduction' | 'planetary' | 'inertia';
  readonly gearRatio: number;
  readonly noLoadVolts: number;
  readonly noLoadAmps: number;
  readonly noLoadRpm: number;
  /** Held, as some makers publish it; without it the rated power says the same less well. */
  readonly stallVolts?: number | undefined;
  readonly stallAmps?: number | undefined;
  readonly stallNewtonMetres?: number | undefined;
  /** Command to motor terminal; none on an inertia drive. */
  readonly pullInOhms: number;
  /** Command to case; of the switch apart on an inertia drive. */
  readonly holdInOhms: number;
  readonly brushNewMillimetres: number;
  readonly brushLeastMillimetres: number;
  readonly commutatorLeastMillimetres?: number | undefined;
  readonly pinionTeeth?: number | undefined;
}

export type StarterNumber = Exclude<
  { [K in keyof Starter]-?: NonNullable<Starter[K]> extends number ? K : never }[keyof Starter],
  'ratedVolts'
>;

const number = (
  name: string,
  symbol: string,
  least: number,
  most: number,
  relativeSigma: number,
  source: string,
): NumberParameter => ({ name, symbol, least, most, relativeSigma, source });
const ownOnly = 'the model’s own; there is no common one';

/** Spreads are those of a machine known only by its kind: wide, since a spread too narrow condemns sound units. */
export const starterNumbers: Readonly<Record<StarterNumber, NumberParameter>> = {
  ratedKilowatts: number('Rated power', 'kW', 0.2, 15, 0, 'rating plate'),
  gearRatio: number('Gear ratio', '', 1, 10, 0, 'from memory: 3 to 3.6 with a pair of gears, 4 to 6 planetary'),
  noLoadVolts: number('No load, volts', 'V', 6, 32, 0, 'from memory: 11–12 V on a 12 V bench'),
  noLoadAmps: number('No load, amps', 'A', 5, 400, 0.15, 'from memory: 50–90 A direct drive, 12 V'),
  noLoadRpm: number('No load, pinion', 'rpm', 500, 20_000, 0.12, 'from memory'),
  stallVolts: number('Held, volts', 'V', 1, 30, 0, ownOnly),
  stallAmps: number('Held, amps', 'A', 50, 3000, 0.1, ownOnly),
  stallNewtonMetres: number('Held, torque', 'Nm', 1, 300, 0.1, ownOnly),
  pullInOhms: number('Pull-in winding', 'Ω', 0.05, 10, 0.1, '0.3–0.6 Ω on 12 V: from memory'),
  holdInOhms: number('Hold-in winding', 'Ω', 0.2, 40, 0.1, '1–2 Ω on 12 V: from memory'),
  brushNewMillimetres: number('Brush, new', 'mm', 5, 40, 0.03, 'from memory: 12 to 20 mm'),
  brushLeastMillimetres: number('Brush, least', 'mm', 3, 30, 0, 'about half of new: common practice, no source'),
  commutatorLeastMillimetres: number('Commutator, least diameter', 'mm', 10, 120, 0, ownOnly),
  pinionTeeth: number('Pinion teeth', '', 5, 25, 0, 'counted'),
};

export const layoutNames: Readonly<Record<Starter['layout'], string>> = {
  direct: 'direct drive, wound field',
  reduction: 'reduction gear, wound field',
  planetary: 'planetary gear, magnets',
  inertia: 'inertia drive, switch apart',
};

export const hasMagnets = ({ layout }: Starter): boolean => layout === 'planetary';
export const hasGears = ({ layout }: Starter): boolean => layout === 'reduction' || layout === 'planetary';
/** Whether a solenoid on it throws the pinion. */
export const hasSolenoid = ({ layout }: Starter): boolean => layout !== 'inertia';

/** Of a machine of one kilowatt and 12 V, and how fast its pinion turns [from memory]. */
const usual = {
  direct: { ratio: 1, amps: 60, rpm: 6500 },
  inertia: { ratio: 1, amps: 60, rpm: 6500 },
  reduction: { ratio: 3.4, amps: 70, rpm: 2900 },
  planetary: { ratio: 5, amps: 65, rpm: 2800 },
} as const;

/** What to start from when only the plate is known. */
export function starterGeneric(
  ratedVolts: 12 | 24,
  ratedKilowatts: number,
  layout: Starter['layout'] = 'direct',
): Starter {
  const sets = ratedVolts / 12;
  const { ratio, amps, rpm } = usual[layout];
  return {
    family: 'starter',
    ratedVolts,
    ratedKilowatts,
    layout,
    gearRatio: ratio,
    noLoadVolts: 11.5 * sets,
    noLoadAmps: Math.round((amps * Math.sqrt(ratedKilowatts)) / sets),
    noLoadRpm: rpm,
    pullInOhms: 0.45 * sets ** 2,
    holdInOhms: (layout === 'inertia' ? 4 : 1.3) * sets ** 2,
    brushNewMillimetres: 16,
    brushLeastMillimetres: 8,
  };
}
