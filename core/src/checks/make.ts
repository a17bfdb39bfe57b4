import type { Setup } from '../instruments/index.ts';
import type { Orders, Turns } from '../waveform/index.ts';
import type { Unit } from '../quantity/index.ts';
import type { Check, Equipment, FindingOutcome, PresentFault, TapTrace, TwinPair, Watched } from './check.ts';

interface MeterCheck {
  readonly species: string;
  readonly place?: string;
  readonly name: string;
  readonly assembly: string;
  readonly upTo?: string;
  readonly minutes: number;
  readonly setup: Setup;
  readonly isolation?: boolean;
  readonly alike?: string;
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
  const { species, place = '', upTo, setup, isolation, alike } = check;
  return {
    id: place ? `${species}:${place}` : species,
    species,
    place,
    name: check.name,
    assembly: check.assembly,
    ...(upTo ? { upTo } : {}),
    minutes: check.minutes,
    unit: units[setup.function],
    how: check.how,
    tells: check.tells,
    cautions: check.cautions ?? [],
    method: { kind: 'meter', setup, ...(isolation ? { isolation } : {}), ...(alike ? { alike } : {}) },
  };
}

/** Chances of each outcome, by the kind of fault or by the check. */
export type Odds = Readonly<Record<string, readonly number[]>>;

type FindingCheck = FindingParts & (ByOdds | Reckoned);

interface FindingParts {
  readonly id: string;
  readonly name: string;
  readonly assembly: string;
  readonly upTo?: string;
  readonly minutes: number;
  readonly run?: string;
  readonly how: string;
  readonly tells: string;
  readonly cautions?: readonly string[];
  readonly outcomes: readonly FindingOutcome[];
  readonly compared?: (pairs: readonly TwinPair[]) => string;
  readonly traced?: (orders: Orders, tap?: TapTrace) => string | undefined;
  readonly turned?: (turns: Turns) => string;
  readonly watched?: Watched;
  readonly needs?: Equipment;
  /** Of what is watched; ohms where nothing is said. */
  readonly unit?: Unit;
}

interface ByOdds {
  /** Chances of the outcomes when none of the named faults is there. */
  readonly usual: readonly number[];
  /** Chances by species of fault. */
  readonly odds: Odds;
}

interface Reckoned {
  /** Chances of the outcomes, worked out from what is wrong. */
  readonly chances: (faults: readonly PresentFault[]) => readonly number[];
}

/** A check by eye, ear or hand. */
export function findingCheck(check: FindingCheck): Check {
  const { id, name, assembly, upTo, minutes, run, how, tells, cautions = [], needs, unit = 'ohms' } = check;
  const { outcomes, compared, traced, turned, watched } = check;
  return {
    id,
    species: id,
    place: '',
    name,
    assembly,
    ...(upTo ? { upTo } : {}),
    minutes,
    ...(run ? { run } : {}),
    unit,
    how,
    tells,
    cautions,
    ...(needs ? { needs } : {}),
    method: {
      kind: 'finding',
      outcomes,
      chances: 'chances' in check ? check.chances : (faults) => tilted(check, faults),
      ...(compared ? { compared } : {}),
      ...(traced ? { traced } : {}),
      ...(turned ? { turned } : {}),
      ...(watched ? { watched } : {}),
    },
  };
}

/** Two faults at once tilt the chances one after the other: each by its own ratio to the usual. */
export function tilted({ usual, odds }: ByOdds, faults: readonly PresentFault[]): readonly number[] {
  const raw = usual.map((chance, o) =>
    faults.reduce((p, { species }) => (p * (odds[species]?.[o] ?? chance)) / chance, chance),
  );
  const total = raw.reduce((sum, p) => sum + p, 0);
  return raw.map((p) => p / total);
}
