import { listJobs } from '$lib/server/jobs.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({ jobs: await listJobs(locals.shop.id) });
