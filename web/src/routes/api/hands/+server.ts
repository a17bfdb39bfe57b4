import type { RequestEvent } from '@sveltejs/kit';
import { handsSchema } from '$lib/instruments.ts';
import { answered, bodyOf, done } from '$lib/server/answer.ts';
import { moveHands } from '$lib/server/simulated-bench.ts';

/** Moves the probes of the simulated bench; there is one with the demo only. */
export const POST = async (event: RequestEvent) => {
  const hands = await bodyOf(event, handsSchema);
  await answered(() => moveHands(event.locals.shop.id, hands));
  return done();
};
