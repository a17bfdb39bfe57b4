import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ locals, cookies }) => ({
  shop: locals.shop,
  person: locals.person,
  theme: cookies.get('theme') === 'night' ? ('night' as const) : ('day' as const),
});
