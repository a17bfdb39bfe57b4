import { letterOf } from '$lib/letter.ts';
import { assessVehicle } from '$lib/server/reasoning/index.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { job } = await parent();
  return { letter: letterOf(job, await assessVehicle(job)) };
};
