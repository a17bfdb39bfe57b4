import { fail, redirect, type RequestEvent } from '@sveltejs/kit';
import { backTo } from '$lib/back-to.ts';
import { firstLeadSchema } from '$lib/people.ts';
import { formOf, isId } from '$lib/server/answer.ts';
import { demoSecrets } from '$lib/server/demo/people.ts';
import { isUnmanned, listPeople, makeFirstLead } from '$lib/server/people/people.ts';
import { atBenchScreen, isLoopback, openSession } from '$lib/server/people/sessions.ts';
import { whoseSecret } from '$lib/server/people/sign-in.ts';
import { visitOf } from '$lib/server/people/visit.ts';
import { Refused } from '$lib/server/refused.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
  const { locals, url } = event;
  const visit = visitOf(event);
  const unmanned = await isUnmanned(locals.shop.id);
  const atBench = await atBenchScreen(visit, locals.shop.id);
  const people = atBench ? await listPeople(locals.shop.id) : [];
  return {
    back: url.searchParams.get('back') ?? '/',
    /** Nobody can sign in yet; whether the first lead may be made from here. */
    unmanned: unmanned ? (isLoopback(visit.address) ? 'here' : 'elsewhere') : undefined,
    atBench,
    names: people.filter(({ left, hasPin }) => hasPin && !left).map(({ id, name }) => ({ id, name })),
    earlier: unmanned ? people.map(({ name }) => name) : [],
    demo: atBench ? await demoSecrets(locals.shop.id) : [],
  };
};

/** Signs in who the secret belongs to, or says why not. */
async function enter(event: RequestEvent, form: FormData, whose: () => Promise<string>, atBench: boolean) {
  try {
    await openSession(visitOf(event), await whose(), atBench);
  } catch (cause) {
    if (!(cause instanceof Refused)) throw cause;
    return fail(cause.status, { problem: cause.message, who: String(form.get('who') ?? '') });
  }
  throw redirect(303, backTo(form));
}

export const actions: Actions = {
  pin: async (event) => {
    const { locals, request } = event;
    const form = await request.formData();
    const { address, ...rest } = visitOf(event);
    if (!(await atBenchScreen({ address, ...rest }, locals.shop.id)))
      return fail(403, {
        problem: 'A PIN is taken on the shop’s own screens only: sign in with your password.',
        who: '',
      });
    const id = String(form.get('who') ?? '');
    if (!isId(id)) return fail(422, { problem: 'Pick your name first.', who: '' });
    const secret = String(form.get('pin') ?? '');
    const whose = () => whoseSecret({ shopId: locals.shop.id, who: { id }, kind: 'pin', secret, address });
    return enter(event, form, whose, true);
  },
  password: async (event) => {
    const { locals, request } = event;
    const form = await request.formData();
    const name = String(form.get('name') ?? '');
    const secret = String(form.get('password') ?? '').slice(0, 200);
    const { address } = visitOf(event);
    const whose = () => whoseSecret({ shopId: locals.shop.id, who: { name }, kind: 'password', secret, address });
    return enter(event, form, whose, false);
  },
  first: async (event) => {
    const { locals, getClientAddress } = event;
    if (!isLoopback(getClientAddress()))
      return fail(403, { problem: 'The first lead is made at the machine that serves.', who: '' });
    const read = await formOf(event, firstLeadSchema);
    if ('problems' in read) return fail(422, { ...read, who: '' });
    const { name, pin, password } = read.values;
    return enter(event, new FormData(), () => makeFirstLead(locals.shop.id, name, pin, password), true);
  },
};
