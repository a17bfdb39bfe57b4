import { type ShelfModel, type Warning, warningsOf } from '@refectum/core/shelf';
import { isDeepStrictEqual } from 'node:util';
import { randomUUID } from 'node:crypto';
import { and, asc, eq, ilike, sql } from 'drizzle-orm';
import { database, type Queryable } from './db/connect.ts';
import { model, technician } from './db/schema.ts';
import { Refused } from './refused.ts';

export interface Shelved {
  readonly id: string;
  readonly known: ShelfModel;
  readonly changedAt: string;
  readonly changedBy: string;
}

export async function listShelf(shopId: string): Promise<Shelved[]> {
  const rows = await database()
    .select({ id: model.id, known: model.known, changedAt: model.changedAt, changedBy: technician.name })
    .from(model)
    .innerJoin(technician, eq(technician.id, model.changedBy))
    .where(eq(model.shopId, shopId))
    .orderBy(asc(model.name));
  return rows.map((row) => ({ ...row, changedAt: row.changedAt.toISOString() }));
}

export interface Shelving extends Pick<Shelved, 'id' | 'known'> {
  /** What makes a unit of it pass for another. */
  readonly warnings: readonly Warning[];
}

/** Models of that name, or whose names begin so, with what to say of each. */
export async function shelvedAs(
  shopId: string,
  name: { readonly is: string } | { readonly begins: string },
): Promise<Shelving[]> {
  const frame = (of: string) => sql.raw(`lower(${of}.known -> 'facts' -> 'frame' ->> 'value')`);
  const rows = await database()
    .select({
      id: model.id,
      known: model.known,
      alike: sql<ShelfModel[] | null>`(select jsonb_agg(alike.known) from model alike
        where alike.shop_id = model.shop_id and alike.id <> model.id and ${frame('alike')} = ${frame('model')})`,
    })
    .from(model)
    .where('is' in name ? named(shopId, name.is) : and(eq(model.shopId, shopId), ilike(model.name, name.begins)))
    // The very name is the shortest that begins so: it is never among those left out.
    .orderBy(sql`length(${model.name})`, asc(model.name))
    .limit(mostOffered);
  return rows.map(({ id, known, alike: others }) => ({ id, known, warnings: warningsOf(known, others ?? []) }));
}

const mostOffered = 8;
const named = (shopId: string, name: string) =>
  and(eq(model.shopId, shopId), sql`lower(${model.name}) = lower(${name.trim()})`);

export async function modelNamed(
  shopId: string,
  name: string,
  db: Queryable = database(),
): Promise<ShelfModel | undefined> {
  const [found] = await db.select({ known: model.known }).from(model).where(named(shopId, name));
  return found?.known;
}

/**
 * Puts a model on the shelf, or changes it. `seen` is when it was last changed as far as the writer knows.
 *
 * @throws Refused 409 when another model has the name, or somebody changed it meanwhile
 */
export async function saveModel(
  shopId: string,
  technicianId: string,
  id: string,
  known: ShelfModel,
  seen: string | undefined,
): Promise<void> {
  await database().transaction(async (db) => {
    await oneAtATime(db, shopId);
    const [other] = await db.select({ id: model.id }).from(model).where(named(shopId, known.name));
    if (other && other.id !== id) throw new Refused(409, `“${known.name}” stands on the shelf already.`);
    const [before] = await db.select().from(model).where(eq(model.id, id));
    if (before && isDeepStrictEqual(before.known, known)) return;
    if (before && before.changedAt.toISOString() !== seen)
      throw new Refused(409, 'Somebody changed it meanwhile: open it anew in another window, and compare.');
    const row = { name: known.name, known, changedAt: new Date(), changedBy: technicianId };
    await db
      .insert(model)
      .values({ id, shopId, ...row })
      .onConflictDoUpdate({ target: model.id, set: row });
  });
}

/** Puts many on the shelf; those that stand there by that name are replaced. */
export async function importModels(
  shopId: string,
  technicianId: string,
  models: readonly ShelfModel[],
): Promise<{ added: number; changed: number }> {
  return database().transaction(async (db) => {
    await oneAtATime(db, shopId);
    const counts = { added: 0, changed: 0 };
    for (const known of models) {
      const [before] = await db.select().from(model).where(named(shopId, known.name));
      if (before && isDeepStrictEqual(before.known, known)) continue;
      const row = { name: known.name, known, changedAt: new Date(), changedBy: technicianId };
      if (before) await db.update(model).set(row).where(eq(model.id, before.id));
      else await db.insert(model).values({ id: randomUUID(), shopId, ...row });
      counts[before ? 'changed' : 'added']++;
    }
    return counts;
  });
}

export const takeOffShelf = (shopId: string, id: string): Promise<unknown> =>
  database()
    .delete(model)
    .where(and(eq(model.id, id), eq(model.shopId, shopId)));

const oneAtATime = (db: Queryable, shopId: string) =>
  db.execute(sql`select pg_advisory_xact_lock(hashtext(${`shelf ${shopId}`}))`);
