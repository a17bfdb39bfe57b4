import { randomUUID } from 'node:crypto';
import { error, json, type RequestEvent } from '@sveltejs/kit';
import { benchChangeSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { needGreen } from '$lib/server/gate.ts';
import { jobFileOf } from '$lib/server/job-file.ts';
import { changeJob, findJob, isChanged } from '$lib/server/jobs/index.ts';

/** The job as a file in the open format. */
export const GET = async (event: RequestEvent) => {
  const job = await answered(() => findJob(event.locals.shop.id, tagOf(event)));
  return json(jobFileOf(job), { headers: { 'content-disposition': `inline; filename="tag-${job.tag}.json"` } });
};

export const PATCH = async (event: RequestEvent) => {
  const { id = randomUUID(), ...change } = await bodyOf(event, benchChangeSchema);
  const { person } = event.locals;
  if (change.knownGood !== undefined && person!.role !== 'lead')
    throw error(403, `${person!.name} is no lead: only a lead vouches for a unit.`);
  await answered(async () => {
    const { shop } = event.locals;
    if (change.assembly !== undefined && !(await isChanged(id)))
      await needGreen(shop.id, tagOf(event), change.assembly);
    await changeJob(shop.id, tagOf(event), { id, ...change });
  });
  return done();
};
