import { type Check, findingCheck, type FindingOutcome } from '../../checks/index.ts';
import type { Vehicle } from '../vehicle.ts';
import { clampAmps, liveVolts, type OfUnit } from './make.ts';

const atBattery = { red: 'battery+', black: 'battery-' };
const atPost = { red: 'post', black: 'case' };
const fans = ['Running engine: sleeves, hair and leads clear of belt and fan.'];

const chargingVolts: Check[] = [
  liveVolts({
    ...atBattery,
    species: 'battery-idle',
    name: 'Charging volts at the battery, idle',
    scene: 'idle',
    minutes: 0.5,
    how: 'Across the battery posts, few loads on.',
    tells: 'whether anything arrives',
    cautions: fans,
  }),
  liveVolts({
    ...atBattery,
    species: 'battery-raised',
    name: 'Charging volts at the battery, 2 000 rpm',
    scene: 'raised',
    minutes: 0.5,
    how: 'Across the battery posts at 1 500 to 2 500 engine rpm, lights and fan on.',
    tells: 'no charge, low charge, overcharge',
    cautions: fans,
  }),
  liveVolts({
    ...atPost,
    species: 'post-idle',
    name: 'Charging volts at the unit, idle',
    scene: 'idle',
    minutes: 0.5,
    how: 'Red on the unit’s output post, black on its case.',
    tells: 'the unit apart from its cables',
    cautions: fans,
  }),
  liveVolts({
    ...atPost,
    species: 'post-raised',
    name: 'Charging volts at the unit, 2 000 rpm',
    scene: 'raised',
    minutes: 0.5,
    how: 'Red on the unit’s output post, black on its case, lights and fan on.',
    tells: 'the unit apart from its cables',
    cautions: fans,
  }),
  liveVolts({
    red: 'post',
    black: 'battery+',
    species: 'drop-charge',
    name: 'Drop along the charge cable',
    scene: 'raised',
    minutes: 0.5,
    how: 'Red on the output post, black on the battery’s positive post, 2 000 rpm, lights and fan on.',
    tells: 'cable, link and joints',
    cautions: fans,
  }),
  liveVolts({
    red: 'battery-',
    black: 'case',
    species: 'drop-ground',
    name: 'Drop along the ground path, regulator’s too',
    scene: 'raised',
    minutes: 0.5,
    how: 'Red on the battery’s negative post, black on the unit’s case (separate regulator: on its case), 2 000 rpm, lights and fan on.',
    tells: 'straps, paint and rust under the unit or the regulator',
    cautions: fans,
  }),
];

const revs: FindingOutcome[] = [
  { id: 'steady', name: 'Rises, then stays', word: 'sound' },
  { id: 'none', name: 'Does not rise', word: 'failed' },
  { id: 'low', name: 'Rises too little', word: 'doubtful' },
  { id: 'runaway', name: 'Keeps rising with the revs', word: 'failed' },
  { id: 'falling', name: 'Falls with the revs', word: 'failed' },
];
const steady = [0.9, 0.02, 0.05, 0.01, 0.02];
const none = [0.02, 0.9, 0.06, 0.01, 0.01];
const low = [0.25, 0.12, 0.58, 0.01, 0.04];
const runaway = [0.12, 0.01, 0.02, 0.83, 0.02];

/** The one that shows a weak unit: as many amps drawn as it should well give. */
const loaded = (vehicle: Vehicle): Check[] => {
  const amps = Math.round(0.7 * vehicle.machineAmps);
  const common = {
    scene: 'loaded' as const,
    minutes: 3,
    cautions: [...fans, 'Load tester and leads get hot: a minute, no more.'],
  };
  return [
    liveVolts({
      ...common,
      ...atBattery,
      species: 'battery-loaded',
      name: `Charging volts at the battery with ${amps} A drawn`,
      how: `2 000 rpm, everything on and the load tester up until consumers and tester draw ${amps} A; then across the battery posts.`,
      tells: 'a unit that gives some, but not enough',
    }),
    clampAmps({
      ...common,
      red: 'machine',
      black: 'post',
      species: 'output-amps',
      name: `Output amps with ${amps} A drawn`,
      how: `The same load; clamp zeroed, round the unit’s output cable, all its wires.`,
      tells: 'what the unit gives itself',
    }),
  ];
};

export const chargingChecks = (vehicle: Vehicle, ofUnit: OfUnit): Check[] => [
  ...chargingVolts,
  ...loaded(vehicle),
  findingCheck({
    id: 'revs',
    name: 'Volts as the revs rise',
    assembly: 'raised',
    minutes: 1,
    how: 'Watch the volts from idle to 2 500 rpm.',
    tells: 'no charge, runaway, and what slips',
    cautions: fans,
    outcomes: revs,
    usual: steady,
    odds: {
      ...ofUnit('revs'),
      'fuse-blown': none,
      'excitation-lost': none,
      'charge-cable': low,
      'ground-path': low,
      'belt-slip': [0.2, 0.1, 0.4, 0.01, 0.29],
      'sense-bad': runaway,
    },
  }),
  findingCheck({
    id: 'ripple',
    name: 'Ripple at the output, AC volts under load',
    assembly: 'raised',
    minutes: 1,
    how: 'AC volts, true rms, output post to case, lights and fan on, 2 000 rpm.',
    tells: 'diodes and phases, if battery and meter let them show',
    cautions: ['Millivolts depend on the battery and on the meter’s bandwidth: a hint, never a limit.'],
    outcomes: [
      { id: 'small', name: 'Under 0.1 V', word: 'sound' },
      { id: 'some', name: '0.1 to 0.5 V', word: 'doubtful' },
      { id: 'large', name: 'Over 0.5 V', word: 'failed' },
    ],
    usual: [0.88, 0.1, 0.02],
    odds: {
      ...ofUnit('ripple'),
      'battery-worn': [0.7, 0.25, 0.05],
      'battery-sulphated': [0.7, 0.25, 0.05],
    },
  }),
  findingCheck({
    id: 'noise',
    name: 'Noise, and whether it stops with the plug off',
    assembly: 'idle',
    minutes: 2,
    how: 'Listen at the unit. If it whines, pull the regulator plug with the engine running and listen again.',
    tells: 'electrical noise from mechanical',
    cautions: fans,
    outcomes: [
      { id: 'quiet', name: 'Quiet', word: 'sound' },
      { id: 'electrical', name: 'Whines, stops with the plug off', word: 'failed' },
      { id: 'mechanical', name: 'Noise that does not stop', word: 'failed' },
      { id: 'squeal', name: 'Belt squeals', word: 'failed' },
    ],
    usual: [0.93, 0.02, 0.03, 0.02],
    odds: {
      ...ofUnit('noise'),
      'belt-slip': [0.3, 0.02, 0.08, 0.6],
    },
  }),
];
