import { json, type RequestEvent } from '@sveltejs/kit';
import { answered, tagOf } from '$lib/server/answer.ts';
import { assessJobHere } from '$lib/server/assess.ts';
import { findJob } from '$lib/server/jobs.ts';

/** Belief, next checks and verdict, worked out on the server. */
export const GET = async (event: RequestEvent) =>
  json(assessJobHere(await answered(() => findJob(event.locals.shop.id, tagOf(event)))));
