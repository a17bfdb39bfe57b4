import { hearsay } from '../belief/index.ts';
import { multimeters } from '../instruments/index.ts';
import { families } from '../machines/index.ts';
import { type VehicleNumber, vehicleNumbers } from '../vehicle/index.ts';
import { trapAbouts } from '../shelf/index.ts';
import { jobFileVersion, plainOutcomes } from './job-file.ts';
import { machineJsonSchema as machine } from './machine.ts';
import { longestSource, shelfFileVersion } from './shelf-file.ts';

const text = (maxLength: number) => ({ type: 'string', maxLength });
const time = { type: 'string', format: 'date-time' };
const amount = { type: 'number', minimum: 0 };
const closed = (properties: Record<string, unknown>, optional: readonly string[] = []) => ({
  type: 'object',
  properties,
  required: Object.keys(properties).filter((name) => !optional.includes(name)),
  additionalProperties: false,
});
const meter = {
  description: `One of ${multimeters.map(({ id }) => id).join(', ')}, or the id of one described under meters.`,
  type: 'string',
  minLength: 1,
  maxLength: 60,
};

const above = { type: 'number', exclusiveMinimum: 0 };
const range = {
  fullScale: above,
  step: above,
  percent: { type: 'number', minimum: 0, maximum: 50 },
  counts: { type: 'number', minimum: 0, maximum: 1000 },
};
const source = { sourceVolts: above, sourceOhms: above };
const ranges = (more: Record<string, unknown>) => ({
  type: 'array',
  items: closed({ ...range, ...more }),
  minItems: 1,
  maxItems: 12,
});

/** A meter of the shop's own; volts, ohms and hertz throughout. */
const multimeter = closed({
  id: meter,
  name: { type: 'string', minLength: 1, maxLength: 40 },
  description: text(120),
  diode: closed({ ...range, ...source }),
  ohms: ranges(source),
  volts: ranges({}),
  voltsInputOhms: above,
  bandwidthHertz: above,
  leadOhms: { type: 'number', minimum: 0, maximum: 20 },
  leadOhmsSigma: above,
});
const celsius = { title: 'Temperature of the part, °C', type: 'number', minimum: -40, maximum: 200 };

const outcome = {
  oneOf: [
    closed({ kind: { const: 'value' }, value: { type: 'number' } }),
    closed({ kind: { enum: plainOutcomes } }),
    closed({ kind: { const: 'finding' }, finding: { type: 'string' } }),
  ],
};

/** One reading; `more` are fields that only some readings have. */
const reading = (more: Record<string, unknown> = {}) =>
  closed(
    {
      id: { type: 'string', minLength: 1 },
      check: { type: 'string', minLength: 1 },
      outcome,
      meter,
      celsius,
      at: time,
      technician: text(80),
      round: { description: 'The first is that of the unit as received.', type: 'integer', minimum: 1 },
      struck: closed({ at: time, technician: text(80) }),
      ...more,
    },
    ['struck', 'round'],
  );

const vehicleNumber = (name: VehicleNumber) => {
  const { least, most, symbol, name: title } = vehicleNumbers[name];
  return { title: `${title}, ${symbol}`, type: 'number', minimum: least, maximum: most };
};

/** The vehicle that the unit came from, and what was measured on it or told. */
const origin = closed({
  vehicle: closed(
    {
      ratedVolts: { enum: [12, 24] },
      battery: { enum: ['flooded', 'mat'] },
      crankingAmps: vehicleNumber('crankingAmps'),
      ampHours: vehicleNumber('ampHours'),
      machineAmps: vehicleNumber('machineAmps'),
      engineLitres: vehicleNumber('engineLitres'),
      fuel: { enum: ['petrol', 'diesel'] },
    },
    ['engineLitres', 'fuel'],
  ),
  readings: { type: 'array', items: reading({ told: { enum: Object.keys(hearsay) } }) },
});

const strings = { type: 'array', items: { type: 'string' } };

/** What some family has, by id. */
const ofFamilies = (of: (family: (typeof families)[keyof typeof families]) => readonly { readonly id: string }[]) => ({
  enum: [...new Set(Object.values(families).flatMap((family) => of(family).map(({ id }) => id)))],
});

/** The published schema of a job file (JSON Schema 2020-12). */
export const jobFileJsonSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Refectum job file',
  ...closed(
    {
      format: { const: 'refectum-job' },
      version: { const: jobFileVersion },
      tag: text(20),
      customer: text(80),
      model: text(80),
      complaint: ofFamilies(({ complaints }) => complaints),
      words: text(500),
      machine,
      assembly: ofFamilies(({ assemblies }) => assemblies),
      meter,
      celsius,
      readings: {
        type: 'array',
        items: reading(),
      },
      origin,
      works: {
        description: 'Each ends a round of readings and opens the next.',
        type: 'array',
        items: closed({ fitted: strings, mended: strings, note: text(200), at: time, technician: text(80) }, ['note']),
      },
      output: {
        description: 'Points of the output test on the stand.',
        type: 'array',
        items: closed(
          {
            rpm: { type: 'number', minimum: 300, maximum: 25_000 },
            volts: { type: 'number', minimum: 5, maximum: 60 },
            amps: { type: 'number', minimum: 0, maximum: 1000 },
            celsius: { type: 'number', minimum: -40, maximum: 250 },
            round: { type: 'integer', minimum: 1, description: 'The open round when it isn’t said.' },
          },
          ['celsius', 'round'],
        ),
      },
      variants: { type: 'array', items: closed({ name: text(60), machine }) },
      unlikeShare: {
        description: 'How common units unlike their kind are in the shop; the usual share when it isn’t said.',
        type: 'number',
        exclusiveMinimum: 0,
        exclusiveMaximum: 1,
      },
      meters: { type: 'array', items: multimeter },
      prices: closed(
        {
          labourPerHour: amount,
          exchange: amount,
          core: amount,
          comeback: amount,
          items: {
            type: 'object',
            additionalProperties: closed({ price: amount, minutes: amount }, ['price', 'minutes']),
          },
        },
        ['labourPerHour', 'exchange', 'core', 'comeback', 'items'],
      ),
    },
    ['customer', 'model', 'words', 'origin', 'works', 'output', 'variants', 'unlikeShare', 'meters'],
  ),
} as const;

/** Values by the names of their facts, each with where it came from. */
const facts = {
  type: 'object',
  additionalProperties: closed({
    value: { type: ['number', 'string', 'boolean'] },
    source: { type: 'string', minLength: 1, maxLength: longestSource },
  }),
};

/** The published schema of a shelf file (JSON Schema 2020-12). */
export const shelfFileJsonSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Refectum shelf file',
  ...closed({
    format: { const: 'refectum-shelf' },
    version: { const: shelfFileVersion },
    models: {
      type: 'array',
      items: closed({
        name: text(80),
        family: { enum: Object.keys(families) },
        facts,
        variants: { type: 'array', items: closed({ name: text(60), tell: text(200), facts }) },
        traps: {
          type: 'array',
          items: closed({ about: { enum: Object.keys(trapAbouts) }, say: text(240), source: text(longestSource) }),
        },
      }),
    },
  }),
} as const;
