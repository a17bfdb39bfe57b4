import { gate } from '$lib/server/reasoning/index.ts';
import type { PageServerLoad } from './$types';

/** The light is asked again before anything turns: worked out now, so that nobody waits for it then. */
export const load: PageServerLoad = async ({ parent }) => {
  const { job } = await parent();
  // What goes wrong here is told when the light is asked for.
  gate(job).catch(() => undefined);
};
