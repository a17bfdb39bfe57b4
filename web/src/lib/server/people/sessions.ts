import type { Cookies } from '@sveltejs/kit';
import { addDays, addHours } from 'date-fns';
import { and, desc, eq, gt, lt } from 'drizzle-orm';
import type { Person } from '../../people.ts';
import { database } from '../db/connect.ts';
import { benchScreen, session, technician } from '../db/schema.ts';
import { freshToken, tokenHash } from './secrets.ts';

const sessionCookie = 'session';
const screenCookie = 'bench-screen';
/** A shift on a shared screen; a week where only one person looks. */
const benchHours = 12;
const elsewhereDays = 7;
const screenDays = 365;

interface Visit {
  readonly cookies: Cookies;
  readonly url: URL;
  readonly address: string;
}

const flags = ({ url }: Visit) =>
  ({ path: '/', httpOnly: true, sameSite: 'lax', secure: url.protocol === 'https:' }) as const;

/** Signs somebody in at this browser, and whoever was signed in before out. */
export async function openSession(visit: Visit, technicianId: string, atBench: boolean): Promise<void> {
  await closeSession(visit);
  const token = freshToken();
  const now = new Date();
  const expiresAt = atBench ? addHours(now, benchHours) : addDays(now, elsewhereDays);
  await database().delete(session).where(lt(session.expiresAt, now));
  await database()
    .insert(session)
    .values({ id: tokenHash(token), technicianId, openedAt: now, expiresAt, address: visit.address });
  visit.cookies.set(sessionCookie, token, { ...flags(visit), expires: expiresAt });
}

export async function closeSession(visit: Visit): Promise<void> {
  const token = visit.cookies.get(sessionCookie);
  if (token)
    await database()
      .delete(session)
      .where(eq(session.id, tokenHash(token)));
  visit.cookies.delete(sessionCookie, flags(visit));
}

/** Ends every session of somebody, at every browser. */
export const closeAllSessions = (technicianId: string): Promise<unknown> =>
  database().delete(session).where(eq(session.technicianId, technicianId));

/** Who is signed in at this browser. */
export async function signedIn(cookies: Cookies, shopId: string): Promise<Person | undefined> {
  const token = cookies.get(sessionCookie);
  if (!token) return undefined;
  const [found] = await database()
    .select({ id: technician.id, name: technician.name, role: technician.role })
    .from(session)
    .innerJoin(technician, eq(technician.id, session.technicianId))
    .where(
      and(
        eq(session.id, tokenHash(token)),
        gt(session.expiresAt, new Date()),
        eq(technician.shopId, shopId),
        eq(technician.left, false),
      ),
    );
  return found;
}

export interface OpenSession {
  readonly here: boolean;
  readonly openedAt: string;
  /** Network address; empty for the serving machine's own screen. */
  readonly address: string;
}

export async function sessionsOf(cookies: Cookies, technicianId: string): Promise<OpenSession[]> {
  const here = tokenHash(cookies.get(sessionCookie) ?? '');
  const rows = await database()
    .select()
    .from(session)
    .where(and(eq(session.technicianId, technicianId), gt(session.expiresAt, new Date())))
    .orderBy(desc(session.openedAt));
  return rows.map(({ id, openedAt, address }) => ({
    here: id === here,
    openedAt: openedAt.toISOString(),
    address: isLoopback(address) ? '' : address,
  }));
}

const loopback = /^(::1|(::ffff:)?127\.)/;
export const isLoopback = (address: string): boolean => loopback.test(address);

/** Whether this is a screen of the shop: the serving machine's own, or one that a lead made a bench screen. */
export async function atBenchScreen({ cookies, address }: Visit, shopId: string): Promise<boolean> {
  if (isLoopback(address)) return true;
  const token = cookies.get(screenCookie);
  if (!token) return false;
  const [found] = await database()
    .select({ id: benchScreen.id })
    .from(benchScreen)
    .where(and(eq(benchScreen.id, tokenHash(token)), eq(benchScreen.shopId, shopId)));
  return found !== undefined;
}

export async function makeBenchScreen(visit: Visit, shopId: string, technicianId: string, name: string): Promise<void> {
  const token = freshToken();
  const now = new Date();
  await database()
    .insert(benchScreen)
    .values({ id: tokenHash(token), shopId, name, madeAt: now, technicianId });
  visit.cookies.set(screenCookie, token, { ...flags(visit), expires: addDays(now, screenDays) });
}

export const listBenchScreens = (shopId: string): Promise<{ id: string; name: string; madeAt: Date }[]> =>
  database()
    .select({ id: benchScreen.id, name: benchScreen.name, madeAt: benchScreen.madeAt })
    .from(benchScreen)
    .where(eq(benchScreen.shopId, shopId))
    .orderBy(benchScreen.name);

export const forgetBenchScreen = (shopId: string, id: string): Promise<unknown> =>
  database()
    .delete(benchScreen)
    .where(and(eq(benchScreen.id, id), eq(benchScreen.shopId, shopId)));
