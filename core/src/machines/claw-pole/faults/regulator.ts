import type { Fault } from '../../family.ts';
import type { ClawPole } from '../parameters.ts';

/** No circuit at rest shows it: it keeps its prior until something runs, or until it is compared with a twin. */
const unseen = { place: '', part: 'regulator', severity: { unit: 'none', grades: [1] }, edits: () => [] } as const;

/** What a regulator may have, by its kind; sound readings at rest clear none of it. */
export function regulator(machine: ClawPole): Fault[] {
  const dead: Fault = { ...unseen, id: 'regulator', species: 'regulator', name: 'regulator at fault', weight: 20 };
  if (machine.regulator === 'commanded')
    return [
      dead,
      {
        ...unseen,
        id: 'regulator-deaf',
        species: 'regulator-deaf',
        name: 'regulator deaf to its command',
        weight: 5,
      },
    ];
  if (machine.regulator === 'two-contact')
    return [
      dead,
      {
        ...unseen,
        id: 'regulator-setting',
        species: 'regulator-setting',
        name: 'regulator out of adjustment',
        weight: 12,
        repair: 'bend the spring hanger and set the gaps, then both steps again with the cover on',
      },
    ];
  return [dead];
}
