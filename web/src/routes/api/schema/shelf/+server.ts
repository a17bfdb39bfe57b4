import { shelfFileJsonSchema } from '@refectum/core/record';
import { json } from '@sveltejs/kit';

/** The published schema of a shelf file. */
export const GET = () => json(shelfFileJsonSchema, { headers: { 'content-type': 'application/schema+json' } });
