import type { Teller } from '@refectum/core/belief';
import type { Stand } from '../../stands.ts';
import type { demoDrawings } from './drawings.ts';
import { prices, starterPrices } from './shop.ts';
import { type ClawPole, clawPoleGeneric, type Machine, type Starter, starterGeneric } from '@refectum/core/machines';
import type { OutputPoint } from '@refectum/core/curves';
import type { DrainStep } from '@refectum/core/vehicle';
import type { CourseId, Prices } from '@refectum/core/verdict';

export interface DemoUnit {
  readonly customer: string;
  readonly model: string;
  readonly serial: string;
  readonly complaint: string;
  readonly words: string;
  readonly dueInDays: number;
  readonly machine: Machine;
  readonly meter: string;
  readonly celsius: number;
  /** Hidden truth that the readings are worked out from: faults with severity. */
  readonly truth: readonly { readonly fault: string; readonly severity: number }[];
  /** Done so far, in order. A value or finding overrides what the truth gives: a slip, or what eyes see. */
  readonly done: readonly (string | readonly [string, number | string])[];
  /** What was read on the vehicle, or told of it. */
  readonly onVehicle?: readonly (readonly [check: string, result: number | string, told?: Teller])[];
  /** The key-off drain followed, from the beginning, with the minutes. */
  readonly drain?: readonly (readonly [minute: number, step: DrainStep])[];
  /** The state of assembly it is left in, where it isn't as received. */
  readonly assembly?: string;
  /** Points of the output on the run stand. */
  readonly output?: readonly OutputPoint[];
  /** What was photographed, and what was written beside it. */
  readonly pictures?: readonly (readonly [drawing: keyof typeof demoDrawings, caption: string])[];
  readonly prices?: Prices;
  /** Where it was carried since, with a note. */
  readonly moves?: readonly (readonly [to: Stand, note: string])[];
  readonly verdict?: { readonly course: CourseId; readonly reason: string };
}

const known = (volts: 12 | 24, amps: number, more: Partial<ClawPole> = {}): ClawPole => ({
  ...clawPoleGeneric(volts, amps),
  connection: 'star',
  diodeKind: 'silicon',
  ...more,
});

const starter = (
  volts: 12 | 24,
  kilowatts: number,
  layout: Starter['layout'],
  more: Partial<Starter> = {},
): Starter => ({
  ...starterGeneric(volts, kilowatts, layout),
  ...more,
});

const opening = ['bridge-forward', 'bridge-reverse', 'bridge-reverse-ohms'] as const;
const field = ['leads-null', 'field-ohms', 'field-turning'] as const;

export const demoUnits: readonly DemoUnit[] = [
  {
    customer: 'Island Buses, no. 4',
    model: 'Ferrolux 28-90',
    serial: 'FX 20871',
    complaint: 'low-charge',
    words: 'Lights dim at the stops, recovers on the hill.',
    dueInDays: 2,
    machine: known(24, 90, { statorPairOhms: 0.22, rotorOhms: 8.6 }),
    meter: 'workshop',
    celsius: 21,
    truth: [{ fault: 'diode-shorted:B+', severity: 0.02 }],
    done: [...opening],
    prices,
  },
  {
    customer: 'Fire Station West',
    model: 'Pumpmate 65',
    serial: '',
    complaint: 'no-charge',
    words: 'Portable pump, battery flat after the drill.',
    dueInDays: 1,
    machine: clawPoleGeneric(12, 65),
    meter: 'workshop',
    celsius: 20,
    truth: [{ fault: 'brush-worn', severity: 1e9 }],
    done: [],
  },
  {
    customer: 'Kelda Farm',
    model: 'Harrow 14-120',
    serial: 'H 5512',
    complaint: 'charge-lamp',
    words: 'Lamp glows at idle, gone when revved.',
    dueInDays: 4,
    machine: known(12, 120, { statorPairOhms: 0.1, rotorOhms: 2.7 }),
    meter: 'bench',
    celsius: 19,
    truth: [{ fault: 'exciter-open:A', severity: 1 }],
    done: [...opening, ...field, 'ring-ring', 'exciter-forward:A', 'exciter-forward:B'],
    prices,
  },
  {
    customer: 'Heritage Railcar Society',
    model: 'Railcar generator set, 24 V',
    serial: 'RC-2',
    complaint: 'whine',
    words: 'Growls under load, worse warm.',
    dueInDays: 12,
    machine: known(24, 140, {
      exciterDiodes: false,
      regulatorSide: 'supply',
      regulator: 'two-contact',
      statorPairOhms: 0.16,
      rotorOhms: 9.2,
    }),
    meter: 'bench',
    celsius: 18,
    truth: [{ fault: 'diode-open:C-', severity: 1 }],
    done: [...opening, 'current-drop:A-', 'current-drop:B-', 'current-drop:C-', 'diode-forward:C-'],
    prices,
    verdict: { course: 'replace', reason: 'One negative diode open, no single diodes in stock: rectifier.' },
  },
  {
    customer: 'Ferry tender “Little Auk”',
    model: 'Marine 12-70',
    serial: 'M70/311',
    complaint: 'drains-overnight',
    words: 'Flat on Mondays.',
    dueInDays: 3,
    machine: known(12, 70),
    meter: 'workshop',
    celsius: 16,
    truth: [{ fault: 'diode-leaky:A-', severity: 300 }],
    done: [...opening, ...field],
    prices,
  },
  {
    customer: 'Scooter hire, the quay',
    model: 'unknown',
    serial: '',
    complaint: 'none',
    words: 'Taken off a wreck, for stock.',
    dueInDays: 20,
    machine: clawPoleGeneric(12, 55),
    meter: 'pocket',
    celsius: 20,
    truth: [],
    done: [],
  },
  {
    customer: 'Island Buses, no. 7',
    model: 'Ferrolux 28-90',
    serial: 'FX 20913',
    complaint: 'no-charge',
    words: 'Went out on the evening run.',
    dueInDays: 1,
    machine: known(24, 90, { statorPairOhms: 0.22, rotorOhms: 8.6 }),
    meter: 'workshop',
    celsius: 22,
    truth: [
      { fault: 'brush-worn', severity: 1e9 },
      { fault: 'rings-gouged', severity: 1 },
    ],
    done: [
      ...opening,
      'leads-null',
      'field-ohms',
      ['field-turning', 'never'],
      ['brush-length', 2.1],
      ['rings-by-eye', 'burnt'],
      'ring-ring',
    ],
    pictures: [['burnt rings', 'Slip rings as opened: the outer one burnt']],
    prices,
  },
  {
    customer: 'Harvester Co-operative',
    model: 'Harrow 14-120',
    serial: 'H 5540',
    complaint: 'overcharge',
    words: 'Battery smells, 16 V on the dash.',
    dueInDays: 6,
    machine: known(12, 120, { statorPairOhms: 0.1, rotorOhms: 2.7 }),
    meter: 'bench',
    celsius: 20,
    truth: [{ fault: 'regulator', severity: 1 }],
    done: [
      ...opening,
      ...field,
      'ring-ring',
      'ring-core',
      ['brush-length', 7.4],
      ['rings-by-eye', 'smooth'],
      'joined-forward:A+',
      'joined-forward:A-',
    ],
    prices,
    verdict: {
      course: 'replace',
      reason: 'Field circuit sound and not to core; set-point runs away on the vehicle: regulator.',
    },
  },
  {
    customer: 'Lighthouse keeper',
    model: 'Marine 12-70',
    serial: 'M70/287',
    complaint: 'low-charge',
    words: '',
    dueInDays: 8,
    machine: known(12, 70, { connection: 'delta' }),
    meter: 'workshop',
    celsius: 20,
    truth: [{ fault: 'stator-open:B', severity: 1 }],
    done: [...opening, 'leads-null', 'stator-pair:AB', 'stator-pair:BC', 'stator-pair:CA'],
    pictures: [['dark third', 'Stator: a third of it dark']],
  },
  {
    customer: 'Fire Station East',
    model: 'Pumpmate 65',
    serial: 'P65-19',
    complaint: 'no-charge',
    words: 'Back from the mainland as “tested good”.',
    dueInDays: 2,
    machine: known(12, 65, { regulatorSide: 'supply' }),
    meter: 'workshop',
    celsius: 20,
    truth: [{ fault: 'rotor-core', severity: 100 }],
    done: [...opening, ...field],
    prices,
  },
  {
    customer: 'School bus',
    model: 'Ferrolux 14-75',
    serial: 'FX 11820',
    complaint: 'no-charge',
    words: 'Second opinion wanted.',
    dueInDays: 5,
    machine: clawPoleGeneric(12, 75),
    meter: 'workshop',
    celsius: 20,
    truth: [{ fault: 'rotor-open', severity: 1 }],
    done: ['leads-null', 'field-ohms', ['field-turning', 'never']],
    moves: [['waiting', 'rotor ordered from the mainland']],
  },
  {
    customer: 'Harbour crane',
    model: 'Ferrolux 28-110',
    serial: 'FX 30022',
    complaint: 'whine',
    words: 'Rebuilt last year.',
    dueInDays: 7,
    machine: known(24, 110, { statorPairOhms: 0.18, rotorOhms: 8.2 }),
    meter: 'bench',
    celsius: 20,
    truth: [{ fault: 'rings-dirty', severity: 1.5 }],
    done: [
      ...opening,
      'leads-null',
      'field-ohms',
      ['field-turning', 'jumps'],
      ['rings-by-eye', 'dull'],
      ['brush-length', 8.2],
      'ring-ring',
    ],
    prices,
    verdict: { course: 'repair', reason: 'Rings cleaned and polished, contact steady over the whole turn.' },
    moves: [['ready', '']],
  },
  {
    customer: 'Post van, the north road',
    model: 'Norvik 14-70',
    serial: 'NV 5512',
    complaint: 'no-charge',
    words: 'New battery last month, flat again. “It must be the alternator.”',
    dueInDays: 1,
    machine: clawPoleGeneric(12, 70),
    meter: 'workshop',
    celsius: 18,
    truth: [],
    done: [],
    onVehicle: [
      ['lamp', 'stays', 'customer'],
      ['rested-volts', 12.05],
      ['battery-raised', 11.9],
      ['post-raised', 14.3],
      ['drop-charge', 2.4],
      ['plug-ignition', 'live'],
      ['belt', 'tight'],
      ['noise', 'quiet'],
      ['ripple', 'small'],
    ],
  },
  {
    customer: 'Kelda Farm, the old tractor',
    model: 'unknown',
    serial: '',
    complaint: 'drains-overnight',
    words: 'Flat every morning since harvest.',
    dueInDays: 3,
    machine: clawPoleGeneric(12, 60),
    meter: 'workshop',
    celsius: 16,
    truth: [],
    done: [],
    onVehicle: [
      ['battery-raised', 14.1, 'shop'],
      ['rested-volts', 12.2, 'customer'],
      ['drain', 0.55],
    ],
    drain: [
      [0, { kind: 'shut' }],
      [32, { kind: 'now', amps: 0.55 }],
      [34, { kind: 'out', circuit: 'F3 instruments', amps: 0.549, leftOut: false }],
      [36, { kind: 'out', circuit: 'F7 work lamps', amps: 0.124, leftOut: true }],
      [38, { kind: 'out', circuit: 'F9 fan', amps: 0.122, leftOut: false }],
    ],
  },
  {
    customer: 'Heritage Railcar Society',
    model: 'Railmate 24-80',
    serial: 'RM 0214',
    complaint: 'low-charge',
    words: 'Lamps dim at every stop; growls up the hill.',
    dueInDays: 5,
    machine: known(24, 80),
    meter: 'bench',
    celsius: 21,
    truth: [{ fault: 'diode-open:B+', severity: 1 }],
    done: [
      ...opening,
      ['bearings-by-hand', 'smooth'],
      ['pulley-by-hand', 'right'],
      ['regulation', 'low'],
      ['noise', 'growl'],
    ],
    output: [
      { rpm: 1600, volts: 27, amps: 10.6, celsius: 45 },
      { rpm: 2200, volts: 27, amps: 27.4, celsius: 55 },
      { rpm: 3000, volts: 27, amps: 42.4, celsius: 65 },
    ],
    assembly: 'stand',
  },
  {
    customer: 'Island Buses, no. 7',
    model: 'Slipway 24-55 S',
    serial: 'SW 0093',
    complaint: 'click',
    words: 'Clicks, and on the third try it goes. Worse when hot.',
    dueInDays: 1,
    machine: starter(24, 5.5, 'reduction'),
    meter: 'bench',
    celsius: 20,
    truth: [{ fault: 'contacts-burnt', severity: 0.018 }],
    done: [
      ['terminals-by-eye', 'clean'],
      ['case-by-eye', 'whole'],
      ['free-turning', 'free'],
      'main-to-case',
      'main-to-motor',
      ['battery-rested', 25.24],
      'battery-loaded',
      ['whole', 'right'],
      'no-load-volts',
      'no-load-amps',
      'no-load-rpm',
    ],
    assembly: 'clamped',
    prices: starterPrices,
  },
  {
    customer: 'Skerry Scooter Hire',
    model: 'Skerry 12-11',
    serial: '',
    complaint: 'slow-crank',
    words: 'The delivery trike hardly turns over since the regatta.',
    dueInDays: 3,
    machine: starter(12, 1.1, 'planetary'),
    meter: 'workshop',
    celsius: 20,
    truth: [{ fault: 'bushes-worn', severity: 3 }],
    done: [],
    prices: starterPrices,
  },
];
