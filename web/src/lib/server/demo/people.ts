import { eq } from 'drizzle-orm';
import { database } from '../db/connect.ts';
import { technician } from '../db/schema.ts';
import { fits } from '../people/secrets.ts';
import { type DemoPerson, demoShop } from './shop.ts';

/** Whether a demo person's PIN is still the demo's, by its hash. */
const known = new Map<string, boolean>();

/** PINs and passwords of the demo's people, for its sign-in page; empty outside the demo and once they were changed. */
export async function demoSecrets(shopId: string): Promise<readonly DemoPerson[]> {
  if (process.env.REFECTUM_DEMO !== '1') return [];
  const rows = await database().select().from(technician).where(eq(technician.shopId, shopId));
  const still: DemoPerson[] = [];
  for (const person of demoShop.people) {
    const pinHash = rows.find(({ name }) => name === person.name)?.pinHash;
    if (!pinHash) continue;
    if (!known.has(pinHash)) known.set(pinHash, await fits(person.pin, pinHash));
    if (known.get(pinHash)) still.push(person);
  }
  return still;
}
