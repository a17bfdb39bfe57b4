import { addMinutes, format, subMinutes } from 'date-fns';
import { and, count, eq, gt, lt, max, sql } from 'drizzle-orm';
import type { Secret } from '../../people.ts';
import { database, type Queryable } from '../db/connect.ts';
import { technician, wrongTry } from '../db/schema.ts';
import { Refused } from '../refused.ts';
import { fits } from './secrets.ts';

/** Wrong tries that close the door, within so many minutes, and for as long. */
const mostForPerson = 5;
const mostFromAddress = 20;
const lockMinutes = 15;

interface Try {
  readonly shopId: string;
  /** Id of the person (PIN), or the name as typed (password). */
  readonly who: { readonly id: string } | { readonly name: string };
  readonly kind: Secret;
  readonly secret: string;
  readonly address: string;
}

/**
 * The person whose PIN or password it is. Wrong tries close the door for a while, for the person and for the address;
 * of one person, a password guessed at elsewhere leaves the PIN at the bench alone.
 *
 * @throws Refused 401 when it doesn't fit, 429 while the door is closed
 */
export async function whoseSecret({ shopId, who, kind, secret, address }: Try): Promise<string> {
  const db = database();
  const [found] = await db
    .select()
    .from(technician)
    .where(
      and(
        eq(technician.shopId, shopId),
        eq(technician.left, false),
        'id' in who ? eq(technician.id, who.id) : sql`lower(${technician.name}) = lower(${who.name.trim()})`,
      ),
    );
  const personId = found?.id ?? null;
  // Counted before it is compared: guesses sent side by side are all counted.
  const tryId = await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${personId ?? address}))`);
    await refuseWhileClosed(tx, personId, kind, address);
    const [row] = await tx
      .insert(wrongTry)
      .values({ technicianId: personId, secret: kind, address, at: new Date() })
      .returning({ id: wrongTry.id });
    return row!.id;
  });
  if (!(await fits(secret, kind === 'pin' ? found?.pinHash : found?.passwordHash)))
    throw new Refused(401, kind === 'pin' ? 'That is not the PIN.' : 'Name and password do not fit together.');
  await db.delete(wrongTry).where(eq(wrongTry.id, tryId));
  if (personId) await db.delete(wrongTry).where(and(eq(wrongTry.technicianId, personId), eq(wrongTry.secret, kind)));
  return found!.id;
}

async function refuseWhileClosed(tx: Queryable, personId: string | null, kind: Secret, address: string): Promise<void> {
  const since = subMinutes(new Date(), lockMinutes);
  await tx.delete(wrongTry).where(lt(wrongTry.at, since));
  const triesOf = async (...where: Parameters<typeof and>) => {
    const [row] = await tx
      .select({ tries: count(), last: max(wrongTry.at) })
      .from(wrongTry)
      .where(and(gt(wrongTry.at, since), ...where));
    return row!;
  };
  const ofPerson = personId
    ? await triesOf(eq(wrongTry.technicianId, personId), eq(wrongTry.secret, kind))
    : { tries: 0, last: null };
  const fromHere = await triesOf(eq(wrongTry.address, address));
  const closed = [
    ...(ofPerson.tries >= mostForPerson ? [ofPerson.last!] : []),
    ...(fromHere.tries >= mostFromAddress ? [fromHere.last!] : []),
  ];
  if (closed.length === 0) return;
  const again = addMinutes(Math.max(...closed.map(Number)), lockMinutes);
  throw new Refused(429, `Too many wrong tries: the door is closed until ${format(again, 'HH:mm')}.`);
}
