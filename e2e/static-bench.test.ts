import { expect } from 'chai';
import { format, subDays } from 'date-fns';
import { readFileSync } from 'node:fs';
import { pdfText } from './harness.ts';
import {
  apiJob,
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
  visitor,
} from './stage.ts';

const record = async (text: string, on = page): Promise<void> => {
  await on.keyboard.type(text);
  await on.keyboard.press('Enter');
};
/** A lead at another browser. */
const leadsPage = async () =>
  openPage('Ansa Brimmel', await browser.newContext({ viewport: { width: 1280, height: 800 } }));
const newest = async (tag: number) => (await apiJob(tag)).readings.at(-1)!;
const shown = (on = page) => tape(on).first().textContent();

describe('the static bench: what every check may answer', () => {
  it('t: changes when touched, n: not accessible, each with a letter and Enter', async () => {
    const before = (await apiJob(1006)).readings.length;
    await bench(1006);
    await pick('Case to output post, diode test');
    await record('t');
    await until(async () => /Changes when touched/.test((await shown()) ?? ''), 'the tape');
    await pick('Output post to case, diode test');
    await record('n');
    await until(async () => (await apiJob(1006)).readings.length === before + 2, 'both on the server');
    const { readings } = await apiJob(1006);
    expect(readings.slice(before).map(({ check }) => check)).deep.equal(['bridge-forward', 'bridge-reverse']);
  });
  it('a field watched while turning is typed as its lowest and its highest', async () => {
    await bench(1006);
    await pick('Field through the brushes while turning');
    await record('3.1 OL');
    await until(async () => (await newest(1006)).check === 'field-turning', 'the reading');
    expect(await shown()).match(/Lost at some angles/);
    await pick('Field through the brushes while turning');
    await record('3 apples');
    expect(await page.textContent('#entry-problem')).match(/lowest and the highest reading/);
    await page.fill('#entry', '');
  });
  it('a finding says what follows from it', async () => {
    await bench(1006);
    await pick('Bearings by hand');
    await record('2');
    await until(async () => /Both bearings are renewed/.test((await shown()) ?? ''), 'what follows');
  });
  it('the leads’ null of another unit is taken over with one key while the leads are the same', async () => {
    await postJson(
      '/api/jobs/1012/readings',
      readingEntry({ check: 'leads-null', typed: '0.31', outcome: { kind: 'value', value: 0.31 } }),
    );
    await bench(1006);
    await page.selectOption('#meter-in-hand', { label: 'Workshop meter' });
    await pick('Test leads held together');
    await page.waitForSelector('button:has-text("Same leads as at")');
    await page.keyboard.press('=');
    await until(async () => (await newest(1006)).check === 'leads-null', 'the null');
    expect((await newest(1006)).typed).match(/0\.31/);
  });
  it('with other leads in the meter their null is asked again, and the tape says from where it holds', async () => {
    await bench(1006);
    const nulls = async () =>
      (await apiJob(1006)).readings.filter(({ check, struck }) => check === 'leads-null' && !struck).length;
    const before = await nulls();
    await pick('Test leads held together');
    await record('0.3');
    await until(async () => (await nulls()) === before + 1, 'the first leads');
    await page.keyboard.press('x');
    await page.waitForSelector('section[aria-label="Check at hand"] h2:has-text("Test leads held together")');
    await record('0.9');
    await until(async () => /Other leads from here on/.test((await shown()) ?? ''), 'what other leads mean');
    await until(async () => (await nulls()) === before + 2, 'the other leads');
  });
  it('a regulator is held against its twin, pin by pin, and the pairs stay with the finding', async () => {
    await bench(1006);
    await pick('Regulator against a known-good twin');
    await page.focus('[aria-label="Pins 1"]');
    const type = async (...texts: string[]) => {
      for (const text of texts) {
        await page.keyboard.type(text);
        await page.keyboard.press('Enter');
      }
    };
    await type('1 to 2', '1k', '0.5M', '1 to 3', '1.1', '263k');
    // Another check meanwhile, and a reload.
    await pick('Test leads held together');
    await reload();
    await pick('Regulator against a known-good twin');
    expect(await page.inputValue('[aria-label="Twin 2"]')).equal('263k');
    await page.focus('[aria-label="Pins 3"]');
    await type('2 to 3', '4.6M', '5.5M');
    await slowReasoning(2000);
    await page.click('button:has-text("Compare and record")');
    await until(async () => (await apiJob(1006)).readings.at(-1)?.check === 'regulator-twin', 'the finding');
    expect(await shown()).match(/Far apart/);
    await pick('Regulator against a known-good twin');
    expect(await page.inputValue('[aria-label="Twin 2"]'), 'recorded').equal('');
    await visit('/unit/1006/report');
    expect(await page.textContent('article')).match(/1 to 3: 1\.1 against 263k/);
    const pdf = pdfText(new Uint8Array(await (await ask('/unit/1006/report.pdf')).arrayBuffer()));
    expect(pdf)
      .match(/1 to 3: 1\.1 against 263k/)
      .and.match(/Reasoned with engine/);
  });
});

describe('the static bench: over more than a day', () => {
  it('the tape and the report say on which day a reading was taken, where it wasn’t today', async () => {
    const tag = await freshUnit();
    const now = new Date();
    const at = subDays(now, 1);
    await postJson(`/api/jobs/${tag}/readings`, readingEntry({ at: at.toISOString() }));
    await postJson(`/api/jobs/${tag}/readings`, readingEntry({ at: now.toISOString() }));
    await bench(tag);
    const yesterday = format(at, 'EEE d MMM');
    expect(await tape().first().textContent()).not.contain(yesterday);
    expect(await tape().last().textContent()).contain(yesterday);
    await visit(`/unit/${tag}/report`);
    expect(await page.locator('tr:has-text("Slip ring to slip ring") td:first-child').allTextContents()).deep.equal([
      `${yesterday}${format(at, 'HH:mm')}`,
      `${format(now, 'EEE d MMM')}${format(now, 'HH:mm')}`,
    ]);
  });
});

describe('the static bench: meters and house rules', () => {
  it('a lead describes a meter of the shop; wrong ranges are answered at their place, nothing is lost; it is read with', async () => {
    const lead = await leadsPage();
    await visit('/shop', lead);
    await lead.click('li:has-text("Workshop meter") button:has-text("Copy as new")');
    await lead.fill('input[name="name"]', 'Ferry meter');
    await lead.fill('textarea[name="volts"]', '4, 0.001, 0.5, 2\n2, 0.001, 0.5, 2');
    await lead.click('form[aria-label="Meter"] button:has-text("Keep")');
    await lead.waitForSelector('[role="alert"]');
    expect(await lead.textContent('form[aria-label="Meter"] [role="alert"]')).match(/lowest full scale up/);
    expect(await lead.inputValue('input[name="name"]')).equal('Ferry meter');
    await lead.fill('textarea[name="volts"]', '4, 0.001, 0.5, 2\n40, 0.01, 0.5, 2');
    await lead.fill('input[name="calibratedOn"]', '2020-01-10');
    await lead.fill('input[name="everyMonths"]', '12');
    await lead.click('form[aria-label="Meter"] button:has-text("Keep")');
    await lead.waitForSelector('[role="status"]:has-text("Ferry meter is kept")');
    expect(await lead.textContent('li:has-text("Ferry meter")')).match(/calibration was due/);
    await lead.context().close();
    await bench(1012);
    await page.selectOption('#meter-in-hand', { label: 'Ferry meter' });
    await pick('Slip ring to slip ring');
    await record('3.4');
    await until(async () => (await newest(1012)).check === 'ring-ring', 'the reading');
    const file = (await (await ask('/api/jobs/1012')).json()) as { meters: { name: string }[] };
    expect(file.meters.map(({ name }) => name)).deep.equal(['Ferry meter']);
    // The screen keeps it for the next unit.
    await bench(1011);
    expect(await page.locator('#meter-in-hand option:checked').textContent()).equal('Ferry meter');
    await page.selectOption('#meter-in-hand', { label: 'Workshop meter' });
  });
  it('a meter the shop has not is refused, and a technician changes neither meters nor rules', async () => {
    const strange = await postJson('/api/jobs/1012/readings', readingEntry({ meter: 'somebody’s' }));
    expect(strange.status).equal(422);
    expect(await strange.text()).match(/has no meter/);
    expect((await visitor.submit('/shop?/rules', { limits: 'own' })).status).equal(403);
  });
  it('the limits of the schools stand at the check, the house’s first, and say whether what is typed keeps them', async () => {
    const lead = await leadsPage();
    await visit('/shop', lead);
    await lead.click('button[aria-label="Siblings alike earlier"]');
    await lead.selectOption('select[name="output"]', { label: 'The most amps the pile draws' });
    await lead.click('button:has-text("Keep the rules")');
    await lead.waitForSelector('[role="status"]:has-text("The house rules are kept")');
    await reload(lead);
    expect(await lead.inputValue('select[name="output"]')).equal('most');
    expect(await lead.inputValue('input[name="motorKilowatts"]'), 'the stand stays as it was').match(/^\d/);
    await lead.evaluate(() => localStorage.setItem('refectum-meter', 'bench'));
    await bench(1003, lead);
    for (const [name, text] of [
      ['Test leads held together', '0.1'],
      ['Stator leads B and C, diodes joined', '0.35'],
      ['Stator leads C and A, diodes joined', '0.351'],
    ] as const) {
      await pick(name, lead);
      await record(text, lead);
      await lead.waitForSelector(`section[aria-label="Tape"] li:has-text("${name}")`);
    }
    await pick('Stator leads A and B, diodes joined', lead);
    const table = 'table[aria-label="Limits by school"]';
    await lead.waitForSelector(table);
    expect(await lead.textContent(`${table} tr:first-child`)).match(/Siblings alike/);
    await lead.keyboard.type('0.35');
    expect(await lead.textContent(`${table} tr:first-child`)).match(/inside/);
    await lead.fill('#entry', '');
    await lead.context().close();
  });
  it('kept twice, rules and stand stay what they are; what is typed elsewhere or not taken stays typed', async () => {
    const lead = await leadsPage();
    await visit('/shop', lead);
    const figures = () =>
      lead
        .locator('form[aria-label="Run stand"] input')
        .evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
    const standing = await figures();
    expect(standing.filter(Boolean).length).greaterThan(3);
    const keep = async (what: 'stand' | 'rules') => {
      const answered = lead.waitForResponse((answer) => answer.url().includes(`?/${what}`));
      await lead.click(`button:has-text("Keep the ${what}")`);
      await answered;
      await lead.waitForTimeout(300);
    };
    for (const _ of [1, 2]) await keep('stand');
    expect(await figures()).deep.equal(standing);
    const output = await lead.inputValue('select[name="output"]');
    expect(output, 'not the first of the list').equal('most');
    await lead.fill('input[name="loadSeconds"]', '14');
    for (const _ of [1, 2]) await keep('rules');
    expect(await lead.inputValue('select[name="output"]')).equal(output);
    expect(await lead.inputValue('input[name="loadSeconds"]'), 'typed meanwhile').equal('14');
    await lead.route('**/shop?/stand', (route) => route.abort());
    await lead.click('button:has-text("Keep the stand")');
    await lead.waitForSelector('form[aria-label="Run stand"] [role="alert"]:has-text("still here")');
    expect(await lead.inputValue('input[name="loadSeconds"]'), 'not taken').equal('14');
    await lead.unroute('**/shop?/stand');
    await reload(lead);
    expect(await figures(), 'on the server').deep.equal(standing);
    expect(await lead.inputValue('select[name="output"]')).equal(output);
    await lead.context().close();
  });
  it('a lead vouches for a unit, a technician can’t', async () => {
    const refused = await visitor.send('PATCH', '/api/jobs/1003', { knownGood: true, technician: visitor.id });
    expect(refused.status).equal(403);
    const lead = await leadsPage();
    await visit('/unit/1003/verdict', lead);
    await lead.check('label:has-text("Known good") input');
    await until(async () => {
      const { knownGood } = (await (await ask('/api/jobs/1003/view')).json()) as { knownGood: boolean };
      return knownGood;
    }, 'known good');
    await lead.context().close();
  });
});

describe('the job file by itself', () => {
  it('POST /api/assess reasons about it as the command does, and keeps nothing', async () => {
    const file = await (await ask('/api/jobs/1003')).text();
    const answer = await visitor.send('POST', '/api/assess', JSON.parse(file));
    expect(answer.status).equal(200);
    const told = (await answer.json()) as { suspects: object[]; next: object[]; verdict: object; engine: string };
    const own = (await (await ask('/api/jobs/1003/assessment')).json()) as typeof told;
    expect(told.engine).equal(own.engine);
    expect(told.suspects).deep.equal(own.suspects);
  });
  it('a file that is none is refused with its problems', async () => {
    const answer = await visitor.send('POST', '/api/assess', { format: 'other' });
    expect(answer.status).equal(422);
    expect(await answer.text())
      .match(/format/)
      .and.match(/readings/);
    const strange = JSON.parse(await (await ask('/api/jobs/1003')).text()) as { readings: { check: string }[] };
    strange.readings[0]!.check = 'taste';
    const unknown = await visitor.send('POST', '/api/assess', strange);
    expect(unknown.status).equal(422);
    expect(await unknown.text()).match(/no check “taste”/);
  });
  it('the documented example is read and assessed', async () => {
    const document = readFileSync('docs/job-file.md', 'utf8');
    const example = /```json\n([\s\S]*?)```/.exec(document)![1]!;
    const answer = await visitor.send('POST', '/api/assess', JSON.parse(example));
    expect(answer.status, await answer.clone().text()).equal(200);
  });
});

describe('what a brush has left', () => {
  it('stands at its check while its length is typed; hours that tell no rate are said to', async () => {
    await bench(1010);
    await pick('Brush length, the shorter one');
    const field = page.getByLabel('Hours since new, if known');
    const said = () => page.locator('section[aria-label="Check at hand"] output').textContent();
    expect(await field.count()).equal(0);
    await page.keyboard.type('7.5');
    await field.fill('1000');
    // 10 mm new, 5 mm least: half is worn, and the other half lasts as long.
    expect(await said()).match(/About 1000 h left/);
    expect(await page.textContent('section[aria-label="Check at hand"]')).match(/50 % of what may wear is worn/);
    await field.fill('-3');
    expect(await said()).match(/Hours run are above 0/);
    await page.fill('#entry', '12');
    expect(await said()).match(/no longer than it was new/);
    await page.fill('#entry', '');
  });
});

describe('a full teardown by keyboard', () => {
  it('thirty readings, each its digits and Enter, in the order the program asks for them', async () => {
    const tag = 1010;
    await bench(tag);
    const before = (await apiJob(tag)).readings.length;
    for (let n = 0; n < 30; n++) {
      const name = (await title()) ?? '';
      const typed = soundText(name);
      expect(typed.replaceAll(/[\d.]/g, '').length, `keys beyond digits for ${name}`).at.most(2);
      await page.keyboard.type(typed);
      await page.keyboard.press('Enter');
      await until(async () => (await tape().count()) > n + before, `reading ${n + 1}: ${name} ← ${typed}`);
      await until(async () => {
        await page.waitForSelector('#entry:focus');
        return (await title()) !== name;
      }, `another check after ${name}`);
    }
    await until(async () => (await apiJob(tag)).readings.length === before + 30, 'all thirty on the server');
  });
});

/** What a sound 12 V unit shows, as it is typed. */
function soundText(name: string): string {
  if (/held together/.test(name)) return '0.3';
  if (
    /by eye|by ear|by hand|between the fingers|rotor out|from inside|off the shaft|turning|Smell|twin|lamp/.test(name)
  )
    return '1';
  if (/to its ring/.test(name)) return '0.45';
  if (/length/.test(name)) return '8';
  if (/reversed, ohms|500 V tester|to core|post to case, ohms/.test(name)) return '5M';
  if (/reversed|Output post to case/.test(name)) return 'OL';
  if (/Case to output post/.test(name)) return '0.95';
  if (/under 5 A, volts/.test(name)) return '0.6';
  if (/under 5 A/.test(name)) return '0.86';
  if (/under 1\.7 A/.test(name)) return '0.88';
  if (/Stator leads/.test(name)) return '0.4';
  if (/ring to slip|brushes, shaft/.test(name)) return '3.4';
  if (/Exciter/.test(name)) return /joined/.test(name) ? '0.52' : '0.56';
  if (/forward, stator joined/.test(name)) return '0.48';
  return '0.52';
}
