import { JobFileError, readJobFile } from '@refectum/core/record';
import { error, json, type RequestEvent } from '@sveltejs/kit';
import { assessFile } from '$lib/server/reasoning/index.ts';

/** Reasons about a job file and keeps nothing of it: belief, explanation, next checks, verdict. */
export const POST = async ({ request }: RequestEvent) => {
  try {
    return json(await assessFile(readJobFile(await request.text())));
  } catch (cause) {
    // A job file names checks, meters and complaints that only the reasoning knows.
    if (cause instanceof JobFileError || cause instanceof RangeError) throw error(422, cause.message);
    throw cause;
  }
};
