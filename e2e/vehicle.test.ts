import { expect } from 'chai';
import { pdfText } from './harness.ts';
import { apiJob, arrive, ask, bench, page, pick, tape, until, visit } from './stage.ts';

const vehicle = async (tag: number): Promise<void> => {
  await visit(`/unit/${tag}/vehicle`);
  await page.waitForSelector('section[aria-label="Where the fault lies"]');
  await page.waitForSelector('#entry:focus');
};
const course = () => page.textContent('section[aria-label="Where the fault lies"] h2');
const unitChance = async () =>
  Number.parseInt(
    (await page.textContent('section[aria-label="Where the fault lies"] li:has-text("The unit itself") .figure'))!,
    10,
  );

describe('on the vehicle: is the unit to blame?', () => {
  it('by keyboard: two readings send the blame from the unit to the fuse link', async () => {
    await vehicle(1011);
    const before = await unitChance();
    expect(before).greaterThan(50);
    await pick('Charging volts at the battery, 2 000 rpm');
    await page.keyboard.type('12.0');
    await page.keyboard.press('Enter');
    await until(async () => (await tape().count()) === 1, 'the first reading');
    await pick('Charging volts at the unit, 2 000 rpm');
    await page.keyboard.type('14.3');
    await page.keyboard.press('Enter');
    await until(async () => (await unitChance()) < before / 2, 'the blame to leave the unit');
    await page.waitForSelector('section[aria-label="Suspects"] li:first-child:has-text("fuse or fusible link blown")');
    const read = async () => (await apiJob(1011)).readings.filter(({ place }) => place === 'vehicle');
    await until(async () => (await read()).length === 2, 'both to be delivered');
    const [first] = await read();
    expect(first).deep.include({ check: 'battery-raised', typed: '12.0', told: 'own' });
  });

  it('what is typed on the vehicle is not typed on the bench', async () => {
    await vehicle(1009);
    await pick('Battery volts, rested');
    await page.keyboard.type('12.4');
    await bench(1009);
    expect(await page.inputValue('#entry')).equal('');
    await vehicle(1009);
    expect(await page.inputValue('#entry')).equal('12.4');
    await page.fill('#entry', '');
  });

  it('what the customer told counts for less, and says so on the tape', async () => {
    await vehicle(1010);
    const before = await unitChance();
    await pick('Excitation feed at the plug, key on');
    await page.click('label:has-text("The customer told")');
    await page.focus('#entry');
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await page.waitForSelector('section[aria-label="Tape"] li:has-text("told by the customer")');
    await until(async () => (await unitChance()) !== before, 'the blame to move');
    const told = await unitChance();
    await pick('Excitation feed at the plug, key on');
    await page.click('label:has-text("We measured it")');
    await page.focus('#entry');
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await until(async () => (await unitChance()) < told, 'our own reading to weigh more');
    expect(before).greaterThan(told);
  });

  it('catches a wrong way: ohms are refused; what is doubtful stands when recorded once more', async () => {
    await vehicle(1011);
    const readings = async () => (await apiJob(1011)).readings.filter(({ place }) => place === 'vehicle').length;
    const before = await readings();
    await pick('Drop along the charge cable');
    await page.keyboard.type('20 ohm');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await page.waitForSelector('#entry-problem:has-text("Type the volts.")');
    expect(await page.inputValue('#entry')).equal('20 ohm');
    await page.fill('#entry', '');
    await pick('Battery volts, rested');
    await page.keyboard.type('13.1');
    await page.keyboard.press('Enter');
    await page.waitForSelector('#entry-problem:has-text("it was driven or charged just before")');
    expect(await readings()).equal(before);
    await page.keyboard.press('Enter');
    await until(async () => (await readings()) === before + 1, 'the reading after all');
  });

  it('the bench begins where the vehicle left off', async () => {
    const before = (await (await ask('/api/jobs/1003/assessment')).json()) as { sound: number };
    await vehicle(1003);
    await pick('Key-off drain');
    await page.keyboard.type('600m');
    await page.keyboard.press('Enter');
    await until(async () => (await tape().count()) === 1, 'the drain');
    await pick('Key-off drain, output cable off the unit');
    await page.keyboard.type('.03');
    await page.keyboard.press('Enter');
    await until(async () => (await tape().count()) === 2, 'the drain without the unit');
    await until(async () => /unit is to blame/.test((await course())!), 'the unit to be blamed');
    await page.click('a:has-text("To the bench")');
    await arrive(/\/unit\/1003$/);
    await page.waitForSelector('section[aria-label="Suspects"] li:first-child:has-text("leak")');
    const after = (await (await ask('/api/jobs/1003/assessment')).json()) as { sound: number };
    expect(after.sound).lessThan(before.sound);
    // The vehicle's readings are not on the bench's tape.
    await bench(1003);
    expect(await page.locator('section[aria-label="Tape"] li:has-text("drain")').count()).equal(0);
  });

  it('a unit not to blame: the letter says what to look at, and the cautions', async () => {
    await vehicle(1013);
    expect(await course()).equal('Return as is');
    await page.click('a:has-text("Letter to the customer")');
    await arrive(/letter$/);
    const letter = await page.textContent('article');
    for (const part of [
      'Post van',
      'return it as it is',
      'fusible link',
      '12.05',
      'as told',
      'maker’s manual come first',
    ])
      expect(letter).contain(part);
  });

  it('the report tells what was read on the vehicle, who told it, and what followed; the PDF too', async () => {
    await visit('/unit/1013/report');
    const report = await page.textContent('article');
    expect(report).match(/Charge lamp with the key: Stays on when running, failed \(told by the customer\)/);
    expect(report).contain('The unit is not to blame');
    const text = pdfText(new Uint8Array(await (await ask('/unit/1013/report.pdf')).arrayBuffer()));
    expect(text)
      .match(/On the vehicle/)
      .and.match(/told by the customer/)
      .and.match(/not to blame/);
    await visit('/unit/1009/report');
    expect(await page.textContent('article')).not.contain('On the vehicle');
  });

  it('ways that mislead are refused with the reason and the check to do instead', async () => {
    await vehicle(1004);
    await page.click('summary:has-text("Ways that mislead")');
    const list = page.locator('li:has-text("Ohms of the ground path")');
    expect(await list.textContent()).match(/sound ground cable has read 20 Ω/);
    await list.locator('button:has-text("Drop along the ground path while cranking")').click();
    await page.waitForSelector('section[aria-label="Check at hand"] h2:has-text("ground path while cranking")');
  });

  it('the battery’s own figures change what is expected; nonsense is told at its field', async () => {
    await vehicle(1004);
    await page.click('summary:has-text("Battery: flooded")');
    await page.fill('label:has-text("Cold-cranking amps") input', '900');
    await page.keyboard.press('Tab');
    await page.waitForSelector('summary:has-text("Battery: flooded, 900 A")');
    await page.selectOption('label:has-text("Any check") select', {
      label: 'Battery under half its cold-cranking amps (450 A)',
    });
    const amps = page.locator('label:has-text("Cold-cranking amps") input');
    await amps.fill('9');
    await amps.blur();
    expect(await amps.evaluate((field: HTMLInputElement) => field.validationMessage)).match(/50 to 3000 A/);
  });
});
