import { and, asc, eq, ne, sql } from 'drizzle-orm';
import type { InstrumentKind, LiveWord, ShopInstrument } from '../../instruments.ts';
import { database } from '../db/connect.ts';
import { instrument } from '../db/schema.ts';
import { metersOf } from '../meters.ts';
import { Refused } from '../refused.ts';
import { partWith, watchOf } from './watch.ts';

const columns = {
  id: instrument.id,
  name: instrument.name,
  kind: instrument.kind,
  host: instrument.host,
  port: instrument.port,
  meter: instrument.meter,
};

/** The shop's instruments at a port, by name. */
export const instrumentsOf = (shopId: string): Promise<readonly ShopInstrument[]> =>
  database().select(columns).from(instrument).where(eq(instrument.shopId, shopId)).orderBy(asc(instrument.name));

/** Whoever hears a shop's instruments, told when they are others or elsewhere. */
const hearing = new Set<(shopId: string) => void>();

/** Hears what the shop's instruments of some kinds read, wherever they are reached from time to time, until ended. */
export function hearShop(shopId: string, kinds: readonly InstrumentKind[], hear: (word: LiveWord) => void): () => void {
  /** By the instrument's id, what ends hearing it. */
  let ends: ReadonlyMap<string, () => void> = new Map();
  let newest = 0;
  const listen = async () => {
    const own = ++newest;
    const asked = (await instrumentsOf(shopId)).filter(({ kind }) => kinds.includes(kind));
    if (own !== newest) return;
    // The new before the old, each by an ear of its own: what is heard before and after isn't let go of between.
    const before = ends;
    ends = new Map(asked.map((one) => [one.id, watchOf(one).listen((word) => hear(word))]));
    before.forEach((end, id) => {
      end();
      if (!ends.has(id)) hear({ instrument: id, at: Date.now(), state: 'gone', why: 'the shop reaches it no more' });
    });
  };
  const anew = (changed: string) => {
    if (changed === shopId) listen().catch(console.error);
  };
  hearing.add(anew);
  anew(shopId);
  return () => {
    newest++;
    hearing.delete(anew);
    ends.forEach((end) => end());
  };
}

export async function instrumentOf(shopId: string, id: string): Promise<ShopInstrument> {
  const found = (await instrumentsOf(shopId)).find((one) => one.id === id);
  if (!found) throw new Refused(404, 'This shop has no such instrument: a lead enters it under Shop.');
  return found;
}

/** Allows an instrument to be reached, or at another address than before. */
export async function saveInstrument(shopId: string, by: string, entry: ShopInstrument): Promise<void> {
  if (entry.meter && !(await metersOf(shopId)).some(({ known, retired }) => known.id === entry.meter && !retired))
    throw new Refused(422, `This shop has no meter “${entry.meter}” in use: choose one of its own.`);
  const [same] = await database()
    .select({ name: instrument.name })
    .from(instrument)
    .where(
      and(
        eq(instrument.shopId, shopId),
        ne(instrument.id, entry.id),
        sql`lower(${instrument.name}) = ${entry.name.toLowerCase()}`,
      ),
    );
  if (same) throw new Refused(409, `There is an instrument called ${same.name} already: give this one another name.`);
  const { id, ...set } = { ...entry, changedAt: new Date(), changedBy: by };
  const kept = await database()
    .insert(instrument)
    .values({ id, shopId, ...set })
    .onConflictDoUpdate({ target: instrument.id, set, setWhere: eq(instrument.shopId, shopId) })
    .returning({ id: instrument.id });
  if (kept.length === 0) throw new Refused(409, 'This instrument belongs to another shop.');
  // One that doesn’t answer holds no save up.
  void partWith(id, entry);
  hearing.forEach((anew) => anew(shopId));
}

/** It may be reached no more. */
export async function forgetInstrument(shopId: string, id: string): Promise<void> {
  const gone = await database()
    .delete(instrument)
    .where(and(eq(instrument.shopId, shopId), eq(instrument.id, id)))
    .returning({ id: instrument.id });
  if (gone.length === 0) return;
  void partWith(id);
  hearing.forEach((anew) => anew(shopId));
}
