import { assessJob } from '@refectum/core/assess';
import { JobFileError, readJobFile } from '@refectum/core/record';
import { error, json, type RequestEvent } from '@sveltejs/kit';

/** Reasons about a job file and keeps nothing of it: belief, explanation, next checks, verdict. */
export const POST = async ({ request }: RequestEvent) => {
  try {
    return json(assessJob(readJobFile(await request.text())));
  } catch (cause) {
    // A job file names checks, meters and complaints that only the reasoning knows.
    if (cause instanceof JobFileError || cause instanceof RangeError) throw error(422, cause.message);
    throw cause;
  }
};
