import type { RequestEvent } from '@sveltejs/kit';
import { decisionSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { jobFileOf } from '$lib/server/job-file.ts';
import { addVerdict, findJob } from '$lib/server/jobs/index.ts';
import { assess } from '$lib/server/reasoning/index.ts';

export const POST = async (event: RequestEvent) => {
  const entry = await bodyOf(event, decisionSchema);
  await answered(async () => {
    const job = await findJob(event.locals.shop.id, tagOf(event));
    const made = { jobFile: jobFileOf(job), assessment: await assess(job) };
    await addVerdict(event.locals.shop.id, job.tag, entry, made);
  });
  return done();
};
