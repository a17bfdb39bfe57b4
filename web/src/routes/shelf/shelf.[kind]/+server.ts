import { error, type RequestEvent } from '@sveltejs/kit';
import { listShelf } from '$lib/server/shelf.ts';
import { writeShelfFile, writeShelfSheet } from '$lib/shelf.ts';

const kinds = {
  csv: { type: 'text/csv; charset=utf-8', write: writeShelfSheet },
  json: { type: 'application/json', write: writeShelfFile },
};

/** The whole shelf as a file. */
export const GET = async ({ locals, params }: RequestEvent) => {
  const kind = kinds[params.kind as keyof typeof kinds];
  if (!kind) throw error(404, 'The shelf is written as shelf.csv or shelf.json.');
  const models = (await listShelf(locals.shop.id)).map(({ known }) => known);
  return new Response(kind.write(models), {
    headers: { 'content-type': kind.type, 'content-disposition': `attachment; filename="shelf.${params.kind}"` },
  });
};
