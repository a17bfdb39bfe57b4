import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { ask, bench, browser, openPage, page, pick, stand, until, visit, visitor } from './stage.ts';
import { Visitor } from './visitor.ts';

interface Shelf {
  models: { name: string; facts: Record<string, { value: unknown; source: string }>; traps: unknown[] }[];
}
const shelf = async () => (await (await ask('/shelf/shelf.json')).json()) as Shelf;
const onShelf = async (name: string) => (await shelf()).models.find((model) => model.name === name);

describe('the shelf', () => {
  let lead: Page;
  before(async () => {
    lead = await openPage('Ansa Brimmel', await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  });
  after(() => lead.context().close());
  const open = async (name: string, on = lead) => {
    await visit('/shelf', on);
    await on.click(`a:text-is("${name}")`);
    await on.waitForURL(/shelf\/[0-9a-f-]{36}$/);
    await on.waitForSelector(`h1:has-text("${name}")`);
  };
  const save = (on = lead) => on.click('button:has-text("Put it on the shelf")');
  const set = (what: string, value: string, on = lead) => on.fill(`[aria-label="${what}"]`, value);

  it('a lead puts a model on it, every value with its source; what is wrong is told at its place, nothing is lost', async () => {
    await visit('/shelf/new', lead);
    await lead.fill('label:has-text("Model, as on the plate") input', 'Norvik 14-70');
    await save();
    await lead.waitForSelector('text=Rated volts and rated current are needed');
    await lead.fill('label:has-text("Values typed now come from") input', 'rating plate');
    await lead.selectOption('[aria-label="Rated voltage"]', '12 V');
    await set('Rated current', '70');
    await set('Rotor winding, ring to ring', '2R9');
    await set('Source of Rotor winding, ring to ring', '');
    await save();
    await lead.waitForSelector('text=Rotor winding, ring to ring: say where the value comes from');
    await set('Source of Rotor winding, ring to ring', 'own bench');
    await lead.selectOption('tbody:has(th:text-is("Published limits")) [aria-label="Add a value"]', {
      label: 'Slip ring to slip ring, most',
    });
    await set('Slip ring to slip ring, most', '3.2');
    await lead.click('button:has-text("Another trap")');
    await lead.selectOption('[aria-label="About"]', 'brush-holder');
    await lead.fill('[aria-label="What to say"]', 'Two holders look alike.');
    await lead.click('button:has-text("Another trap")');
    await lead.locator('[aria-label="About"]').last().selectOption('brush-holder');
    await lead.locator('[aria-label="What to say"]').last().fill('Two holders look alike.');
    await save();
    await lead.waitForURL(`${stand.url}/shelf`);
    const made = (await onShelf('Norvik 14-70'))!;
    expect(made.facts).deep.equal({
      ratedVolts: { value: 12, source: 'rating plate' },
      ratedAmps: { value: 70, source: 'rating plate' },
      rotorOhms: { value: 2.9, source: 'own bench' },
      'limit.ring-ring.most': { value: 3.2, source: 'rating plate' },
    });
    const trap = { about: 'brush-holder', say: 'Two holders look alike.', source: 'rating plate' };
    expect(made.traps, 'written down twice').deep.equal([trap, trap]);
    await visit('/check-in', lead);
    await lead.fill('#model', 'Norvik 14-70');
    await until(async () => (await lead.locator('text=Two holders look alike.').count()) === 2, 'said as often');
  });

  it('says traps, variants and look-alikes at check-in; the chosen variant is the build, the prices are the verdict’s', async () => {
    await visit('/check-in', lead);
    await lead.fill('#model', 'Ferrolux 28-90');
    await lead.waitForSelector('text=Filled in from the shelf');
    const said = await lead.textContent('fieldset:has(#model)');
    expect(said).match(/Brush holder\. The holder of the 28-110/);
    expect(said).match(/Rating\. Ferrolux 28-110 has the same frame: rated current 110.A there, 90\.0.A here/);
    await lead.fill('#model', 'Harrow 14-120');
    await lead.waitForSelector('#variant');
    expect(await lead.textContent('fieldset:has(#model)')).not.contain('28-110');
    await lead.selectOption('#variant', 'Late stator');
    await lead.click('summary:has-text("Figures of the model")');
    expect(await lead.inputValue('#statorPairOhms')).equal('0.075');
    await lead.fill('#customer', 'Kelda Farm');
    await lead.selectOption('#complaint', 'low-charge');
    await lead.click('button:has-text("Check in and start")');
    await lead.waitForURL(/\/unit\/\d+$/);
    const tag = /unit\/(\d+)/.exec(lead.url())![1];
    const job = (await (await ask(`/api/jobs/${tag}`)).json()) as {
      machine: { statorPairOhms: number };
      prices: { items: Record<string, { price: number }>; exchange: number };
    };
    expect(job.machine.statorPairOhms).equal(0.075);
    expect([job.prices.items.rotor!.price, job.prices.exchange]).deep.equal([80, 210]);
  });

  it('at the bench: the published limit stands at its check with its source, the traps one touch away', async () => {
    await bench(1001);
    await pick('Slip ring to slip ring');
    await page.waitForSelector(
      'table[aria-label="Limits by school"] tr:has-text("Published"):has-text("Ferrolux bench sheet 7")',
    );
    expect(await page.textContent('table[aria-label="Limits by school"]')).match(/7\.90.Ω to 9\.20.Ω/);
    await page.click('summary:has-text("On the shelf: 2 to take care of")');
    await page.waitForSelector('text=look for the notch on the left');
    await page.click('a:has-text("All that is known of Ferrolux 28-90")');
    await page.waitForSelector('h1:has-text("Ferrolux 28-90")');
    expect(await page.locator('input[aria-label="Rated current"]').count(), 'a technician looks').equal(0);
    expect(await page.locator('button:has-text("Put it on the shelf")').count()).equal(0);
    expect(await page.textContent('tr:has(th:text-is("Rated current, A"))')).match(/90\s*rating plate/);
  });

  it('a technician can’t change it, whatever is sent', async () => {
    const before = await shelf();
    for (const path of [
      '/shelf?/import',
      `/shelf/${crypto.randomUUID()}?/save`,
      `/shelf/${crypto.randomUUID()}?/off`,
    ]) {
      expect((await visitor.submit(path, { text: '', model: '{}', id: crypto.randomUUID() })).status).equal(403);
    }
    expect((await ask('/shelf/new')).status).equal(403);
    expect(await shelf()).deep.equal(before);
  });

  it('two leads at one model: the second is told, and nothing is overwritten; a name is one model’s', async () => {
    await open('Marine 12-70');
    const second = await openPage('Ansa Brimmel', await browser.newContext());
    await open('Marine 12-70', second);
    await set('Frame', 'M12', second);
    await set('Source of Frame', 'casting', second);
    await save(second);
    await second.waitForURL(`${stand.url}/shelf`);
    await set('Frame', 'M-12', lead);
    await set('Source of Frame', 'casting', lead);
    await save();
    await lead.waitForSelector('text=Somebody changed it meanwhile');
    expect(await lead.inputValue('[aria-label="Frame"]')).equal('M-12');
    expect((await onShelf('Marine 12-70'))!.facts.frame!.value).equal('M12');
    await open('Pumpmate 65');
    await lead.fill('label:has-text("Model, as on the plate") input', 'MARINE 12-70');
    await save();
    await lead.waitForSelector('text=“MARINE 12-70” stands on the shelf already');
    await second.context().close();
  });

  it('what a second variant lacks is said at it, a first that nobody filled in or not', async () => {
    await open('Ferrolux 28-110');
    const variants = lead.locator('section[aria-labelledby="variants"] > div');
    const before = await variants.count();
    for (const _ of [1, 2]) await lead.click('button:has-text("Another variant")');
    await variants
      .nth(before + 1)
      .locator('input')
      .first()
      .fill('Thin rings');
    await lead.click('button:has-text("Put it on the shelf")');
    await lead.waitForSelector('section[aria-labelledby="variants"] [role="alert"]');
    expect(await variants.count(), 'the blank one is gone').equal(before + 1);
    expect(await variants.last().locator('[role="alert"]').count()).equal(1);
    expect(await variants.last().locator('input').first().inputValue()).equal('Thin rings');
  });

  it('from a unit that was here; and off the shelf again', async () => {
    await bench(1004, lead);
    await lead.click('a:has-text("Put Railcar generator set, 24 V on the shelf")');
    await lead.waitForSelector('[aria-label="Rotor winding, ring to ring"]');
    expect(await lead.inputValue('[aria-label="Rotor winding, ring to ring"]')).equal('9.2');
    expect(await lead.inputValue('[aria-label="Source of Rotor winding, ring to ring"]')).equal('tag 1004');
    await save();
    await lead.waitForURL(`${stand.url}/shelf`);
    expect((await onShelf('Railcar generator set, 24 V'))!.facts.regulatorSide!.value).equal('supply');
    await open('Railcar generator set, 24 V');
    await lead.click('button:has-text("Take it off the shelf")');
    await lead.click('button:has-text("Leave it there")');
    await lead.click('button:has-text("Take it off the shelf")');
    await lead.waitForSelector('button:has-text("Off the shelf for good"):focus');
    await lead.keyboard.press('Enter');
    await lead.waitForURL(`${stand.url}/shelf`);
    expect(await onShelf('Railcar generator set, 24 V')).equal(undefined);
  });

  it('goes out as CSV and comes back; a bad line is shown before anything is brought in', async () => {
    const csv = await (await ask('/shelf/shelf.csv')).text();
    expect(csv)
      .match(/^model,variant,what,value,source\n/)
      .and.match(/Late stator,Told by,/);
    await visit('/shelf', lead);
    await lead.click('summary:has-text("Bring models in")');
    const more = 'Quay 12-55,,Rated voltage,12 V,plate\nQuay 12-55,,Rated current,55,plate';
    const bad = 'Half,,Rated voltage,12 V,plate\nHalf,,Rated current,much,plate';
    await lead.fill('textarea[name="text"]', `${csv}\n${more}\n${bad}`);
    const list = lead.locator('ul[aria-label="What would be brought in"]');
    await until(async () => (await list.textContent())!.includes('Quay 12-55: 2 values'), 'what is new');
    expect((await list.textContent())!.replaceAll(/\s+/g, ' '))
      .match(/Ferrolux 28-90: 21 values, 0 variants, 1 traps, as it stands here/)
      .and.match(/Quay 12-55: 2 values, 0 variants, 0 traps, new/)
      .and.match(/Half: Rated current: “much” is not a number/);
    const before = (await shelf()).models.length;
    await lead.click(`button:has-text("Bring ${before + 1} in")`);
    await lead.waitForSelector('text=1 put on the shelf, 0 changed.');
    expect((await shelf()).models.length).equal(before + 1);
    expect(await onShelf('Half')).equal(undefined);
    expect((await ask('/shelf/shelf.xml')).status).equal(404);
  });

  it('a model from the shelf needs no volts and amps in a list of many', async () => {
    const technician = await Visitor.signIn(stand.url);
    const line = { customer: 'Quay hire', serial: '', complaint: 'no-charge', words: '', due: '', volts: '', amps: '' };
    const answer = await technician.send('POST', '/api/check-ins', {
      technician: technician.id,
      dry: true,
      lines: [
        { ...line, id: crypto.randomUUID(), model: 'pumpmate 65' },
        { ...line, id: crypto.randomUUID(), model: 'Pumpmate 6500' },
      ],
    });
    expect(await answer.json()).deep.equal([
      {},
      { problem: 'model: “Pumpmate 6500” was never here: give its volts and its amps or kilowatts.' },
    ]);
  });
});
