import { jobFileJsonSchema } from '@refectum/core/record';
import { json } from '@sveltejs/kit';

/** The published schema of a job file. */
export const GET = () => json(jobFileJsonSchema, { headers: { 'content-type': 'application/schema+json' } });
