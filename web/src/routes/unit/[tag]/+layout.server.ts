import { answered, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs.ts';
import { shelvedAs } from '$lib/server/shelf.ts';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => {
  const { shop, person } = event.locals;
  const job = await answered(() => findJob(shop.id, tagOf(event as never)));
  /** What the shelf has of its model. */
  const [shelved] = await shelvedAs(shop.id, { is: job.model });
  return { person: person!, job, shelved };
};
