import type { RequestEvent } from '@sveltejs/kit';
import { settingSchema } from '$lib/instruments.ts';
import { answered, bodyOf, done } from '$lib/server/answer.ts';
import { needRelease } from '$lib/server/gate.ts';
import { instrumentOf } from '$lib/server/instruments/shop.ts';
import { watchOf } from '$lib/server/instruments/watch.ts';
import { Refused } from '$lib/server/refused.ts';

/** Sets an instrument. Whatever begins to turn or load a unit asks for its light first; stopping never does. */
export const POST = async (event: RequestEvent) => {
  const setting = await bodyOf(event, settingSchema);
  const shopId = event.locals.shop.id;
  await answered(async () => {
    const instrument = await instrumentOf(shopId, event.params.id!);
    const begins =
      (instrument.kind === 'stand' && (setting.rpm ?? 0) > 0) || (instrument.kind === 'load' && setting.on !== false);
    if (begins) {
      if (setting.tag === undefined) throw new Refused(422, 'Which unit turns? Its tag belongs to this.');
      await needRelease(shopId, setting.tag);
    }
    await watchOf(instrument).set(setting);
  });
  return done();
};
