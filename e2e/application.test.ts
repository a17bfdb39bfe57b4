import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { expect } from 'chai';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { openBrowser } from './browser.ts';
import { openFolder, Stand } from './harness.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

let stand: Stand;
let browser: Browser;
let context: BrowserContext;
let page: Page;
const asked = new Set<string>();

/** A page of its own window, with a name picked at the top. */
async function openPage(as = 'Wenna Oskarby', from = context): Promise<Page> {
  const opened = await from.newPage();
  await opened.goto(`${stand.url}/`);
  await opened.waitForSelector('html[data-ready]');
  await opened.selectOption('#technician', { label: as });
  await opened.waitForFunction(
    (name) => document.querySelector<HTMLOptionElement>('#technician option:checked')?.text === name,
    as,
  );
  await opened.waitForLoadState('load');
  return opened;
}
async function bench(tag: number, on = page): Promise<void> {
  await on.goto(`${stand.url}/unit/${tag}`);
  await on.waitForSelector('section[aria-label="Suspects"]');
  await on.waitForSelector('#entry:focus');
}
/** Puts a check at hand by its name. */
async function pick(name: string, on = page): Promise<void> {
  await on.selectOption('label:has-text("Any check") select', { label: name });
  await on.waitForSelector(`section[aria-label="Check at hand"] h2:text-is("${name}")`);
  await on.focus('#entry');
}
/** Until the address fits; a change of address within the page has no load to wait for. */
const arrive = (address: RegExp) => until(() => Promise.resolve(address.test(page.url())), `address ${address}`);
const title = (on = page) => on.textContent('section[aria-label="Check at hand"] h2');
const tape = (on = page) => on.locator('section[aria-label="Tape"] li:has(.figure)');
/** A question to the server; asked again when a connection kept open since before it was restarted turns out dead. */
const ask = (path: string): Promise<Response> => fetch(stand.url + path).catch(() => fetch(stand.url + path));
const apiJob = async (tag: number) =>
  (await (await ask(`/api/jobs/${tag}/view`)).json()) as {
    readings: { id: string; check: string; typed: string; struck?: object }[];
    verdicts: { course: string }[];
    assembly: string;
  };
const until = async (holds: () => Promise<boolean>, what: string): Promise<void> => {
  for (let i = 0; i < 100; i++) {
    if (await holds()) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`did not come about: ${what}`);
};

before(async () => {
  stand = await Stand.open();
  browser = await openBrowser();
  context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  context.on('request', (request) => asked.add(new URL(request.url()).hostname));
  page = await openPage();
});
after(async () => {
  await browser?.close();
  await stand?.close();
});

describe('the whole job by keyboard', () => {
  let tag = 0;

  it('checks a unit in', async () => {
    await page.goto(`${stand.url}/check-in`);
    await page.waitForSelector('html[data-ready]');
    await page.focus('#customer');
    await page.keyboard.type('Quay Ferries');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Gull 70');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Tab');
    await page.keyboard.type('No');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await arrive(/\/unit\/\d+$/);
    tag = Number(/\d+$/.exec(page.url())![0]);
    expect(tag).greaterThan(1012);
    await page.waitForSelector('section[aria-label="Suspects"]');
  });

  it('takes readings: each shows its word, the suspects move, the next check follows', async () => {
    expect(await title()).equal('Test leads held together');
    await page.keyboard.type('0.3');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () =>
        document.querySelector('section[aria-label="Check at hand"] h2')?.textContent ===
        'Field through the brushes, shaft at rest',
    );
    await page.keyboard.press('*');
    await page.waitForFunction(() =>
      document
        .querySelector('section[aria-label="Suspects"] li')
        ?.textContent?.match(/brush worn out|rotor winding open/),
    );
    expect(await tape().count()).equal(2);
    await until(async () => /OL.*failed/s.test((await tape().first().textContent())!), 'its word');
    await until(async () => (await apiJob(tag)).readings.length === 2, 'two readings on the server');
  });

  it('answers a finding by its number, picks another check with the arrows', async () => {
    const before = await title();
    await page.keyboard.press('ArrowDown');
    await page.waitForFunction(
      (was) => document.querySelector('section[aria-label="Check at hand"] h2')?.textContent !== was,
      before,
    );
    await page.selectOption('label:has-text("Any check") select', { label: 'Field through the brushes while turning' });
    await page.waitForFunction(
      () =>
        document.querySelector('section[aria-label="Check at hand"] h2')?.textContent ===
        'Field through the brushes while turning',
    );
    await page.focus('#entry');
    await page.keyboard.type('4');
    await page.keyboard.press('Enter');
    await until(async () => (await tape().count()) === 3, 'the finding on the tape');
    await until(async () => /No reading at all.*failed/s.test((await tape().first().textContent())!), 'its word');
  });

  it('decides, with a reason, and the report carries it', async () => {
    await page.keyboard.press('v');
    await arrive(/verdict$/);
    await page.waitForSelector('section[aria-label="Replace parts"]');
    await page.focus('button:has-text("Decide")');
    await page.keyboard.press('Enter');
    await page.waitForSelector('#decide-problem:has-text("Choose what happens")');
    await page.focus('section[aria-label="Replace parts"] button');
    await page.keyboard.press('Enter');
    await page.focus('label:has-text("own words") input');
    await page.keyboard.type('Brushes gone, rotor to be read once open.');
    await page.keyboard.press('Enter');
    await page.waitForSelector('text=Replace parts, Wenna Oskarby');
    expect((await apiJob(tag)).verdicts.map((v) => v.course)).deep.equal(['replace']);
    await page.goto(`${stand.url}/unit/${tag}/report`);
    const report = await page.textContent('article');
    for (const part of [
      'Quay Ferries',
      'Gull 70',
      'No charge',
      'Brushes gone',
      'Field through the brushes',
      'Local codes, the maker’s manual',
    ]) {
      expect(report).contain(part);
    }
  });

  it('prints: the page on paper, and the PDF with every reading and page numbers', async () => {
    const paper = await page.pdf({ format: 'A4' });
    const pdf = Buffer.from(await (await ask(`/unit/${tag}/report.pdf`)).arrayBuffer());
    const folder = openFolder();
    const text = [paper, pdf].map((content, i) => {
      writeFileSync(join(folder, `${i}.pdf`), content);
      return execFileSync('pdftotext', ['-layout', join(folder, `${i}.pdf`), '-'], { encoding: 'utf8' });
    });
    expect(text[0])
      .match(/Test report, tag/)
      .and.not.match(/Find tag/);
    expect(text[1])
      .match(/Quay Ferries/)
      .and.match(/Test leads held together\s+300 mΩ|Test leads held together\s+0\.300 Ω/);
    expect(text[1])
      .match(/No reading at all/)
      .and.match(/page 1 of \d/)
      .and.match(/Replace parts: Brushes gone/);
  });
});

describe('at the bench', () => {
  it('a mistyped entry says what is wrong beside the field and keeps what was typed', async () => {
    await bench(1006);
    await pick('Slip ring to slip ring');
    await page.keyboard.type('1,234');
    await page.keyboard.press('Enter');
    await page.waitForSelector('#entry-problem');
    expect(await page.textContent('#entry-problem')).match(/1\.234 or 1234/);
    expect(await page.inputValue('#entry')).equal('1,234');
    expect(await page.getAttribute('#entry', 'aria-invalid')).equal('true');
    expect((await apiJob(1006)).readings.length).equal(0);
  });

  it('a barcode burst while the reading field has the focus opens the unit and leaves no reading', async () => {
    await bench(1006);
    await pick('Slip ring to slip ring');
    await page.fill('#entry', '0.5');
    await page.keyboard.type('TAG-1009', { delay: 4 });
    await page.keyboard.press('Enter');
    await arrive(/\/unit\/1009$/);
    expect((await apiJob(1006)).readings.length).equal(0);
    await bench(1006);
    expect(await page.inputValue('#entry')).equal('0.5');
    await page.fill('#entry', '');
  });

  it('a tag typed by hand goes where it was typed', async () => {
    await page.goto(`${stand.url}/check-in`);
    await page.waitForSelector('html[data-ready]');
    await page.focus('#customer');
    await page.keyboard.type('TA Tide', { delay: 120 });
    expect(await page.inputValue('#customer')).equal('TA Tide');
  });

  it('strikes out: the reading stays on the tape, the belief forgets it', async () => {
    await bench(1001);
    const nothingWrong = () => page.textContent('section[aria-label="Suspects"] h2 .figure');
    const before = await tape().count();
    await page.keyboard.press('Delete');
    await page.waitForSelector('section[aria-label="Tape"] li.struck');
    expect(await tape().count()).equal(before);
    await until(async () => (await apiJob(1001)).readings.some((r) => r.struck), 'the strike on the server');
    const first = await nothingWrong();
    await page.keyboard.press('Delete');
    await until(async () => (await page.locator('li.struck').count()) === 2, 'two struck');
    await page.keyboard.press('Delete');
    await until(async () => (await nothingWrong()) !== first, 'the belief to move');
    expect(Number.parseInt((await nothingWrong())!, 10)).closeTo(30, 1);
  });

  it('a reload in the middle keeps what was typed and what was taken', async () => {
    await bench(1006);
    await pick('Test leads held together');
    await page.keyboard.type('0.4');
    await page.keyboard.press('Enter');
    await until(
      async () => (await tape().count()) === 1 && (await title()) !== 'Test leads held together',
      'the reading',
    );
    await page.keyboard.type('3.1');
    await page.reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
    expect(await page.inputValue('#entry')).equal('3.1');
    expect(await tape().count()).equal(1);
    await page.fill('#entry', '');
  });

  it('a reading typed while the server is away waits, and arrives once', async () => {
    await bench(1006);
    await pick('Slip ring to slip ring');
    const before = (await apiJob(1006)).readings.length;
    const took = await stand.stop();
    try {
      expect(took, 'ends within a second of SIGTERM, streams open').lessThan(1000);
      await page.keyboard.type('3.4');
      await page.keyboard.press('Enter');
      await page.waitForSelector('header [role="status"]:has-text("waiting here, nothing is lost")');
      expect(await tape().first().textContent()).contain('waiting');
      await until(async () => (await tape().first().textContent())!.includes('sound'), 'its word, without the server');
    } finally {
      await stand.start();
    }
    await until(async () => (await page.locator('header [role="status"]').count()) === 0, 'delivery');
    expect((await apiJob(1006)).readings.length).equal(before + 1);
  });

  it('what waits outlives a reload: typed offline, delivered by the page that comes after', async () => {
    await bench(1002);
    await pick('Slip ring to core');
    await page.route('**/readings', (route) => route.abort());
    await page.keyboard.press('*');
    await until(async () => (await tape().count()) === 1, 'the reading on the tape');
    await page.waitForSelector('header [role="status"]');
    expect((await apiJob(1002)).readings.length).equal(0);
    await page.reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
    expect(await tape().count()).equal(1);
    await page.unroute('**/readings');
    await until(async () => (await apiJob(1002)).readings.length === 1, 'delivery');
    expect((await apiJob(1002)).readings[0]!.typed).equal('OL');
  });

  it('what the server refuses comes back with its reason, and is not on the tape', async () => {
    await bench(1002);
    const before = await tape().count();
    await page.route('**/strikes', (route) =>
      route.fulfill({ status: 409, contentType: 'application/json', body: '{"message":"Not today."}' }),
    );
    await page.keyboard.press('Delete');
    await page.waitForSelector('[role="alert"]:has-text("Not today.")');
    expect(await page.locator('li.struck').count()).equal(0);
    await page.unroute('**/strikes');
    await page.click('button:has-text("Seen")');
    expect(await page.locator('[role="alert"]').count()).equal(0);
    expect(await tape().count()).equal(before);
  });

  it('meter, temperature and state are changed beside the tag, and kept', async () => {
    await bench(1002);
    await page.selectOption('label:has-text("Meter") select', { label: 'Bench meter' });
    await page.fill('label:has-text("Part, °C") input', '35');
    await page.keyboard.press('Tab');
    await page.selectOption('label:has-text("State") select', { label: 'Stator unsoldered' });
    await until(async () => (await apiJob(1002)).assembly === 'unsoldered', 'the state on the server');
    await page.reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
    expect(await page.inputValue('label:has-text("Part, °C") input')).equal('35');
    expect(await page.inputValue('label:has-text("Meter") select')).equal('bench');
  });

  it('a second technician’s reading appears by itself', async () => {
    const elsewhere = await browser.newContext();
    const other = await openPage('Tovik Harle', elsewhere);
    await bench(1010, other);
    await bench(1010);
    const before = await tape().count();
    await pick('Slip ring to slip ring', other);
    await other.keyboard.type('9');
    await other.keyboard.press('Enter');
    await until(async () => (await tape().count()) === before + 1, 'the other’s reading here');
    await elsewhere.close();
  });

  it('without a name no reading is taken, and the screen says why', async () => {
    const nobody = await browser.newContext();
    const other = await nobody.newPage();
    await bench(1011, other);
    await pick('Slip ring to slip ring', other);
    await other.keyboard.type('1');
    await other.keyboard.press('Enter');
    await other.waitForSelector('#entry-problem:has-text("Pick who is working")');
    expect(await other.inputValue('#entry')).equal('1');
    await nobody.close();
  });

  it('touching a part shows its evidence; the meter that can’t tell says what would', async () => {
    await bench(1009);
    await page.click(
      'svg g[role="button"][aria-label^="Stator phase"], svg g[role="button"][aria-label^="Stator winding"]',
    );
    await page.waitForSelector('section[aria-label="Suspects"] h2:has-text("Suspects: Stator")');
    await page.selectOption('label:has-text("Any check") select', { label: 'Stator leads A and B' });
    await page.waitForSelector('figcaption:has-text("can’t tell")');
    expect(await page.textContent('figcaption')).match(/bench meter/);
  });

  it('browser and server reason alike', async () => {
    await bench(1005);
    const here = await page
      .locator('section[aria-label="Suspects"] summary span:first-child > span:first-child')
      .allTextContents();
    const there = (await (await ask(`/api/jobs/1005/assessment`)).json()) as { suspects: { name: string }[] };
    expect(here.slice(0, there.suspects.length)).deep.equal(there.suspects.map((s) => s.name));
  });

  it('a changed price reworks the sheet', async () => {
    await page.goto(`${stand.url}/unit/1005/verdict`);
    await page.waitForSelector('section[aria-label="Reject"]');
    const cost = () => page.textContent('section[aria-label="Reject"] dd');
    expect(await cost()).equal('185.00');
    await page.fill('label:has-text("Exchange or new unit") input', '300');
    await page.keyboard.press('Tab');
    await until(async () => (await cost()) === '275.00', 'the new cost');
  });
});

describe('finding the way', () => {
  it('/ finds a tag, a wrong one is told beside the field', async () => {
    await bench(1004);
    await page.keyboard.press('/');
    await page.keyboard.type('x9');
    await page.keyboard.press('Enter');
    expect(await page.textContent('#find-problem')).match(/no tag number/);
    await page.fill('#find-tag', '1008');
    await page.keyboard.press('Enter');
    await arrive(/\/unit\/1008$/);
  });
  it('? lists every key, and the keys can be switched off', async () => {
    await bench(1004);
    await page.keyboard.press('?');
    await page.waitForSelector('dialog[open]');
    expect(await page.locator('dialog dt').count()).greaterThan(8);
    await page.click('dialog label:has-text("act as keys")');
    await page.keyboard.press('Escape');
    await until(async () => (await page.locator('dialog[open]').count()) === 0, 'the list closed');
    await page.focus('#entry');
    await page.keyboard.press('v');
    await page.keyboard.press('4');
    expect(await page.evaluate(() => [location.pathname, localStorage.length, document.activeElement?.id])).deep.equal([
      '/unit/1004',
      1,
      'entry',
    ]);
    expect(await page.inputValue('#entry')).equal('v4');
    await page.fill('#entry', '');
    await page.evaluate(() => localStorage.clear());
  });
  it('check-in tells what is missing beside each field, and keeps the rest', async () => {
    await page.goto(`${stand.url}/check-in`);
    await page.waitForSelector('html[data-ready]');
    await page.fill('#model', 'Gull 70');
    await page.fill('#amps', 'many');
    expect(await page.textContent('#amps-told')).match(/not a number/);
    await page.fill('#amps', '70');
    await page.click('button:has-text("Check in and start")');
    await page.waitForSelector('#customer-told:has-text("Who does the unit belong to")');
    expect(await page.inputValue('#model')).equal('Gull 70');
  });
});

describe('every view', () => {
  const views = [
    '/',
    '/check-in',
    '/unit/1001',
    '/unit/1002',
    '/unit/1007',
    '/unit/1007/verdict',
    '/unit/1007/report',
    '/unit/99999',
  ];
  for (const theme of ['day', 'night']) {
    for (const view of views) {
      it(`${view} by ${theme}: no axe violation, no sideways scrolling`, async () => {
        await context.addCookies([{ name: 'theme', value: theme, url: stand.url }]);
        await page.goto(stand.url + view);
        await page.waitForSelector('html[data-ready]');
        if (/^\/unit\/\d{4}$/.test(view)) await page.waitForSelector('section[aria-label="Suspects"]');
        if (view.endsWith('verdict')) await page.waitForSelector('section[aria-label="Repair"]');
        await page.evaluate(axeSource);
        const found = await page.evaluate(async () => {
          const axe = (
            window as unknown as {
              axe: {
                run: () => Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
              };
            }
          ).axe;
          const { violations } = await axe.run();
          return violations.map(
            (v) => `${v.id}: ${v.nodes.map((n) => `${n.html.slice(0, 160)} ${n.failureSummary}`).join(' | ')}`,
          );
        });
        expect(found).deep.equal([]);
        const overflow = await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        );
        expect(overflow).at.most(0);
      });
    }
  }
  it('asked nobody but this machine', () => expect([...asked]).deep.equal(['127.0.0.1']));
});

describe('the API', () => {
  const someone = async () => {
    const cookies = await context.cookies();
    return cookies.find((c) => c.name === 'technician')!.value;
  };
  const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
    fetch(stand.url + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body: JSON.stringify(body),
    });
  const entry = async (more: Record<string, unknown> = {}) => ({
    id: crypto.randomUUID(),
    check: 'ring-ring',
    typed: '3.1',
    outcome: { kind: 'value', value: 3.1 },
    meter: 'workshop',
    celsius: 20,
    at: new Date().toISOString(),
    technician: await someone(),
    ...more,
  });

  it('takes the same reading twice as one', async () => {
    const body = await entry();
    const before = (await apiJob(1003)).readings.length;
    const answers = await Promise.all([post('/api/jobs/1003/readings', body), post('/api/jobs/1003/readings', body)]);
    expect(answers.map((a) => a.status)).deep.equal([200, 200]);
    expect((await apiJob(1003)).readings.length).equal(before + 1);
  });
  const refused: readonly (readonly [string, Record<string, unknown>, number, RegExp])[] = [
    ['an outcome that is none', { outcome: { kind: 'value', value: 'x' } }, 422, /outcome/],
    ['an unknown meter', { meter: 'borrowed' }, 422, /meter/],
    ['a check the unit lacks', { check: 'diode-forward:N+' }, 422, /no check/],
    ['nobody’s name', { technician: '00000000-0000-4000-8000-000000000000' }, 409, /Pick who is working/],
    ['a time that is none', { at: 'noon' }, 422, /at: must be a time/],
    ['a field too many', { extra: 1 }, 422, /unknown field|unspecified/],
  ];
  for (const [what, change, status, told] of refused) {
    it(`refuses ${what} with ${status} and a reason`, async () => {
      const answer = await post('/api/jobs/1003/readings', await entry(change));
      expect(answer.status).equal(status);
      expect(((await answer.json()) as { message: string }).message).match(told);
    });
  }
  it('refuses what comes from another site, and a tag that isn’t there', async () => {
    expect((await post('/api/jobs/1003/readings', await entry(), { origin: 'http://elsewhere.example' })).status).equal(
      403,
    );
    expect((await post('/api/jobs/4711/readings', await entry())).status).equal(404);
    expect((await post('/api/jobs/x/readings', await entry())).status).equal(404);
    expect((await post('/api/jobs/99999999999/readings', await entry())).status).equal(404);
  });
  it('gives the job file, which the command assesses as the server does', async () => {
    const file = join(openFolder(), 'job.json');
    writeFileSync(file, await (await ask(`/api/jobs/1007`)).text());
    const printed = JSON.parse(execFileSync('bin/refectum', ['assess', file], { encoding: 'utf8' })) as Record<
      string,
      { suspects: { fault: string; chance: number }[]; verdict: unknown }
    >;
    const there = (await (await ask(`/api/jobs/1007/assessment`)).json()) as (typeof printed)[string];
    expect(printed[file]!.suspects.map((s) => s.fault)).deep.equal(there.suspects.map((s) => s.fault));
    printed[file]!.suspects.forEach((s, i) => expect(s.chance).closeTo(there.suspects[i]!.chance, 1e-9));
    expect(printed[file]!.verdict).deep.equal(there.verdict);
  });
});
