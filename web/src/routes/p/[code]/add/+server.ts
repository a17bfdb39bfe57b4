import type { RequestEvent } from '@sveltejs/kit';
import { answered, done, pictureOf } from '$lib/server/answer.ts';
import { addPicture, pictureCodeFor } from '$lib/server/pictures.ts';

/** A picture from a phone that has a code. */
export const POST = async (event: RequestEvent) => {
  const { jobId, technicianId } = await answered(() => pictureCodeFor(event.params.code!));
  const entry = await pictureOf(event);
  await answered(() => addPicture(jobId, technicianId, entry));
  return done();
};
