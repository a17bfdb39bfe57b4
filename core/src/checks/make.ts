import type { Setup } from '../instruments/index.ts';
import type { Orders } from '../waveform/index.ts';
import type { Unit } from '../quantity/index.ts';
import type { Check, Equipment, FindingOutcome, PresentFault, TapTrace, TwinPair, Watched } from './check.ts';

interface MeterCheck {
  readonly species: string;
  readonly place?: string;
  readonly name: string;
  readonly assembly: string;
  readonly minutes: number;
  readonly setup: Setup;
  readonly isolation?: boolean;
  readonly how: string;
  readonly tells: string;
  readonly cautions?: readonly string[];
}

const units = {
  diode: 'volts',
  volts: 'volts',
  drop: 'volts',
  amps: 'amps',
  ohms: 'ohms',
  insulation: 'ohms',
  lamp: 'ohms',
} as const;

/** A check with a meter between two places. */
export function meterCheck(check: MeterCheck): Check {
  const { species, place = '', setup, isolation } = check;
  return {
    id: place ? `${species}:${place}` : species,
    species,
    place,
    name: check.name,
    assembly: check.assembly,
    minutes: check.minutes,
    unit: units[setup.function],
    how: check.how,
    tells: check.tells,
    cautions: check.cautions ?? [],
    method: { kind: 'meter', setup, ...(isolation ? { isolation } : {}) },
  };
}

/** Chances of each outcome, by the kind of fault or by the check. */
export type Odds = Readonly<Record<string, readonly number[]>>;

interface FindingCheck {
  readonly id: string;
  readonly name: string;
  readonly assembly: string;
  readonly minutes: number;
  readonly how: string;
  readonly tells: string;
  readonly cautions?: readonly string[];
  readonly outcomes: readonly FindingOutcome[];
  /** Chances of the outcomes when none of the named faults is there. */
  readonly usual: readonly number[];
  /** Chances by species of fault. */
  readonly odds: Odds;
  readonly compared?: (pairs: readonly TwinPair[]) => string;
  readonly traced?: (orders: Orders, tap?: TapTrace) => string | undefined;
  readonly watched?: Watched;
  readonly needs?: Equipment;
  /** Of what is watched; ohms where nothing is said. */
  readonly unit?: Unit;
}

/** A check by eye, ear or hand. */
export const findingCheck = ({
  id,
  outcomes,
  usual,
  odds,
  compared,
  traced,
  watched,
  unit,
  ...rest
}: FindingCheck): Check => ({
  ...rest,
  id,
  species: id,
  place: '',
  unit: unit ?? 'ohms',
  cautions: rest.cautions ?? [],
  method: {
    kind: 'finding',
    outcomes,
    chances: (faults) => tilted(usual, odds, faults),
    ...(compared ? { compared } : {}),
    ...(traced ? { traced } : {}),
    ...(watched ? { watched } : {}),
  },
});

/** Two faults at once tilt the chances one after the other: each by its own ratio to the usual. */
function tilted(usual: readonly number[], odds: Odds, faults: readonly PresentFault[]): readonly number[] {
  const raw = usual.map((chance, o) =>
    faults.reduce((p, { species }) => (p * (odds[species]?.[o] ?? chance)) / chance, chance),
  );
  const total = raw.reduce((sum, p) => sum + p, 0);
  return raw.map((p) => p / total);
}
