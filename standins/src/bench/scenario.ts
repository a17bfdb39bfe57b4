import { subjectOf } from '@refectum/core/machines';
import { multimeters } from '@refectum/core/instruments';
import { machineSchema } from '@refectum/core/record';
import { array, type InferType, number, object, string } from 'yup';

const faultsSchema = array(
  object({
    fault: string().required('Which fault? As diode-open:B+.'),
    /** In the fault's own unit: ohms, or a share of turns. */
    severity: number().positive('A severity is more than nothing.').required('How bad is it?'),
  }).noUnknown('A fault has fault and severity; ${unknown} is neither.'),
).max(2, 'At most two faults hide.');

/** What hides in the unit on the simulated bench, and what it is read with. */
export const scenarioSchema = object({
  name: string().trim().required('A scenario needs a name.').max(80, 'A name has at most 80 characters.'),
  /** What is clamped in the vise until the application says which unit is. */
  machine: machineSchema,
  /** Left out: drawn by lot. */
  faults: faultsSchema,
  /** What hides in the units of certain tags instead. */
  units: array(
    object({ tag: number().integer().required('Which tag?'), faults: faultsSchema.required() }).noUnknown(
      'A unit has tag and faults; ${unknown} is neither.',
    ),
  ),
  meter: string()
    .oneOf(
      multimeters.map(({ id }) => id),
      'The meter is one of ${values}.',
    )
    .default('bench'),
  /** Every unit of one number is the same. */
  seed: number().integer('A seed is a whole number.').default(4180),
})
  .noUnknown('A scenario has name, machine, faults, units, meter and seed; ${unknown} is none of them.')
  .required('A scenario is needed.');

export type Scenario = InferType<typeof scenarioSchema>;

/** A scenario as it came, or what is wrong with it. */
export async function readScenario(given: unknown): Promise<Scenario> {
  const scenario = await scenarioSchema.validate(given, { strict: false });
  const { faults } = subjectOf(scenario.machine as never);
  for (const { fault } of scenario.faults ?? [])
    if (!faults.some(({ id }) => id === fault))
      throw new RangeError(`This unit has no fault “${fault}”: known are ${faults.map(({ id }) => id).join(', ')}.`);
  return scenario;
}
