import type { RequestEvent } from '@sveltejs/kit';
import type { InstrumentKind } from '$lib/instruments.ts';
import { hearShop } from '$lib/server/instruments/shop.ts';
import { streamOf } from '$lib/server/stream.ts';

/** Server-sent events: what the shop's instruments read, those of the kinds asked for, as they read it. */
export const GET = ({ locals, url }: RequestEvent) => {
  const kinds = (url.searchParams.get('kinds') ?? '').split(',') as InstrumentKind[];
  return streamOf((send) => hearShop(locals.shop.id, kinds, (word) => send(JSON.stringify(word))));
};
