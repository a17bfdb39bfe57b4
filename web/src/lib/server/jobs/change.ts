import { familyOf } from '@refectum/core/machines';
import { eq } from 'drizzle-orm';
import { soundSetting } from '../../schemas.ts';
import { settingAfter, type SettingChange } from '../../setting.ts';
import { database } from '../db/connect.ts';
import { job } from '../db/schema.ts';
import { announce } from '../live.ts';
import { needMeter } from '../meters.ts';
import { Refused } from '../refused.ts';
import { needJob } from './row.ts';

type BenchChange = SettingChange & { readonly knownGood?: boolean | undefined };

/** Changes what describes the bench or the prices. */
export async function changeJob(shopId: string, tag: number, technicianId: string, change: BenchChange): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    if (change.meter !== undefined) await needMeter(shopId, change.meter, db);
    const states = familyOf(row.machine).assemblies.map((state) => state.id);
    if (change.assembly !== undefined && !states.includes(change.assembly)) {
      throw new Refused(422, `“${change.assembly}” is no state of assembly: one of ${states.join(', ')}.`);
    }
    const { knownGood = row.knownGood, ...rest } = change;
    const after = settingAfter(row, rest, row.machine);
    const { assembly, meter, celsius } = after;
    // What was kept before today's rules bars no other change.
    const { prices, vehicle } = change.prices || change.vehicle ? soundSetting(after) : after;
    await db
      .update(job)
      .set({ assembly, meter, celsius, prices, vehicle, knownGood, changedAt: new Date(), changedBy: technicianId })
      .where(eq(job.id, row.id));
    await announce(db, tag);
  });
}
