import { type InferType, mixed, number, object, string, boolean } from 'yup';

/** What the shop has at a network port, by what it does. */
export const instrumentKinds = {
  multimeter: 'Multimeter',
  clamp: 'Current clamp',
  stand: 'Stand’s drive',
  load: 'Load',
  supply: 'Bench supply',
  oscilloscope: 'Oscilloscope',
  commander: 'Regulator’s commander',
} as const;
export type InstrumentKind = keyof typeof instrumentKinds;
const kinds = Object.keys(instrumentKinds) as InstrumentKind[];

/** An instrument that the lead allows to be reached, and at no other address than this. */
export interface ShopInstrument {
  readonly id: string;
  readonly name: string;
  readonly kind: InstrumentKind;
  readonly host: string;
  readonly port: number;
  /** Which of the shop's meters it is, for a multimeter. */
  readonly meter: string | null;
}

const hostName = /^(?=.{1,253}$)[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$/i;

export const instrumentSchema = object({
  id: string().uuid('must be a UUID').required(),
  name: string().trim().required('What is it called here?').max(60, 'at most 60 characters'),
  kind: string<InstrumentKind>().oneOf(kinds, 'Choose what it is').required('Choose what it is'),
  host: string()
    .trim()
    .required('Where is it? A name or an address of your network, like 192.168.1.20.')
    .matches(hostName, 'A name or an address alone, like 192.168.1.20 or bench-meter — got “${value}”'),
  port: number()
    .typeError('A port is a number; many instruments have 5025 — got “${originalValue}”')
    .required('Which port? Many instruments have 5025.')
    .integer('A port is a whole number')
    .min(1, 'A port lies from 1 to 65535 — got ${value}')
    .max(65535, 'A port lies from 1 to 65535 — got ${value}'),
  meter: string()
    .max(60)
    .default('')
    .when('kind', {
      is: 'multimeter',
      then: (schema) => schema.required('Which of the shop’s meters is it? Its accuracy is taken from there.'),
    }),
});

/** How a multimeter measures. */
export const meterUses = { diode: 'diode test', ohms: 'ohms', volts: 'DC volts', 'volts-ac': 'AC volts' } as const;
export type MeterUse = keyof typeof meterUses;

/** What an instrument told of itself, when. */
export type LiveWord = { readonly instrument: string; readonly at: number } & Told;

export type Told =
  | {
      readonly state: 'reads';
      readonly kind: 'multimeter';
      readonly use: MeterUse | 'other';
      readonly value: number | null;
    }
  | { readonly state: 'reads'; readonly kind: 'clamp'; readonly amps: number | null }
  | { readonly state: 'reads'; readonly kind: 'stand'; readonly rpm: number; readonly newtonMetres: number }
  | {
      readonly state: 'reads';
      readonly kind: 'load';
      readonly on: boolean;
      readonly mode: 'current' | 'voltage' | 'resistance';
      readonly level: number;
    }
  | { readonly state: 'reads'; readonly kind: 'supply'; readonly on: boolean }
  | { readonly state: 'reads'; readonly kind: 'oscilloscope' }
  | { readonly state: 'reads'; readonly kind: 'commander'; readonly on: boolean; readonly duty: number }
  | { readonly state: 'gone'; readonly why: string };

/** What an instrument is told to do. What turns or loads a unit names it, so that its light is asked. */
export const settingSchema = object({
  tag: number().integer().min(1),
  /** Multimeter. */
  use: mixed<MeterUse>().oneOf(Object.keys(meterUses) as MeterUse[], 'A meter measures by ${values}'),
  /** A range held by its full scale, in the base unit. */
  range: number().positive(),
  /** Stand. */
  rpm: number()
    .min(0, 'A speed is from 0 to 18 000 rpm — got ${value}')
    .max(18_000, 'A speed is from 0 to 18 000 rpm — got ${value}'),
  /** Stand: what its brake holds a motor with; from 400 Nm on the arm holds it fast. */
  newtonMetres: number()
    .min(0, 'A brake is from 0 to 500 Nm — got ${value}')
    .max(500, 'A brake is from 0 to 500 Nm — got ${value}'),
  /** Load, supply and commander. */
  on: boolean(),
  /** Commander: how often its signal comes, and the share of the time that it is on. */
  hertz: number()
    .min(1, 'A commander sends at 1 to 2000 Hz — got ${value}')
    .max(2000, 'A commander sends at 1 to 2000 Hz — got ${value}'),
  duty: number()
    .min(0, 'A duty is a share from 0 to 1 — got ${value}')
    .max(1, 'A duty is a share from 0 to 1 — got ${value}'),
  mode: mixed<'current' | 'voltage'>().oneOf(['current', 'voltage']),
  /** In A or V, by the mode. */
  level: number().min(0, 'A load is from 0 to 500 — got ${value}').max(500, 'A load is from 0 to 500 — got ${value}'),
});
export type InstrumentSetting = InferType<typeof settingSchema>;

export const captureSchema = object({
  seconds: number().required().min(1e-3).max(2),
  points: number().required().integer().min(200).max(200_000),
  /** The phase tap too, on the third channel. */
  tap: boolean().default(false),
});

/** Where the hands of the simulated bench put the probes. */
export const handsSchema = object({
  tag: number().integer().min(1).required(),
  red: string().max(40),
  black: string().max(40),
  together: boolean().default(false),
  feed: object({
    plus: string().max(40).required(),
    minus: string().max(40).required(),
    seriesOhms: number().required().min(0.1).max(1000),
  }).default(undefined),
  assembly: string().max(40).required(),
  jumper: boolean().default(false),
});
