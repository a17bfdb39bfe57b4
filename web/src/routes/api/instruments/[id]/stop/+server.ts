import type { RequestEvent } from '@sveltejs/kit';
import { answered, done } from '$lib/server/answer.ts';
import { instrumentOf } from '$lib/server/instruments/shop.ts';
import { watchOf } from '$lib/server/instruments/watch.ts';

/** Takes an instrument back to where it harms nobody. Whoever is signed in may, and nothing is asked first. */
export const POST = async (event: RequestEvent) => {
  await answered(async () => {
    const instrument = await instrumentOf(event.locals.shop.id, event.params.id!);
    await watchOf(instrument).stop();
  });
  return done();
};
