import type { Assessment } from '@refectum/core/assess';
import type { JobFile } from '@refectum/core/record';
import type { CourseId } from '@refectum/core/verdict';
import { database } from '../db/connect.ts';
import { verdict } from '../db/schema.ts';
import { announce } from '../live.ts';
import { needJob } from './row.ts';

/** Keeps a decision with the file and the assessment it was made from, for good. */
export async function addVerdict(
  shopId: string,
  tag: number,
  entry: { id: string; course: CourseId; reason: string; technician: string },
  made: { jobFile: JobFile; assessment: Assessment },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    await db
      .insert(verdict)
      .values({
        id: entry.id,
        jobId: row.id,
        course: entry.course,
        reason: entry.reason,
        ...made,
        decidedAt: new Date(),
        technicianId: entry.technician,
      })
      .onConflictDoNothing();
    await announce(db, tag);
  });
}
