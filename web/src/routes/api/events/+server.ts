import type { RequestEvent } from '@sveltejs/kit';
import { live } from '$lib/server/live.ts';
import { streamOf } from '$lib/server/stream.ts';

/** Server-sent events: the tag number of every job that changed since a change's number, and changes from now on. */
export const GET = ({ request, url }: RequestEvent) => {
  const since = Number(request.headers.get('last-event-id') ?? url.searchParams.get('since') ?? NaN);
  return streamOf((send) => {
    const tell = (tag: number) => send(String(tag), live().number);
    live().since(since).forEach(tell);
    return live().subscribe(tell);
  });
};
