import { multimeters } from '@refectum/core/instruments';
import { subHours } from 'date-fns';
import { and, asc, desc, eq, gt, isNull, ne } from 'drizzle-orm';
import type { LeadsNull, ShopMeter } from '../job.ts';
import { database, type Queryable } from './db/connect.ts';
import { job, meter, reading, strike } from './db/schema.ts';
import { Refused } from './refused.ts';

/** The kinds that come with the program, as long as the shop hasn't described them itself; then its own as they came. */
export async function metersOf(shopId: string, db: Queryable = database()): Promise<readonly ShopMeter[]> {
  const rows = await db
    .select()
    .from(meter)
    .where(eq(meter.shopId, shopId))
    .orderBy(asc(meter.changedAt), asc(meter.id));
  const own = rows.map(({ known, calibratedOn, everyMonths, retired }) => ({
    known,
    calibratedOn,
    everyMonths,
    retired,
  }));
  const described = new Set(own.map(({ known }) => known.id));
  const kinds = multimeters
    .filter(({ id }) => !described.has(id))
    .map((known): ShopMeter => ({ known, calibratedOn: null, everyMonths: null, retired: false }));
  return [...kinds, ...own];
}

/** Keeps a meter as it is described now; readings taken with it are judged anew by it. */
export async function saveMeter(shopId: string, entry: ShopMeter): Promise<void> {
  const all = await metersOf(shopId);
  const same = all.find(
    ({ known }) => known.id !== entry.known.id && known.name.toLowerCase() === entry.known.name.toLowerCase(),
  );
  if (same) throw new Refused(409, `There is a meter called ${same.known.name} already: give this one another name.`);
  const using = all.filter(({ known, retired }) => !retired && known.id !== entry.known.id);
  if (entry.retired && using.length === 0) throw new Refused(409, 'This is the last meter in use: a bench needs one.');
  const values = { ...entry, shopId, id: entry.known.id, changedAt: new Date() };
  await database()
    .insert(meter)
    .values(values)
    .onConflictDoUpdate({ target: [meter.shopId, meter.id], set: { ...entry } });
}

/** Whether a meter of the shop may be read with. */
export async function needMeter(shopId: string, id: string, db: Queryable): Promise<void> {
  const found = (await metersOf(shopId, db)).find(({ known }) => known.id === id);
  if (!found) throw new Refused(422, `This shop has no meter “${id}”: choose one of its own.`);
}

/** Leads stay what they are for a shift. */
const nullHours = 12;

/** The newest null of each meter's leads on other units, by the meter's id. */
export async function recentNulls(shopId: string, exceptTag: number): Promise<Readonly<Record<string, LeadsNull>>> {
  const rows = await database()
    .selectDistinctOn([reading.meter], {
      meter: reading.meter,
      outcome: reading.outcome,
      at: reading.takenAt,
      tag: job.tag,
    })
    .from(reading)
    .innerJoin(job, eq(reading.jobId, job.id))
    .leftJoin(strike, eq(strike.readingId, reading.id))
    .where(
      and(
        eq(job.shopId, shopId),
        ne(job.tag, exceptTag),
        eq(reading.check, 'leads-null'),
        gt(reading.takenAt, subHours(new Date(), nullHours)),
        isNull(strike.readingId),
      ),
    )
    .orderBy(reading.meter, desc(reading.takenAt));
  return Object.fromEntries(
    rows.flatMap(({ meter, outcome, at, tag }) =>
      outcome.kind === 'value' ? [[meter, { ohms: outcome.value, at: at.toISOString(), tag }]] : [],
    ),
  );
}
