import { expect } from 'chai';
import { ask, freshUnit, postJson, readingEntry, visitor } from './stage.ts';

describe('how common units unlike their kind are', () => {
  it('a shop that finds its units unlike their kind expects the next to be so too; those taken in before keep what they had', async () => {
    const shareOf = async (tag: number) =>
      ((await (await ask(`/api/jobs/${tag}`)).json()) as { unlikeShare: number }).unlikeShare;
    const before = await freshUnit();
    const usual = await shareOf(before);
    for (let unit = 0; unit < 3; unit++) {
      const tag = await freshUnit();
      for (const [n, millivolts] of [531, 556, 509, 548, 561, 513].entries())
        await postJson(
          `/api/jobs/${tag}/readings`,
          readingEntry({
            check: `diode-forward:${['A+', 'A-', 'B+', 'B-', 'C+', 'C-'][n]}`,
            outcome: { kind: 'value', value: millivolts / 1000 },
            typed: String(millivolts),
          }),
        );
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
