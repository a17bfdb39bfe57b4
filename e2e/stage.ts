import type { Browser, BrowserContext, Page, Request } from 'playwright-core';
import { openBrowser } from './browser.ts';
import { Stand } from './harness.ts';
import { openAt, signInAt, Visitor } from './visitor.ts';

/** One running application and one page for all interface tests, and the steps they share. */

export let stand: Stand;
export let browser: Browser;
export let context: BrowserContext;
export let page: Page;
/** Wenna Oskarby, without a browser. */
export let visitor: Visitor;
/** Every host that a page asked. */
export const asked = new Set<string>();
/** What broke in a page's own script, since the last test. */
const broke: string[] = [];
/** What pages ask and isn't answered yet, streams aside: they stay open. */
export const unanswered = new Set<Request>();

/** A page of its own window, with somebody signed in. */
export async function openPage(as = 'Wenna Oskarby', from = context): Promise<Page> {
  const opened = await from.newPage();
  await signInAt(opened, stand.url, as);
  return opened;
}
/** Opens a view by its path, ready for hands. */
export const visit = (path: string, on = page): Promise<void> => openAt(on, stand.url + path);
export async function reload(on = page): Promise<void> {
  await on.reload();
  await on.waitForSelector('html[data-ready]');
}
export async function bench(tag: number, on = page): Promise<void> {
  await visit(`/unit/${tag}`, on);
  await on.waitForSelector('section[aria-label="Suspects"]');
  await on.waitForSelector('#entry:focus');
}
/** Puts a check at hand by its name. */
export async function pick(name: string, on = page): Promise<void> {
  await on.selectOption('label:has-text("Any check") select', { label: name });
  await on.waitForSelector(`section[aria-label="Check at hand"] h2:text-is("${name}")`);
  await on.focus('#entry');
}
/** What is asked of the worker from now on reaches it so much later, until the page is loaded anew. */
export const slowReasoning = (milliseconds: number): Promise<void> =>
  page.evaluate((by) => {
    const { postMessage } = Worker.prototype;
    Worker.prototype.postMessage = function (this: Worker, ...told: [never]) {
      setTimeout(() => postMessage.apply(this, told), by);
    };
  }, milliseconds);
/** Until the address fits; a change of address within the page has no load to wait for. */
export const arrive = (address: RegExp) => until(() => Promise.resolve(address.test(page.url())), `address ${address}`);
export const title = (on = page) => on.textContent('section[aria-label="Check at hand"] h2');
export const tape = (on = page) => on.locator('section[aria-label="Tape"] li:has(.figure)');
export const postJson = (path: string, body: unknown, headers: Record<string, string> = {}): Promise<Response> =>
  visitor.send('POST', path, body, headers);
/** A reading as the browser would send it. */
export const readingEntry = (more: Record<string, unknown> = {}) => ({
  id: crypto.randomUUID(),
  place: 'bench',
  told: 'own',
  check: 'ring-ring',
  typed: '3.1',
  outcome: { kind: 'value', value: 3.1 },
  meter: 'workshop',
  celsius: 20,
  at: new Date().toISOString(),
  technician: visitor.id,
  ...more,
});
/** A unit of its own, just checked in. */
export async function freshUnit(complaint = 'no-charge'): Promise<number> {
  const line = { customer: 'Quay pump', model: 'unknown', serial: '', complaint, words: '', due: '' };
  const lines = [{ ...line, id: crypto.randomUUID(), volts: '12', amps: '80' }];
  const answer = await postJson('/api/check-ins', { lines, dry: false, technician: visitor.id });
  const [made] = (await answer.json()) as { tag: number }[];
  return made!.tag;
}
/** What has to be sound before a unit may run, read and found so. */
export async function soundAtRest(tag: number): Promise<void> {
  for (const [check, outcome] of [
    ['bridge-forward', { kind: 'value', value: 0.935 }],
    ['bridge-reverse', { kind: 'over-range' }],
    ['bridge-reverse-ohms', { kind: 'value', value: 5.2e6 }],
    ['bearings-by-hand', { kind: 'finding', finding: 'smooth' }],
    ['pulley-by-hand', { kind: 'finding', finding: 'right' }],
  ] as const)
    await postJson(`/api/jobs/${tag}/readings`, readingEntry({ check, outcome, typed: 'as read' }));
}
export const ask = (path: string): Promise<Response> => visitor.ask(path);
export const apiJob = async (tag: number) =>
  (await (await ask(`/api/jobs/${tag}/view`)).json()) as {
    readings: { id: string; place: string; told: string; check: string; typed: string; struck?: object }[];
    verdicts: { course: string }[];
    celsius: number;
    prices: { items: Record<string, object> };
    vehicle: object | null;
    assembly: string;
    meter: string;
    stand: string;
    moves: { from: string; to: string; note: string; technician: string }[];
  };
/** What comes about at all does within so long, on a machine with other work too. */
const patienceMilliseconds = 60_000;
export const until = async (holds: () => Promise<boolean>, what: string): Promise<void> => {
  const last = performance.now() + patienceMilliseconds;
  while (performance.now() < last) {
    if (await holds()) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`did not come about: ${what}`);
};

before(async () => {
  stand = await Stand.open();
  browser = await openBrowser();
  context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  context.setDefaultTimeout(patienceMilliseconds);
  // Requests are intercepted from the start: none can be on its way while a route at an open page switches that on.
  await context.route('**/nobody-asks-for-this', (route) => route.continue());
  context.on('request', (request) => {
    asked.add(new URL(request.url()).hostname);
    if (request.resourceType() !== 'eventsource') unanswered.add(request);
  });
  context.on('weberror', (broken) => broke.push(`${broken.page()?.url() ?? ''}: ${broken.error().message}`));
  context.on('requestfinished', (request) => unanswered.delete(request));
  context.on('requestfailed', (request) => unanswered.delete(request));
  page = await openPage();
  visitor = await Visitor.signIn(stand.url);
});
afterEach('nothing broke in a page', () => {
  const all = broke.splice(0);
  if (all.length) throw new Error(all.join('\n'));
});
after(async () => {
  await browser?.close();
  await stand?.close();
});
