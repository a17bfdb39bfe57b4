import { redirect, type RequestEvent } from '@sveltejs/kit';
import { closeSession } from '$lib/server/people/sessions.ts';
import { visitOf } from '$lib/server/people/visit.ts';

export const POST = async (event: RequestEvent) => {
  await closeSession(visitOf(event));
  throw redirect(303, '/sign-in');
};
