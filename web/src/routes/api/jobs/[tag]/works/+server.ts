import type { RequestEvent } from '@sveltejs/kit';
import { workEntrySchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { addWork } from '$lib/server/jobs/index.ts';

export const POST = async (event: RequestEvent) => {
  const entry = await bodyOf(event, workEntrySchema);
  await answered(() => addWork(event.locals.shop.id, tagOf(event), entry));
  return done();
};
