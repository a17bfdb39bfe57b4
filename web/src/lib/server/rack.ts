import type { CourseId } from '@refectum/core/verdict';
import { type SQL, sql } from 'drizzle-orm';
import type { TagFacts } from '../job.ts';
import { database } from './db/connect.ts';
import { job, reading, strike, technician, verdict } from './db/schema.ts';

/** More than this on one rack, and a search finds what is wanted sooner. */
export const mostShown = 400;
const mostGone = 12;

interface Row extends Record<string, unknown> {
  readonly course: CourseId | null;
  readonly decided_by: string | null;
}

/** Tags with what each shows, in one query. */
async function tags(shopId: string, where: SQL, order: SQL, most: number): Promise<TagFacts[]> {
  const { rows } = await database().execute<Row & Omit<TagFacts, 'decision'>>(sql`
    select ${job.tag}, ${job.customer}, ${job.model}, ${job.words}, ${job.due}, ${job.stand}, ${job.complaint},
      (select count(*)::int from ${reading} left join ${strike} on ${strike.readingId} = ${reading.id}
        where ${reading.jobId} = ${job.id} and ${reading.place} = 'bench' and ${strike.readingId} is null) as readings,
      decided.course, ${technician.name} as decided_by
    from ${job}
    left join lateral (select ${verdict.course}, ${verdict.technicianId} from ${verdict}
      where ${verdict.jobId} = ${job.id} order by ${verdict.decidedAt} desc limit 1) decided on true
    left join ${technician} on ${technician.id} = decided.technician_id
    where ${job.shopId} = ${shopId} and ${where}
    order by ${order} limit ${most}`);
  return rows.map(({ course, decided_by: by, ...facts }) => ({
    ...facts,
    decision: course ? { course, technician: by ?? '' } : undefined,
  }));
}

/** What stands in the shop, the soonest due first, and what left last. */
export async function rackOf(shopId: string): Promise<TagFacts[]> {
  const [here, gone] = await Promise.all([
    tags(shopId, sql`${job.stand} <> 'gone'`, sql`${job.due} asc nulls last, ${job.tag}`, mostShown),
    tags(shopId, sql`${job.stand} = 'gone'`, sql`${job.changedAt} desc`, mostGone),
  ]);
  return [...here, ...gone];
}

/** Tags by number, customer, model or serial number, wherever they stand, newest first. */
export async function findTags(shopId: string, text: string): Promise<TagFacts[]> {
  const within = `%${text.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`;
  const where = sql`(${job.tag}::text = ${text} or ${job.customer} ilike ${within} or ${job.model} ilike ${within}
    or ${job.serial} ilike ${within})`;
  return tags(shopId, where, sql`${job.tag} desc`, mostShown);
}
