import { listTechnicians } from '$lib/server/jobs.ts';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async ({ locals, cookies }) => ({
  shop: locals.shop,
  technician: locals.technician,
  technicians: await listTechnicians(locals.shop.id),
  theme: cookies.get('theme') === 'night' ? ('night' as const) : ('day' as const),
});
