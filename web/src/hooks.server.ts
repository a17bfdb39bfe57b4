import { error, type Handle, type HandleServerError, json, redirect, type ServerInit } from '@sveltejs/kit';
import { denial } from '$lib/access.ts';
import { connection, migrateDatabase } from '$lib/server/db/connect.ts';
import { loadDemo } from '$lib/server/demo/load.ts';
import { endAll } from '$lib/server/instruments/watch.ts';
import { live } from '$lib/server/live.ts';
import { signedIn } from '$lib/server/people/sessions.ts';
import { endReasoning } from '$lib/server/reasoning/index.ts';
import { ensureShop } from '$lib/server/shop.ts';
import { enterStandIns } from '$lib/server/simulated-bench.ts';

export const init: ServerInit = async () => {
  await migrateDatabase();
  await ensureShop();
  if (process.env.REFECTUM_DEMO === '1') await loadDemo();
  await enterStandIns((await ensureShop()).id);
  await live().listen();
  const closeStreams = () => {
    live().close();
    void endAll();
  };
  process.once('SIGTERM', closeStreams);
  process.once('SIGINT', closeStreams);
  process.once('sveltekit:shutdown', () => {
    void endReasoning();
    void connection().pool.end();
  });
};

/** Bytes; pictures may be larger (serve.js). */
const largestBody = 512 * 1024;
const takesPictures = (path: string): boolean => /^\/(p|unit\/\d+\/pictures)(\/|$)/.test(path);

export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  const writes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
  if (writes && !isSameSite(request, url))
    return json({ message: 'This request comes from another site.' }, { status: 403 });
  if (Number(request.headers.get('content-length') ?? 0) > largestBody && !takesPictures(url.pathname))
    return json({ message: 'That is more than is taken at once.' }, { status: 413 });
  try {
    event.locals.shop = await ensureShop();
    event.locals.person = await signedIn(event.cookies, event.locals.shop.id);
  } catch (cause) {
    console.error(cause);
    return refuse(request, 503, 'The database does not answer. What you typed is still here: try again in a moment.');
  }
  const denied = denial(url.pathname, request.method, event.locals.person);
  if (denied) {
    const asksForPage = !writes && !url.pathname.startsWith('/api/');
    if (denied.status === 401 && asksForPage)
      throw redirect(303, `/sign-in?${new URLSearchParams({ back: url.pathname + url.search })}`);
    return refuse(request, denied.status, denied.message);
  }
  const theme = event.cookies.get('theme') === 'night' ? 'night' : 'day';
  return resolve(event, { transformPageChunk: ({ html }) => html.replace('%theme%', theme) });
};

/** A form on screen is told as a form is, so that it can keep what was typed. */
function refuse(request: Request, status: number, message: string): Response {
  if (request.headers.get('x-sveltekit-action') === 'true')
    return json({ type: 'error', error: { message } }, { status });
  throw error(status, message);
}

/** Browsers name the origin with every write; whoever names none, or another, is refused. */
function isSameSite(request: Request, url: URL): boolean {
  const origin = request.headers.get('origin');
  return origin !== null && URL.canParse(origin) && new URL(origin).host === url.host;
}

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status === 404) return { message: `There is nothing at ${event.url.pathname}.` };
  console.error(error);
  return { message: 'The server could not do that. What you typed is still here: try again in a moment.' };
};
