import { letterOf } from '$lib/letter.ts';
import { assessVehicleHere } from '$lib/server/assess.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { job } = await parent();
  return { letter: letterOf(job, assessVehicleHere(job)) };
};
