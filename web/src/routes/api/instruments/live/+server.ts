import type { RequestEvent } from '@sveltejs/kit';
import type { InstrumentKind } from '$lib/instruments.ts';
import { instrumentsOf } from '$lib/server/instruments/shop.ts';
import { watchOf } from '$lib/server/instruments/watch.ts';
import { streamOf } from '$lib/server/stream.ts';

/** Server-sent events: what the shop's instruments read, those of the kinds asked for, as they read it. */
export const GET = async ({ locals, url }: RequestEvent) => {
  const kinds = (url.searchParams.get('kinds') ?? '').split(',') as InstrumentKind[];
  const asked = (await instrumentsOf(locals.shop.id)).filter(({ kind }) => kinds.includes(kind));
  return streamOf((send) => {
    const leave = asked.map((instrument) => watchOf(instrument).listen((word) => send(JSON.stringify(word))));
    return () => leave.forEach((end) => end());
  });
};
