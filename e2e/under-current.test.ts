import { expect } from 'chai';
import { bench, freshUnit, page, pick, tape, title, until } from './stage.ts';

describe('checks under current of the bench supply', () => {
  const atHand = async () => (await page.textContent('section[aria-label="Check at hand"]'))!;
  const changed = async () => /Change the resistor/.test(await atHand());
  const exciterDiode = 'Exciter diode A under 1.7 A, stator joined';

  it('another resistor in its lead is told before the check that needs it, and not where it is in', async () => {
    await bench(await freshUnit());
    await pick(exciterDiode);
    expect(await changed(), 'nothing was under current yet').equal(false);
    await pick('Stator leads A and B under 5 A, volts across');
    await page.keyboard.type('374m');
    await page.keyboard.press('Enter');
    await until(async () => (await tape().count()) === 1, 'the reading on the tape');
    await pick('Positive diode A under 5 A, stator joined');
    expect(await changed(), 'the same').equal(false);
    await pick(exciterDiode);
    expect(await atHand()).match(/Change the resistor in the supply’s lead: 6\.8 Ω, it was\s+2\.4 Ω/);
    await page.keyboard.press('Delete');
    await page.waitForSelector('section[aria-label="Tape"] li.struck');
    await until(async () => /^Stator leads/.test((await title())!), 'its check at hand again');
    await pick(exciterDiode);
    expect(await changed(), 'what was struck out tells nothing').equal(false);
    await pick('Positive diode A under 5 A, stator joined');
    await page.keyboard.type('n');
    await page.keyboard.press('Enter');
    await until(
      async () => /Not accessible/.test((await tape().first().textContent())!),
      `not accessible, on the tape: ${await page.textContent('section[aria-label="Tape"]')}`,
    );
    await pick(exciterDiode);
    expect(await changed(), 'what nobody could reach had no current').equal(false);
  });
});
