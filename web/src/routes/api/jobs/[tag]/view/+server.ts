import { json, type RequestEvent } from '@sveltejs/kit';
import { answered, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs/index.ts';

/** The job as the bench shows it: who took each reading, what was struck, what was decided. */
export const GET = async (event: RequestEvent) =>
  json(await answered(() => findJob(event.locals.shop.id, tagOf(event))));
