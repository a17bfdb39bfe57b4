import { expect } from 'chai';
import {
  apiJob,
  ask,
  bench,
  freshUnit,
  page,
  pick,
  postJson,
  slowReasoning,
  soundAtRest,
  stand,
  tape,
  until,
  visitor,
} from './stage.ts';
import { hiddenUnit, instruments, tell, without } from './simulated-bench.ts';

const panel = () => page.locator('section[aria-label="Hands free"]');
const said = async () => (await panel().locator('[role=status]').textContent()) ?? '';
/** Until the tips are seen open for the check at hand; what is said may still be of the last one. */
async function tipsAreOpen(): Promise<void> {
  await page.waitForTimeout(1000);
  await until(async () => /^Open|Open\./.test(await said()), 'open');
}

describe('the third hand', () => {
  before(() => stand.startStandIns());
  after(() => stand.stopStandIns());

  describe('hands free at the bench', () => {
    let tag: number;
    before(async () => {
      tag = await hiddenUnit([{ fault: 'diode-leaky:B+', severity: 2000 }]);
      await bench(tag);
    });

    it('twelve diode readings and the stator pairs are taken by holding still, keyboard and pedal alone', async () => {
      const names = await page.locator('label:has-text("Any check") option').allTextContents();
      const wanted = names.filter((name) =>
        /^(Positive|Negative) diode [ABC] (forward|reversed)$|^Stator leads . and .(?!.*(under|joined))/.test(
          name.trim(),
        ),
      );
      expect(wanted.filter((name) => /diode/.test(name)).length).equal(12);
      expect(wanted.length).equal(15);
      await page.keyboard.press('h');
      await until(async () => /point|Open|Hold|meter’s/.test(await said()), 'listening');
      for (const name of wanted) {
        await pick(name);
        const before = await tape().count();
        await page.keyboard.press('p');
        const began = Date.now();
        while ((await tape().count()) === before && Date.now() - began < 12_000) {
          await page.waitForTimeout(100);
          // An open is the pedal's to take, once the probes sit.
          if (/reversed$/.test(name) && Date.now() - began > 1800 && /^Open|Open\./.test(await said()))
            await page.keyboard.press('Space');
        }
        expect(await tape().count(), `${name}: ${await said()}`).greaterThan(before);
      }
      await until(async () => (await apiJob(tag)).readings.length >= wanted.length, 'all delivered');
      const { readings } = await apiJob(tag);
      expect(readings.filter(({ typed }) => /held$/.test(typed)).length).equal(readings.length);
      const first = page.locator('section[aria-label="Suspects"] summary, section[aria-label="Suspects"] li').first();
      await until(
        async () => /positive diode B leaking/.test((await first.textContent()) ?? ''),
        'the leaking diode first',
      );
    });

    it('probes lifted while the last reading is still being thought through have left its point', async () => {
      await pick('Positive diode A reversed');
      await page.keyboard.press('p');
      await tipsAreOpen();
      await slowReasoning(2500);
      const before = await tape().count();
      await page.keyboard.press('Space');
      await until(async () => (await tape().count()) === before + 1, 'the open on the tape');
      await pick('Positive diode C forward');
      await page.keyboard.press('p');
      await until(async () => (await tape().count()) === before + 2, 'the next point');
      await bench(tag);
      await page.keyboard.press('h');
      await until(async () => /point|Open|Hold|meter’s/.test(await said()), 'listening again');
    });

    it('tips seen open for a check that was left for another have to be lifted anew once they read a number', async () => {
      await pick('Positive diode C reversed');
      await page.keyboard.press('p');
      await tipsAreOpen();
      const before = await tape().count();
      await page.keyboard.press('Space');
      await until(async () => (await tape().count()) === before + 1, 'the open on the tape');
      await pick('Positive diode A forward');
      await until(async () => /^Open|Open\./.test(await said()), 'open for the next as well');
      await tell('/instrument', { name: 'multimeter', noise: 60 });
      await page.keyboard.press('p');
      await until(async () => /Unsteady/.test(await said()), 'unsteady');
      await pick('Positive diode B forward');
      await tell('/instrument', { name: 'multimeter', noise: 1 });
      await until(async () => /Lift the probes/.test(await said()), 'still on the last point');
      await pick('Positive diode A forward');
      await page.waitForTimeout(4000);
      expect(await tape().count(), 'the tips are where they were').equal(before + 1);
      expect(await said()).match(/Lift the probes/);
    });

    it('says in words: unsteady, the wrong function, an instrument that is gone; and goes on', async () => {
      await pick('Positive diode A forward');
      await tell('/instrument', { name: 'multimeter', noise: 900 });
      await page.keyboard.press('p');
      await until(async () => /Unsteady/.test(await said()), 'unsteady');
      await tell('/instrument', { name: 'multimeter', noise: 1, knob: 'RES' });
      await until(async () => /The meter is on ohms; this check wants diode test/.test(await said()), 'wrong function');
      await without('multimeter', () =>
        until(async () => /Simulated multimeter: .*(switched off|nobody)/.test(await said()), 'gone'),
      );
      const before = await tape().count();
      await until(async () => !/switched off|nobody is there/.test(await said()), 'back');
      await page.keyboard.press('p');
      await until(async () => (await tape().count()) > before, 'taken after it came back');
    });

    it('an open counts by itself after four seconds where that is wanted, and only once', async () => {
      await panel().locator('input[type=checkbox]').check();
      await pick('Positive diode A reversed');
      const before = await tape().count();
      await page.keyboard.press('p');
      await until(async () => /counts as OL in \d s/.test(await said()), 'counting');
      await until(async () => (await tape().count()) === before + 1, 'taken');
      await pick('Positive diode C reversed');
      await page.waitForTimeout(6000);
      expect(await tape().count(), 'nothing was touched since').equal(before + 1);
      await panel().locator('input[type=checkbox]').uncheck();
    });
    it('goes on after the server was away', async () => {
      const name = 'Positive diode C forward';
      await pick(name);
      await stand.stop();
      await page.waitForTimeout(1500);
      await until(async () => /server is away/.test(await said()), 'away');
      await stand.start();
      await until(async () => !/server is away/.test(await said()), 'back');
      const before = await tape().count();
      await page.keyboard.press('p');
      await until(async () => (await tape().count()) > before, 'taken');
      await page.keyboard.press('h');
      await until(async () => (await panel().locator('[role=status]').count()) === 0, 'off');
    });
  });

  it('what is thought out about one unit holds up nothing else', async () => {
    const tag = await freshUnit();
    await soundAtRest(tag);
    let thinking = true;
    const thought = ask(`/api/jobs/${tag}/assessment`).finally(() => (thinking = false));
    for (let asked = 0; asked < 5; asked++) expect((await ask('/api/instruments')).status).equal(200);
    expect(thinking, 'an assessment takes longer than five small questions').equal(true);
    expect((await thought).status).equal(200);
  });
  it('nothing but what a lead allowed is reached', async () => {
    const unknown = await postJson(`/api/instruments/${crypto.randomUUID()}/set`, { rpm: 0 });
    expect(unknown.status).equal(404);
    const form = { id: crypto.randomUUID(), name: 'x', kind: 'clamp', host: '10.0.0.1', port: '80', meter: '' };
    const byTechnician = await fetch(`${stand.url}/shop?/instrument`, {
      method: 'POST',
      headers: { origin: stand.url, cookie: visitor.cookie },
      body: new URLSearchParams(form),
    });
    expect(byTechnician.status).equal(403);
    expect((await instruments()).length).equal(7);
  });
});
