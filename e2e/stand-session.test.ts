import { expect } from 'chai';
import {
  apiJob,
  arrive,
  freshUnit,
  page,
  pick,
  postJson,
  reload,
  soundAtRest,
  stand,
  tape,
  title,
  until,
  visit,
  visitor,
} from './stage.ts';
import { benchState, hiddenUnit, instruments, tell, without } from './simulated-bench.ts';
import { demoShop } from '../web/src/lib/server/demo/shop.ts';
import { Visitor } from './visitor.ts';

const live = () => page.locator('section[aria-label="Instruments"]');
/** What the instruments read, without spaces; of the rotor alone, as what is said beside it names speeds too. */
const reads = async (figure: RegExp): Promise<boolean> =>
  figure.test(((await live().textContent()) ?? '').replace(/\s+/g, ''));
const turnsAt3000 = () => reads(/Rotor(3.?0\d\d|2.?99\d)rpm/);
const stands = () => reads(/Rotor\d{1,2}rpm/);
const stopping = /\/api\/instruments\/[^/]+\/stop$/;
/** Turns as before, and sees it do so. */
async function turnAgain(): Promise<void> {
  await live().locator('label:has-text("Turn, rpm") input').press('Enter');
  await until(async () => Math.abs((await benchState()).rpm - 3000) < 100, 'it turns');
  await until(turnsAt3000, 'speed');
}
const givesItsOutput = () => reads(/Clamp[5-9]\d\.\d/);
/** The lead says how long the shop's load bears to draw. */
async function loadBears(seconds: number): Promise<void> {
  const lead = await Visitor.signIn(stand.url, 'Ansa Brimmel');
  const figures = Object.entries({ ...demoShop.stand, loadSeconds: seconds }).map(([name, one]) => [name, String(one)]);
  const kept = await lead.submit('/shop?/stand', Object.fromEntries(figures) as Record<string, string>);
  expect(kept.status, await kept.text()).equal(200);
}

describe('the third hand: the run stand', () => {
  before(() => stand.startStandIns());
  after(() => stand.stopStandIns());

  describe('a whole session at the run stand', () => {
    let tag: number;
    before(async () => {
      // A busy machine spins its simulated unit slowly.
      await loadBears(60);
      tag = await hiddenUnit([{ fault: 'regulator', severity: 1 }]);
    });
    afterEach(() => page.unrouteAll({ behavior: 'ignoreErrors' }));
    after(() => loadBears(demoShop.stand.loadSeconds));

    it('no drive turns and no load draws for a unit that isn’t clamped or has no light; stopping is never refused', async () => {
      const drive = (await instruments()).find(({ kind }) => kind === 'stand')!;
      const set = (body: object) => postJson(`/api/instruments/${drive.id}/set`, body);
      const refused = await set({ tag, rpm: 3000 });
      expect(refused.status).equal(409);
      expect(await refused.text()).match(/isn’t clamped on the stand/);
      expect((await set({ rpm: 3000 })).status).equal(422);
      expect((await set({ tag, rpm: 90_000 })).status).equal(422);
      expect((await set({ rpm: 0 })).status).equal(200);
    });
    it('what was asked to turn before a stop doesn’t turn after it, however long its light takes', async () => {
      const other = await freshUnit();
      await soundAtRest(other);
      // With another meter in hand all is thought out anew.
      for (const change of [{ assembly: 'stand' }, { meter: 'bench' }]) {
        const said = await visitor.send('PATCH', `/api/jobs/${other}`, { ...change, technician: visitor.id });
        expect(said.status).lessThan(300);
      }
      const drive = (await instruments()).find(({ kind }) => kind === 'stand')!;
      const turning = postJson(`/api/instruments/${drive.id}/set`, { tag: other, rpm: 3000 });
      await page.waitForTimeout(50);
      expect((await postJson(`/api/instruments/${drive.id}/stop`, {})).status).equal(200);
      const late = await turning;
      expect(late.status).equal(409);
      expect(await late.text()).match(/Stopped meanwhile/);
    });
    it('green, clamped: speed, volts and amps come by themselves; a dead regulator charges nothing', async () => {
      await soundAtRest(tag);
      await visit(`/unit/${tag}/stand`);
      await page.click('button:has-text("clamped on the stand")');
      await until(stands, 'values');
      await page.keyboard.press('s');
      await page.keyboard.type('3000');
      await page.keyboard.press('Enter');
      await until(turnsAt3000, 'speed');
      await until(async () => /1[12]\.\d+.V/.test((await live().textContent()) ?? ''), 'battery volts alone');
      // What is set lets go of the keys; what is refused keeps them.
      await page.keyboard.press('d');
      await page.keyboard.type('250');
      await page.keyboard.press('Enter');
      await page.waitForSelector('text=/Not loaded: about 250 A, and this stand’s load ends at 120 A/');
      await pick('Regulated volts, light to heavy load');
      await page.click('button:has-text("From the instruments: light load, heavy load, light again")');
      await page.waitForSelector('button:has-text("Record: No charge: battery volts")');
      await page.click('button:has-text("Record: No charge: battery volts")');
      await until(async () => (await tape().count()) === 6, 'the finding');
      await live().locator('label:has-text("Turn, rpm") input').press('Enter');
      await until(turnsAt3000, 'speed again');
    });
    it('goes on turning at whatever is heard of the unit meanwhile', async () => {
      const { assembly } = await apiJob(tag);
      const heard = page.waitForResponse(/__data\.json/);
      const said = await visitor.send('PATCH', `/api/jobs/${tag}`, { assembly, technician: visitor.id });
      expect(said.status).lessThan(300);
      await heard;
      await page.waitForTimeout(2500);
      // It may still be on its way there; stopped, it never came.
      await until(turnsAt3000, 'turns on');
    });
    it('a stop that came through late says nothing over a newer one that didn’t', async () => {
      let through = 0;
      let late: () => void = () => undefined;
      const heldUp = new Promise<void>((go) => (late = go));
      await page.route(stopping, async (route) => {
        through++;
        const answer = await route.fetch();
        await heldUp;
        await route.fulfill({ response: answer });
      });
      await page.keyboard.press('Escape');
      await until(() => Promise.resolve(through >= 2), 'load and drive stopped');
      await page.route(stopping, (route) => route.abort());
      await page.keyboard.press('Escape');
      await page.waitForSelector('text=/The server is away: nothing was stopped/');
      late();
      await page.waitForTimeout(500);
      expect(await live().locator('[role=alert]').textContent()).match(/nothing was stopped/);
      await page.unrouteAll();
      await turnAgain();
    });
    it('a stop that didn’t reach the server is made good when it is back, on the page or after leaving it', async () => {
      const standing = async () => (await benchState()).rpm < 60;
      await stand.stop('SIGKILL');
      await page.keyboard.press('Escape');
      await page.waitForSelector('text=/The server is away: nothing was stopped/');
      expect(await standing(), 'nothing reached it').equal(false);
      await until(() => reads(/Rotor–/), 'nothing is heard');
      await stand.start();
      await until(standing, 'stopped on the page');
      await turnAgain();
      await page.route(stopping, (route) => route.abort());
      await page.keyboard.press('Escape');
      await page.waitForSelector('text=/The server is away: nothing was stopped/');
      await page.click('a:text-is("Bench")');
      await arrive(/\/unit\/\d+$/);
      await page.waitForTimeout(2500);
      expect(await standing(), 'nothing reached it').equal(false);
      await page.unroute(stopping);
      await until(standing, 'stopped from elsewhere');
      await page.goBack();
      await page.waitForSelector('section[aria-label="Instruments"]');
      await page.waitForTimeout(2500);
      await live().locator('label:has-text("Turn, rpm") input').fill('3000');
      await turnAgain();
    });
    it('a drive that doesn’t answer while a lead changes its address is stopped there once it does', async () => {
      const { host, port, ...drive } = (await instruments()).find(({ kind }) => kind === 'stand')!;
      const lead = await Visitor.signIn(stand.url, 'Ansa Brimmel');
      const reachAt = async (at: number) => {
        const kept = await lead.submit('/shop?/instrument', { ...drive, meter: '', host, port: String(at) });
        expect(kept.status, await kept.text()).equal(200);
      };
      await without('stand', async () => {
        await reachAt(1);
        await page.waitForTimeout(2500);
        expect((await benchState()).rpm, 'nothing reached it').greaterThan(2900);
      });
      await until(async () => (await benchState()).rpm < 60, 'stopped at its old address');
      await reachAt(port);
      await until(stands, 'heard again, without a reload');
      await live().locator('label:has-text("Turn, rpm") input').fill('3000');
      await turnAgain();
    });
    it('bypassed it gives its output: the point is taken with one key, and the clamp is read for the check', async () => {
      await pick('Output at 3000 rpm, regulator bypassed');
      await until(async () => {
        await page.click('button:has-text("Take the clamp’s reading")');
        return (await page.locator('text=/Not taken: the post holds 1[12]/').count()) > 0;
      }, 'not at battery volts');
      await page.keyboard.press('p');
      await page.click('button:has-text("rpm, load to 13.5 V")');
      await until(givesItsOutput, 'output');
      const points = page.locator('table[aria-label="Points that stand"] tbody tr');
      // Pressed too early it says what still moves; whoever stands there presses again.
      await until(async () => {
        if ((await points.count()) === 0) await page.keyboard.press('i');
        await page.waitForTimeout(400);
        return (await points.count()) === 1;
      }, 'a point');
      const isTaken = async () => (await apiJob(tag)).readings.at(-1)?.typed.endsWith('from the clamp') === true;
      // Taken, the bench goes on to another check before the server says so: pressed only while it is there.
      const taking = page.locator('button:has-text("Take the clamp’s reading")');
      await until(async () => {
        if (await isTaken()) return true;
        await taking.evaluateAll((buttons) => buttons.forEach((button) => (button as HTMLButtonElement).click()));
        await page.waitForTimeout(1000);
        return isTaken();
      }, 'taken');
      expect((await apiJob(tag)).readings.filter(({ typed }) => typed.endsWith('from the clamp'))).length(1);
      const first = page.locator('section[aria-label="Suspects"] summary, section[aria-label="Suspects"] li').first();
      await until(async () => /regulator/.test((await first.textContent()) ?? ''), 'the regulator');
    });
    it('past its regulator without load it runs up: drive and load are off before anybody could look', async () => {
      await page.keyboard.press('Escape');
      await until(stands, 'it stands');
      const hands = { tag, assembly: 'stand', red: 'output', black: 'case', jumper: true };
      expect((await postJson('/api/hands', hands)).status).lessThan(300);
      await live().locator('label:has-text("Turn, rpm") input').fill('3000');
      await page.keyboard.press('Enter');
      await live().locator('[role=alert]:has-text("The post ran up to")').waitFor();
      await until(stands, 'it stands again');
      // Keys are the stand's again.
      expect(await page.evaluate(() => document.activeElement?.tagName)).equal('BODY');
      expect(await live().locator('[role=alert]').textContent()).match(/ran up to (1[6-9]|[2-9]\d)\.\d V/);
    });
    it('a clamp that dies in the middle is named, the rest goes on; it comes back by itself', async () => {
      await without('clamp', async () => {
        await until(
          async () => /Simulated clamp: .*(switched off|nobody)/.test((await live().textContent()) ?? ''),
          'named',
        );
        await until(async () => {
          await page.keyboard.press('i');
          return /Not taken: no amps come in/.test((await live().textContent()) ?? '');
        }, 'refused');
      });
      await until(async () => !/Simulated clamp/.test((await live().textContent()) ?? ''), 'back');
    });
    it('the oscilloscope’s trace comes at a touch, its orders read; Escape takes load and drive off', async () => {
      await pick('Ripple by its orders');
      // Past its regulator: load first, or it runs up.
      await live().locator('button:has-text("Hold 13.5 V")').click();
      await live().locator('label:has-text("Turn, rpm") input').press('Enter');
      await until(turnsAt3000, 'speed');
      await until(givesItsOutput, 'load');
      await page.click('button:has-text("From the oscilloscope: clamp")');
      await page.waitForSelector('button:has-text("Record: Six even humps")');
      await page.keyboard.press('Escape');
      await until(stands, 'standing');
      expect((await benchState()).load.on).equal(false);
      expect(await title()).equal('Ripple by its orders');
    });
    it('before the page’s script acts nothing at the instruments can be pressed, so that no press is lost', async () => {
      let act!: () => void;
      const held = new Promise<void>((done) => (act = done));
      await page.route(/\.js$/, async (route) => {
        await held;
        await route.continue();
      });
      await page.reload({ waitUntil: 'commit' });
      const buttons = live().locator('button');
      await live().locator('button:has-text("All points by itself")').waitFor();
      expect(await buttons.count()).greaterThan(4);
      for (const button of await buttons.all()) expect(await button.isDisabled(), await button.innerText()).equal(true);
      act();
      await live().locator('button:has-text("All points by itself"):enabled').waitFor();
      await live().locator('button:has-text("Stop"):enabled').waitFor();
    });
    it('takes the whole curve by itself', async () => {
      const { machine } = (await benchState()).scenario;
      await tell('/scenario', { name: 'sound', machine, faults: [], meter: 'bench', seed: 3 });
      await reload();
      await page.waitForSelector('button:has-text("All points by itself")');
      await page.waitForTimeout(1500);
      await page.click('button:has-text("All points by itself")');
      const points = page.locator('table[aria-label="Points that stand"] tbody tr');
      for (let n = 0; n < 180 && (await points.count()) < 6; n++) await page.waitForTimeout(1000);
      expect(await points.count(), (await live().textContent()) ?? '').equal(6);
      await page.waitForSelector('dt:has-text("At 6000 rpm")');
      await page.waitForSelector('dt:has-text("Most a pile draws")');
    });
    it('draws until the amps climb no more, where a shop reads its output so', async () => {
      const figure = async (label: string) => {
        const shown = ((await live().textContent()) ?? '').replaceAll(/\s/g, '');
        return Number(new RegExp(`${label}([\\d.]+)`).exec(shown)?.[1]);
      };
      await live().locator('button:has-text("All points by itself"):enabled').waitFor();
      await live().locator('label:has-text("Turn, rpm") input').fill('5000');
      await page.keyboard.press('Enter');
      await until(async () => Math.abs((await figure('Rotor')) - 5000) < 50, 'it turns at 5000 rpm');
      await live().getByRole('button', { name: /^Hold/ }).click();
      await until(async () => (await figure('Clamp')) > 40, 'the rated volts are held');
      const held = await figure('Clamp');
      await live().getByRole('button', { name: 'The most amps' }).click();
      await until(async () => /climb no more/.test((await live().textContent()) ?? ''), 'it draws more');
      await until(async () => !/climb no more/.test((await live().textContent()) ?? ''), 'it found the most');
      // Fast as it turns, more volts mean more field: the most is where the regulator just begins to hold. A clamp
      // flickers by more than what is won.
      expect(await figure('Post')).within(13.6, 15);
      expect(await figure('Clamp')).greaterThan(0.97 * held);
      await page.keyboard.press('Escape');
      await until(async () => (await figure('Clamp')) < 3, 'the load is off');
    });
    it('a load is let go by itself after the seconds that the shop’s bears', async () => {
      await loadBears(2);
      await reload();
      await live().locator('button:has-text("All points by itself"):enabled').waitFor();
      await live().locator('label:has-text("Draw, A") input').fill('20');
      await page.keyboard.press('Enter');
      await live().locator('[role=alert]:has-text("The load was on for 2 s: it is off again.")').waitFor();
      expect((await benchState()).load.on).equal(false);
    });
    it('a point that doesn’t come to rest is tried once more, and what moves is named', async () => {
      await loadBears(5);
      await tell('/instrument', { name: 'multimeter', noise: 300 });
      await reload();
      const points = page.locator('table[aria-label="Points that stand"] tbody tr');
      await live().locator('button:has-text("All points by itself"):enabled').click();
      await live()
        .locator('[role=alert]:has-text("within 5 s (the volts still move): the load is off again")')
        .waitFor();
      const before = await points.count();
      await tell('/instrument', { name: 'multimeter', noise: 1 });
      await until(async () => (await points.count()) > before, 'a point at the second try');
      await page.keyboard.press('Escape');
      await loadBears(60);
      await reload();
    });
    it('a curve that nobody could read says so before anything draws', async () => {
      await without('clamp', async () => {
        await reload();
        await live().locator('button:has-text("All points by itself"):enabled').click();
        const refused = live().locator('[role=alert]:has-text("Not loaded at")');
        let drew = false;
        for (let n = 0; n < 300 && (await refused.count()) === 0; n++) {
          drew ||= (await benchState()).load.on;
          await page.waitForTimeout(100);
        }
        expect(await refused.textContent()).match(/rpm: no amps come in\./);
        expect(drew, 'loaded meanwhile').equal(false);
        await until(stands, 'it stands');
        await pick('Regulated volts, light to heavy load');
        await page.click('button:has-text("From the instruments: light load, heavy load, light again")');
        await live().locator('[role=alert]:has-text("No amps come in: the clamp is needed for this.")').waitFor();
        expect(await page.locator('dt:has-text("Charges from")').count()).equal(0);
        await until(stands, 'it stands again');
      });
      await reload();
    });
    it('a shop without a clamp at a port reads the regulator’s course by the volts alone', async () => {
      const { host, port, ...clamp } = (await instruments()).find(({ kind }) => kind === 'clamp')!;
      const lead = await Visitor.signIn(stand.url, 'Ansa Brimmel');
      const forgotten = await lead.submit('/shop?/forget', { id: clamp.id });
      expect(forgotten.status, await forgotten.text()).equal(200);
      try {
        await live().locator('[role=status]:has-text("the shop reaches it no more")').waitFor();
        await reload();
        await pick('Regulated volts, light to heavy load');
        await page.click('button:has-text("From the instruments: light load, heavy load, light again")');
        const course = page.locator('dl:has-text("Swings within a second")');
        await course.waitFor();
        const said = ((await course.textContent()) ?? '').replaceAll(/\s/g, '');
        expect(said).match(/Heavyload1[34]\.\d+V,thereafter[\d.]+s/);
        expect(said).not.match(/Charges/);
      } finally {
        const kept = await lead.submit('/shop?/instrument', { ...clamp, meter: '', host, port: String(port) });
        expect(kept.status, await kept.text()).equal(200);
      }
      await until(stands, 'it stands');
      await reload();
    });
    it('goes through the regulator’s course: where it begins to charge, light, heavy and light load, where it charges no more', async () => {
      await pick('Regulated volts, light to heavy load');
      await page.click('button:has-text("From the instruments: light load, heavy load, light again")');
      const course = page.locator('dl:has-text("Swings within a second")');
      await course.or(live().locator('[role=alert]')).first().waitFor({ timeout: 200_000 });
      expect(await live().locator('[role=alert]').allTextContents(), 'what went wrong').deep.equal([]);
      const said = ((await course.textContent()) ?? '').replaceAll(/\s/g, '');
      const [, from, to] = /Chargesfrom(\d+)rpm.*Chargesnomoreat(\d+)rpm/.exec(said) ?? [];
      expect(Number(from), said).within(900, 1600);
      expect(Number(to), said).within(500, Number(from));
      expect(said).match(/Heavyload1[34]\.\d+V,thereafter[\d.]+s/);
      expect((await live().textContent())!.replaceAll(/\s/g, '')).match(/Clamp-?0\.\dA|Clamp0A/);
    });
  });
});
