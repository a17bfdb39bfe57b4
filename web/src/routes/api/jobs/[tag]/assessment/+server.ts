import { json, type RequestEvent } from '@sveltejs/kit';
import { answered, tagOf } from '$lib/server/answer.ts';
import { assess } from '$lib/server/reasoning/index.ts';
import { findJob } from '$lib/server/jobs/index.ts';

/** Belief, next checks and verdict, worked out on the server. */
export const GET = async (event: RequestEvent) =>
  json(await assess(await answered(() => findJob(event.locals.shop.id, tagOf(event)))));
