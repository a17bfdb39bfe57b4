import { live } from '$lib/server/live.ts';
import { streamOf } from '$lib/server/stream.ts';

/** Server-sent events: the tag number of every job that changed. */
export const GET = () => streamOf((send) => live().subscribe((tag) => send(String(tag))));
