import { expect } from 'chai';
import { apiJob, ask, browser, openPage, page, postJson, until, visit, visitor } from './stage.ts';

interface Step {
  id: string;
  step: { kind: string; circuit?: string; amps?: number };
  technician: string;
}
const steps = async (tag: number) => ((await apiJob(tag)) as unknown as { drain: Step[] }).drain;

describe('a drain followed fuse by fuse', () => {
  it('by keyboard: shut, wait until everything sleeps, the drain, the fuses; the log says which, and the days left', async () => {
    const own = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const there = await openPage('Tovik Harle', own);
    await there.clock.install({ time: new Date() });
    await visit('/unit/1005/vehicle', there);
    await there.click('a:has-text("Drain, fuse by fuse")');
    await there.waitForSelector('h2:has-text("Shut the vehicle")');
    await there.focus('button:has-text("It is shut")');
    await there.keyboard.press('Enter');
    await there.waitForSelector('[role="timer"]');
    expect(await there.textContent('[role="timer"]')).match(/^(30:00|29:5\d)$/);
    await there.clock.fastForward('31:00');
    await there.waitForSelector('h2:has-text("The drain with everything in")');
    const type = async (...keys: string[]) => {
      for (const key of keys)
        await (key === 'Tab' || key === 'Enter' ? there.keyboard.press(key) : there.keyboard.type(key));
    };
    await type('80 mV', 'Enter');
    await there.waitForSelector('#drain-problem:has-text("reads as volts")');
    await there.fill('label:has-text("Drain, A") input', '');
    await type('420m', 'Enter');
    await there.waitForSelector('text=0.420 A in all, more than 0.050 A: pull the first fuse.');
    await there.waitForSelector('label:has-text("Circuit out") input:focus');
    await type('F4 radio', 'Tab', '.418', 'Enter');
    await there.waitForSelector('td:text-is("nothing")');
    await there.click('button:text-is("Output cable off the unit")');
    await type('0.031', 'Enter');
    await there.waitForSelector('text=Of 0.420 A, the unit itself (0.389 A): that explains it, 0.031 A is left.');
    await there.waitForSelector('text=is gone in');
    await until(async () => (await steps(1005)).length === 4, 'all four on the server');
    expect((await steps(1005)).map(({ step, technician }) => [step.kind, step.amps, technician])).deep.equal([
      ['shut', undefined, 'Tovik Harle'],
      ['now', 0.42, 'Tovik Harle'],
      ['out', 0.418, 'Tovik Harle'],
      ['out', 0.031, 'Tovik Harle'],
    ]);

    await there.click('button:has-text("as read on the vehicle")');
    await until(
      async () => (await apiJob(1005)).readings.filter(({ place }) => place === 'vehicle').length === 2,
      'both read',
    );
    const taken = (await apiJob(1005)).readings.filter(({ place }) => place === 'vehicle');
    expect(taken.map(({ check, typed, told }) => [check, typed, told])).deep.equal([
      ['drain', '0.42', 'own'],
      ['drain-cable-off', '0.031', 'own'],
    ]);
    await until(
      async () => (await there.locator('button:has-text("as read on the vehicle")').count()) === 0,
      'taken once',
    );
    const at = new Date().toISOString();
    await postJson('/api/jobs/1005/strikes', { reading: taken[0]!.id, at, technician: visitor.id });
    await there.waitForSelector('button:has-text("as read on the vehicle")');
    expect(await there.textContent('button:has-text("as read on the vehicle")'), 'struck, it may be taken again')
      .match(/420/)
      .and.not.match(/31/);
    await own.close();
    for (const path of ['/unit/1005/letter', '/unit/1005/report'])
      expect(await (await ask(path)).text(), path).contain('the unit itself (0.389 A)');
  });

  it('a struck step no longer counts, and stays; a colleague sees it at once', async () => {
    await visit('/unit/1014/vehicle/drain');
    await page.waitForSelector('text=“F7 work lamps” (0.426 A)');
    const other = await openPage('Tovik Harle', await browser.newContext());
    await visit('/unit/1014/vehicle/drain', other);
    await other.click('section[aria-label="Log"] li:has-text("F7 work lamps") button');
    await page.waitForSelector('text=Of 0.550 A, “F9 fan” (0.428 A)');
    await other.click('section[aria-label="Log"] li:has-text("F9 fan") button');
    await page.waitForSelector('text=0.550 A in all, and not through the circuit pulled so far');
    expect(await page.textContent('section[aria-label="Log"] li:has-text("F7 work lamps")')).contain('struck out');
    expect((await steps(1014)).filter(({ step }) => step.circuit === 'F7 work lamps').length).equal(1);
    await other.context().close();
  });

  it('asks for the whole drain before a fuse; what is typed is not lost', async () => {
    await visit('/unit/1002/vehicle/drain');
    await page.click('button:has-text("It is shut")');
    await page.fill('label:has-text("Circuit out") input', 'F1');
    await page.fill('label:has-text("Drain, A") input', '0.3');
    await page.keyboard.press('Enter');
    await page.waitForSelector('#drain-problem:has-text("First the drain with everything in")');
    expect(await page.inputValue('label:has-text("Circuit out") input')).equal('F1');
  });

  it('the server takes a step sent twice as one, and refuses what is none', async () => {
    const entry = (step: object) => ({
      id: crypto.randomUUID(),
      at: new Date().toISOString(),
      technician: visitor.id,
      step,
    });
    const shut = entry({ kind: 'shut' });
    const before = (await steps(1008)).length;
    for (const answer of await Promise.all([1, 2].map(() => postJson('/api/jobs/1008/drain', shut))))
      expect(answer.status).equal(200);
    expect((await steps(1008)).length).equal(before + 1);
    const bad: readonly (readonly [object, RegExp])[] = [
      [{ kind: 'now' }, /amps/],
      [{ kind: 'now', amps: -1 }, /at least 0 A/],
      [{ kind: 'now', amps: 400 }, /no drain with the key off/],
      [{ kind: 'out', circuit: '', amps: 0.1, leftOut: false }, /Which circuit/],
      [{ kind: 'out', circuit: 'F1', amps: 0.1 }, /leftOut/],
      [{ kind: 'struck', step: 'x' }, /UUID/],
      [{ kind: 'shut', colour: 'red' }, /unknown|unspecified/],
      [{ kind: 'melted' }, /kind/],
    ];
    for (const [step, why] of bad) {
      const answer = await postJson('/api/jobs/1008/drain', entry(step));
      expect(answer.status, JSON.stringify(step)).equal(422);
      expect(((await answer.json()) as { message: string }).message).match(why);
    }
    expect((await steps(1008)).length).equal(before + 1);
  });
});
