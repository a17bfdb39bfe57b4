import { expect } from 'chai';
import {
  apiJob,
  arrive,
  ask,
  bench,
  freshUnit,
  page,
  pick,
  postJson,
  readingEntry,
  reload,
  slowReasoning,
  until,
  visit,
  visitor,
} from './stage.ts';

describe('the static bench: rounds', () => {
  it('work opens a round: the tape begins anew, the value before stands at its check, the report shows both', async () => {
    const before = await apiJob(1004);
    await bench(1004);
    await visit('/unit/1004/work');
    await page.waitForSelector('input:checked');
    await page.check('label:has-text("Brush set") input');
    await page.fill('input[placeholder^="turned"]', 'springs too');
    // Pressed twice, the second time while it still waits to be thought through.
    await slowReasoning(1500);
    for (let i = 0; i < 2; i++) await page.keyboard.press('Enter', { delay: 100 });
    await arrive(/\/unit\/1004$/);
    await reload();
    await page.waitForSelector('#entry:focus');
    expect(await page.textContent('section[aria-label="Tape"]')).match(/No reading yet[\s\S]*Before the work/);
    await pick('Case to output post, diode test');
    await page.waitForSelector('p:has-text("Before the work:") .figure');
    await page.keyboard.type('0.94');
    await page.keyboard.press('Enter');
    await until(async () => (await apiJob(1004)).readings.length === before.readings.length + 1, 'the reading');
    await visit('/unit/1004/report');
    const rows = await page.textContent('table[aria-label="Before and after"]');
    expect(rows)
      .match(/Case to output post, diode test/)
      .and.match(/940/);
    expect(await page.textContent('article')).match(/Brush set[\s\S]*Springs too/);
    const file = (await (await ask('/api/jobs/1004')).json()) as { works: object[]; readings: { round?: number }[] };
    expect(file.works.length).equal(1);
    expect(file.readings.at(-1)!.round).equal(2);
  });
  it('the same work done twice is two rounds, and the report names both', async () => {
    const tag = await freshUnit();
    expect((await postJson(`/api/jobs/${tag}/readings`, readingEntry())).status).equal(200);
    const brushes = { fitted: ['brushes'], mended: [], note: '', at: new Date().toISOString(), technician: visitor.id };
    for (let i = 0; i < 2; i++) {
      const done = await postJson(`/api/jobs/${tag}/works`, { ...brushes, id: crypto.randomUUID() });
      expect(done.status, await done.text()).equal(200);
    }
    await visit(`/unit/${tag}/report`);
    expect(await page.locator('li:has-text("Fitted new: Brush set")').count()).equal(2);
  });
  it('a reading of a round that no work has opened is refused', async () => {
    const answer = await postJson('/api/jobs/1012/readings', readingEntry({ round: 7 }));
    expect(answer.status).equal(422);
    expect(await answer.text()).match(/Round 7 follows no work: this unit is in round 1/);
  });
  it('nothing ticked is no work; what the unit lacks is refused; sent twice it is one', async () => {
    const work = { fitted: ['rectifier'], mended: [], note: '', at: new Date().toISOString(), technician: visitor.id };
    const none = await postJson('/api/jobs/1009/works', { ...work, id: crypto.randomUUID(), fitted: [] });
    expect(none.status).equal(422);
    expect(await none.text()).match(/no work to prove/);
    const strange = await postJson('/api/jobs/1009/works', { ...work, id: crypto.randomUUID(), mended: ['diode:A+'] });
    expect(strange.status).equal(422);
    const once = { ...work, id: crypto.randomUUID() };
    for (let i = 0; i < 2; i++) expect((await postJson('/api/jobs/1009/works', once)).status).equal(200);
    const { works } = (await (await ask('/api/jobs/1009/view')).json()) as { works: object[] };
    expect(works.length).equal(1);
  });
});
