import { expect } from 'chai';
import { ask, bench, freshUnit, page, postJson, readingEntry, until, visitor } from './stage.ts';

const places = ['A+', 'A-', 'B+', 'B-', 'C+', 'C-'];

describe('how common units unlike their kind are', () => {
  const read = (tag: number, check: string, value: number) =>
    postJson(`/api/jobs/${tag}/readings`, readingEntry({ check, outcome: { kind: 'value', value }, typed: 'as read' }));
  const diodes = async (tag: number, millivolts: readonly number[]) => {
    for (const [n, value] of millivolts.entries()) await read(tag, `diode-forward:${places[n]}`, value / 1000);
  };
  const strewn = [531, 556, 509, 548, 561, 513];

  it('the bench says whether a unit is unlike its kind in many ways, or in some alone', async () => {
    const suspects = page.locator('section[aria-label="Suspects"]');
    const says = (what: RegExp) => until(async () => what.test((await suspects.textContent()) ?? ''), String(what));
    const odd = await freshUnit();
    await diodes(odd, strewn);
    await bench(odd);
    await says(/Differs from its kind in many small ways/);
    const rewound = await freshUnit();
    await diodes(rewound, [530, 530, 530, 530, 530, 530]);
    await read(rewound, 'leads-null', 0.1);
    await read(rewound, 'field-ohms', 5.4);
    for (const pair of ['AB', 'BC', 'CA']) await read(rewound, `stator-drop:${pair}`, 1.02);
    await bench(rewound);
    await says(/Differs from its kind in its windings alone/);
  });
  it('a shop that finds its units unlike their kind expects the next to be so too; those taken in before keep what they had', async () => {
    const shareOf = async (tag: number) =>
      ((await (await ask(`/api/jobs/${tag}`)).json()) as { unlikeShare: number }).unlikeShare;
    const before = await freshUnit();
    const usual = await shareOf(before);
    for (let unit = 0; unit < 3; unit++) {
      const tag = await freshUnit();
      await diodes(tag, strewn);
      const decision = { id: crypto.randomUUID(), course: 'reject', reason: 'Not worth it.', technician: visitor.id };
      expect((await postJson(`/api/jobs/${tag}/verdicts`, decision)).status).equal(200);
    }
    const next = await shareOf(await freshUnit());
    expect(next).greaterThan(usual + 0.02);
    expect(await shareOf(before)).equal(usual);
    const shop = await (await ask('/shop')).text();
    expect(shop.replace(/<[^>]*>/g, ' ')).match(
      new RegExp(`that come in\\s+${(100 * next).toFixed(next < 0.1 ? 1 : 0)} %\\s+are\\s+taken`),
    );
  });
});
