import { json, type RequestEvent } from '@sveltejs/kit';
import { captureSchema } from '$lib/instruments.ts';
import { answered, bodyOf } from '$lib/server/answer.ts';
import { instrumentOf } from '$lib/server/instruments/shop.ts';
import { watchOf } from '$lib/server/instruments/watch.ts';
import { Refused } from '$lib/server/refused.ts';

/** A trace of the oscilloscope: volts at the post and the clamp's amperes, at equal steps of time. */
export const POST = async (event: RequestEvent) => {
  const { seconds, points, tap } = await bodyOf(event, captureSchema);
  return json(
    await answered(async () => {
      const instrument = await instrumentOf(event.locals.shop.id, event.params.id!);
      if (instrument.kind !== 'oscilloscope') throw new Refused(422, `${instrument.name} is no oscilloscope.`);
      return watchOf(instrument).capture(seconds, points, tap);
    }),
  );
};
