import type { Fault } from '../../family.ts';

/** What no reading at rest can see: it keeps its prior until something runs, so sound readings alone clear nobody. */
const unexamined = (id: string, part: string, name: string, weight: number): Fault => ({
  id,
  species: id,
  place: '',
  part,
  name,
  weight,
  severity: { unit: 'none', grades: [1] },
  edits: () => [],
});

export const regulator = (): Fault[] => [unexamined('regulator', 'regulator', 'regulator at fault', 20)];
export const runningGear = (): Fault[] => [
  unexamined('running-gear', 'running-gear', 'bearings, pulley or fan at fault', 8),
];
