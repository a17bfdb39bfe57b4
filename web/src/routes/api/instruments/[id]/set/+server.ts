import type { RequestEvent } from '@sveltejs/kit';
import { settingSchema } from '$lib/instruments.ts';
import { answered, bodyOf, done } from '$lib/server/answer.ts';
import { needLightToFeed, needRelease } from '$lib/server/gate.ts';
import { instrumentOf } from '$lib/server/instruments/shop.ts';
import { watchOf } from '$lib/server/instruments/watch.ts';
import { Refused } from '$lib/server/refused.ts';

/** Sets an instrument. Whatever begins to turn, load or feed a unit asks for its light first. */
export const POST = async (event: RequestEvent) => {
  const setting = await bodyOf(event, settingSchema);
  const shopId = event.locals.shop.id;
  await answered(async () => {
    const instrument = await instrumentOf(shopId, event.params.id!);
    const { kind } = instrument;
    const turns = (kind === 'stand' && (setting.rpm ?? 0) > 0) || (kind === 'load' && setting.on !== false);
    const feeds = kind === 'supply' && setting.on === true;
    await watchOf(instrument).set(setting, async () => {
      if (!turns && !feeds) return;
      if (setting.tag === undefined) throw new Refused(422, 'Which unit turns or is fed? Its tag belongs to this.');
      await (turns ? needRelease : needLightToFeed)(shopId, setting.tag);
    });
  });
  return done();
};
