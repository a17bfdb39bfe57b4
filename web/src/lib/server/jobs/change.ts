import { familyOf } from '@refectum/core/machines';
import { eq } from 'drizzle-orm';
import { soundSetting } from '../../schemas.ts';
import { type BenchChange, settingAfter } from '../../setting.ts';
import { database } from '../db/connect.ts';
import { change, job } from '../db/schema.ts';
import { announce } from '../live.ts';
import { needMeter } from '../meters.ts';
import { Refused } from '../refused.ts';
import { needJob } from './row.ts';

/** Whether a change was made already: sent once more it is none. */
export const isChanged = async (id: string): Promise<boolean> =>
  (await database().$count(change, eq(change.id, id))) > 0;

/** Changes what describes the bench or the prices; the same id twice is one change. */
export async function changeJob(
  shopId: string,
  tag: number,
  { id, technician, ...asked }: BenchChange & { readonly id: string; readonly technician: string },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    const written = { id, jobId: row.id, asked, changedAt: new Date(), technicianId: technician };
    if ((await db.insert(change).values(written).onConflictDoNothing().returning()).length === 0) return;
    if (asked.meter !== undefined) await needMeter(shopId, asked.meter, db);
    const states = familyOf(row.machine).assemblies.map((state) => state.id);
    if (asked.assembly !== undefined && !states.includes(asked.assembly)) {
      throw new Refused(422, `“${asked.assembly}” is no state of assembly: one of ${states.join(', ')}.`);
    }
    const { knownGood = row.knownGood, ...rest } = asked;
    const after = settingAfter(row, rest, row.machine);
    const { assembly, meter, celsius } = after;
    // What was kept before today's rules bars no other change.
    const { prices, vehicle } = asked.prices || asked.vehicle ? soundSetting(after) : after;
    await db
      .update(job)
      .set({ assembly, meter, celsius, prices, vehicle, knownGood, changedAt: new Date(), changedBy: technician })
      .where(eq(job.id, row.id));
    await announce(db, tag);
  });
}
