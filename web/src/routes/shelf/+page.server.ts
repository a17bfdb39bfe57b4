import { warningsOf } from '@refectum/core/shelf';
import { fail } from '@sveltejs/kit';
import { importModels, listShelf } from '$lib/server/shelf.ts';
import { readShelf } from '$lib/shelf.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
  const shelf = await listShelf(locals.shop.id);
  const all = shelf.map(({ known }) => known);
  return {
    person: locals.person!,
    models: shelf.map(({ id, known, changedAt, changedBy }) => ({
      id,
      known,
      changedAt,
      changedBy,
      warnings: warningsOf(known, all).length,
    })),
  };
};

export const actions: Actions = {
  import: async ({ request, locals }) => {
    const text = String((await request.formData()).get('text') ?? '');
    const { models, problems } = readShelf(text);
    if (models.length === 0) return fail(422, { problem: problems[0] ?? 'There is nothing to put on the shelf.' });
    return importModels(locals.shop.id, locals.person!.id, models);
  },
};
