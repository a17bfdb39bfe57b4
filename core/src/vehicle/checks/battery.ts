import { type Check, findingCheck } from '../../checks/index.ts';
import type { Vehicle } from '../vehicle.ts';
import { clampAmps, liveVolts } from './make.ts';

const across = { red: 'battery+', black: 'battery-' };

export const batteryChecks = (vehicle: Vehicle): Check[] => [
  liveVolts({
    ...across,
    species: 'rested-volts',
    name: 'Battery volts, rested',
    scene: 'parked',
    minutes: 2,
    how: 'Key off since last night, or surface charge taken off first: headlights 20 s, or lights and fan for a few minutes. Then across the battery posts.',
    tells: 'state of charge',
  }),
  liveVolts({
    ...across,
    species: 'driven-volts',
    name: 'Battery volts, straight after driving',
    scene: 'driven',
    minutes: 0.5,
    how: 'Across the battery posts, engine just stopped.',
    tells: 'little: surface charge stands on top of it',
    cautions: ['13.0 V here is surface charge, not a charged battery: it counts for little. Rest it and read again.'],
  }),
  findingCheck({
    id: 'state-of-charge',
    name: 'State of charge by hydrometer or tester',
    assembly: '',
    minutes: 4,
    how: 'Every cell, or as the tester has it.',
    tells: 'charge and dead cells, without volts',
    cautions: ['Acid: goggles and gloves.'],
    outcomes: [
      { id: 'full', name: '75 to 100 %', word: 'sound' },
      { id: 'half', name: '25 to 75 %', word: 'doubtful' },
      { id: 'flat', name: 'Under 25 %', word: 'failed' },
      { id: 'uneven', name: 'One cell far below the rest', word: 'failed' },
    ],
    usual: [0.75, 0.2, 0.03, 0.02],
    odds: {
      'battery-flat': [0.05, 0.45, 0.48, 0.02],
      'battery-cell': [0.02, 0.05, 0.13, 0.8],
      'battery-sulphated': [0.15, 0.6, 0.2, 0.05],
      'battery-worn': [0.45, 0.4, 0.1, 0.05],
    },
  }),
  liveVolts({
    ...across,
    species: 'load-test',
    name: `Battery under half its cold-cranking amps (${vehicle.crankingAmps / 2} A)`,
    scene: 'pile',
    minutes: 2,
    how: 'Load tester across the posts, 15 s (10 s on a hand-held pile), read at the end.',
    tells: 'a battery that can’t give its amps',
    cautions: [
      `Void below about ${vehicle.ratedVolts === 24 ? '24.9' : '12.45'} V rested: charge first.`,
      'The pile gets very hot. Sparks and hydrogen: switch the load, don’t pull clamps.',
    ],
  }),
  clampAmps({
    red: 'star',
    black: 'battery-',
    species: 'drain',
    name: 'Key-off drain',
    scene: 'parked',
    minutes: 20,
    how: 'Everything off, doors shut, up to 30 min for the modules to sleep. Clamp zeroed, round the negative cable; or the ammeter in series.',
    tells: 'what empties the battery overnight',
    cautions: [
      'In series: bridge the ammeter while anything switches on, its fuse holds 10 A.',
      'A clamp that was not zeroed shows its own error.',
    ],
  }),
  clampAmps({
    red: 'star',
    black: 'battery-',
    species: 'drain-cable-off',
    name: 'Key-off drain, output cable off the unit',
    scene: 'cable-off',
    minutes: 6,
    how: 'The same with the cable off the unit’s output post and held clear.',
    tells: 'whether the unit is what drains',
    cautions: ['The cable end is live: battery negative off while you work, then on again for the reading.'],
  }),
];
