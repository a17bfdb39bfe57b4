import type { DrainStep } from '@refectum/core/vehicle';
import type { RequestEvent } from '@sveltejs/kit';
import { drainStepSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { addDrainStep } from '$lib/server/jobs/index.ts';

export const POST = async (event: RequestEvent) => {
  const { step, ...entry } = await bodyOf(event, drainStepSchema);
  await answered(() => addDrainStep(event.locals.shop.id, tagOf(event), { ...entry, step: step as DrainStep }));
  return done();
};
