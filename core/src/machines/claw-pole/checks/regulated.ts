import { type Check, findingCheck, type Odds } from '../../../checks/index.ts';
import {
  batteryAlone,
  gassing,
  leastFollowed,
  setPoint,
  twoContact,
  twoContactSays,
  twoContactSteps,
  usualRatio,
} from '../../../handbook/index.ts';
import type { ClawPole } from '../parameters.ts';
import { spinning } from './spinning.ts';

const regulatedRpm = 3000;
const lightAmps = 5;
/** Of the rated amps: a sound unit at the low end of its kind gives this at such a speed, and what its battery takes [our estimate]. */
const heavyShare = 1 / 3;

/** What a display and a lead may add, and how far volts may sag from the light to the heavy load [our estimate]. */
const slack = 0.1;
const sag = 0.5;
/** What the volts under light and heavy load say of the regulator. */
function regulationOf(seen: readonly number[], celsius: number, ratedVolts: 12 | 24): string {
  const sets = ratedVolts / 12;
  const shift = setPoint.perKelvin * (celsius - setPoint.celsius);
  const [least, most] = [Math.min(...seen) / sets, Math.max(...seen) / sets];
  if (most <= batteryAlone) return 'none';
  if (most > Math.min(setPoint.most + shift + 3 * slack, gassing)) return 'high';
  if (most < setPoint.least + shift - slack || most - least > sag) return 'low';
  return 'holds';
}

/** What its regulator holds: by itself, under command, in its two steps. */
export const regulated = (machine: ClawPole): Check[] => [
  regulation(machine),
  ...(machine.regulator === 'commanded' ? [followed(machine)] : []),
  ...(machine.regulator === 'two-contact' ? [twoSteps(machine)] : []),
];

function regulation(machine: ClawPole): Check {
  const before = machine.regulator === 'two-contact' ? 'Warm for 15 min, cover on. ' : '';
  const after = machine.regulator === 'commanded' ? ' No command on its terminal: its own set-point.' : '';
  return findingCheck({
    id: 'regulation',
    unit: 'volts',
    watched: {
      asks: 'the lowest and the highest volts',
      fromCutIn: true,
      says: (seen, celsius) => regulationOf(seen, celsius, machine.ratedVolts),
      course: [
        { name: 'Light load', rpm: regulatedRpm, amps: lightAmps },
        { name: 'Heavy load', rpm: regulatedRpm, amps: heavyShare * machine.ratedAmps },
        { name: 'Light again', rpm: regulatedRpm, amps: lightAmps },
      ],
    },
    name: 'Regulated volts, light to heavy load',
    assembly: 'stand',
    minutes: 1,
    how: `${before}At 3000 rpm: a light load, then a third of the rated amps, then light again. Type the lowest and the highest volts at the post, or what it does.${after}`,
    tells: 'the regulator’s set-point and how it holds',
    cautions: spinning,
    outcomes: [
      { id: 'holds', name: 'Holds its set-point', word: 'sound' },
      {
        id: 'none',
        name: 'No charge: battery volts',
        word: 'failed',
        then: 'Bypass the regulator before blaming it.',
      },
      {
        id: 'low',
        name: 'Too low, or sags with load',
        word: 'failed',
        then: 'Bypass: if the output comes, the regulator.',
      },
      {
        id: 'high',
        name: 'Too high, runs away',
        word: 'failed',
        then: 'Off at once: above 15 V batteries gas. Regulator, or field to ground past it.',
      },
      { id: 'unsteady', name: 'Swings', word: 'failed', then: 'Brushes and rings first, then the regulator.' },
    ],
    usual: [0.972, 0.005, 0.015, 0.003, 0.005],
    odds: {
      regulator: [0.03, 0.5, 0.2, 0.2, 0.07],
      'regulator-setting': [0.15, 0.02, 0.6, 0.2, 0.03],
      'rotor-open': [0.003, 0.98, 0.015, 0.001, 0.001],
      'brush-worn': [0.05, 0.8, 0.1, 0.01, 0.04],
      'brush-contact': [0.2, 0.1, 0.2, 0.01, 0.49],
      'rings-dirty': [0.35, 0.05, 0.35, 0.01, 0.24],
      'rings-gouged': [0.65, 0.02, 0.08, 0.01, 0.24],
      'rotor-core': machine.regulatorSide === 'ground' ? [0.25, 0.05, 0.05, 0.63, 0.02] : [0.3, 0.4, 0.28, 0.01, 0.01],
      'rotor-turns': [0.6, 0.02, 0.36, 0.01, 0.01],
      'diode-shorted': [0.1, 0.1, 0.75, 0.02, 0.03],
      'diode-open': [0.55, 0.01, 0.4, 0.02, 0.02],
      'stator-open': [0.3, 0.1, 0.58, 0.01, 0.01],
      'stator-turns': [0.45, 0.05, 0.48, 0.01, 0.01],
      'stator-core': [0.15, 0.15, 0.66, 0.02, 0.02],
      'exciter-open': [0.6, 0.03, 0.34, 0.01, 0.02],
      'exciter-shorted': [0.2, 0.2, 0.55, 0.02, 0.03],
      'pulley-worn': [0.5, 0.15, 0.3, 0.01, 0.04],
    },
  });
}

/** Of a set whose field gets nothing, whatever the command says. */
const noField: Odds = {
  'rotor-open': [0.003, 0.01, 0.985, 0.002],
  'brush-worn': [0.05, 0.1, 0.83, 0.02],
  'brush-contact': [0.4, 0.2, 0.38, 0.02],
};
/** Share of the time that the commander's signal is on. */
const duties = { low: 0.4, high: 0.8 } as const;

/** What the volts at the lower and the higher command say. */
function followedOf(seen: readonly number[], ratedVolts: 12 | 24): string {
  const [low, high] = [Math.min(...seen), Math.max(...seen)].map((volts) => (volts * 12) / ratedVolts) as [
    number,
    number,
  ];
  if (high < setPoint.least - sag) return 'none';
  if (low > gassing) return 'high';
  return high - low >= leastFollowed ? 'follows' : 'stays';
}

const followed = ({ ratedVolts }: ClawPole): Check =>
  findingCheck({
    id: 'command',
    unit: 'volts',
    needs: 'commander',
    watched: {
      asks: 'the volts at the lower and at the higher command',
      says: (seen) => followedOf(seen, ratedVolts),
      course: Object.values(duties).map((duty) => ({
        name: `Command ${100 * duty} %`,
        rpm: regulatedRpm,
        amps: lightAmps,
        duty,
      })),
    },
    name: 'Follows its command',
    assembly: 'stand',
    minutes: 1,
    how: `Commander on the command terminal. At 3000 rpm, light load: ${100 * duties.low} %, then ${100 * duties.high} %. Type the volts at both.`,
    tells: 'a regulator that holds its own set-point and hears no command',
    cautions: spinning,
    outcomes: [
      { id: 'follows', name: 'Follows', word: 'sound' },
      {
        id: 'stays',
        name: 'Stays at its own set-point',
        word: 'failed',
        then: 'Deaf: the regulator, or the wire of its command terminal.',
      },
      {
        id: 'none',
        name: 'Charges little or nothing at either',
        word: 'failed',
        then: 'Bypass the regulator before blaming it.',
      },
      { id: 'high', name: 'Too high, runs away', word: 'failed', then: 'Off at once: above 15 V batteries gas.' },
    ],
    usual: [0.97, 0.02, 0.005, 0.005],
    odds: { ...noField, regulator: [0.03, 0.37, 0.4, 0.2], 'regulator-deaf': [0.02, 0.96, 0.01, 0.01] },
  });

const stepFindings = [
  'holds',
  'spring too tight',
  'spring too slack',
  'step too small',
  'step too large',
  'upper fuse wire',
  'lower fuse wire',
] as const;
const { first, second } = twoContactSteps;
const inWords = { 'spring too tight': 'Step 1 too high', 'spring too slack': 'Step 1 too low' } as Record<
  string,
  string
>;

const twoSteps = ({ ratedVolts }: ClawPole): Check =>
  findingCheck({
    id: 'two-steps',
    unit: 'volts',
    watched: {
      asks: 'the volts of step 1 and of step 2',
      says: ([one, two], celsius) => twoContact(one!, two!, celsius, ratedVolts)[0]!,
      course: [
        { name: 'Step 1', rpm: usualRatio * first.engineRpm, amps: first.amps, fromRest: true },
        { name: 'Step 2', rpm: usualRatio * second.engineRpm, amps: second.amps, fromRest: true },
      ],
    },
    name: 'Both steps of the two contacts',
    assembly: 'stand',
    minutes: 3,
    how: `Warm for 15 min, cover on; stop and start it before each reading; temperature 50 mm from the cover. Step 1: rotor ${usualRatio * first.engineRpm} rpm, ${first.amps} A. Step 2: ${usualRatio * second.engineRpm} rpm, ${second.amps} A.`,
    tells: 'what to adjust: spring, points, gap; or a fuse wire',
    cautions: spinning,
    outcomes: stepFindings.map((id) => {
      const name = inWords[id] ?? `${id[0]!.toUpperCase()}${id.slice(1)}`;
      return { id, name, word: id === 'holds' ? ('sound' as const) : ('failed' as const), then: twoContactSays[id] };
    }),
    usual: [0.955, 0.01, 0.01, 0.01, 0.01, 0.0025, 0.0025],
    odds: {
      regulator: [0.03, 0.05, 0.05, 0.05, 0.05, 0.5, 0.27],
      'regulator-setting': [0.05, 0.25, 0.3, 0.2, 0.17, 0.02, 0.01],
      'rotor-open': [0.003, 0.001, 0.005, 0.005, 0.001, 0.98, 0.005],
      'brush-worn': [0.05, 0.01, 0.1, 0.02, 0.01, 0.8, 0.01],
      'brush-contact': [0.3, 0.01, 0.27, 0.1, 0.01, 0.3, 0.01],
      'rotor-turns': [0.6, 0.01, 0.3, 0.05, 0.01, 0.02, 0.01],
      'diode-open': [0.6, 0.01, 0.3, 0.05, 0.02, 0.01, 0.01],
      'stator-open': [0.4, 0.01, 0.4, 0.1, 0.02, 0.05, 0.02],
    },
  });
