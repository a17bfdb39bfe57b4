import { redirect, type RequestEvent } from '@sveltejs/kit';
import { backTo } from '$lib/back-to.ts';

const aYear = 60 * 60 * 24 * 365;

/** Day or night, remembered on this screen. */
export const POST = async ({ request, cookies, url }: RequestEvent) => {
  const form = await request.formData();
  const theme = form.get('theme') === 'night' ? 'night' : 'day';
  cookies.set('theme', theme, { path: '/', maxAge: aYear, sameSite: 'lax', secure: url.protocol === 'https:' });
  throw redirect(303, backTo(form));
};
