import { type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { and, eq } from 'drizzle-orm';
import { connection, database, migrateDatabase } from '$lib/server/db/connect.ts';
import { technician } from '$lib/server/db/schema.ts';
import { loadDemo } from '$lib/server/demo/load.ts';
import { live } from '$lib/server/live.ts';
import { ensureShop } from '$lib/server/shop.ts';

export const init: ServerInit = async () => {
  await migrateDatabase();
  await ensureShop();
  if (process.env.REFECTUM_DEMO === '1') await loadDemo();
  await live().listen();
  const closeStreams = () => live().close();
  process.once('SIGTERM', closeStreams);
  process.once('SIGINT', closeStreams);
  process.once('sveltekit:shutdown', () => void connection().pool.end());
};

export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  const origin = request.headers.get('origin');
  const writes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
  if (writes && origin && new URL(origin).host !== url.host) {
    return new Response('This request comes from another site.', { status: 403 });
  }
  event.locals.shop = await ensureShop();
  event.locals.technician = await whoWorks(event.cookies.get('technician'), event.locals.shop.id);
  const theme = event.cookies.get('theme') === 'night' ? 'night' : 'day';
  return resolve(event, { transformPageChunk: ({ html }) => html.replace('%theme%', theme) });
};

async function whoWorks(id: string | undefined, shopId: string): Promise<App.Locals['technician']> {
  if (!id || !/^[0-9a-f-]{36}$/.test(id)) return undefined;
  const [found] = await database()
    .select({ id: technician.id, name: technician.name })
    .from(technician)
    .where(and(eq(technician.id, id), eq(technician.shopId, shopId)));
  return found;
}

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status === 404) return { message: `There is nothing at ${event.url.pathname}.` };
  console.error(error);
  return { message: 'The server could not do that. What you typed is still here: try again in a moment.' };
};
