import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { browser, stand, until } from './stage.ts';
import { instrumentState, tell } from './simulated-bench.ts';

describe('the page of the simulated bench', () => {
  let secrets: Page;
  const told = () => secrets.locator('#told').textContent();
  const hands = () => secrets.locator('#hands').textContent();

  before(async () => {
    await stand.startStandIns();
    secrets = await browser.newPage();
    await secrets.goto(`http://127.0.0.1:${stand.standInsPort}/`);
    await secrets.waitForSelector('#scenarios option', { state: 'attached' });
  });
  after(async () => {
    await secrets.close();
    stand.stopStandIns();
  });

  it('puts a scenario into the vise and says what hides in it', async () => {
    await secrets.selectOption('#scenarios', 'b-open-diode.json');
    await secrets.click('#play');
    await secrets.click('summary:has-text("What hides in it")');
    await until(async () => /diode/.test((await secrets.textContent('#hidden'))!), 'the open diode');
  });

  it('lets the probes slip by a key, and leaves the browser its own keys', async () => {
    await tell('/hands', { red: 'output', black: 'case', assembly: 'closed' });
    await until(async () => /Red at output, black at case/.test((await hands())!), 'the probes at their places');
    await secrets.keyboard.press('t');
    await until(async () => /Tips together/.test((await hands())!), 'tips together');
    await secrets.keyboard.press('Control+l');
    await secrets.waitForResponse(/\/state$/);
    await secrets.waitForResponse(/\/state$/);
    expect(await hands()).match(/Tips together/);
    await secrets.keyboard.press('l');
    await until(async () => /Lifted/.test((await hands())!), 'lifted');
  });

  it('what was refused stays to be read, and goes with what is taken', async () => {
    await secrets.click('summary:has-text("A scenario of your own")');
    await secrets.fill('#own', '{"name": "x"}');
    await secrets.click('#playOwn');
    await until(async () => /machine/.test((await told())!), 'why it is refused');
    await secrets.waitForResponse(/\/state$/);
    await secrets.waitForResponse(/\/state$/);
    expect(await told()).match(/machine/);
    await secrets.click('#lift');
    await until(async () => (await told()) === '', 'nothing to tell');
  });

  it('switches an instrument off and on, shows the noise set elsewhere, and says when nobody answers', async () => {
    await secrets.uncheck('#on-clamp');
    await until(async () => (await instrumentState('clamp')).on === false, 'the clamp is off');
    await secrets.check('#on-clamp');
    await until(async () => (await instrumentState('clamp')).on, 'and on again');
    await tell('/instrument', { name: 'multimeter', noise: 7 });
    await until(async () => (await secrets.inputValue('#noise')) === '7', 'the noise as it is');
    await secrets.route('**/state', (route) => route.abort());
    await until(async () => /don’t answer/.test((await told())!), 'nobody answers');
    await secrets.unroute('**/state');
    await until(async () => (await told()) === '', 'somebody does again');
  });
});
