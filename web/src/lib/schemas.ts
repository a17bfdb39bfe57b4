import { machineSchema, outcomeSchema, pricesSchema, tellerSchema, vehicleSchema } from '@refectum/core/record';
import type { DrainStep } from '@refectum/core/vehicle';
import { multimeters } from '@refectum/core/instruments';
import { families } from '@refectum/core/machines';
import { courseNames, type CourseId } from '@refectum/core/verdict';
import { array, boolean, lazy, mixed, number, object, string } from 'yup';
import { directions, type Place, pulleys } from './job.ts';
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
const complaints = families['claw-pole'].complaints.map((complaint) => complaint.id);

export const celsiusSchema = number()
  .typeError('Temperature must be a number in °C — got “${originalValue}”')
  .required('Type the temperature of the part in °C')
  .min(-40, 'A part below −40 °C is not on this bench — got ${value}')
  .max(200, 'A part above 200 °C is not on this bench — got ${value}');

export const meterSchema = string()
  .oneOf(
    multimeters.map((meter) => meter.id),
    'no such meter: ${value}',
  )
  .required();

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
  machine: machineSchema,
  plate: object({
    direction: string().oneOf(directions).default(''),
    pulley: string().oneOf(pulleys).default(''),
    connector: string().trim().max(60, 'at most 60 characters').default(''),
    cameWith: string().trim().max(200, 'at most 200 characters').default(''),
  }),
  /** Where the work goes on. */
  next: mixed<Place>().oneOf(['bench', 'vehicle']).default('bench'),
});

export const readingEntrySchema = object({
  id: id(),
  place: mixed<Place>().oneOf(['bench', 'vehicle'], 'must be bench or vehicle — got ${value}').required(),
  told: tellerSchema,
  check: string().required(),
  typed: string().max(60).required(),
  outcome: outcomeSchema,
  meter: meterSchema,
  celsius: celsiusSchema,
  at: moment(),
  technician,
});

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

export const strikeSchema = object({ reading: id(), at: moment(), technician });

export const benchChangeSchema = object({
  assembly: string().optional(),
  meter: meterSchema.optional(),
  celsius: celsiusSchema.optional(),
  prices: pricesSchema.optional().default(undefined),
  vehicle: vehicleSchema.optional().default(undefined),
  technician,
});

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
