import { error, json, type RequestEvent } from '@sveltejs/kit';
import { knownCustomers, knownModels, seenBefore } from '$lib/server/known.ts';

const longest = 80;

/** What earlier jobs know: `?customer=`, `?model=` by how they begin, `?serial=` whole. */
export const GET = async ({ url, locals }: RequestEvent) => {
  const asked = ['customer', 'model', 'serial'].flatMap((what) => {
    const text = url.searchParams.get(what)?.trim();
    return text ? [{ what, text: text.slice(0, longest) }] : [];
  });
  if (asked.length !== 1) throw error(400, 'Ask for one of customer, model or serial.');
  const { what, text } = asked[0]!;
  const shop = locals.shop.id;
  if (what === 'customer') return json(await knownCustomers(shop, text));
  return json(await (what === 'model' ? knownModels(shop, text) : seenBefore(shop, text)));
};
