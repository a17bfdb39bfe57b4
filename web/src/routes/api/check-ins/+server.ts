import { json, type RequestEvent } from '@sveltejs/kit';
import { checkInLinesSchema } from '$lib/schemas.ts';
import { answered, bodyOf } from '$lib/server/answer.ts';
import { checkInLines } from '$lib/server/check-in-lines.ts';

/** Many units at once, line by line; `dry` only tells what would become of each. */
export const POST = async (event: RequestEvent) => {
  const { lines, dry, technician } = await bodyOf(event, checkInLinesSchema);
  return json(await answered(() => checkInLines(event.locals.shop.id, technician, lines, dry)));
};
