import { redirect, type RequestEvent } from '@sveltejs/kit';
import { backTo } from '$lib/back-to.ts';

const aYear = 60 * 60 * 24 * 365;

/** Remembers on this screen who works at it. */
export const POST = async ({ request, cookies, url }: RequestEvent) => {
  const form = await request.formData();
  const id = String(form.get('technician') ?? '');
  cookies.set('technician', id, { path: '/', maxAge: aYear, sameSite: 'lax', secure: url.protocol === 'https:' });
  throw redirect(303, backTo(form));
};
