import {
  machineSchema,
  multimeterSchema,
  outcomeSchema,
  pricesSchema,
  tellerSchema,
  vehicleSchema,
  workSchema,
} from '@refectum/core/record';
import type { DrainStep } from '@refectum/core/vehicle';
import { type FactValue, families, type FamilyId, familyBy, familyOf, type Machine } from '@refectum/core/machines';
import { courseNames, type CourseId } from '@refectum/core/verdict';
import { array, boolean, lazy, mixed, number, object, type Schema, string, ValidationError } from 'yup';
import { directions, type Place, pulleys } from './job.ts';
import type { RunStep } from './run-log.ts';
import type { Setting } from './setting.ts';
import { standIds, type Stand } from './stands.ts';

/** What comes in through a form or the API; the same schema on both sides. */

const id = () => string().uuid('must be a UUID').required();
const technician = id().label('technician');
/** A time that the database will take: what it can't read must be refused here, or the sender would try for ever. */
const moment = () =>
  string()
    .required('a time is missing')
    .test(
      'time',
      'must be a time, like 2026-05-04T08:30:00Z — got ${value}',
      (value) => !Number.isNaN(Date.parse(value)),
    );
const complaints = [...new Set(Object.values(families).flatMap((f) => f.complaints.map(({ id }) => id)))];

export const celsiusSchema = number()
  .typeError('Temperature must be a number in °C — got “${originalValue}”')
  .required('Type the temperature of the part in °C')
  .min(-40, 'A part below −40 °C is not on this bench — got ${value}')
  .max(200, 'A part above 200 °C is not on this bench — got ${value}');

export const meterSchema = string().max(60).required('which meter?');

/** Every fact that a machine of any family can have. */
const anyFact = Object.fromEntries(
  (Object.keys(families) as FamilyId[])
    .flatMap((family) => familyBy(family).facts)
    .map((fact) => [fact.id, mixed<FactValue>().optional().default(undefined)]),
);
const defined = (given: object): object =>
  Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined));

/** A machine as a form has it, its problems each at its fact: the family's own schema says them. */
const machineField = object({ family: mixed<FamilyId>().required(), ...anyFact })
  .transform((given: object | undefined) => given && defined(given))
  .test('machine', function (given) {
    try {
      machineSchema.validateSync(given && defined(given), { abortEarly: false });
      return true;
    } catch (cause) {
      if (!(cause instanceof ValidationError)) throw cause;
      const inner = cause.inner.length ? cause.inner : [cause];
      return new ValidationError(
        inner.map(({ path, message }) =>
          this.createError({ path: [this.path, path].filter(Boolean).join('.'), message }),
        ),
      );
    }
  }) as unknown as Schema<Machine>;

export const checkInSchema = object({
  id: id(),
  customer: string().trim().required('Who does the unit belong to?').max(80, 'at most 80 characters'),
  model: string().trim().required('What stands on the plate? “unknown” is an answer.').max(80, 'at most 80 characters'),
  serial: string().trim().max(40, 'at most 40 characters').default(''),
  complaint: string().oneOf(complaints, 'Choose a complaint').required('Choose a complaint'),
  words: string().trim().max(500, 'at most 500 characters').default(''),
  due: string()
    .matches(/^(\d{4}-\d{2}-\d{2})?$/, 'a date like 2026-05-04')
    .default(''),
  machine: machineField,
  plate: object({
    direction: string().oneOf(directions).default(''),
    pulley: string().oneOf(pulleys).default(''),
    connector: string().trim().max(60, 'at most 60 characters').default(''),
    cameWith: string().trim().max(200, 'at most 200 characters').default(''),
  }),
  /** Where the work goes on. */
  next: mixed<Place>().oneOf(['bench', 'vehicle']).default('bench'),
}).test('complaint', function ({ complaint, machine }) {
  const own = machine?.family in families ? familyOf(machine).complaints : [];
  if (!complaint || !own.length || own.some(({ id }) => id === complaint)) return true;
  return this.createError({ path: 'complaint', message: 'Nobody says that of a unit like this: choose another' });
});

const pair = object({
  pins: string().max(30).required(),
  own: string().max(20).required(),
  twin: string().max(20).required(),
});
const detailSchema = object({ pairs: array(pair.noUnknown()).max(40, 'at most 40 pairs').required() }).noUnknown();

export const readingEntrySchema = object({
  id: id(),
  place: mixed<Place>().oneOf(['bench', 'vehicle'], 'must be bench or vehicle — got ${value}').required(),
  told: tellerSchema,
  check: string().required(),
  typed: string().max(60).required(),
  outcome: outcomeSchema,
  meter: meterSchema,
  celsius: celsiusSchema,
  round: number().integer().min(1).max(99).default(1),
  detail: detailSchema.optional().default(undefined),
  at: moment(),
  technician,
});

export const workEntrySchema = workSchema
  .shape({ id: id(), technician })
  .test(
    'something',
    'Tick what was fitted or mended: without either there is no work to prove.',
    (work) => work.fitted.length + work.mended.length > 0,
  );

const lineText = () => string().max(500, 'at most 500 characters').defined();

export const checkInLinesSchema = object({
  technician,
  dry: boolean().required(),
  lines: array(
    object({
      id: id(),
      customer: lineText(),
      model: lineText(),
      serial: lineText(),
      complaint: lineText(),
      words: lineText(),
      due: lineText(),
      volts: lineText(),
      amps: lineText(),
      kilowatts: string().max(500, 'at most 500 characters').default(''),
    }).noUnknown('unknown field: ${unknown}'),
  )
    .max(500, 'at most 500 lines at once')
    .required(),
});

export const moveSchema = object({
  id: id(),
  to: mixed<Stand>()
    .oneOf(standIds, `must be one of ${standIds.join(', ')} — got \${value}`)
    .required(),
  note: string().trim().max(200, 'at most 200 characters').default(''),
  technician,
});

const drainAmps = number()
  .typeError('Amps must be a number — got “${originalValue}”')
  .min(0, 'A drain is at least 0 A — got ${value}')
  .max(100, 'More than 100 A is no drain with the key off — got ${value}');

export const drainStepSchema = object({
  id: id(),
  at: moment(),
  technician,
  step: lazy((step: { kind?: unknown } | undefined) => {
    const kind = (name: DrainStep['kind']) => string().oneOf([name]).required();
    if (step?.kind === 'shut') return object({ kind: kind('shut') }).noUnknown();
    if (step?.kind === 'now') return object({ kind: kind('now'), amps: drainAmps.required() }).noUnknown();
    if (step?.kind === 'struck') return object({ kind: kind('struck'), step: id() }).noUnknown();
    return object({
      kind: kind('out'),
      circuit: string().trim().required('Which circuit?').max(60, 'at most 60 characters'),
      amps: drainAmps.required(),
      leftOut: boolean().required(),
    }).noUnknown();
  }),
});

const bounded = (name: string, least: number, most: number, unit: string) =>
  number()
    .typeError(`${name} must be a number — got “\${originalValue}”`)
    .min(least, `${name}: at least ${least} ${unit} — got \${value}`)
    .max(most, `${name}: at most ${most} ${unit} — got \${value}`);

/** A point of the output test, as it is typed and as it is sent. */
export const outputPoint = {
  rpm: bounded('Rotor speed', 300, 25_000, 'rpm').required('At what rotor speed?'),
  volts: bounded('Volts', 5, 60, 'V').required('At what volts?'),
  amps: bounded('Amps', 0, 1000, 'A').required('How many amps?'),
  celsius: bounded('Temperature', -40, 250, '°C').optional(),
};

export const runStepSchema = object({
  id: id(),
  at: moment(),
  round: number().integer().min(1).max(99).required(),
  technician,
  step: lazy((step: { kind?: unknown } | undefined) => {
    const kind = (name: RunStep['kind']) => string().oneOf([name]).required();
    if (step?.kind === 'struck') return object({ kind: kind('struck'), step: id() }).noUnknown();
    if (step?.kind === 'released')
      return object({
        kind: kind('released'),
        why: string().trim().min(8, 'Say why in a few words').max(300, 'at most 300 characters').required('Why?'),
        against: array(string().max(300).required()).max(20).required(),
      }).noUnknown();
    return object({ kind: kind('point'), ...outputPoint }).noUnknown();
  }),
});

/** A meter as the shop keeps it. */
export const shopMeterSchema = object({
  known: multimeterSchema,
  calibratedOn: string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, 'a date like 2026-05-04')
    .nullable()
    .default(null),
  everyMonths: number()
    .integer('whole months')
    .min(1, 'at least one month')
    .max(120, 'at most ten years')
    .nullable()
    .default(null),
  retired: boolean().default(false),
});

export const strikeSchema = object({ reading: id(), at: moment(), technician });

const patch = () => object().optional().default(undefined);
/** Of prices and vehicle what changes; what they are then is checked by `soundSetting`. */
export const benchChangeSchema = object({
  /** Without one it is a change each time that it is sent. */
  id: string().uuid('must be a UUID').optional(),
  assembly: string().optional(),
  meter: meterSchema.optional(),
  celsius: celsiusSchema.optional(),
  prices: patch(),
  vehicle: patch(),
  knownGood: boolean().optional(),
  technician,
});

const settingSchema = object({ prices: pricesSchema, vehicle: vehicleSchema.nullable().defined() });
/** Prices and vehicle as they may be kept; a `ValidationError` says what is wrong with them, by field. */
export const soundSetting = ({ prices, vehicle }: Pick<Setting, 'prices' | 'vehicle'>) =>
  settingSchema.cast(settingSchema.validateSync({ prices, vehicle }, { abortEarly: false, strict: true }));

export const decisionSchema = object({
  id: id(),
  course: mixed<CourseId>()
    .oneOf(Object.keys(courseNames) as CourseId[], 'Choose what happens to the unit')
    .required('Choose what happens to the unit'),
  reason: string()
    .trim()
    .required('Say why, in a few words: it is kept with the unit.')
    .max(500, 'at most 500 characters'),
  technician,
});
