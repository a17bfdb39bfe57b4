import type { RequestEvent } from '@sveltejs/kit';
import { strikeSchema } from '$lib/schemas.ts';
import { answered, bodyOf, done, tagOf } from '$lib/server/answer.ts';
import { strikeReading } from '$lib/server/jobs/index.ts';

export const POST = async (event: RequestEvent) => {
  const entry = await bodyOf(event, strikeSchema);
  await answered(() => strikeReading(event.locals.shop.id, tagOf(event), entry));
  return done();
};
