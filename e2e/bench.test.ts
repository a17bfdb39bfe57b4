import { expect } from 'chai';
import type { Worker } from 'playwright-core';
import {
  apiJob,
  arrive,
  ask,
  bench,
  browser,
  freshUnit,
  openPage,
  page,
  pick,
  postJson,
  readingEntry,
  reload,
  slowReasoning,
  tape,
  title,
  until,
  visit,
} from './stage.ts';

/** As a barcode reader does it: all keys at once and Enter, none waiting until the one before has been seen to. */
const scan = (code: string): Promise<unknown> => Promise.all([...code, 'Enter'].map((key) => page.keyboard.press(key)));

/**
 * Holds what the way to another page waits for, that page's own script, once it is said that somebody sets out. A page
 * that is there already asks without being held for a moment after a hold was set up: it is set up before.
 */
async function holdingTheWay(tag: number, meanwhile: () => Promise<void>): Promise<() => Promise<number>> {
  let [met, setOut] = [0, false];
  await page.route(/nodes\/.*\.js$/, async (route) => {
    if (setOut) {
      met++;
      await meanwhile();
      await page.waitForTimeout(400);
    }
    await route.continue();
  });
  await bench(tag);
  return async () => {
    setOut = true;
    await page.keyboard.press('v');
    await arrive(/verdict$/);
    return met;
  };
}

describe('at the bench', () => {
  afterEach(() => page.unrouteAll({ behavior: 'ignoreErrors' }));

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

  it('what was written elsewhere while the page was on its way stands on it a moment later', async () => {
    const tag = await freshUnit();
    await page.route(`**/unit/${tag}`, async (route) => {
      const before = await route.fetch();
      expect((await postJson(`/api/jobs/${tag}/readings`, readingEntry())).status).lessThan(300);
      await route.fulfill({ response: before });
    });
    await visit(`/unit/${tag}`);
    await tape().first().waitFor();
    expect(await tape().count()).equal(1);
  });

  it('a barcode burst while the reading field has the focus opens the unit and leaves no reading', async () => {
    await bench(1006);
    await pick('Slip ring to slip ring');
    await page.fill('#entry', '0.5');
    await scan('TAG-1009');
    await arrive(/\/unit\/1009$/);
    expect((await apiJob(1006)).readings.length).equal(0);
    await bench(1006);
    expect(await page.inputValue('#entry')).equal('0.5');
    await page.fill('#entry', '');
  });

  it('a tag typed by hand goes where it was typed', async () => {
    await visit('/check-in');
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
    await reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
    expect(await page.inputValue('#entry')).equal('3.1');
    expect(await tape().count()).equal(1);
    await page.fill('#entry', '');
  });

  it('of readings that disagree a third is asked for; the one that then stands alone says that it doesn’t count', async () => {
    await bench(await freshUnit());
    // a: nothing was read yet; nor is an a typed.
    await page.keyboard.press('a');
    expect(await page.inputValue('#entry')).equal('');
    const says = (at: number, words: string) => async () =>
      ((await tape().nth(at).textContent()) ?? '').includes(words);
    for (const [taken, typed] of ['3.3', '33', '3.3'].entries()) {
      if (taken === 0) await pick('Slip ring to slip ring');
      // a: the newest reading, and of one that asks for it so the tape says.
      else {
        if (taken === 2) {
          await until(says(0, 'until it is taken once more the last one counts'), 'asked for a third');
          expect(await tape().first().textContent()).match(/a\s*Take it again/);
        }
        await until(async () => (await title()) !== 'Slip ring to slip ring', 'another check');
        await page.keyboard.press('a');
        await until(async () => (await title()) === 'Slip ring to slip ring', 'the same check again');
      }
      await page.keyboard.type(typed);
      await page.keyboard.press('Enter');
      await until(async () => (await tape().count()) === taken + 1, 'on the tape');
    }
    await until(says(1, 'this one doesn’t count'), 'outvoted');
    expect(await tape().nth(1).textContent()).not.match(/Take it again/);
    for (const at of [0, 2]) expect(await tape().nth(at).textContent()).not.match(/disagree|count/);
  });

  it('a part touched on one unit is not chosen on the next', async () => {
    await bench(1011);
    await page.locator('svg g[role="button"][aria-label^="Stator"]').first().press('Enter');
    await page.waitForSelector('section[aria-label="Suspects"] h2:has-text("Suspects: Stator")');
    await scan('TAG-1009');
    await arrive(/\/unit\/1009$/);
    await page.waitForSelector('section[aria-label="Suspects"] h2 span:text-is("Suspects")');
  });

  it('what was worked out of a unit serves its other pages too, and no other unit', async () => {
    const [one, other] = [await freshUnit(), await freshUnit()];
    await bench(one);
    let begun = 0;
    const count = (worker: Worker) => void (begun += Number(/reasoner/.test(worker.url())));
    page.on('worker', count);
    await page.click('a:text-is("Stand")');
    await page.waitForSelector('section[aria-label="Before it runs"] h2');
    await page.click('a:text-is("Bench")');
    await page.waitForSelector('section[aria-label="Suspects"] li');
    expect(begun, 'another beginning for the same unit').equal(0);
    await scan(`TAG-${other}`);
    await arrive(new RegExp(`/unit/${other}$`));
    await until(() => Promise.resolve(begun === 1), 'one for the other unit');
    page.off('worker', count);
  });
  it('Enter before the next check is chosen records nothing twice', async () => {
    await bench(1008);
    const before = (await apiJob(1008)).readings.length;
    await pick('Slip ring to slip ring');
    await page.keyboard.type('3.3');
    await page.keyboard.press('Enter');
    await page.keyboard.type('3.4');
    await page.keyboard.press('Enter');
    await until(async () => (await apiJob(1008)).readings.length > before, 'the first reading');
    await page.waitForTimeout(500);
    const taken = (await apiJob(1008)).readings.slice(before);
    expect(taken.filter((r) => r.check === 'ring-ring').map((r) => r.typed)).deep.equal(['3.3']);
  });

  it('Enter pressed twice for the advised check, while the last reading is still thought through, records it once', async () => {
    const tag = await freshUnit();
    await bench(tag);
    await pick('Slip ring to core');
    await page.keyboard.press('*');
    await until(async () => (await title()) === 'Brush length, the shorter one', 'the brush advised');
    await pick('Slip ring to slip ring');
    await slowReasoning(2000);
    await page.keyboard.type('3.3');
    await page.keyboard.press('Enter');
    await until(async () => (await tape().count()) === 2, 'the rings on the tape');
    expect(await title(), 'advised before the rings are thought through, and after').match(/^Brush length/);
    await page.keyboard.type('7');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await until(async () => (await apiJob(tag)).readings.length >= 3, 'the brush');
    await page.waitForTimeout(3000);
    expect((await apiJob(tag)).readings.map(({ typed }) => typed)).deep.equal(['OL', '3.3', '7']);
    await reload();
  });

  it('says so while suspects are slow to come; the reading stands on the tape by then', async () => {
    await bench(await freshUnit());
    await pick('Slip ring to slip ring');
    const slow = page.locator('p[role="status"]:has-text("still without the last reading")');
    expect(await slow.count()).equal(0);
    // As long as a unit that has to be followed anew may take.
    await slowReasoning(2000);
    await page.keyboard.type('3.3');
    await page.keyboard.press('Enter');
    await slow.waitFor();
    expect(await tape().count()).equal(1);
    await slow.waitFor({ state: 'detached' });
    await reload();
  });

  it('meter, temperature and state are changed beside the tag, and kept', async () => {
    await bench(1002);
    await page.selectOption('#meter-in-hand', { label: 'Bench meter' });
    await page.fill('label:has-text("Part, °C") input', '35');
    await page.keyboard.press('Tab');
    await page.selectOption('label:has-text("State") select', { label: 'Stator unsoldered' });
    await until(async () => (await apiJob(1002)).assembly === 'unsoldered', 'the state on the server');
    await reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
    expect(await page.inputValue('label:has-text("Part, °C") input')).equal('35');
    expect(await page.inputValue('#meter-in-hand')).equal('bench');
    // The screen would keep it for every test that follows.
    await page.evaluate(() => localStorage.removeItem('refectum-meter'));
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

  it('a change that comes in while a page is on its way does not call the page back', async () => {
    const reading = readingEntry();
    const goToTheSheet = await holdingTheWay(
      1010,
      async () => void (await postJson('/api/jobs/1010/readings', reading)),
    );
    expect(await goToTheSheet()).equal(1);
  });

  it('nor does one that was heard of before the page set out', async () => {
    let setOut = () => {};
    const onItsWay = new Promise<void>((go) => (setOut = go));
    let heard = 0;
    // It is heard of, and whether the server is well isn't known yet: then somebody turns the page.
    await page.route('**/api/health', async (route) => {
      heard++;
      await onItsWay;
      await route.continue();
    });
    const goToTheSheet = await holdingTheWay(1010, async () => setOut());
    await postJson('/api/jobs/1010/readings', readingEntry());
    await until(() => Promise.resolve(heard > 0), 'the change to be heard of');
    expect(await goToTheSheet()).equal(1);
  });

  it('a viewer looks, and is told why nothing is recorded; what was typed stays', async () => {
    const office = await browser.newContext();
    const other = await openPage('Perran Quill', office);
    await bench(1011, other);
    await pick('Slip ring to slip ring', other);
    await other.keyboard.type('1');
    await other.keyboard.press('Enter');
    await other.waitForSelector('#entry-problem:has-text("Perran Quill may look, not write")');
    expect(await other.inputValue('#entry')).equal('1');
    await office.close();
  });

  it('touching a part shows its evidence; the meter that can’t tell says what would', async () => {
    await bench(1009);
    await page.click(
      'svg g[role="button"][aria-label^="Stator phase"], svg g[role="button"][aria-label^="Stator winding"]',
    );
    await page.waitForSelector('section[aria-label="Suspects"] h2:has-text("Suspects: Stator")');
    await page.selectOption('label:has-text("Any check") select', { label: 'Stator leads A and B' });
    await page.waitForSelector('figcaption:has-text("can’t tell")');
    expect(await page.textContent('figcaption')).match(/Bench meter/);
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
    await visit('/unit/1005/verdict');
    await page.waitForSelector('section[aria-label="Reject"]');
    const cost = () => page.textContent('section[aria-label="Reject"] dd');
    expect(await cost()).equal('185.00');
    await page.fill('label:has-text("Exchange or new unit") input', '300');
    await page.keyboard.press('Tab');
    await until(async () => (await cost()) === '275.00', 'the new cost');
  });
});
