import { answered } from '$lib/server/answer.ts';
import { pictureCodeFor } from '$lib/server/pictures.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const { tag, until } = await answered(() => pictureCodeFor(params.code));
  return { tag, until, code: params.code };
};
