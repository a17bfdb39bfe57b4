import { type DecidedUnit, unlikeShareOf } from '@refectum/core/assess';
import { usualUnlikeShare } from '@refectum/core/machines';
import { asc, desc, eq, sql } from 'drizzle-orm';
import type { Queryable } from './db/connect.ts';
import { job, verdict } from './db/schema.ts';

/** So many of the last decisions are counted. */
const mostCounted = 200;

/** What the shop found of the units that it decided on last, each by its last decision. */
async function decidedUnits(shopId: string, db: Queryable): Promise<DecidedUnit[]> {
  // What they were decided from is large: it is looked into only where it counts.
  const last = db
    .select({ id: verdict.id })
    .from(verdict)
    .innerJoin(job, eq(job.id, verdict.jobId))
    .where(eq(job.shopId, shopId))
    .orderBy(desc(verdict.decidedAt))
    .limit(mostCounted)
    .as('last');
  const rows = await db
    .select({
      jobId: verdict.jobId,
      chance: sql<number | null>`(${verdict.assessment} ->> 'unlike')::float`,
      share: sql<number | null>`(${verdict.jobFile} ->> 'unlikeShare')::float`,
    })
    .from(verdict)
    .innerJoin(last, eq(last.id, verdict.id))
    .orderBy(asc(verdict.decidedAt));
  return [...new Map(rows.map((row) => [row.jobId, row])).values()].flatMap(({ chance, share }) =>
    chance === null ? [] : [{ chance, share: share ?? usualUnlikeShare }],
  );
}

/** How common units unlike their kind are in a shop, to a thousandth, and from how many units that is known. */
export async function unlikeIn(
  shopId: string,
  db: Queryable,
): Promise<{ readonly unlikeShare: number; readonly decided: number }> {
  const units = await decidedUnits(shopId, db);
  return { unlikeShare: Number(unlikeShareOf(units).toFixed(3)), decided: units.length };
}
