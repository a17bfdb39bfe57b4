import type { Teller } from '@refectum/core/belief';
import { type Check, mayShow } from '@refectum/core/checks';
import { familyOf, stateFor, subjectOf } from '@refectum/core/machines';
import { vehicleSubject } from '@refectum/core/vehicle';
import { and, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { type Place, type ReadingDetail, vehicleOf } from '../../job.ts';
import { database, type Queryable } from '../db/connect.ts';
import { job, reading, strike, work } from '../db/schema.ts';
import { announce } from '../live.ts';
import { needMeter } from '../meters.ts';
import { Refused } from '../refused.ts';
import { carry } from './moves.ts';
import { type JobRow, needJob } from './row.ts';

interface ReadingEntry {
  readonly id: string;
  readonly place: Place;
  readonly told: Teller;
  readonly check: string;
  readonly typed: string;
  readonly outcome: typeof reading.$inferInsert.outcome;
  readonly meter: string;
  readonly celsius: number;
  readonly round?: number;
  readonly detail?: ReadingDetail | undefined;
  readonly at: string;
  readonly technician: string;
}

const checksAt = (place: Place, { machine, vehicle, complaint }: JobRow): readonly Check[] =>
  place === 'bench'
    ? subjectOf(machine).checks
    : vehicleSubject(vehicleOf({ machine, vehicle }), machine, complaint).subject.checks;

/** The check that a reading is of; refused when the unit or its vehicle has none such, or none with such a result. */
function checkFor(row: JobRow, { place, told, check: id, outcome }: ReadingEntry): Check {
  const check = checksAt(place, row).find((c) => c.id === id);
  if (!check)
    throw new Refused(422, `This ${place === 'bench' ? 'unit' : 'vehicle'} has no check “${id}”: reload the page.`);
  if (place === 'bench' && told !== 'own')
    throw new Refused(422, 'On the bench we measure ourselves: only readings on the vehicle are told.');
  if (!mayShow(check, outcome)) throw new Refused(422, `“${check.name}” can’t have that result.`);
  return check;
}

/** Only work opens a round: a reading of one beyond would stand nowhere. */
async function needRound(db: Queryable, jobId: string, round: number): Promise<void> {
  const works = await db.$count(work, eq(work.jobId, jobId));
  if (round > works + 1) throw new Refused(422, `Round ${round} follows no work: this unit is in round ${works + 1}.`);
}

/** Adds a reading; sent twice it is one, and the unit stays as it is by then. */
export async function addReading(shopId: string, tag: number, entry: ReadingEntry): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    if (await db.$count(reading, eq(reading.id, entry.id))) return;
    const check = checkFor(row, entry);
    await needMeter(shopId, entry.meter, db);
    await needRound(db, row.id, entry.round ?? 1);
    await db.insert(reading).values({
      id: entry.id,
      jobId: row.id,
      place: entry.place,
      told: entry.told,
      check: entry.check,
      typed: entry.typed,
      outcome: entry.outcome,
      meter: entry.meter,
      celsius: entry.celsius,
      round: entry.place === 'bench' ? (entry.round ?? 1) : 1,
      detail: entry.detail,
      takenAt: new Date(entry.at),
      technicianId: entry.technician,
    });
    const { assemblies } = familyOf(row.machine);
    const assembly = entry.place === 'bench' ? stateFor(assemblies, row.assembly, check) : row.assembly;
    await db.update(job).set({ assembly, meter: entry.meter }).where(eq(job.id, row.id));
    // What is measured on stands on the bench.
    if (entry.place === 'bench' && row.stand === 'in')
      await carry(db, row, { id: randomUUID(), to: 'bench', note: 'first reading', technician: entry.technician });
    await announce(db, tag);
  });
}

/** Strikes a reading out; twice is once. */
export async function strikeReading(
  shopId: string,
  tag: number,
  entry: { reading: string; at: string; technician: string },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag);
    const [own] = await db
      .select()
      .from(reading)
      .where(and(eq(reading.id, entry.reading), eq(reading.jobId, row.id)));
    if (!own) throw new Refused(404, 'That reading is not on this unit’s tape.');
    await db
      .insert(strike)
      .values({ readingId: entry.reading, struckAt: new Date(entry.at), technicianId: entry.technician })
      .onConflictDoNothing();
    await announce(db, tag);
  });
}
