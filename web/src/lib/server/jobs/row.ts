import { and, eq } from 'drizzle-orm';
import type { Queryable } from '../db/connect.ts';
import { job } from '../db/schema.ts';
import { Refused } from '../refused.ts';

export type JobRow = typeof job.$inferSelect;

export async function needJob(db: Queryable, shopId: string, tag: number, lock = false): Promise<JobRow> {
  const query = db
    .select()
    .from(job)
    .where(and(eq(job.shopId, shopId), eq(job.tag, tag)));
  const [row] = await (lock ? query.for('update') : query);
  if (!row) throw new Refused(404, `There is no tag ${tag} in this shop.`);
  return row;
}
