import type { Person } from './people.ts';

/** Who may do what, by address and method; everything else asks no further. */

const open = ['/sign-in', '/theme', '/api/health', '/api/schema', '/p'];
/** What everybody may write who is signed in. */
const own = ['/me', '/sign-out'];
/** A lead's rooms; the shelf may be looked at by all. */
const leadsRooms = ['/people'];
const leadsWrites = ['/shelf', '/shop'];
/** Questions too long for an address: they write nothing. */
const questions = ['/api/assess'];
/** What runs or is fed is stopped by whoever stands by. */
const stop = /^\/api\/instruments\/[^/]+\/stop$/;

const within = (path: string, rooms: readonly string[]): boolean =>
  rooms.some((room) => path === room || path.startsWith(`${room}/`));

export interface Denial {
  readonly status: 401 | 403;
  readonly message: string;
}

/** Why this person (or nobody) may not do that; undefined when they may. */
export function denial(path: string, method: string, person: Person | undefined): Denial | undefined {
  if (within(path, open)) return undefined;
  if (!person) return { status: 401, message: 'Nobody is signed in here: sign in first.' };
  if (within(path, own) || stop.test(path)) return undefined;
  const writes = !['GET', 'HEAD', 'OPTIONS'].includes(method) && !within(path, questions);
  if (person.role !== 'lead' && (within(path, leadsRooms) || (writes && within(path, leadsWrites))))
    return { status: 403, message: `${person.name} is no lead: only a lead may do that.` };
  if (writes && person.role === 'viewer')
    return { status: 403, message: `${person.name} may look, not write: a technician must sign in.` };
  return undefined;
}
