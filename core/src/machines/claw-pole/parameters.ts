import type { NumberParameter } from '../family.ts';

/**
 * Built into the machine with a set-point of its own; built in and told its set-point by a computer; a box of its own on
 * the vehicle, electronic or with two contacts.
 */
export type Regulator = 'built-in' | 'commanded' | 'separate' | 'two-contact';

/** What is known of one claw-pole alternator. Resistances at 20 °C. */
export interface ClawPole {
  readonly family: 'claw-pole';
  readonly ratedVolts: 12 | 24;
  readonly ratedAmps: number;
  readonly connection: 'star' | 'delta' | 'unknown';
  /** Six, or eight with two on the star point. */
  readonly diodes: 6 | 8;
  readonly diodeKind: 'silicon' | 'low-loss' | 'unknown';
  readonly exciterDiodes: boolean;
  /** Supply side: one brush grounded. Ground side: both insulated, one on the supply. */
  readonly regulatorSide: 'supply' | 'ground';
  /** Built in where nobody said. */
  readonly regulator?: Regulator | undefined;
  /** Lead to lead, as an ohmmeter sees it. */
  readonly statorPairOhms: number;
  readonly rotorOhms: number;
  readonly brushNewMillimetres: number;
  readonly brushLeastMillimetres: number;
  /** Slip rings, after turning; not every model's is known. */
  readonly ringLeastMillimetres?: number | undefined;
  readonly polePairs?: number | undefined;
  /** Rotor speed at which output begins. */
  readonly cutInRpm?: number | undefined;
}

export type ClawPoleNumber =
  | 'ratedAmps'
  | 'statorPairOhms'
  | 'rotorOhms'
  | 'brushNewMillimetres'
  | 'brushLeastMillimetres'
  | 'ringLeastMillimetres'
  | 'polePairs'
  | 'cutInRpm';

/** Spreads are those of a machine known only by its kind: wide, since a spread too narrow condemns sound units. */
export const clawPoleNumbers: Readonly<Record<ClawPoleNumber, NumberParameter>> = {
  ratedAmps: { name: 'Rated current', symbol: 'A', least: 5, most: 500, relativeSigma: 0, source: 'rating plate' },
  statorPairOhms: {
    name: 'Stator, lead to lead',
    symbol: 'Ω',
    least: 0.005,
    most: 5,
    relativeSigma: 0.15,
    source: '0.1–0.2 Ω on common 12 V machines: common practice, no source',
  },
  rotorOhms: {
    name: 'Rotor winding, ring to ring',
    symbol: 'Ω',
    least: 0.5,
    most: 60,
    relativeSigma: 0.12,
    source: '2–5 Ω on 12 V machines: common practice, no source; 6–12 Ω on 24 V: from memory',
  },
  brushNewMillimetres: {
    name: 'Brush, new',
    symbol: 'mm',
    least: 3,
    most: 40,
    relativeSigma: 0.03,
    source: '10 mm: common practice, no source',
  },
  brushLeastMillimetres: {
    name: 'Brush, least',
    symbol: 'mm',
    least: 1,
    most: 30,
    relativeSigma: 0,
    source: '5 mm: common practice, no source',
  },
  ringLeastMillimetres: {
    name: 'Slip ring, least diameter',
    symbol: 'mm',
    least: 5,
    most: 80,
    relativeSigma: 0,
    source: 'the model’s own; there is no common one',
  },
  polePairs: {
    name: 'Pole pairs',
    symbol: '',
    least: 2,
    most: 12,
    relativeSigma: 0,
    source: 'six on common car machines: common practice, no source',
  },
  cutInRpm: {
    name: 'Cut-in speed of the rotor',
    symbol: 'rpm',
    least: 400,
    most: 2500,
    relativeSigma: 0.1,
    source: '900 to 1,200 rpm: from memory',
  },
};

/** Whether its regulator is a box of its own: field terminals lead out. */
export const isDetached = ({ regulator }: ClawPole): boolean => regulator === 'separate' || regulator === 'two-contact';

/** What is left of a rotor's turns, a share of them shorted out; the short itself is never all of it. */
export const turnsLeftAt = (shorted: number): number => 1 - Math.min(shorted, 0.99);

/** What to start from when only the plate is known. */
export function clawPoleGeneric(ratedVolts: 12 | 24, ratedAmps: number): ClawPole {
  return {
    family: 'claw-pole',
    ratedVolts,
    ratedAmps,
    connection: 'unknown',
    diodes: 6,
    diodeKind: 'unknown',
    exciterDiodes: true,
    regulatorSide: 'ground',
    regulator: 'built-in',
    statorPairOhms: ratedVolts === 12 ? 0.12 : 0.3,
    rotorOhms: ratedVolts === 12 ? 3 : 9,
    brushNewMillimetres: 10,
    brushLeastMillimetres: 5,
  };
}

export const phases = ['A', 'B', 'C'] as const;

/** The places of the rectifier's diodes: phase (N: star point) and side. */
export const diodePlaces = (machine: ClawPole): readonly string[] =>
  [...phases, ...(machine.diodes === 8 ? ['N'] : [])].flatMap((p) => [`${p}+`, `${p}-`]);

export const diodeName = (place: string): string =>
  `${place.endsWith('+') ? 'positive' : 'negative'} diode ${place[0] === 'N' ? 'of the star point' : place[0]}`;

/** Which leads a phase winding lies between: in delta, winding A lies opposite lead A. */
export const windingLeads: Readonly<Record<string, string>> = { A: 'BC', B: 'CA', C: 'AB' };

export const windingName = (machine: ClawPole, phase: string): string =>
  machine.connection === 'delta'
    ? `stator winding between leads ${[...windingLeads[phase]!].join(' and ')}`
    : `stator phase ${phase}`;
