import { expect } from 'chai';
import fc from 'fast-check';
import { type DecidedUnit, unitSession, unlikeShareOf } from '../src/assess/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric, subjectOf } from '../src/machines/index.ts';
import { seeded } from '../src/numeric/index.ts';

const decided = fc.array(
  fc.record({
    chance: fc.double({ min: 0, max: 1, noNaN: true }),
    share: fc.double({ min: 0.05, max: 0.9, noNaN: true }),
  }),
  { maxLength: 60 },
);

/** Where likelihood times prior is highest, looked for by trying every share of a grid: no expectation in it. */
function likeliestShare(units: readonly DecidedUnit[]): number {
  let best = { share: 0, log: -Infinity };
  for (let share = 0.0005; share < 1; share += 0.0005) {
    const log = units.reduce(
      (sum, { chance, share: before }) =>
        sum + Math.log((share * chance) / before + ((1 - share) * (1 - chance)) / (1 - before)),
      Math.log(share) + 19 * Math.log(1 - share),
    );
    if (log > best.log) best = { share, log };
  }
  return best.share;
}

describe('how common units unlike their kind are in a shop', () => {
  it('is as usual where none is decided, or nothing was seen of those that are', () => {
    expect(unlikeShareOf([])).closeTo(0.05, 1e-9);
    expect(unlikeShareOf(Array.from({ length: 50 }, () => ({ chance: 0.05, share: 0.05 })))).closeTo(0.05, 1e-4);
  });

  it('worked by hand: forty that surely are, beside the weight of twenty', () => {
    expect(unlikeShareOf(Array.from({ length: 40 }, () => ({ chance: 1, share: 0.05 })))).closeTo(41 / 60, 1e-6);
  });

  it('is never less than usual, however many are as their kind', () => {
    expect(unlikeShareOf(Array.from({ length: 200 }, () => ({ chance: 0, share: 0.05 })))).equal(0.05);
  });

  it('is where likelihood times prior is highest, as a plain search finds it', () => {
    fc.assert(
      fc.property(decided, (units) => {
        expect(unlikeShareOf(units)).closeTo(Math.max(likeliestShare(units), 0.05), 2e-3);
      }),
      { numRuns: 40 },
    );
  });

  it('is shared by all ways that a build may be strewn, and each is as wide as it says', () => {
    const { builds, nuisances } = subjectOf(clawPoleGeneric(12, 90), [], 0.3);
    const strewn = builds.filter((build) => build.strewn);
    const apart: Record<string, RegExp> = {
      windings: /^(stator|rotor)(:[ABC])?$/,
      insulation: /^((exciter-)?leak:..?|leak|insulation-(rotor-)?core|insulation-output)$/,
    };
    const alone = strewn.flatMap((build) => build.strewn!.apart?.name ?? []);
    expect([...new Set(alone)]).deep.equal(Object.keys(apart));
    expect(new Set(strewn.map((build) => build.strewn!.times)).size).greaterThan(1);
    expect(strewn.reduce((sum, { prior }) => sum + prior, 0)).closeTo(0.3, 1e-9);
    expect(strewn.reduce((sum, { priorAsItsKind }) => sum + priorAsItsKind!, 0)).closeTo(0.3, 1e-9);
    for (const build of strewn) {
      const like = new Map(
        nuisances(builds.find(({ id }) => id === build.strewn!.like)!).map((n) => [n.name, n.sigma]),
      );
      for (const { name, sigma } of nuisances(build)) {
        const of = build.strewn!.apart?.name;
        const isWider = of ? apart[of]!.test(name) : name !== 'celsius';
        expect(sigma, `${build.id}: ${name}`).closeTo((isWider ? build.strewn!.times : 1) * like.get(name)!, 1e-12);
      }
      for (const [of, names] of Object.entries({ windings: 5, insulation: 13 }))
        expect([...like.keys()].filter((name) => apart[of]!.test(name)).length, of).equal(names);
    }
  });

  it('what was believed with another share tells the same of a unit', () => {
    const random = seeded(5);
    const ratios = Array.from({ length: 80 }, () => Math.exp(6 * random() - 2));
    const told = (share: number) =>
      unlikeShareOf(ratios.map((ratio) => ({ chance: (share * ratio) / (share * ratio + 1 - share), share })));
    expect(told(0.05)).closeTo(told(0.6), 1e-4);
  });

  it('a shop that meets many takes the same small surprises for one sooner', () => {
    const unlike = (unlikeShare?: number) => {
      const meter = multimeterById('bench');
      const session = unitSession(
        { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' },
        'none',
        [meter],
        {
          unlikeShare,
        },
      );
      const readings = [531, 541, 524, 535].map((mv, i) => ({
        id: String(i),
        check: `diode-forward:${['A+', 'A-', 'B+', 'B-'][i]}`,
        outcome: { kind: 'value', value: mv / 1000 } as const,
        meter: 'bench',
        celsius: 20,
      }));
      return session.diagnose({ readings, assembly: 'unsoldered', meter: 'bench', celsius: 20 }).unlike;
    };
    expect(unlike(undefined)).closeTo(unlike(0.05), 1e-12);
    expect(unlike(0.5)).greaterThan(2 * unlike(0.05));
  });
});
