import { type Check, meterCheck } from '../../../checks/index.ts';

export const rotorChecks = (): Check[] => [
  meterCheck({
    species: 'ring-ring',
    name: 'Slip ring to slip ring',
    assembly: 'opened',
    upTo: 'unsoldered',
    minutes: 0.5,
    setup: { function: 'ohms', red: 'ring-1', black: 'ring-2' },
    how: 'One probe on each slip ring.',
    tells: 'the rotor winding by itself, without brushes',
  }),
  meterCheck({
    species: 'ring-core',
    name: 'Slip ring to core',
    assembly: 'opened',
    upTo: 'unsoldered',
    minutes: 0.5,
    setup: { function: 'ohms', red: 'ring-1', black: 'case' },
    isolation: true,
    how: 'Red probe on a slip ring, black on the shaft.',
    tells: 'a winding that touches its core',
  }),
  meterCheck({
    species: 'ring-core-insulation',
    name: 'Slip ring to core, 500 V tester',
    assembly: 'unsoldered',
    minutes: 1.5,
    setup: { function: 'insulation', red: 'ring-1', black: 'case' },
    isolation: true,
    how: 'Tester between a slip ring and the shaft, one minute.',
    tells: 'leakage that an ohmmeter misses',
    cautions: ['500 V: regulator off, nothing but the winding connected. Discharge the winding afterwards.'],
  }),
];
