import { type ActionFailure, fail, redirect, type RequestEvent } from '@sveltejs/kit';
import { ownPasswordSchema, ownPinSchema } from '$lib/people.ts';
import { formOf, type FormProblems } from '$lib/server/answer.ts';
import { giveSecret } from '$lib/server/people/people.ts';
import { atBenchScreen, closeAllSessions, openSession, sessionsOf } from '$lib/server/people/sessions.ts';
import { whoseSecret } from '$lib/server/people/sign-in.ts';
import { visitOf } from '$lib/server/people/visit.ts';
import { Refused } from '$lib/server/refused.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, cookies }) => ({
  person: locals.person!,
  sessions: await sessionsOf(cookies, locals.person!.id),
});

/** Gives a new PIN or password to whoever knows the old one; signed in stays only this browser. */
async function renew(
  event: RequestEvent,
  old: string,
  secret: { readonly pin: string } | { readonly password: string },
): Promise<ActionFailure<FormProblems & { form: string }> | { changed: string }> {
  const { locals } = event;
  const { id } = locals.person!;
  const visit = visitOf(event);
  // A PIN is digits and short, a password is longer.
  const kind = /^\d{4,8}$/.test(old) ? 'pin' : 'password';
  const form = 'pin' in secret ? 'pin' : 'password';
  try {
    await whoseSecret({ shopId: locals.shop.id, who: { id }, kind, secret: old, address: visit.address });
  } catch (cause) {
    if (!(cause instanceof Refused)) throw cause;
    return fail(cause.status, { problems: { old: cause.message }, form });
  }
  await giveSecret(locals.shop.id, id, secret);
  await openSession(visit, id, await atBenchScreen(visit, locals.shop.id));
  return { changed: `The new ${'pin' in secret ? 'PIN' : 'password'} holds. Every other screen is signed out.` };
}

export const actions: Actions = {
  pin: async (event) => {
    const read = await formOf(event, ownPinSchema);
    if ('problems' in read) return fail(422, { ...read, form: 'pin' });
    return renew(event, read.values.old, { pin: read.values.pin });
  },
  password: async (event) => {
    const read = await formOf(event, ownPasswordSchema);
    if ('problems' in read) return fail(422, { ...read, form: 'password' });
    return renew(event, read.values.old, { password: read.values.password });
  },
  everywhere: async ({ locals }) => {
    await closeAllSessions(locals.person!.id);
    throw redirect(303, '/sign-in');
  },
};
