import { warningsOf, type ShelfModel } from '@refectum/core/shelf';
import { error, fail, redirect } from '@sveltejs/kit';
import { randomUUID } from 'node:crypto';
import { findJob } from '$lib/server/jobs/index.ts';
import { answered, isId } from '$lib/server/answer.ts';
import { Refused } from '$lib/server/refused.ts';
import { listShelf, saveModel, takeOffShelf } from '$lib/server/shelf.ts';
import { checkModel, draftOf, freshDraft } from '$lib/shelf.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params, url }) => {
  const person = locals.person!;
  if (params.id === 'new') {
    if (person.role !== 'lead') throw error(403, `${person.name} is no lead: only a lead may do that.`);
    const tag = Number(url.searchParams.get('tag') ?? 0);
    const from = tag ? await answered(() => findJob(locals.shop.id, tag)) : undefined;
    const draft = freshDraft(from && { name: from.model, machine: from.machine, tag: from.tag });
    return { person, id: randomUUID() as string, draft, warnings: [], changed: undefined };
  }
  const shelf = await listShelf(locals.shop.id);
  const found = shelf.find(({ id }) => id === params.id);
  if (!found) throw error(404, 'That model is not on the shelf.');
  const all = shelf.map(({ known }) => known);
  return {
    person,
    id: found.id,
    draft: draftOf(found.known),
    warnings: warningsOf(found.known, all),
    changed: { at: found.changedAt, by: found.changedBy },
  };
};

export const actions: Actions = {
  save: async ({ request, locals }) => {
    const form = await request.formData();
    const id = String(form.get('id') ?? '');
    let model: unknown;
    try {
      model = JSON.parse(String(form.get('model') ?? ''));
    } catch {
      return fail(400, { problems: { form: 'The model did not come through: try again.' } });
    }
    const problems: Record<string, string> = { ...checkModel(model) };
    if (!isId(id)) problems.form = 'The model did not come through: reload the page.';
    if (Object.keys(problems).length) return fail(422, { problems });
    try {
      const seen = String(form.get('seen') ?? '') || undefined;
      await saveModel(locals.shop.id, locals.person!.id, id, model as ShelfModel, seen);
    } catch (cause) {
      if (!(cause instanceof Refused)) throw cause;
      return fail(cause.status, { problems: { name: cause.message } });
    }
    throw redirect(303, '/shelf');
  },
  off: async ({ locals, params }) => {
    if (isId(params.id)) await takeOffShelf(locals.shop.id, params.id);
    throw redirect(303, '/shelf');
  },
};
