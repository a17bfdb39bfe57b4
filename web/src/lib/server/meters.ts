import { multimeters } from '@refectum/core/instruments';
import { asc, eq } from 'drizzle-orm';
import type { ShopMeter } from '../job.ts';
import { database, type Queryable } from './db/connect.ts';
import { meter } from './db/schema.ts';
import { Refused } from './refused.ts';

/** The shop's meters in the order they came. A shop without any starts with the three kinds that are described here. */
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
