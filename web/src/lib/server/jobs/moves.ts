import { eq } from 'drizzle-orm';
import type { Stand } from '../../stands.ts';
import { database, type Queryable } from '../db/connect.ts';
import { job, move, verdict } from '../db/schema.ts';
import { announce } from '../live.ts';
import { Refused } from '../refused.ts';
import { type JobRow, needJob } from './row.ts';

interface MoveEntry {
  readonly id: string;
  readonly to: Stand;
  readonly note: string;
  readonly technician: string;
}

export async function carry(db: Queryable, row: JobRow, { id, to, note, technician: by }: MoveEntry): Promise<void> {
  const now = new Date();
  await db.insert(move).values({ id, jobId: row.id, from: row.stand, to, note, movedAt: now, technicianId: by });
  await db.update(job).set({ stand: to, changedAt: now, changedBy: by }).where(eq(job.id, row.id));
}

/** Carries a unit to where it stands from now on; sent twice is once. Any move can be taken back by another. */
export async function moveJob(shopId: string, tag: number, entry: MoveEntry): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    if ((await db.$count(move, eq(move.id, entry.id))) || row.stand === entry.to) return;
    if (entry.to === 'ready' && !(await db.$count(verdict, eq(verdict.jobId, row.id))))
      throw new Refused(409, `Tag ${tag} has no verdict yet: decide on the verdict sheet, then it is ready.`);
    if (entry.to === 'gone' && !entry.note)
      throw new Refused(422, `Say who took tag ${tag} away: without a hand-over it stays on the rack.`);
    await carry(db, row, entry);
    await announce(db, tag);
  });
}
