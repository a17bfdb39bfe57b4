import type { RequestEvent } from '@sveltejs/kit';
import { decisionSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { assessJobHere } from '$lib/server/assess.ts';
import { addVerdict, findJob, jobFileOf } from '$lib/server/jobs.ts';

export const POST = async (event: RequestEvent) => {
  const entry = await bodyOf(event, decisionSchema);
  await answered(async () => {
    const job = await findJob(event.locals.shop.id, tagOf(event));
    const made = { jobFile: jobFileOf(job), assessment: assessJobHere(job) };
    await addVerdict(event.locals.shop.id, job.tag, entry, made);
  });
  return done();
};
