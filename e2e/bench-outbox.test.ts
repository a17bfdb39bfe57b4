import { expect } from 'chai';
import {
  apiJob,
  ask,
  bench,
  freshUnit,
  openPage,
  page,
  pick,
  postJson,
  readingEntry,
  reload,
  stand,
  tape,
  unanswered,
  until,
} from './stage.ts';

describe('what waits for the server', () => {
  afterEach(() => page.unrouteAll({ behavior: 'ignoreErrors' }));

  it('a reading typed while the server is away waits, and arrives once', async () => {
    const tag = await freshUnit();
    await bench(tag);
    await pick('Slip ring to slip ring');
    // Streams alone are open then: what was still being answered would be waited for.
    await page.waitForTimeout(700);
    await until(() => Promise.resolve(unanswered.size === 0), 'everything answered');
    const took = await stand.stop();
    try {
      expect(took, 'ends within a second of SIGTERM, streams open').lessThan(1000);
      expect(stand.log, 'streams open, and nothing was waited for').not.contain('were cut');
      await page.keyboard.type('3.4');
      await page.keyboard.press('Enter');
      await page.waitForSelector('header [role="status"]:has-text("waiting here, nothing is lost")');
      await until(() => tape().first().getByText('waiting').isVisible(), 'the mark beside it, after a moment');
      await until(async () => (await tape().first().textContent())!.includes('sound'), 'its word, without the server');
    } finally {
      await stand.start();
    }
    await until(async () => (await page.locator('header [role="status"]').count()) === 0, 'delivery');
    expect((await apiJob(tag)).readings.length).equal(1);
  });

  it('while the database is away a reading waits, however long; once it is back, changes elsewhere are heard again', async () => {
    const tag = await freshUnit();
    await bench(tag);
    await pick('Slip ring to slip ring');
    stand.stopDatabase();
    try {
      await page.keyboard.type('3.4');
      await page.keyboard.press('Enter');
      await page.waitForSelector('header [role="status"]:has-text("waiting here, nothing is lost")');
      // Longer than the server may fail on one before it is set aside.
      await page.waitForTimeout(9000);
      expect(await page.locator('div[role="alert"]').count(), 'none came back').equal(0);
      expect((await ask('/api/health')).status).equal(503);
    } finally {
      stand.startDatabase();
    }
    await until(async () => (await page.locator('header [role="status"]').count()) === 0, 'delivery');
    expect((await apiJob(tag)).readings.length).equal(1);
    await until(async () => (await tape().count()) === 1, 'the first on the tape');
    await page.waitForTimeout(3000);
    await postJson(`/api/jobs/${tag}/readings`, readingEntry());
    await until(async () => (await tape().count()) === 2, 'another screen’s reading');
  });

  it('changes elsewhere are heard also by a page that was opened while the server refused to tell of them', async () => {
    const tag = await freshUnit();
    let refused = 0;
    await page.route('**/api/events*', (route) =>
      (refused += 1) === 1 ? route.fulfill({ status: 503, body: 'away' }) : route.continue(),
    );
    await bench(tag);
    await until(() => Promise.resolve(refused > 1), 'the stream asked for once more');
    await postJson(`/api/jobs/${tag}/readings`, readingEntry());
    await until(async () => (await tape().count()) === 1, 'another screen’s reading');
  });

  it('what waits outlives a reload: typed offline, delivered by the page that comes after', async () => {
    await bench(1002);
    await pick('Slip ring to core');
    await page.route('**/readings', (route) => route.abort());
    await page.keyboard.press('*');
    await until(async () => (await tape().count()) === 1, 'the reading on the tape');
    await page.waitForSelector('header [role="status"]');
    expect((await apiJob(1002)).readings.length).equal(0);
    await reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
    expect(await tape().count()).equal(1);
    await page.unroute('**/readings');
    await until(async () => (await apiJob(1002)).readings.length === 1, 'delivery');
    expect((await apiJob(1002)).readings[0]!.typed).equal('OL');
  });

  it('a page closed right after Enter still delivers its reading', async () => {
    const opened = await openPage();
    const tag = await freshUnit();
    await bench(tag, opened);
    await pick('Slip ring to slip ring', opened);
    // What goes a moment later doesn't go from a page that is left: a minute stands for the moment here.
    await opened.evaluate(() => {
      const later = window.setTimeout.bind(window);
      window.setTimeout = ((act: TimerHandler, wait = 0) =>
        later(act, wait === 120 ? 60_000 : wait)) as typeof setTimeout;
    });
    await opened.keyboard.type('3.4');
    await opened.keyboard.press('Enter');
    await until(async () => (await tape(opened).count()) === 1, 'the reading on the tape');
    expect((await apiJob(tag)).readings.length).equal(0);
    await opened.close({ runBeforeUnload: true });
    await until(async () => (await apiJob(tag)).readings.length === 1, 'delivery');
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
    await page.waitForSelector('[role="alert"]', { state: 'detached' });
    expect(await tape().count()).equal(before);
  });

  it('what the server fails on lets the rest through, and is tried again after a reload', async () => {
    await bench(1011);
    await pick('Slip ring to core');
    let failing = 0;
    await page.route('**/readings', (route) => {
      const broken = (route.request().postDataJSON() as { check: string }).check === 'ring-core';
      return broken ? ((failing += 1), route.fulfill({ status: 500, body: '{}' })) : route.continue();
    });
    const before = (await apiJob(1011)).readings.length;
    await page.keyboard.press('*');
    await pick('Slip ring to slip ring');
    await page.keyboard.type('3.3');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[role="alert"]:has-text("tried again when the page is reloaded")');
    expect(failing).equal(4);
    await until(async () => (await apiJob(1011)).readings.length === before + 1, 'the reading behind it');
    await page.unroute('**/readings');
    await reload();
    await until(async () => (await apiJob(1011)).readings.length === before + 2, 'the reading set aside');
  });
});
