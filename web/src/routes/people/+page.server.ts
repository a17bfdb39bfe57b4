import { type ActionFailure, fail, type RequestEvent } from '@sveltejs/kit';
import type { AnyObjectSchema, InferType } from 'yup';
import {
  forgetScreenSchema,
  givenPasswordSchema,
  givenPinSchema,
  newPersonSchema,
  personChangeSchema,
  screenSchema,
  signOutSchema,
} from '$lib/people.ts';
import { formOf } from '$lib/server/answer.ts';
import { addPerson, changePerson, giveSecret, listPeople } from '$lib/server/people/people.ts';
import {
  atBenchScreen,
  closeAllSessions,
  forgetBenchScreen,
  isLoopback,
  listBenchScreens,
  makeBenchScreen,
} from '$lib/server/people/sessions.ts';
import { visitOf } from '$lib/server/people/visit.ts';
import { Refused } from '$lib/server/refused.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
  const { locals, getClientAddress } = event;
  return {
    person: locals.person!,
    people: await listPeople(locals.shop.id),
    screens: await listBenchScreens(locals.shop.id),
    here: isLoopback(getClientAddress())
      ? ('serving' as const)
      : (await atBenchScreen(visitOf(event), locals.shop.id))
        ? ('bench' as const)
        : ('elsewhere' as const),
  };
};

type Told = { readonly problem: string } | { readonly done: string };

/** An action with its form: reads it by the schema, does it, tells what was done or what is wrong. */
const act =
  <S extends AnyObjectSchema>(
    schema: S,
    work: (values: InferType<S>, event: RequestEvent) => Promise<string>,
  ): ((event: RequestEvent) => Promise<Told | ActionFailure<Told>>) =>
  async (event) => {
    const read = await formOf(event, schema);
    if ('problems' in read) return fail(422, { problem: `${Object.values(read.problems).join('. ')}.` });
    try {
      return { done: await work(read.values, event) };
    } catch (cause) {
      if (!(cause instanceof Refused)) throw cause;
      return fail(cause.status, { problem: cause.message });
    }
  };

export const actions: Actions = {
  add: act(newPersonSchema, async ({ name, role, pin }, { locals }) => {
    await addPerson(locals.shop.id, name, role, pin);
    return `${name} can sign in.`;
  }),
  change: act(personChangeSchema, async ({ id, role, left }, { locals }) => {
    await changePerson(locals.shop.id, id, role, left === 'yes');
    return left ? 'Gone, and signed out everywhere. The name stays on the tapes.' : 'Changed.';
  }),
  pin: act(givenPinSchema, async ({ id, pin }, { locals }) => {
    await giveSecret(locals.shop.id, id, { pin });
    return 'The new PIN holds; they are signed out everywhere.';
  }),
  password: act(givenPasswordSchema, async ({ id, password }, { locals }) => {
    await giveSecret(locals.shop.id, id, { password });
    return 'The new password holds; they are signed out everywhere.';
  }),
  out: act(signOutSchema, async ({ id }) => {
    await closeAllSessions(id);
    return 'Signed out everywhere.';
  }),
  screen: act(screenSchema, async ({ name }, event) => {
    await makeBenchScreen(visitOf(event), event.locals.shop.id, event.locals.person!.id, name);
    return `This screen is now “${name}”: PINs are taken here.`;
  }),
  forget: act(forgetScreenSchema, async ({ screen }, { locals }) => {
    await forgetBenchScreen(locals.shop.id, screen);
    return 'No bench screen any more: PINs are not taken there.';
  }),
};
