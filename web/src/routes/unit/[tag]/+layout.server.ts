import { answered, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs.ts';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => ({
  person: event.locals.person!,
  job: await answered(() => findJob(event.locals.shop.id, tagOf(event as never))),
});
