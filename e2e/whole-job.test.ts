import { expect } from 'chai';
import { pdfText } from './harness.ts';
import { apiJob, arrive, ask, asked, page, reload, tape, title, until, visit } from './stage.ts';

describe('the whole job by keyboard', () => {
  let tag = 0;

  it('checks a unit in', async () => {
    await visit('/check-in');
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
    expect(tag).greaterThan(1014);
    // Another test's meter is no longer in hand here.
    await page.evaluate(() => localStorage.removeItem('refectum-meter'));
    await reload();
    await page.waitForSelector('section[aria-label="Suspects"]');
  });

  it('before any reading the verdict sheet names what would pay, not the leads’ null before it', async () => {
    expect(await title()).equal('Test leads held together');
    await page.keyboard.press('v');
    await arrive(/verdict$/);
    const told = page.locator('p:has-text("Not all is known")');
    await told.waitFor();
    expect(await told.textContent())
      .match(/“(?!Test leads)[^”]+” would still pay/)
      .and.not.match(/Test leads/);
    await page.keyboard.press('b');
    await arrive(/unit\/\d+$/);
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
    await until(async () => (await tape().count()) === 2, 'both on the tape');
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
    // Enter, pressed twice.
    await page.locator('form:has(button:has-text("Decide"))').evaluate((form: HTMLFormElement) => {
      form.requestSubmit();
      form.requestSubmit();
    });
    await page.waitForSelector('text=Replace parts, Wenna Oskarby');
    await page.waitForSelector('button:text-is("Decide")');
    expect((await apiJob(tag)).verdicts.map((v) => v.course)).deep.equal(['replace']);
    await visit(`/unit/${tag}/report`);
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
    const pdf = new Uint8Array(await (await ask(`/unit/${tag}/report.pdf`)).arrayBuffer());
    const text = [paper, pdf].map(pdfText);
    expect(text[0])
      .match(/Test report, tag/)
      .and.not.match(/Find tag/);
    expect(text[1])
      .match(/Quay Ferries/)
      .and.match(/Test leads held together\s+0\.3\sΩ/);
    expect(text[1])
      .match(/No reading at all/)
      .and.match(/page 1 of \d/)
      .and.match(/Replace parts: Brushes gone/);
  });

  it('asked nobody but this machine', () => expect([...asked]).deep.equal(['127.0.0.1']));
});
