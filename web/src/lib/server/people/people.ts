import { randomUUID } from 'node:crypto';
import { and, asc, eq, isNotNull, or, sql } from 'drizzle-orm';
import type { Role } from '../../people.ts';
import { database, type Queryable } from '../db/connect.ts';
import { session, technician } from '../db/schema.ts';
import { Refused } from '../refused.ts';
import { hashOf } from './secrets.ts';

export interface Listed {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly hasPin: boolean;
  readonly hasPassword: boolean;
  readonly left: boolean;
}

export async function listPeople(shopId: string): Promise<Listed[]> {
  const rows = await database()
    .select()
    .from(technician)
    .where(eq(technician.shopId, shopId))
    .orderBy(asc(technician.name));
  return rows.map(({ id, name, role, pinHash, passwordHash, left }) => ({
    id,
    name,
    role,
    left,
    hasPin: pinHash !== null,
    hasPassword: passwordHash !== null,
  }));
}

/** Whether nobody can sign in yet: the first to come becomes the lead. */
export async function isUnmanned(shopId: string): Promise<boolean> {
  const [any] = await database()
    .select({ id: technician.id })
    .from(technician)
    .where(and(eq(technician.shopId, shopId), or(isNotNull(technician.pinHash), isNotNull(technician.passwordHash))))
    .limit(1);
  return any === undefined;
}

/** The first lead of a shop that has none; somebody of that name from earlier days becomes the lead. */
export async function makeFirstLead(shopId: string, name: string, pin: string, password: string): Promise<string> {
  const hashes = { pinHash: await hashOf(pin), passwordHash: await hashOf(password) };
  return database().transaction(async (db) => {
    await oneAtATime(db, shopId);
    if (!(await isUnmanned(shopId))) throw new Refused(409, 'The shop has a lead by now: sign in.');
    const [made] = await db
      .insert(technician)
      .values({ id: randomUUID(), shopId, name, role: 'lead', ...hashes })
      .onConflictDoUpdate({
        target: [technician.shopId, technician.name],
        set: { role: 'lead', left: false, ...hashes },
      })
      .returning({ id: technician.id });
    return made!.id;
  });
}

export async function addPerson(shopId: string, name: string, role: Role, pin: string): Promise<void> {
  const pinHash = await hashOf(pin);
  const made = await database()
    .insert(technician)
    .values({ id: randomUUID(), shopId, name, role, pinHash })
    .onConflictDoNothing()
    .returning({ id: technician.id });
  if (made.length === 0) throw new Refused(409, `There is a ${name} already: two would be one on the tape.`);
}

/** Changes what somebody may do; who leaves is signed out everywhere. A lead always remains. */
export async function changePerson(shopId: string, id: string, role: Role, left: boolean): Promise<void> {
  await database().transaction(async (db) => {
    await oneAtATime(db, shopId);
    await db.update(technician).set({ role, left }).where(ofShop(shopId, id));
    const [lead] = await db
      .select({ id: technician.id })
      .from(technician)
      .where(
        and(
          eq(technician.shopId, shopId),
          eq(technician.role, 'lead'),
          eq(technician.left, false),
          or(isNotNull(technician.pinHash), isNotNull(technician.passwordHash)),
        ),
      )
      .limit(1);
    if (!lead) throw new Refused(409, 'The shop needs a lead: make somebody else lead first.');
    if (left) await db.delete(session).where(eq(session.technicianId, id));
  });
}

/** Gives somebody a PIN or password, and signs them out everywhere. */
export async function giveSecret(
  shopId: string,
  id: string,
  secret: { readonly pin: string } | { readonly password: string },
): Promise<void> {
  const set = 'pin' in secret ? { pinHash: await hashOf(secret.pin) } : { passwordHash: await hashOf(secret.password) };
  await database().transaction(async (db) => {
    await db.update(technician).set(set).where(ofShop(shopId, id));
    await db.delete(session).where(eq(session.technicianId, id));
  });
}

const ofShop = (shopId: string, id: string) => and(eq(technician.id, id), eq(technician.shopId, shopId));
const oneAtATime = (db: Queryable, shopId: string) =>
  db.execute(sql`select pg_advisory_xact_lock(hashtext(${shopId}))`);
