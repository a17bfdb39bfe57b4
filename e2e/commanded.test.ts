import { expect } from 'chai';
import { arrive, ask, page, pick, soundAtRest, stand, until, visit } from './stage.ts';
import { benchState, tell } from './simulated-bench.ts';

const live = () => page.locator('section[aria-label="Instruments"]');

describe('the third hand: a commanded regulator', () => {
  before(() => stand.startStandIns());
  after(() => stand.stopStandIns());

  it('a regulator that a computer commands is told by a commander at its port, and found deaf', async () => {
    await visit('/check-in');
    await page.fill('#customer', 'Island buses');
    await page.fill('#model', 'Bus generator, commanded');
    await page.selectOption('#regulator', { label: 'built in, commanded' });
    await page.selectOption('#complaint', 'low-charge');
    await page.selectOption('#connection', 'star');
    await page.selectOption('#diodeKind', 'silicon');
    await page.focus('#model');
    await page.keyboard.press('Enter');
    await arrive(/\/unit\/\d+$/);
    const tag = Number(/\d+$/.exec(new URL(page.url()).pathname)![0]);
    const { machine } = (await (await ask(`/api/jobs/${tag}/view`)).json()) as { machine: { regulator: string } };
    expect(machine.regulator).equal('commanded');
    const faults = [{ fault: 'regulator-deaf', severity: 1 }];
    await tell('/scenario', { name: 'a test', machine, faults, meter: 'bench', seed: tag });
    await soundAtRest(tag);
    await visit(`/unit/${tag}/stand`);
    await page.click('button:has-text("clamped on the stand")');
    await live().locator('label:has-text("Command, %") input').fill('70');
    await page.keyboard.press('Enter');
    await until(async () => /Command\s*70 %/.test((await live().textContent()) ?? ''), 'the command is told');
    await live().locator('button:has-text("None")').click();
    await until(async () => /Command\s*none/.test((await live().textContent()) ?? ''), 'and taken back');
    await pick('Follows its command');
    await page.click('button:has-text("From the instruments: command 40 %, command 80 %")');
    await page.click('button:has-text("Record: Stays at its own set-point")');
    const first = page.locator('section[aria-label="Suspects"] summary, section[aria-label="Suspects"] li').first();
    await until(async () => /deaf to its command/.test((await first.textContent()) ?? ''), 'the deaf regulator');
    expect((await benchState()).command).equal('none');
  });
});
