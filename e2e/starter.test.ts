import { expect } from 'chai';
import { pdfText } from './harness.ts';
import {
  apiJob,
  arrive,
  ask,
  bench,
  page,
  pick,
  postJson,
  readingEntry,
  reload,
  slowReasoning,
  stand,
  tape,
  until,
  visit,
  visitor,
} from './stage.ts';
import { tell } from './simulated-bench.ts';

const live = () => page.locator('section[aria-label="Instruments"]');
const firstSuspect = () =>
  page.locator('section[aria-label="Suspects"] li, section[aria-label="Suspects"] summary').first().textContent();

/** Puts a check at hand and types its reading. */
async function read(name: string, typed: string): Promise<void> {
  const before = await tape().count();
  await pick(name);
  await page.keyboard.type(typed);
  await page.keyboard.press('Enter');
  await until(async () => (await tape().count()) === before + 1, `${name} on the tape`);
}

/** A starter of its own, by a line of a list. */
async function freshStarter(complaint: string): Promise<number> {
  const line = { customer: 'Lifeboat house', model: 'unknown', serial: '', complaint, words: '', due: '' };
  const lines = [{ ...line, id: crypto.randomUUID(), volts: '12', amps: '', kilowatts: '1.4' }];
  const answer = await postJson('/api/check-ins', { lines, dry: false, technician: visitor.id });
  const [made] = (await answer.json()) as { tag: number }[];
  return made!.tag;
}

describe('the starter bench', () => {
  before(() => stand.startStandIns());
  after(() => stand.stopStandIns());

  describe('a whole starter job by keyboard, read by the stand-ins', () => {
    let tag = 0;

    it('is checked in as what it is; its complaints are a starter’s', async () => {
      await visit('/check-in');
      await page.focus('#customer');
      await page.keyboard.type('Harbour Crane');
      await page.keyboard.press('Tab');
      await page.keyboard.type('Davit 12-14');
      await page.focus('#family');
      await page.keyboard.type('St');
      await page.waitForSelector('#ratedKilowatts');
      const complaints = await page.locator('#complaint option').allTextContents();
      expect(complaints.join()).match(/Goes on turning/);
      expect(complaints.join()).not.match(/Overcharge/);
      await page.focus('#layout');
      await page.keyboard.type('plan');
      await page.locator('summary:has-text("Figures of the model")').click();
      expect(await page.inputValue('#gearRatio'), 'follows the drive').equal('5');
      await page.selectOption('#layout', 'direct');
      expect(await page.inputValue('#gearRatio')).equal('1');
      await page.fill('#gearRatio', '4');
      await page.focus('#complaint');
      await page.keyboard.type('Click');
      await page.keyboard.press('Tab');
      await page.keyboard.press('Enter');
      await page.waitForSelector('text=Without a gear the ratio is 1');
      await page.fill('#gearRatio', '1');
      await page.focus('#customer');
      await page.keyboard.press('Enter');
      await arrive(/\/unit\/\d+$/);
      tag = Number(/\d+$/.exec(page.url())![0]);
      const { machine } = (await (await ask(`/api/jobs/${tag}/view`)).json()) as { machine: object };
      const hidden = [{ fault: 'contacts-burnt', severity: 0.02 }];
      await tell('/scenario', { name: 'a test', machine, faults: hidden, meter: 'bench', seed: tag });
    });

    it('is refused its run until it was turned and measured; then the light is green', async () => {
      await bench(tag);
      const clamp = () => visitor.send('PATCH', `/api/jobs/${tag}`, { assembly: 'clamped', technician: visitor.id });
      expect((await clamp()).status, 'against a red light').equal(409);
      await visit(`/unit/${tag}/stand`);
      await page.waitForSelector('section[aria-label="Before it runs"] h2:has-text("Red")');
      expect(await page.isDisabled('button:has-text("It is clamped")')).equal(true);
      await bench(tag);
      await read('Armature turned by hand', '1');
      await read('Nose and frame by eye', '1');
      await read('Main terminal to motor terminal, ohms', 'OL');
      await read('Main terminal to case, ohms', 'OL');
      await until(async () => (await apiJob(tag)).readings.length === 4, 'the server has all four');
      await visit(`/unit/${tag}/stand`);
      await page.waitForSelector('section[aria-label="Before it runs"] h2:has-text("Green")');
      await page.focus('button:has-text("It is clamped")');
      await page.keyboard.press('Enter');
      await live().waitFor();
      await until(async () => (await apiJob(tag)).assembly === 'clamped', 'the server knows it');
    });

    it('one key feeds it and reads all that one run tells, whatever is still being thought out; the battery is off again', async () => {
      await pick('No load: amps');
      await slowReasoning(3000);
      await page.keyboard.press('i');
      const wanted = ['no-load-amps', 'no-load-volts', 'no-load-rpm', 'contact-drop'];
      const all = async () => {
        const { readings } = await apiJob(tag);
        return wanted.every((check) => readings.some((reading) => reading.check === check));
      };
      // Run up, two places of the probes, and each rests.
      for (let i = 0; i < 5 && !(await all()); i++) await page.waitForTimeout(3000);
      expect(await all(), (await live().textContent()) ?? '').equal(true);
      const { readings } = await apiJob(tag);
      const value = (check: string) =>
        parseFloat(readings.find((reading) => reading.check === check)!.typed.replace(/[\s\u202f]/g, ''));
      expect(value('no-load-amps')).within(40, 110);
      expect(value('no-load-rpm')).within(4500, 9000);
      expect(readings.find(({ check }) => check === 'contact-drop')!.typed).match(/from the bench$/);
      await until(async () => /solenoid contacts burnt/.test((await firstSuspect()) ?? ''), 'the contacts first');
      await until(async () => /Clamp\s*0\s*A/.test((await live().textContent()) ?? ''), 'off');
    });

    it('says that it rests, and what the trade’s table and the curve make of it', async () => {
      await pick('Held: amps');
      await page.keyboard.press('i');
      await page.waitForSelector('section[aria-label="Instruments"] [role=alert]:has-text("It rests")');
      const table = page.locator('section[aria-label="Run without load"]');
      expect(await table.textContent())
        .match(/normal|low/)
        .and.match(/solenoid contacts burnt/);
      const curve = page.locator('section[aria-label="Motor curve"]');
      await until(async () => /can’t tell from no load/.test((await curve.textContent()) ?? ''), 'the curve');
      await read('Held: amps', '235');
      await read('Held: torque at the pinion', '4.4');
      await until(async () => /Most power at the pinion\s*\d/.test((await curve.textContent()) ?? ''), 'power');
      expect(await curve.textContent()).match(/short of it/);
      expect(await page.locator('section[aria-label="Timers"]').textContent()).match(
        /1 run: windings (about \d+|under 1) K/,
      );
    });

    it('a trace of the clamp tells the speed by its bars, and draws the inrush beside what the plate foresees', async () => {
      await pick('No load: speed of the pinion');
      await page.click('summary:has-text("No tachometer?")');
      // Fed after 20 ms; 5 kHz of ripple is 6,000 rpm with 25 bars, by two brushes.
      const line = (n: number) => {
        const seconds = n / 50_000 - 0.02;
        const amps =
          seconds < 0 ? 0 : (60 + 300 * Math.exp(-seconds / 0.04)) * (1 + 0.02 * Math.sin(31_415.93 * seconds));
        return `${(seconds + 0.02).toFixed(6)};${amps.toFixed(3)}`;
      };
      const buffer = Buffer.from(Array.from({ length: 40_000 }, (_, n) => line(n)).join('\n'));
      await page.setInputFiles('input[type=file]', { name: 'run-up.csv', mimeType: 'text/csv', buffer });
      const trace = page.locator('details:has(summary:has-text("No tachometer?"))');
      await until(async () => /armature\s*6.?0\d\d ±/.test((await trace.textContent()) ?? ''), 'the speed');
      const told = ((await trace.textContent()) ?? '').replace(/\s+/g, ' ');
      const [, own, foreseen] = /Inrush ([\d\s]+) A after \d+ ms; dashed, by its plate ([\d\s]+) A after \d+ ms/.exec(
        told,
      )!;
      expect(Number(own!.replace(/\s/g, ''))).within(330, 362);
      expect(Number(foreseen!.replace(/\s/g, ''))).within(150, 1500);
      await trace.locator('[role=img][aria-label^="Inrush"] canvas').waitFor();
    });

    it('refuses a feed against a red light, and never refuses to stop', async () => {
      const instruments = (await (await ask('/api/instruments')).json()) as { id: string; kind: string }[];
      const supply = instruments.find(({ kind }) => kind === 'supply')!;
      const set = (body: object) => postJson(`/api/instruments/${supply.id}/set`, body);
      expect((await set({ on: true })).status, 'which unit?').equal(422);
      const clamped = { id: crypto.randomUUID(), assembly: 'clamped', technician: visitor.id };
      const clamp = (change: object) => visitor.send('PATCH', `/api/jobs/${tag}`, change);
      expect((await clamp(clamped)).status, 'under a green light').lessThan(300);
      // What is read later may turn the light red; read by eye it is out of the clamp, and not fed there either.
      const cracked = readingEntry({
        check: 'case-by-eye',
        outcome: { kind: 'finding', finding: 'cracked' },
        typed: 'Cracked',
      });
      expect((await postJson(`/api/jobs/${tag}/readings`, cracked)).status).lessThan(300);
      const said = async (answer: Response) => [answer.status, ((await answer.json()) as { message: string }).message];
      expect((await said(await set({ on: true, tag }))).join()).match(/^409,.*isn’t clamped/);
      expect((await said(await clamp({ ...clamped, id: crypto.randomUUID() }))).join()).match(
        /^409,Red light.*A cracked nose/,
      );
      // What was clamped before, told once more, is neither refused nor done.
      const { assembly } = await apiJob(tag);
      expect((await clamp(clamped)).status).lessThan(300);
      expect((await apiJob(tag)).assembly)
        .equal(assembly)
        .not.equal('clamped');
      await postJson(`/api/jobs/${tag}/strikes`, {
        reading: cracked.id,
        at: new Date().toISOString(),
        technician: visitor.id,
      });
      expect((await set({ on: false })).status).lessThan(300);
    });

    it('is decided and printed', async () => {
      await visit(`/unit/${tag}/verdict`);
      await page.waitForSelector('text=Recommended');
      expect(await page.textContent('body')).match(/[Rr]eplace: solenoid/);
      await page.click(
        'section:has(h2:text-is("Replace parts")) button, div:has(> h2:text-is("Replace parts")) button',
      );
      await page.getByLabel('Why, in the shop’s own words').fill('Drop of volts over the contacts under load.');
      await page.keyboard.press('Enter');
      await until(async () => (await apiJob(tag)).verdicts.length === 1, 'decided');
      const text = pdfText(Buffer.from(await (await ask(`/unit/${tag}/report.pdf`)).arrayBuffer()));
      expect(text)
        .match(/Starter/)
        .and.match(/1\.4\s*kW/)
        .and.match(/direct drive, wound field/);
      expect(text).match(/[Ss]olenoid contacts burnt|[Ss]olenoid/);
    });
  });

  /** A starter with something hidden in it, clamped under a green light, its instruments heard. */
  async function clamped(hidden: readonly { fault: string; severity: number }[]): Promise<number> {
    const tag = await freshStarter('slow-crank');
    const { machine } = (await (await ask(`/api/jobs/${tag}/view`)).json()) as { machine: object };
    await tell('/scenario', { name: 'another test', machine, faults: hidden, meter: 'bench', seed: tag });
    const finding = (name: string) => ({ kind: 'finding', finding: name }) as const;
    for (const [check, outcome] of [
      ['free-turning', finding('free')],
      ['case-by-eye', finding('whole')],
      ['main-to-motor', { kind: 'over-range' }],
      ['main-to-case', { kind: 'over-range' }],
    ] as const) {
      const answer = await postJson(`/api/jobs/${tag}/readings`, readingEntry({ check, outcome, typed: 'as it was' }));
      expect(answer.status, check).lessThan(300);
    }
    await visit(`/unit/${tag}/stand`);
    await page.focus('button:has-text("It is clamped")');
    await page.keyboard.press('Enter');
    await live().waitFor();
    return tag;
  }

  it('one key feeds it while the oscilloscope watches: shorted coils leave gaps, and Enter records them', async () => {
    const tag = await clamped([{ fault: 'armature-turns', severity: 2 }]);
    await pick('No load: the current through each turn');
    // Let go of while battery and brake are on their way, it is never fed: it need not rest either.
    const draws = async (amps: RegExp) => amps.test((await live().textContent()) ?? '');
    await until(() => draws(/Clamp\s*0\s*A/), 'the clamp heard');
    await page.evaluate(() => {
      for (const key of ['i', 'Escape'])
        document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    });
    for (let n = 0; n < 10; n++) {
      await page.waitForTimeout(250);
      expect(await draws(/Clamp\s*[1-9]|Brake and battery|It runs up/)).equal(false);
    }
    await page.keyboard.press('i');
    const record = page.locator('button:has-text("Record: The same bars miss each turn")');
    await record.waitFor();
    expect(await page.locator('section[aria-label="Check at hand"]').textContent()).match(
      /turns: 2 gaps in the ripple/,
    );
    await page.locator('[role=img][aria-label="Ripple round a turn of the armature: 2 gaps"] canvas').waitFor();
    await until(() => record.evaluate((button) => button === document.activeElement), 'ready under Enter');
    await page.keyboard.press('Enter');
    await until(async () => (await apiJob(tag)).readings.some(({ check }) => check === 'each-turn'), 'kept');
    const kept = (await apiJob(tag)).readings.find(({ check }) => check === 'each-turn')!;
    expect(kept.typed).match(/turns: 2 gaps in the ripple, swells by 0\.\d %/);
    await until(async () => /armature/.test((await firstSuspect()) ?? ''), 'the armature first');
    await until(async () => /Clamp\s*0\s*A/.test((await live().textContent()) ?? ''), 'off');
  });

  it('what the oscilloscope saw while numbers were read tells of each turn without another run', async () => {
    const tag = await clamped([{ fault: 'armature-turns', severity: 2 }]);
    await pick('No load: amps');
    await until(async () => /Clamp\s*0\s*A/.test((await live().textContent()) ?? ''), 'the clamp heard');
    await page.keyboard.press('i');
    const read = async (...checks: string[]) => {
      const { readings } = await apiJob(tag);
      return checks.every((check) => readings.some((reading) => reading.check === check));
    };
    await until(() => read('no-load-amps', 'no-load-rpm', 'contact-drop'), 'numbers of one run');
    await until(async () => /Clamp\s*0\s*A/.test((await live().textContent()) ?? ''), 'off');
    await pick('No load: the current through each turn');
    await page.locator('button:has-text("Trace of the last run"):enabled').waitFor();
    expect(await live().textContent()).match(/read from a trace: the last run’s is kept there\./);
    await page.keyboard.press('i');
    const record = page.locator('button:has-text("Record: The same bars miss each turn")');
    await record.waitFor();
    expect(await live().textContent()).not.match(/It rests \d+ s yet/);
    await until(() => record.evaluate((button) => button === document.activeElement), 'ready under Enter');
    await page.keyboard.press('Enter');
    await until(() => read('each-turn'), 'kept');
    expect(await page.locator('body').textContent()).match(/1 run: windings/);
  });

  it('a technician who opens it first is followed: the next check lies where he is, the belief too', async () => {
    const tag = await freshStarter('slow-crank');
    await bench(tag);
    await page.selectOption('label:has-text("State") select', 'opened');
    await read('Commutator by eye', '3');
    await read('Bar to bar', '2');
    await read('Growler', '1');
    await until(async () => /armature coil open/.test((await firstSuspect()) ?? ''), 'the open coil first');
    // What comes next lies in the same state: nothing has to be put together for it.
    const atHand = page.locator('section[aria-label="Check at hand"]');
    await until(async () => !/Growler/.test((await atHand.locator('h2').textContent()) ?? ''), 'the next check');
    expect(await atHand.textContent()).not.match(/For this the unit has to be/);
    // What shows with the end cover off was seen all the same, and puts nothing together again.
    expect(await page.locator('label:has-text("State") select').inputValue()).equal('opened');
    expect((await apiJob(tag)).assembly).equal('opened');
    const described = (await (await ask(`/api/jobs/${tag}`)).json()) as { machine: { family: string } };
    expect(described.machine.family).equal('starter');
  });

  it('cranking on the vehicle is foreseen, and what was read is placed on it', async () => {
    const tag = await freshStarter('slow-crank');
    await visit(`/unit/${tag}/vehicle`);
    await page.waitForSelector('#entry:focus');
    const panel = page.locator('section[aria-label="Cranking"]');
    expect(await panel.textContent()).match(/Foreseen\s*\d+\s*A at 1[01]\.\d/);
    const battery = panel.locator('label:has-text("Battery, °C") input');
    await battery.fill('');
    expect(await panel.textContent())
      .match(/from −40 to 60 °C/)
      .and.not.match(/Foreseen\s*\d/);
    await battery.fill('20');
    await read('Cranking amps', '340');
    await read('Battery volts while cranking', '9.8');
    await until(async () => /tight engine/.test((await panel.textContent()) ?? ''), 'placed');
    expect(await panel.textContent()).match(/a rule, not\s+a reason/);
    // The engine is kept with the vehicle, and moves what is foreseen.
    const foreseen = async () => Number(/Foreseen\s*(\d+)\s*A/.exec((await panel.textContent()) ?? '')?.[1]);
    const before = await foreseen();
    await page.locator('summary:has-text("engine: not known")').click();
    const litres = page.locator('label:has-text("Engine, l") input');
    await litres.fill('900');
    await litres.press('Tab');
    expect(await litres.evaluate((field: HTMLInputElement) => field.validationMessage)).equal('Type 0.1 to 40 l.');
    await litres.fill('3');
    await litres.press('Tab');
    await until(async () => (await foreseen()) > 1.3 * before, 'more amps for a larger engine');
    await reload();
    await page.waitForSelector('summary:has-text("engine: 3.0 l petrol")');
  });
});
