import { array, type InferType, mixed, number, object, string } from 'yup';
import type { Outcome } from '../checks/index.ts';
import { hearsay, type Teller } from '../belief/index.ts';
import { type Multimeter, multimeters } from '../instruments/index.ts';
import { families, type FamilyId, familyBy } from '../machines/index.ts';
import { type Fuel, type VehicleNumber, vehicleNumbers } from '../vehicle/index.ts';
import { machineSchema } from './machine.ts';
import { multimeterSchema } from './meter.ts';
import { ranged } from './ranged.ts';

/** The version this program writes; it reads no other. */
export const jobFileVersion = 1;

const text = (most: number) => string().trim().max(most, `at most ${most} characters: got \${value.length}`);
const when = () =>
  string()
    .required('a time is missing')
    .test('time', 'must be a time as ISO 8601, like 2026-05-04T08:30:00Z — got ${value}', (value) => {
      return value !== undefined && !Number.isNaN(Date.parse(value));
    });
const oneOf = <T extends string>(values: readonly T[]) =>
  mixed<T>()
    .oneOf([...values], `must be one of ${values.join(', ')} — got \${value}`)
    .required();

const vehicleNumber = (name: VehicleNumber) => ranged(vehicleNumbers[name]);

/** Outcomes that say all by their kind. */
export const plainOutcomes: readonly unknown[] = ['over-range', 'changes', 'no-access'];

export const outcomeSchema = mixed<Outcome>()
  .required('an outcome is missing')
  .test(
    'outcome',
    'must be {"kind":"value","value":number}, {"kind":"finding","finding":name}, or one of the kinds over-range, changes and no-access',
    (outcome) => {
      if (typeof outcome !== 'object' || outcome === null) return false;
      const { kind, value, finding } = outcome as Record<string, unknown>;
      if (kind === 'value') return typeof value === 'number' && Number.isFinite(value);
      return plainOutcomes.includes(kind) || (kind === 'finding' && typeof finding === 'string');
    },
  );

export const tellerSchema = oneOf(Object.keys(hearsay) as Teller[]);

const meterId = () => string().required('a reading needs the id of its meter').max(60);

export const readingSchema = object({
  id: string().required('a reading needs an id'),
  check: string().required('a reading needs the id of its check'),
  outcome: outcomeSchema,
  meter: meterId(),
  celsius: number()
    .required()
    .min(-40, 'temperature below −40 °C — got ${value}')
    .max(200, 'temperature above 200 °C — got ${value}'),
  at: when(),
  technician: text(80).required('a reading needs its technician'),
  /** The first round is that of the unit as received; every work opens another. */
  round: number()
    .integer('a round is a whole number — got ${value}')
    .min(1, 'the first round is 1 — got ${value}')
    .optional(),
  struck: object({ at: when(), technician: text(80).required() })
    .optional()
    .default(undefined),
}).noUnknown('unknown field: ${unknown}');

export const vehicleSchema = object({
  ratedVolts: mixed<12 | 24>().oneOf([12, 24], 'Rated voltage must be 12 or 24 V — got ${value}').required(),
  battery: oneOf(['flooded', 'mat'] as const),
  crankingAmps: vehicleNumber('crankingAmps'),
  ampHours: vehicleNumber('ampHours'),
  machineAmps: vehicleNumber('machineAmps'),
  engineLitres: vehicleNumber('engineLitres').optional(),
  fuel: mixed<Fuel>().oneOf(['petrol', 'diesel'], 'must be petrol or diesel — got ${value}').optional(),
}).noUnknown('unknown field: ${unknown}');

/** What the unit came from: the vehicle, and what was measured on it or told. */
const originSchema = object({
  vehicle: vehicleSchema.required('the vehicle is missing'),
  readings: array(readingSchema.shape({ told: tellerSchema })).required(),
}).noUnknown('unknown field: ${unknown}');

const money = (name: string) =>
  number()
    .typeError(`${name} must be a number — got “\${originalValue}”`)
    .min(0, `${name} can't be below 0 — got \${value}`)
    .optional();

export const pricesSchema = object({
  labourPerHour: money('Labour per hour'),
  exchange: money('Exchange price'),
  core: money('Core value'),
  comeback: money('Cost of a comeback'),
  items: mixed<Record<string, { price?: number; minutes?: number }>>()
    .default({})
    .test('items', 'items must give each item a price and minutes of at least 0', (items) =>
      Object.values(items ?? {}).every(
        (item) =>
          item &&
          typeof item === 'object' &&
          [item.price, item.minutes].every((n) => n === undefined || (Number.isFinite(n) && n >= 0)),
      ),
    ),
}).noUnknown('unknown field: ${unknown}');

const ids = Object.keys(families) as FamilyId[];
const every = ids.map(familyBy).flatMap((family) => family.every.map((machine) => ({ family, machine })));
const namesOf = (things: readonly { readonly id: string }[]) => [...new Set(things.map(({ id }) => id))];
const items = namesOf(every.flatMap(({ family, machine }) => family.items(machine)));
const mendable = namesOf(every.flatMap(({ family, machine }) => family.parts(machine)));

/** What was done to the unit between two rounds of readings. */
export const workSchema = object({
  fitted: array(oneOf(items)).required('say what was fitted, if only []'),
  mended: array(oneOf(mendable)).required('say what was mended, if only []'),
  note: text(200).default(''),
  at: when(),
  technician: text(80).required('a work needs its technician'),
}).noUnknown('unknown field: ${unknown}');

const between = (name: string, least: number, most: number) =>
  number()
    .required(`${name} is missing`)
    .min(least, `${name}: at least ${least}`)
    .max(most, `${name}: at most ${most}`);

/** A point of the output test on the stand. */
export const outputPointSchema = object({
  rpm: between('rpm', 300, 25_000),
  volts: between('volts', 5, 60),
  amps: between('amps', 0, 1000),
  celsius: number().min(-40).max(250).optional(),
  /** Taken in the open round when it isn't said. */
  round: number().integer('a round is a whole number — got ${value}').min(1, 'the first round is 1 — got ${value}'),
}).noUnknown('unknown field: ${unknown}');

const variantSchema = object({
  name: text(60).required('a variant needs a name'),
  machine: machineSchema,
}).noUnknown('unknown field: ${unknown}');

const complaintIds = namesOf(ids.flatMap((id) => familyBy(id).complaints));

export const jobFileSchema = object({
  format: oneOf(['refectum-job'] as const),
  version: mixed<1>().oneOf([jobFileVersion], `only version ${jobFileVersion} is read here — got \${value}`).required(),
  tag: text(20).required('a tag number is missing'),
  customer: text(80).default(''),
  model: text(80).default(''),
  complaint: oneOf(complaintIds),
  words: text(500).default(''),
  machine: machineSchema,
  assembly: string().required('the state of assembly is missing'),
  meter: meterId(),
  celsius: number().required().min(-40).max(200),
  readings: array(readingSchema).required(),
  origin: originSchema.optional().default(undefined),
  /** Ends of rounds, in order. */
  works: array(workSchema).optional().default(undefined),
  /** Output against speed, field full by its own regulator. */
  output: array(outputPointSchema).optional().default(undefined),
  /** What else the model is built as. */
  variants: array(variantSchema).optional().default(undefined),
  /** How common units unlike their kind are in the shop that looked at it; the usual share when it isn't said. */
  unlikeShare: number()
    .moreThan(0, 'unlikeShare: a share is more than 0 — got ${value}')
    .lessThan(1, 'unlikeShare: a share is less than 1 — got ${value}'),
  /** The shop's own meters that are named in it. */
  meters: array(multimeterSchema).optional().default(undefined),
  prices: pricesSchema.required('the prices are missing: {"items":{}} is enough'),
})
  .noUnknown('unknown field: ${unknown}')
  .test('meters', function (job) {
    const known = new Set([...multimeters, ...(job?.meters ?? [])].map(({ id }) => id));
    const used = [
      job?.meter,
      ...[...(job?.readings ?? []), ...(job?.origin?.readings ?? [])].map(({ meter }) => meter),
    ];
    const strange = used.find((id) => id !== undefined && !known.has(id));
    const message = `meter “${strange}” is neither one of ${multimeters.map(({ id }) => id).join(', ')} nor described under meters`;
    return strange === undefined || this.createError({ path: 'meters', message });
  })
  .test('family', function (job) {
    if (!job?.machine || !(job.machine.family in families)) return true;
    const { complaints, assemblies } = familyBy(job.machine.family);
    for (const [path, what, own] of [
      ['complaint', 'complaint', namesOf(complaints)],
      ['assembly', 'state of assembly', namesOf(assemblies)],
    ] as const)
      if (job[path] && !own.includes(job[path])) {
        const message = `no ${what} of this family: ${job[path]} is none of ${own.join(', ')}`;
        return this.createError({ path, message });
      }
    return true;
  })
  .test('rounds', function (job) {
    const last = (job?.works?.length ?? 0) + 1;
    const beyond = [...(job?.readings ?? []), ...(job?.output ?? [])].find(({ round = 1 }) => round > last);
    const message = `round ${beyond?.round} follows no work: ${last - 1} described`;
    return beyond === undefined || this.createError({ path: 'works', message });
  });

/** A whole job in the open: what `assess` reads and the program writes. */
export type JobFile = InferType<typeof jobFileSchema>;
/** Every meter that a job file names. */
export function metersOf({ meter, readings, origin, meters = [] }: JobFile): readonly Multimeter[] {
  const used = new Set([meter, ...readings.map((r) => r.meter), ...(origin?.readings ?? []).map((r) => r.meter)]);
  const described = meters as readonly Multimeter[];
  return [...described, ...multimeters.filter(({ id }) => !described.some((own) => own.id === id))].filter(({ id }) =>
    used.has(id),
  );
}

export type ReadingRecord = InferType<typeof readingSchema>;

/** What is wrong with a job file, one line for each fault, each with its path. */
export class JobFileError extends Error {
  readonly problems: readonly string[];
  constructor(problems: readonly string[]) {
    super(`not a job file that can be read: ${problems.join('; ')}`);
    this.name = 'JobFileError';
    this.problems = problems;
  }
}
