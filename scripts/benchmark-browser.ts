// bin/refectum benchmark, second half: from Enter to what the eye sees, in Chromium, on the production build.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import type { Browser, Page } from 'playwright-core';
import { openBrowser } from '../e2e/browser.ts';
import { signInAt } from '../e2e/visitor.ts';
import { Stand } from '../e2e/harness.ts';

interface Times {
  readonly tape: number;
  readonly suspects: number;
  readonly next: number;
}

/** Milliseconds after Enter until the reading stands on the tape, is judged, and the next check is at hand. */
const record = (page: Page, value: string): Promise<Times> =>
  page.evaluate(async (typed) => {
    const part = (name: string) => document.querySelector(`section[aria-label="${name}"]`)!;
    const title = () => part('Check at hand')?.querySelector('h2')?.textContent;
    const field = document.querySelector<HTMLInputElement>('#entry')!;
    const rows = part('Tape').querySelectorAll('.strike').length;
    const before = title();
    const began = performance.now();
    const after = (holds: () => boolean) =>
      new Promise<number>((done, failed) => {
        setTimeout(
          () => failed(new Error(`${before}: nothing came of “${typed}”: ${part('Check at hand')?.textContent}`)),
          5000,
        );
        const watcher = new MutationObserver(() => {
          if (!holds()) return;
          watcher.disconnect();
          done(performance.now() - began);
        });
        watcher.observe(document.body, { subtree: true, childList: true, characterData: true });
      });
    const grown = () => part('Tape').querySelectorAll('.strike').length > rows;
    const seen = Promise.all([
      after(grown),
      after(() => grown() && part('Tape').querySelector('li:first-child svg') !== null),
      after(() => title() !== before),
    ]);
    field.value = typed;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    field.form!.requestSubmit();
    const [tape, suspects, next] = await seen;
    return { tape, suspects, next };
  }, value);

const factors: Readonly<Record<string, number>> = { '': 1, m: 1e-3, k: 1e3, M: 1e6 };

/** A value that suits the check at hand: what a sound unit shows, as the ruler has it. */
async function soundValue(page: Page): Promise<string> {
  const placeholder = await page.getAttribute('#entry', 'placeholder');
  if (placeholder === '1') return '1';
  if (placeholder === '7.5') return '8';
  const ruler = await page.getAttribute('section[aria-label="Check at hand"] svg[role="img"]', 'aria-label');
  if (ruler?.includes('OL')) return 'OL';
  const figures = [...ruler!.matchAll(/([0-9.]+)\s([mkM]?)/g)].slice(0, 2);
  const [low, high] = figures.map(([, figure, prefix]) => Number(figure) * factors[prefix!]!);
  return String((low! + (high ?? low!)) / 2);
}

/** Hundredths of a second that the host of a virtual machine has kept its processors to itself so far (proc(5), /proc/stat). */
const takenByHost = (): number => Number(readFileSync('/proc/stat', 'utf8').split('\n')[0]!.trim().split(/\s+/)[8]);

const median = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;

/** Kilobytes of script that a first visit to a route loads, compressed; those of its workers apart. */
async function scriptOf(browser: Browser, signedIn: Page, url: string): Promise<{ route: number; workers: number }> {
  const context = await browser.newContext({ storageState: await signedIn.context().storageState() });
  const page = await context.newPage();
  const sizes = { route: 0, workers: 0 };
  const reading: Promise<void>[] = [];
  page.on('response', (response) => {
    if (!response.url().endsWith('.js')) return;
    const add = async () => {
      const size = gzipSync(await response.body()).length / 1000;
      if (/worker/.test(response.url())) sizes.workers += size;
      else sizes.route += size;
    };
    reading.push(add());
  });
  await page.goto(url);
  await page.waitForSelector('section[aria-label="Suspects"]');
  await Promise.all(reading);
  await context.close();
  return sizes;
}

/** A full teardown has so many readings. */
const fullTeardown = 30;
/** So many of them are timed. */
const timed = 20;

/** Takes so many more readings, of what was not checked yet, in the order of work. */
async function teardown(page: Page, many: number): Promise<void> {
  const checks = 'label:has-text("Any check") select';
  const taken = (await page.textContent('section[aria-label="Tape"]'))!;
  const names = await page.locator(`${checks} option`).allTextContents();
  for (const name of names.filter((one) => !taken.includes(one)).slice(0, many)) {
    const rows = await page.locator('section[aria-label="Tape"] .strike').count();
    await page.selectOption(checks, { label: name });
    await page.waitForSelector(`section[aria-label="Check at hand"] h2:text-is("${name}")`);
    await page.fill('#entry', await soundValue(page));
    await page.press('#entry', 'Enter');
    await page.waitForFunction(
      (before) => document.querySelectorAll('section[aria-label="Tape"] .strike').length > before,
      rows,
    );
    await page.waitForTimeout(1000);
  }
}

/** One collection leaves buffers behind that the next ones sweep. */
const collections = 3;

/** Megabytes of script memory that the page's worker holds, after its garbage is gone. */
async function workerMegabytes(page: Page): Promise<number> {
  const session = await page.context().newCDPSession(page);
  let answered: (text: string) => void = () => undefined;
  const heard = new Promise<string>((done) => (answered = done));
  session.on('Target.attachedToTarget', ({ sessionId, targetInfo }) => {
    if (targetInfo.type !== 'worker') return;
    const send = (id: number, method: string) =>
      session.send('Target.sendMessageToTarget', { sessionId, message: JSON.stringify({ id, method }) });
    session.on('Target.receivedMessageFromTarget', ({ message }: { message: string }) => {
      const { id } = JSON.parse(message) as { id?: number };
      if (id === undefined) return;
      if (id > collections) answered(message);
      else void send(id + 1, id < collections ? 'HeapProfiler.collectGarbage' : 'Runtime.getHeapUsage');
    });
    void send(1, 'HeapProfiler.collectGarbage');
  });
  await session.send('Target.setAutoAttach', { autoAttach: true, waitForDebuggerOnStart: false, flatten: false });
  const message = await heard;
  await session.detach();
  const { result } = JSON.parse(message) as { result: { usedSize: number; backingStorageSize?: number } };
  return (result.usedSize + (result.backingStorageSize ?? 0)) / 1e6;
}

await Stand.during(async (stand) => {
  const browser = await openBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await signInAt(page, stand.url, 'Ansa Brimmel');
  await page.waitForTimeout(500);
  for (const [what, tag] of [
    ['build known', 1001],
    ['build unknown', 1002],
  ] as const) {
    const opened = performance.now();
    await page.goto(`${stand.url}/unit/${tag}`);
    await page.waitForSelector('section[aria-label="Suspects"]');
    const first = performance.now() - opened;
    const times: Times[] = [];
    const undisturbed: Times[] = [];
    for (let i = 0; i < timed; i++) {
      await page.waitForTimeout(2000);
      const value = await soundValue(page);
      const before = takenByHost();
      const took = await record(page, value);
      times.push(took);
      if (takenByHost() === before) undisturbed.push(took);
    }
    console.log(`${what}: suspects ${first.toFixed(0)} ms after opening the bench; from Enter:`);
    for (const [which, some] of [
      ['readings', times],
      ['readings with the processors to itself', undisturbed],
    ] as const) {
      console.log(`  ${some.length} ${which}`);
      for (const name of ['tape', 'suspects', 'next'] as const) {
        const all = some.map((time) => time[name]);
        if (all.length)
          console.log(
            `    ${name.padEnd(9)} median ${median(all).toFixed(0).padStart(4)} ms, slowest ${Math.max(...all)
              .toFixed(0)
              .padStart(4)} ms`,
          );
      }
    }
    const held = await workerMegabytes(page);
    await teardown(page, fullTeardown - times.length);
    console.log(
      `  worker holds ${held.toFixed(0)} MB, after ${fullTeardown} readings ${(await workerMegabytes(page)).toFixed(0)} MB`,
    );
  }
  const { route, workers } = await scriptOf(browser, page, `${stand.url}/unit/1001`);
  console.log(`script of the bench route: ${route.toFixed(0)} kB compressed, its worker ${workers.toFixed(0)} kB`);
  await browser.close();
});
