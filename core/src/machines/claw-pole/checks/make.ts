import type { Check } from '../../../checks/index.ts';
import type { Setup } from '../../../instruments/index.ts';
import type { Assembly } from '../circuit.ts';

interface MeterCheck {
  readonly species: string;
  readonly place?: string;
  readonly name: string;
  readonly assembly: Assembly;
  readonly minutes: number;
  readonly setup: Setup;
  readonly isolation?: boolean;
  readonly how: string;
  readonly tells: string;
  readonly cautions?: readonly string[];
}

const units = { diode: 'volts', volts: 'volts', ohms: 'ohms', insulation: 'ohms', lamp: 'ohms' } as const;

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
