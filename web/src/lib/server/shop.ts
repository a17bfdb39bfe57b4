import { randomUUID } from 'node:crypto';
import { asc, eq, sql } from 'drizzle-orm';
import { type HouseRules, usualRules } from '../rules.ts';
import { database } from './db/connect.ts';
import { shop } from './db/schema.ts';

const firstTag = 1001;
let known: { id: string; name: string; heading: string } | undefined;

/** The one shop of this installation; made when there is none. */
export async function ensureShop(): Promise<{ id: string; name: string; heading: string }> {
  if (known) return known;
  known = await database().transaction(async (db) => {
    const [found] = await db.select().from(shop).orderBy(asc(shop.id)).limit(1).for('update');
    if (found) return { id: found.id, name: found.name, heading: found.heading };
    const made = { id: randomUUID(), name: 'Workshop', heading: 'Workshop', nextTag: firstTag };
    await db.insert(shop).values(made);
    return { id: made.id, name: made.name, heading: made.heading };
  });
  return known;
}

/** After the shop's name was changed. */
export const forgetShop = (): void => void (known = undefined);

/** The house rules as they stand. */
export async function rulesOf(shopId: string): Promise<HouseRules> {
  const [row] = await database().select({ rules: shop.rules }).from(shop).where(eq(shop.id, shopId));
  // Rules that came later are as usual until somebody says.
  return { ...usualRules, ...row!.rules };
}

/** Keeps what is said of the rules; the others stay. */
export async function saveRules(shopId: string, said: Partial<HouseRules>): Promise<void> {
  const rules = sql`${shop.rules} || ${JSON.stringify(said)}::jsonb`;
  await database().update(shop).set({ rules }).where(eq(shop.id, shopId));
}
