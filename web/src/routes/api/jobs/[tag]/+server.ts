import { error, json, type RequestEvent } from '@sveltejs/kit';
import { benchChangeSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { needGreen } from '$lib/server/gate.ts';
import { jobFileOf } from '$lib/server/job-file.ts';
import { changeJob, findJob } from '$lib/server/jobs/index.ts';

/** The job as a file in the open format. */
export const GET = async (event: RequestEvent) => {
  const job = await answered(() => findJob(event.locals.shop.id, tagOf(event)));
  return json(jobFileOf(job), { headers: { 'content-disposition': `inline; filename="tag-${job.tag}.json"` } });
};

export const PATCH = async (event: RequestEvent) => {
  const { technician, ...change } = await bodyOf(event, benchChangeSchema);
  const { person } = event.locals;
  if (change.knownGood !== undefined && person!.role !== 'lead')
    throw error(403, `${person!.name} is no lead: only a lead vouches for a unit.`);
  await answered(async () => {
    const { id } = event.locals.shop;
    if (change.assembly !== undefined) await needGreen(id, tagOf(event), change.assembly);
    await changeJob(id, tagOf(event), technician, change);
  });
  return done();
};
