import { randomUUID } from 'node:crypto';
import { familyBy, type Machine } from '@refectum/core/machines';
import { fail, redirect } from '@sveltejs/kit';
import { message, superValidate } from 'sveltekit-superforms';
import { yup } from 'sveltekit-superforms/adapters';
import { checkInSchema } from '$lib/schemas.ts';
import { checkIn } from '$lib/server/jobs/index.ts';
import { Refused } from '$lib/server/refused.ts';
import type { Actions, PageServerLoad } from './$types';

const fresh = () => ({
  id: randomUUID(),
  customer: '',
  model: '',
  serial: '',
  complaint: '',
  words: '',
  due: '',
  machine: familyBy('claw-pole').usual(12, familyBy('claw-pole').size.usual) as Machine,
  plate: { direction: '' as const, pulley: '' as const, connector: '', cameWith: '' },
  next: 'bench' as const,
});

export const load: PageServerLoad = async () => ({
  form: await superValidate(fresh(), yup(checkInSchema), { errors: false }),
});

export const actions: Actions = {
  default: async ({ request, locals }) => {
    const form = await superValidate(request, yup(checkInSchema));
    if (!form.valid) return fail(400, { form });
    let tag: number;
    try {
      const { next: _, ...entry } = form.data;
      tag = await checkIn(locals.shop.id, locals.person!.id, entry);
    } catch (cause) {
      if (cause instanceof Refused) return message(form, cause.message, { status: 409 });
      throw cause;
    }
    throw redirect(303, form.data.next === 'vehicle' ? `/unit/${tag}/vehicle` : `/unit/${tag}`);
  },
};
