import { live } from '$lib/server/live.ts';
import { findTags, mostShown, rackOf } from '$lib/server/rack.ts';
import type { PageServerLoad } from './$types';

const longest = 80;

export const load: PageServerLoad = async ({ locals, url }) => {
  const asOf = live().number;
  const find = (url.searchParams.get('find') ?? '').trim().slice(0, longest);
  const tags = await (find ? findTags(locals.shop.id, find) : rackOf(locals.shop.id));
  return { person: locals.person!, asOf, find, tags, full: tags.length >= mostShown };
};
