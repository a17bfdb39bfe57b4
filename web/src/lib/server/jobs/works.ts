import { asReceived, familyOf, subjectOf } from '@refectum/core/machines';
import { eq } from 'drizzle-orm';
import type { TakenWork } from '../../job.ts';
import { database } from '../db/connect.ts';
import { job, work } from '../db/schema.ts';
import { announce } from '../live.ts';
import { Refused } from '../refused.ts';
import { needJob } from './row.ts';

/** Adds what was done; the unit is put together again, and the next round begins. Sent twice it is one work. */
export async function addWork(
  shopId: string,
  tag: number,
  entry: Omit<TakenWork, 'technician'> & { readonly technician: string },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    if (await db.$count(work, eq(work.id, entry.id))) return;
    const { items, parts, faults } = subjectOf(row.machine);
    const strange = [
      ...entry.fitted.filter((id) => !items.some((item) => item.id === id)),
      ...entry.mended.filter((id) => !faults.some(({ part, repair }) => part === id && repair)),
    ];
    if (strange.length)
      throw new Refused(
        422,
        `This unit has no ${strange.map((id) => parts.find((p) => p.id === id)?.name ?? id).join(', ')} to fit or mend so.`,
      );
    await db.insert(work).values({
      id: entry.id,
      jobId: row.id,
      fitted: entry.fitted,
      mended: entry.mended,
      note: entry.note,
      doneAt: new Date(entry.at),
      technicianId: entry.technician,
    });
    await db
      .update(job)
      .set({
        assembly: asReceived(familyOf(row.machine).assemblies).id,
        changedAt: new Date(),
        changedBy: entry.technician,
      })
      .where(eq(job.id, row.id));
    await announce(db, tag);
  });
}
