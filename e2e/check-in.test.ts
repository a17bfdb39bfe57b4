import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import { openFolder } from './harness.ts';
import { arrive, ask, page, postJson, reload, until, visit, visitor } from './stage.ts';

const open = async (): Promise<void> => {
  await visit('/check-in');
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
    await page.waitForSelector('text=Filled in from the shelf');
    expect(await page.inputValue('#ratedVolts')).equal('24');
    expect(await page.inputValue('#ratedAmps')).match(/^110/);
    await press('Tab');
    await press('Tab');
    await type('Low');
    await press('Tab');
    await press('Enter');
    await arrive(/\/unit\/\d+$/);
    expect(keys).at.most(40);
  });

  it('a model that turns out to be another loses the build that was filled in', async () => {
    await open();
    // Not on the shelf, but here before.
    await page.fill('#model', 'Railcar generator set, 24 V');
    await page.waitForSelector('text=Filled in as tag');
    expect(await page.inputValue('#ratedVolts')).equal('24');
    await page.fill('#model', 'Railcar generator set, 240 V');
    await until(async () => (await page.inputValue('#ratedVolts')) === '12', 'the usual build again');
    expect(await page.locator('text=Filled in as tag').count()).equal(0);
  });

  it('what is changed of a build that was filled in stays, whatever comes late of what was typed before, or not at all', async () => {
    await open();
    let release = () => {};
    const held = new Promise<void>((done) => (release = done));
    const early = /api\/known\?model=Ferrolux$/;
    await page.route(early, async (route) => {
      await held;
      await route.fulfill({ json: [] });
    });
    await page.fill('#model', 'Ferrolux');
    await page.fill('#model', 'Ferrolux 28-110');
    await page.waitForSelector('text=Filled in from the shelf');
    await page.fill('#ratedAmps', '95');
    const answersTo = async (act: () => Promise<void>) => {
      const answered = page.waitForEvent('requestfinished', (asked) => asked.url().includes('/api/known'));
      await act();
      await answered;
      await page.waitForTimeout(50);
      expect(await page.inputValue('#ratedAmps')).equal('95');
      expect(await page.locator('text=Filled in from the shelf').count()).equal(1);
    };
    await answersTo(async () => release());
    await page.unroute(early);
    await answersTo(() => page.fill('#model', 'Ferrolux 28-110 '));
    await page.route(/api\/known/, (route) => route.fulfill({ status: 503, body: 'away' }));
    await answersTo(() => page.fill('#model', 'Ferrolux 28-11'));
    await page.unroute(/api\/known/);
  });

  it('a figure typed before the model was known gives way to the build; one that can’t be read is not sent', async () => {
    await open();
    await page.fill('#ratedAmps', '55');
    await page.fill('#model', 'Ferrolux 28-110');
    await page.waitForSelector('text=Filled in from the shelf');
    expect(await page.inputValue('#ratedAmps')).equal('110');
    await page.fill('#customer', 'Harbour crane');
    await page.selectOption('#complaint', 'whine');
    await page.fill('#ratedAmps', 'many');
    await page.click('button:has-text("Check in and start")');
    await page.waitForTimeout(500);
    expect(new URL(page.url()).pathname).equal('/check-in');
    expect(await page.evaluate(() => document.activeElement?.id)).equal('ratedAmps');
    expect(await page.textContent('#ratedAmps-told')).match(/not a number/);
    await page.fill('#ratedAmps', '0,1k');
    // One that is folded away is unfolded.
    const figures = page.locator('details:has(#rotorOhms)');
    await figures.locator('summary').click();
    await page.fill('#rotorOhms', 'few');
    await figures.locator('summary').click();
    expect(await page.isVisible('#rotorOhms')).equal(false);
    await page.click('button:has-text("Check in and start")');
    await page.waitForSelector('#rotorOhms:focus');
    await page.fill('#rotorOhms', '3.1');
    await page.keyboard.press('Enter');
    await arrive(/\/unit\/\d+$/);
    const { machine } = (await (
      await ask(`/api${new URL(page.url()).pathname.replace('unit', 'jobs')}/view`)
    ).json()) as {
      machine: { ratedAmps: number };
    };
    expect(machine.ratedAmps).equal(100);
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
    await page.click('summary:has-text("Direction, connector")');
    await page.selectOption('#direction', 'counter-clockwise');
    await page.selectOption('#pulley', 'one-way clutch');
    await page.fill('#came-with', 'half a bracket');
    await page.click('button:has-text("vehicle first")');
    await arrive(/\/unit\/\d+\/vehicle$/);
    const tag = /unit\/(\d+)/.exec(page.url())![1];
    await visit(`/unit/${tag}/report`);
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
    await visit('/unit/1007/label?size=102x51');
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

describe('many units at once', () => {
  const lines = [
    'customer,model,serial,complaint,words,due,volts,amps',
    'Pier Works,Ferrolux 28-110,M1,no charge,,,,',
    'Pier Works,Heron 9,M2,whine,,,12,55',
    'Pier Works,Heron 10,M3,whine,,,,',
    'Pier Works,Heron 9,M4,sulks,,,12,55',
    ',Heron 9,M5,whine,,,12,55',
    'Pier Works,Heron 9,M6,whine,,soon,6,55',
  ];
  const results = () => page.locator('tbody tr td:last-child').allTextContents();

  it('shows what would become of each line, with the reason beside it, and writes nothing yet', async () => {
    await visit('/check-in/many');
    await page.fill('textarea', lines.join('\n'));
    await page.click('button:has-text("Look them through")');
    await until(async () => (await results()).includes('fits'), 'the preview');
    const [first, second, third, fourth, fifth, sixth] = await results();
    expect([first, second]).deep.equal(['fits', 'fits']);
    expect(third).match(/“Heron 10” was never here: give its volts and its amps or kilowatts/);
    expect(fourth).match(/“sulks” is none of no charge/);
    expect(fifth).match(/customer: Who does the unit belong to/);
    expect(sixth).match(/“6” must be 12 or 24/);
    expect(((await (await ask('/api/known?customer=Pier')).json()) as string[]).length).equal(0);
  });

  it('checks the good ones in, keeps the bad ones for mending, over a reload too', async () => {
    await page.click('button:has-text("Check 2 in")');
    await page.waitForSelector('h2:has-text("Checked in")');
    expect(await page.locator('h2:has-text("Checked in") + ul li').count()).equal(2);
    expect(await page.textContent('#many-problem')).match(/4 lines stay/);
    await reload();
    await page.waitForSelector('tbody tr');
    expect((await page.inputValue('textarea')).split('\n').length).equal(5);
    await page.fill('textarea', (await page.inputValue('textarea')).replace('sulks', 'growl'));
    await page.click('button:has-text("Look them through")');
    await until(async () => (await results()).includes('fits'), 'the mended line');
    await page.fill('textarea', '');
    // The same line once more is another unit.
    const again = 'customer,model,complaint,volts,amps\nPier Works,Heron 9,whine,12,55';
    for (const _ of [1, 2]) {
      const before = await page.locator('h2:has-text("Checked in") + ul li').count();
      await page.fill('textarea', again);
      await page.click('button:has-text("Look them through")');
      await page.click('button:has-text("Check 1 in")');
      await until(
        async () => (await page.locator('h2:has-text("Checked in") + ul li').count()) === before + 1,
        'one more unit',
      );
    }
    const tags = await page.locator('h2:has-text("Checked in") + ul li a.figure').allTextContents();
    expect(new Set(tags).size).equal(tags.length);
    const seen = (await (await ask('/api/known?serial=M1')).json()) as { model: string }[];
    expect(seen.map(({ model }) => model)).deep.equal(['Ferrolux 28-110']);
  });

  it('sent again after a lost answer and a reload, in another order too, they are the same units', async () => {
    const head = 'customer,model,serial,complaint,volts,amps';
    const two = ['Pier Works,Heron 9,R1,whine,12,55', 'Pier Works,Heron 9,R2,whine,12,55'];
    const checkIn = async (sent: readonly string[]) => {
      await page.fill('textarea', [head, ...sent].join('\n'));
      await page.click('button:has-text("Look them through")');
      await page.click('button:has-text("Check 2 in")');
    };
    // The server takes them; its answer gets lost.
    await page.route('**/api/check-ins', async (route) => {
      const { dry } = route.request().postDataJSON() as { dry: boolean };
      const answer = await route.fetch();
      await (dry ? route.fulfill({ response: answer }) : route.abort());
    });
    await checkIn(two);
    await page.waitForSelector('text=The server did not answer. The lines are kept here');
    await page.unroute('**/api/check-ins');
    const tagOf = async (serial: string) => {
      const seen = (await (await ask(`/api/known?serial=${serial}`)).json()) as { tag: number }[];
      return seen.map(({ tag }) => tag);
    };
    const tags = [await tagOf('R1'), await tagOf('R2')];
    expect(tags.map(({ length }) => length)).deep.equal([1, 1]);
    await reload();
    await checkIn(two.toReversed());
    await page.waitForSelector('h2:has-text("Checked in")');
    expect([await tagOf('R1'), await tagOf('R2')]).deep.equal(tags);
  });

  it('a model of this very name is found among many that begin so', async () => {
    const line = { customer: 'Pier Works', serial: '', complaint: 'whine', words: '', due: '', amps: '55' };
    const names = ['Heron ZZ', ...Array.from({ length: 9 }, (_, at) => `HERON ZZ ${at}`)];
    const lines = names.map((model) => ({ ...line, id: crypto.randomUUID(), model, volts: '12' }));
    await postJson('/api/check-ins', { technician: visitor.id, dry: false, lines });
    const bare = { ...line, id: crypto.randomUUID(), model: 'heron zz', volts: '', amps: '' };
    const answer = await postJson('/api/check-ins', { technician: visitor.id, dry: true, lines: [bare] });
    expect(await answer.json()).deep.equal([{}]);
    const [first] = (await (await ask('/api/known?model=heron%20zz')).json()) as { model: string }[];
    expect(first?.model).equal('Heron ZZ');
  });
});
