import type { RequestEvent } from '@sveltejs/kit';
import { answered, isId } from '$lib/server/answer.ts';
import { pictureBytes } from '$lib/server/pictures.ts';
import { Refused } from '$lib/server/refused.ts';

/** A picture as JPEG; `?size=small` for lists. */
export const GET = async ({ params, url, locals }: RequestEvent) => {
  const jpeg = await answered(async () => {
    if (!isId(params.id!)) throw new Refused(404, 'There is no such picture.');
    return pictureBytes(locals.shop.id, params.id!, url.searchParams.get('size') === 'small' ? 'small' : 'whole');
  });
  return new Response(new Uint8Array(jpeg), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' },
  });
};
