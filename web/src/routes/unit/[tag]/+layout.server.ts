import { answered, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs/index.ts';
import { live } from '$lib/server/live.ts';
import { knownGoodReadings } from '$lib/server/known-good.ts';
import { recentNulls } from '$lib/server/meters.ts';
import { shelvedAs } from '$lib/server/shelf.ts';
import { instrumentsOf } from '$lib/server/instruments/shop.ts';
import { rulesOf } from '$lib/server/shop.ts';
import { standInsPort } from '$lib/server/simulated-bench.ts';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => {
  const { shop, person } = event.locals;
  const asOf = live().number;
  const job = await answered(() => findJob(shop.id, tagOf(event as never)));
  const [[shelved], knownGood, nulls, rules, instruments] = await Promise.all([
    /** What the shelf has of its model. */
    shelvedAs(shop.id, { is: job.model }),
    knownGoodReadings(shop.id, job.model, job.tag),
    recentNulls(shop.id, job.tag),
    rulesOf(shop.id),
    instrumentsOf(shop.id),
  ]);
  return {
    person: person!,
    asOf,
    job,
    shelved,
    knownGood,
    nulls,
    rules,
    instruments,
    simulated: standInsPort() !== undefined,
  };
};
