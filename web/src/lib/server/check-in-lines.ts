import { randomUUID } from 'node:crypto';
import { type FamilyId, familyBy, type Machine } from '@refectum/core/machines';
import { parseQuantity } from '@refectum/core/quantity';
import { ValidationError } from 'yup';
import { complaintId, complaintNames, type Line, type LineResult } from '../many.ts';
import { checkInSchema } from '../schemas.ts';
import { type CheckIn, checkIn } from './jobs/index.ts';
import { knownModels } from './known.ts';
import { Refused } from './refused.ts';

/** Why a line can't be checked in. */
class Unfit extends Error {}

/**
 * Checks lines in, each on its own: a bad one keeps no good one back. With `dry` nothing is written, and the answer is
 * what would become of each. A line sent again under its id is one job.
 */
export async function checkInLines(
  shopId: string,
  technicianId: string,
  lines: readonly (Line & { readonly id?: string })[],
  dry: boolean,
): Promise<LineResult[]> {
  const results: LineResult[] = [];
  for (const line of lines) {
    try {
      const entry = await entryOf(shopId, line);
      results.push(dry ? {} : { tag: await checkIn(shopId, technicianId, entry) });
    } catch (cause) {
      if (!(cause instanceof Unfit || cause instanceof Refused)) throw cause;
      results.push({ problem: cause.message });
    }
  }
  return results;
}

async function entryOf(shopId: string, line: Line & { readonly id?: string }): Promise<CheckIn> {
  const complaint = complaintId(line.complaint);
  if (!complaint)
    throw new Unfit(
      `complaint: “${line.complaint}” is none of ${complaintNames.map((name) => name.toLowerCase()).join(', ')}.`,
    );
  const { machine, plate } = await builtAs(shopId, line);
  const entry = { ...line, id: line.id ?? randomUUID(), complaint, machine, plate };
  const { customer, model, serial, words, due, id } = entry;
  try {
    const valid = await checkInSchema.validate(
      { id, customer, model, serial, words, due, complaint, machine, plate },
      { abortEarly: false },
    );
    const { next: _, ...rest } = valid;
    return rest;
  } catch (cause) {
    if (!(cause instanceof ValidationError)) throw cause;
    const inner = cause.inner.length ? cause.inner : [cause];
    throw new Unfit(
      inner.map(({ path, message }) => `${path?.replace(/^machine\./, '') ?? 'line'}: ${message}`).join('; '),
    );
  }
}

/** The build of the model when it was here last, or what volts and amps tell. */
async function builtAs(
  shopId: string,
  { model, volts, amps, kilowatts }: Line,
): Promise<{ machine: Machine; plate?: CheckIn['plate'] }> {
  if (volts || amps || kilowatts) {
    const rated = parseQuantity(volts, 'volts');
    if (amps && kilowatts) throw new Unfit('amps and kilowatts: one of them, a unit has either.');
    const [family, said, name, unit]: [FamilyId, string, string, 'amps' | 'kilowatts'] = kilowatts
      ? ['starter', kilowatts, 'kilowatts', 'kilowatts']
      : ['claw-pole', amps, 'amps', 'amps'];
    const size = parseQuantity(said, unit);
    if (rated.kind !== 'value' || (rated.value !== 12 && rated.value !== 24))
      throw new Unfit(`volts: “${volts}” must be 12 or 24.`);
    if (size.kind !== 'value')
      throw new Unfit(`${name}: ${size.kind === 'refused' ? size.message : 'a number is needed.'}`);
    return { machine: familyBy(family).usual(rated.value, size.value) };
  }
  const same = (await knownModels(shopId, model)).find((known) => known.model.toLowerCase() === model.toLowerCase());
  if (!same) throw new Unfit(`model: “${model}” was never here: give its volts and its amps or kilowatts.`);
  return { machine: same.machine, plate: same.plate };
}
