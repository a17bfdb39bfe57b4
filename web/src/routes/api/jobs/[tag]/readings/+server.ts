import type { RequestEvent } from '@sveltejs/kit';
import { readingEntrySchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { addReading } from '$lib/server/jobs/index.ts';

export const POST = async (event: RequestEvent) => {
  const entry = await bodyOf(event, readingEntrySchema);
  await answered(() => addReading(event.locals.shop.id, tagOf(event), entry));
  return done();
};
