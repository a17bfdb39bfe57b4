import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { arrive, bench, browser, openPage, page, stand, until, visit } from './stage.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

describe('finding the way', () => {
  it('/ finds a tag, a wrong one is told beside the field', async () => {
    await bench(1004);
    await page.keyboard.press('/');
    await page.keyboard.type('x9');
    await page.keyboard.press('Enter');
    expect(await page.textContent('#find-problem')).match(/no tag number/);
    await page.fill('#find-tag', '1008');
    await page.keyboard.press('Enter');
    await arrive(/\/unit\/1008$/);
  });
  it('? lists every key, and the keys can be switched off', async () => {
    await bench(1004);
    await page.keyboard.press('?');
    await page.waitForSelector('dialog[open]');
    expect(await page.locator('dialog dt').count()).greaterThan(8);
    await page.click('dialog label:has-text("act as keys")');
    await page.keyboard.press('Escape');
    await until(async () => (await page.locator('dialog[open]').count()) === 0, 'the list closed');
    await page.focus('#entry');
    await page.keyboard.press('v');
    await page.keyboard.press('4');
    expect(
      await page.evaluate(() => [
        location.pathname,
        localStorage.getItem('refectum-keys-off'),
        document.activeElement?.id,
      ]),
    ).deep.equal(['/unit/1004', '1', 'entry']);
    expect(await page.inputValue('#entry')).equal('v4');
    await page.fill('#entry', '');
    await page.evaluate(() => localStorage.clear());
  });
  it('the sums answer as one types, and say what is wrong beside the field', async () => {
    await visit('/sums');
    const answer = (name: string) => page.textContent(`section:has(h2:text-is("${name}")) [role="status"]`);
    await page.fill('#drain-hours', '80');
    await page.fill('#drain-amps', '.1');
    expect(await answer('Drain to half charge')).contain('16.7 days');
    await page.fill('#drain-amps', '80 mV');
    expect(await page.textContent('#drain-amps-told')).match(/reads as volts/);
    expect((await answer('Drain to half charge'))!.trim()).equal('');
    await page.fill('#load-rested', '12.2');
    expect(await answer('Load test')).match(/under 12\.45 V the test is void/);
    await page.selectOption('label:has-text("Battery set") select', '24');
    await page.fill('#charge-rested', '24.9');
    expect(await answer('State of charge')).contain('75 %');
    await page.selectOption('label:has-text("Wire") select', 'AWG 6');
    expect(await answer('What a brush has left')).contain('About 2\u202f000 h more, at 1.25 mm');
    await page.fill('#brush-now', '4.8 mm');
    expect(await answer('What a brush has left')).contain('At its least: replace it.');
    await page.fill('#cable-metres', '0');
    expect(await answer('Drop along a cable')).match(/length above 0/);
  });
  it('check-in tells what is missing beside each field, and keeps the rest', async () => {
    await visit('/check-in');
    await page.fill('#model', 'Gull 70');
    await page.fill('#ratedAmps', 'many');
    expect(await page.textContent('#ratedAmps-told')).match(/not a number/);
    await page.fill('#ratedAmps', '70');
    await page.click('button:has-text("Check in and start")');
    await page.waitForSelector('#customer-told:has-text("Who does the unit belong to")');
    expect(await page.inputValue('#model')).equal('Gull 70');
  });
});

describe('every view', () => {
  const views = [
    '/',
    '/check-in',
    '/check-in/many',
    '/sums',
    '/unit/1007/label',
    '/unit/1001',
    '/unit/1002',
    '/unit/1007',
    '/unit/1007/verdict',
    '/unit/1015/stand',
    '/unit/1016/stand',
    '/unit/1017/vehicle',
    '/unit/1003/stand',
    '/unit/1007/report',
    '/unit/1013/vehicle',
    '/unit/1013/letter',
    '/unit/1014/vehicle/drain',
    '/unit/1002/vehicle/drain',
    '/unit/99999',
    '/sign-in',
    '/me',
    '/people',
    '/shelf',
    '/unit/1007/pictures',
    '/shelf/new?tag=1004',
  ];
  let lead: Page;
  before(async () => {
    lead = await openPage('Ansa Brimmel', await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  });
  after(() => lead.context().close());
  for (const theme of ['day', 'night']) {
    for (const view of views) {
      it(`${view} by ${theme}: no axe violation, no sideways scrolling`, async () => {
        await lead.context().addCookies([{ name: 'theme', value: theme, url: stand.url }]);
        await visit(view, lead);
        if (/^\/unit\/\d{4}$/.test(view)) await lead.waitForSelector('section[aria-label="Suspects"]');
        if (view.endsWith('vehicle')) await lead.waitForSelector('section[aria-label="Where the fault lies"]');
        if (view.endsWith('verdict')) await lead.waitForSelector('section[aria-label="Repair"]');
        await lead.evaluate(axeSource);
        const found = await lead.evaluate(async () => {
          const axe = (
            window as unknown as {
              axe: {
                run: () => Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
              };
            }
          ).axe;
          const { violations } = await axe.run();
          return violations.map(
            (v) => `${v.id}: ${v.nodes.map((n) => `${n.html.slice(0, 160)} ${n.failureSummary}`).join(' | ')}`,
          );
        });
        expect(found.join('\n')).equal('');
        const overflow = await lead.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        );
        expect(overflow).at.most(0);
      });
    }
  }

  for (const [view, ...parts] of [
    ['/unit/1007', 'Suspects', 'Tape'],
    ['/unit/1013/vehicle', 'Suspects', 'Tape'],
    ['/unit/1015/stand', 'Instruments'],
  ] as const) {
    it(`${view} on a tablet held upright: ${parts.join(' and ')} in sight beside the check at hand, nothing sideways`, async () => {
      const tablet = await browser.newContext({ viewport: { width: 800, height: 1280 } });
      const upright = await openPage('Wenna Oskarby', tablet);
      await visit(view, upright);
      await upright.waitForSelector('#entry:focus');
      await upright.waitForSelector('section[aria-label="Suspects"]');
      const boxOf = async (what: string) => (await upright.locator(what).boundingBox())!;
      const entry = await boxOf('#entry');
      expect(entry.y + entry.height).lessThan(760);
      for (const part of parts) {
        const { x, y } = await boxOf(`section[aria-label="${part}"]`);
        expect(x, part).greaterThan(entry.x + entry.width);
        expect(y, part).lessThan(1100);
      }
      const [scrolled, overflow] = await upright.evaluate(() => {
        const { scrollWidth, clientWidth } = document.documentElement;
        return [scrollY, scrollWidth - clientWidth] as const;
      });
      expect([scrolled, Math.max(0, overflow)]).deep.equal([0, 0]);
      await tablet.close();
    });
  }
});
