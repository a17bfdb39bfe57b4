import { json, type RequestEvent } from '@sveltejs/kit';
import { instrumentsOf } from '$lib/server/instruments/shop.ts';

/** What the shop has at a network port. */
export const GET = async ({ locals }: RequestEvent) => json(await instrumentsOf(locals.shop.id));
