import { asReceived, familyOf, type Machine, type Variant } from '@refectum/core/machines';
import { buildsOf, pricesOf, type ShelfModel } from '@refectum/core/shelf';
import { eq } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Plate } from '../../job.ts';
import type { Line } from '../../many.ts';
import { database } from '../db/connect.ts';
import { job, shop } from '../db/schema.ts';
import { announce } from '../live.ts';
import { modelNamed } from '../shelf.ts';
import { unlikeIn } from '../unlike-share.ts';

/** What a line of a list says of a unit, with what it is built as. */
export interface CheckIn extends Omit<Line, 'volts' | 'amps' | 'kilowatts'> {
  readonly id: string;
  readonly machine: Machine;
  readonly plate?: Plate;
}

/** As it is kept: what isn't known is left out. */
const plain = (machine: Machine): unknown => JSON.parse(JSON.stringify(machine));

/** The shelf's other builds of a model with variants than the one that was chosen. */
const variantsOf = (shelved: ShelfModel | undefined, machine: Machine): readonly Variant[] =>
  shelved?.variants.length
    ? buildsOf(shelved).filter((build) => !isDeepStrictEqual(plain(build.machine), plain(machine)))
    : [];

/** Takes a unit in under the shop's next tag number. Sent twice under one id it is one job. */
export async function checkIn(
  shopId: string,
  technicianId: string,
  entry: CheckIn,
  meter = 'workshop',
): Promise<number> {
  return database().transaction(async (db) => {
    // Locked: of the same, sent twice at once, the second waits and finds the first.
    const [counting] = await db.select({ tag: shop.nextTag }).from(shop).where(eq(shop.id, shopId)).for('update');
    const [before] = await db.select({ tag: job.tag }).from(job).where(eq(job.id, entry.id));
    if (before) return before.tag;
    const { tag } = counting!;
    await db
      .update(shop)
      .set({ nextTag: tag + 1 })
      .where(eq(shop.id, shopId));
    const shelved = await modelNamed(shopId, entry.model, db);
    const now = new Date();
    await db.insert(job).values({
      ...entry,
      due: entry.due || null,
      shopId,
      tag,
      assembly: asReceived(familyOf(entry.machine).assemblies).id,
      meter,
      celsius: 20,
      prices: shelved ? pricesOf(shelved) : { items: {} },
      variants: variantsOf(shelved, entry.machine),
      unlikeShare: (await unlikeIn(shopId, db)).unlikeShare,
      checkedInAt: now,
      technicianId,
      changedAt: now,
      changedBy: technicianId,
    });
    await announce(db, tag);
    return tag;
  });
}
