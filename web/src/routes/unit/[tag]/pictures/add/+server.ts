import type { RequestEvent } from '@sveltejs/kit';
import { answered, done, pictureOf, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs/index.ts';
import { addPicture } from '$lib/server/pictures.ts';

export const POST = async (event: RequestEvent) => {
  const entry = await pictureOf(event);
  await answered(async () => {
    const { id } = await findJob(event.locals.shop.id, tagOf(event));
    await addPicture(id, event.locals.person!.id, entry);
  });
  return done();
};
