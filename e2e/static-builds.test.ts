import { expect } from 'chai';
import { ask, bench, page, pick, postJson, tape, until, visit, visitor } from './stage.ts';

describe('the static bench: variants', () => {
  it('a model with two stators is weighed as both, one with a single build as itself alone', async () => {
    const variantsAt = async (tag: number) =>
      ((await (await ask(`/api/jobs/${tag}/view`)).json()) as { variants: { name: string }[] }).variants;
    expect(await variantsAt(1001)).deep.equal([]);
    const names = (await variantsAt(1003)).map(({ name }) => name);
    expect(names).include('Late stator');
    const told = (await (await ask('/api/jobs/1003/assessment')).json()) as { builds: { name: string }[] };
    expect(told.builds.some(({ name }) => name.startsWith('Late stator'))).equal(true);
  });
});

describe('the static bench: another build than it was checked in with', () => {
  /** A unit that the shelf tells in star with silicon diodes and the early stator. */
  async function harrow(): Promise<number> {
    const line = {
      customer: 'Quay pump',
      model: 'Harrow 14-120',
      serial: '',
      complaint: 'no-charge',
      words: '',
      due: '',
    };
    const lines = [{ ...line, id: crypto.randomUUID(), volts: '', amps: '' }];
    const checkedIn = await postJson('/api/check-ins', { lines, dry: false, technician: visitor.id });
    const [{ tag }] = (await checkedIn.json()) as [{ tag: number }];
    return tag;
  }
  const suspects = () => page.locator('section[aria-label="Suspects"]');
  /** Types what a meter showed at checks one after the other. */
  async function read(shown: Readonly<Record<string, string>>): Promise<void> {
    for (const [i, [check, typed]] of Object.entries(shown).entries()) {
      await pick(check);
      await page.keyboard.type(typed);
      await page.keyboard.press('Enter');
      await until(async () => (await tape().count()) === i + 1, `${i + 1} on the tape`);
    }
  }
  const blamed = async (tag: number, of: string) => {
    const { suspects: all } = (await (await ask(`/api/jobs/${tag}/assessment`)).json()) as {
      suspects: { name: string; chance: number }[];
    };
    return all.filter(({ name, chance }) => name.includes(of) && chance >= 0.05);
  };

  it('another kind of diodes is told beside the suspects, on the verdict sheet and on the report; no diode is blamed', async () => {
    const told = /Not what it was checked in as.*reads like\s+low-loss diodes in star/s;
    const tag = await harrow();
    await bench(tag);
    expect(await suspects().textContent()).not.match(told);
    const places = ['A', 'B', 'C'].flatMap((phase) => [`Positive diode ${phase}`, `Negative diode ${phase}`]);
    await read(Object.fromEntries(places.map((diode, i) => [`${diode} forward`, `37${i}m`])));
    await until(async () => told.test((await suspects().textContent())!), 'told as what it reads like');
    expect(await blamed(tag, 'diode')).deep.equal([]);
    await visit(`/unit/${tag}/verdict`);
    await until(async () => told.test((await page.textContent('section'))!), 'told on the verdict sheet');
    await visit(`/unit/${tag}/report`);
    expect(await page.textContent('article')).match(
      /Reads like\s+low-loss diodes in star, not what it was checked in as/,
    );
  });

  it('the model’s other stator is told as that, and no winding is blamed', async () => {
    const told = /Not what it was checked in as.*reads like\s+Late stator/s;
    const tag = await harrow();
    await bench(tag);
    await read(
      Object.fromEntries(
        ['A and B', 'B and C', 'C and A'].map((pair, i) => [
          `Stator leads ${pair} under 5 A, volts across`,
          `37${i + 4}m`,
        ]),
      ),
    );
    await until(async () => told.test((await suspects().textContent())!), 'told as the other stator');
    expect(await blamed(tag, 'tator')).deep.equal([]);
  });
});
