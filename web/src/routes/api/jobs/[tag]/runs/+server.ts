import type { RequestEvent } from '@sveltejs/kit';
import type { RunStep } from '$lib/run-log.ts';
import { runStepSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { addRunStep } from '$lib/server/jobs/index.ts';

export const POST = async (event: RequestEvent) => {
  const { step, ...entry } = await bodyOf(event, runStepSchema);
  await answered(() => addRunStep(event.locals.shop.id, tagOf(event), { ...entry, step: step as RunStep }));
  return done();
};
