import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import { openFolder } from './harness.ts';
import { arrive, ask, page, stand, until } from './stage.ts';

const open = async (): Promise<void> => {
  await page.goto(`${stand.url}/check-in`);
  await page.waitForSelector('html[data-ready]');
  await page.focus('#customer');
};
const offered = (list: string) =>
  page.locator(`#${list} option`).evaluateAll((all) => all.map((option) => (option as HTMLOptionElement).value));

describe('taking a unit in', () => {
  it('a known model in at most 40 keystrokes: customer and model found, the build filled in', async () => {
    await open();
    let keys = 0;
    const type = async (text: string) => {
      keys += text.length;
      await page.keyboard.type(text);
    };
    const press = async (key: string) => {
      keys++;
      await page.keyboard.press(key);
    };
    await type('Kel');
    await until(async () => (await offered('customers')).includes('Kelda Farm'), 'the customer offered');
    // Picking from the browser's own list: an arrow and Enter by hand, which a headless browser doesn't draw.
    keys += 2;
    await page.fill('#customer', 'Kelda Farm');
    await press('Tab');
    await type('Ferr');
    await until(async () => (await offered('models')).includes('Ferrolux 28-110'), 'the model offered');
    keys += 3;
    await page.fill('#model', 'Ferrolux 28-110');
    await page.waitForSelector('text=Filled in as tag');
    expect(await page.inputValue('#volts')).equal('24');
    expect(await page.inputValue('#amps')).match(/^110/);
    await press('Tab');
    await press('Tab');
    await type('Low');
    await press('Tab');
    await press('Enter');
    await arrive(/\/unit\/\d+$/);
    expect(keys).at.most(40);
  });

  it('a serial number seen before shows that job and its verdict', async () => {
    await open();
    await page.fill('#serial', 'FX 30022');
    await page.keyboard.press('Tab');
    await page.waitForSelector('text=This serial number was here');
    const told = await page.textContent('[role="status"]:has-text("serial number was here")');
    expect(told)
      .match(/1012/)
      .and.match(/Repair: Rings cleaned/);
  });

  it('goes on to the vehicle when asked; plate and what came with it stand on the report', async () => {
    await open();
    await page.fill('#customer', 'Harbour crane');
    await page.fill('#model', 'unknown');
    await page.selectOption('#complaint', 'click');
    await page.click('summary:has-text("Direction, pulley")');
    await page.selectOption('#direction', 'counter-clockwise');
    await page.selectOption('#pulley', 'one-way clutch');
    await page.fill('#came-with', 'half a bracket');
    await page.click('button:has-text("vehicle first")');
    await arrive(/\/unit\/\d+\/vehicle$/);
    const tag = /unit\/(\d+)/.exec(page.url())![1];
    await page.goto(`${stand.url}/unit/${tag}/report`);
    expect(await page.textContent('article')).match(
      /turns counter-clockwise; one-way clutch pulley; came with half a bracket/,
    );
  });

  it('what is asked of earlier jobs is taken as it is: no wildcard, one question at a time', async () => {
    expect(await (await ask('/api/known?customer=%25')).json()).deep.equal([]);
    expect(await (await ask('/api/known?model=unkn')).json()).deep.equal([]);
    expect(((await (await ask('/api/known?model=ferrolux')).json()) as unknown[]).length).greaterThan(1);
    expect((await ask('/api/known')).status).equal(400);
    expect((await ask('/api/known?customer=a&model=b')).status).equal(400);
  });

  it('prints a label in the roll’s size, with tag, barcode and square code', async () => {
    await page.goto(`${stand.url}/unit/1007/label?size=102x51`);
    expect(await page.locator('img[alt^="Barcode"]').count()).equal(1);
    expect(await page.locator('img[alt^="Square code"]').count()).equal(1);
    const file = join(openFolder(), 'label.pdf');
    writeFileSync(file, await page.pdf({ preferCSSPageSize: true }));
    const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
    const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!.map(Number) as [
      number,
      number,
      number,
    ];
    expect((width * 25.4) / 72).closeTo(102, 1);
    expect((height * 25.4) / 72).closeTo(51, 1);
    expect(info).match(/Pages:\s+1\n/);
    const text = execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' });
    expect(text)
      .match(/1007/)
      .and.match(/Island Buses, no\. 7/)
      .and.not.match(/Print/);
  });
});
