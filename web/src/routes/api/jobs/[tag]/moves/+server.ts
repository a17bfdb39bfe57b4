import type { RequestEvent } from '@sveltejs/kit';
import { moveSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { moveJob } from '$lib/server/jobs/index.ts';

export const POST = async (event: RequestEvent) => {
  const { note = '', ...entry } = await bodyOf(event, moveSchema);
  await answered(() => moveJob(event.locals.shop.id, tagOf(event), { ...entry, note }));
  return done();
};
