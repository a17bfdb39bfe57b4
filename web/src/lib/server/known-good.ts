import { subjectOf } from '@refectum/core/machines';
import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import { netOfTaken } from '../limits.ts';
import type { TakenReading } from '../job.ts';
import { database } from './db/connect.ts';
import { job, reading, strike } from './db/schema.ts';

/**
 * What each check showed on units of a model that a lead vouched for, leads taken off: the last reading of each unit,
 * in its last round.
 */
export async function knownGoodReadings(
  shopId: string,
  model: string,
  exceptTag: number,
): Promise<Readonly<Record<string, readonly number[]>>> {
  const rows = await database()
    .select({ unit: job.id, machine: job.machine, reading })
    .from(job)
    .innerJoin(reading, eq(reading.jobId, job.id))
    .leftJoin(strike, eq(strike.readingId, reading.id))
    .where(
      and(
        eq(job.shopId, shopId),
        eq(job.knownGood, true),
        ne(job.tag, exceptTag),
        sql`lower(${job.model}) = lower(${model})`,
        eq(reading.place, 'bench'),
        isNull(strike.readingId),
      ),
    )
    .orderBy(reading.round, reading.number);
  const found: Record<string, number[]> = {};
  for (const unit of new Set(rows.map((row) => row.unit))) {
    const ofUnit = rows.filter((row) => row.unit === unit);
    const taken = ofUnit.map(({ reading: r }) => ({ ...r, at: '', technician: '', detail: undefined }) as TakenReading);
    const newest = new Map(taken.map((r) => [r.check, r]));
    for (const check of subjectOf(ofUnit[0]!.machine).checks) {
      const own = newest.get(check.id);
      if (!own || check.method.kind === 'leads') continue;
      const net = netOfTaken(check, own, taken);
      if (net !== undefined) (found[check.id] ??= []).push(net);
    }
  }
  return found;
}
