import type { Check } from './check.ts';

/** Before low resistances, of whatever unit. */
export const leadsNull = (): Check[] => [
  {
    id: 'leads-null',
    species: 'leads-null',
    place: '',
    name: 'Test leads held together',
    assembly: '',
    minutes: 0.2,
    unit: 'ohms',
    how: 'Hold the two probe tips together, lowest ohms range, and type what the meter shows.',
    tells: 'what to take off every low resistance: the program subtracts it',
    cautions: [],
    method: { kind: 'leads' },
  },
];
