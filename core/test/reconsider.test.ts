import { expect } from 'chai';
import fc from 'fast-check';
import { type Session, unitSession } from '../src/assess/index.ts';
import type { Reading } from '../src/belief/index.ts';
import { learn, reconsider } from '../src/belief/reconsider.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric } from '../src/machines/index.ts';
import {
  type Gaussian,
  gaussianAlong,
  gaussianCovariance,
  gaussianOf,
  gaussianProject,
  normalPdf,
  type Slope,
  slopeOf,
} from '../src/numeric/index.ts';

describe('an earlier reading taken for the slip', () => {
  const sizes = fc.integer({ min: -20, max: 20 }).map((tenths) => tenths / 10);
  const slopes = fc.array(sizes, { minLength: 3, maxLength: 3 }).map((all) => slopeOf(Float64Array.from(all), 0.05));
  const lessons = fc.array(fc.record({ slope: slopes, shown: sizes, sigma: fc.constantFrom(0.3, 0.5, 1) }), {
    minLength: 2,
    maxLength: 6,
  });
  type Taught = { readonly slope: Slope; readonly shown: number; readonly sigma: number };
  const slip = 0.01;
  const prediction = ({ slope, sigma }: Taught) =>
    ({ kind: 'number', mean: 0.1, slope, noiseVariance: sigma ** 2, top: Infinity, span: 5, bends: [] }) as const;
  const readings = Array.from({ length: 8 }, () => ({}) as Reading);
  const taught = (all: readonly (readonly [Taught, Reading])[]): Gaussian =>
    all.reduce(
      (state, [one, reading]) => learn(state, { reading, prediction: prediction(one), shown: one.shown, slip }),
      gaussianOf([1, 0.5, 2]),
    );

  it('two readings go together as their sum says', () => {
    fc.assert(
      fc.property(lessons, slopes, slopes, (all, a, b) => {
        const state = taught(all.map((one, r) => [one, readings[r]!]));
        const dense = (slope: Slope) => {
          const full = new Float64Array(3);
          slope.index.forEach((i, n) => (full[i] = slope.value[n]!));
          return full;
        };
        const both = slopeOf(
          dense(a).map((one, i) => one + dense(b)[i]!),
          0,
        );
        const variance = (slope: Slope) => gaussianProject(state, 0, slope).variance;
        const expected = (variance(both) - variance(a) - variance(b)) / 2;
        expect(gaussianCovariance(state, a, b)).closeTo(expected, 1e-9);
      }),
    );
  });

  it('is no likelier a slip than can be weighed, however far off all others leave it', () => {
    const along = slopeOf(Float64Array.from([1, 0, 0]), 0.05);
    const at = (shown: number): Taught => ({ slope: along, shown, sigma: 0.01 });
    const state = taught([
      [at(0), readings[0]!],
      [at(3), readings[1]!],
    ]);
    const other = reconsider(state, prediction(at(3)), 3)!;
    expect(other.reading).equal(readings[0]);
    expect(other.odds).within(1e9, 1e250);
    expect(gaussianProject(other.state, 0.1, along).mean).closeTo(3, 0.01);
  });

  it('is the one without which the new one is likeliest, and what is known then is what all others taught', () => {
    let found = 0;
    fc.assert(
      fc.property(lessons, fc.record({ slope: slopes, shown: sizes, sigma: fc.constant(0.4) }), (all, next) => {
        const numbered = all.map((one, r) => [one, readings[r]!] as const);
        const other = reconsider(taught(numbered), prediction(next), next.shown);
        // Each left out in turn, the long way.
        const state = taught(numbered);
        const saying = numbered.filter(([one]) => gaussianCovariance(state, one.slope, next.slope) !== 0);
        const tried = saying.map(([left, reading]) => {
          const known = taught(numbered.filter((one) => one[1] !== reading));
          const density = (one: Taught) => {
            const { mean, variance } = gaussianProject(known, 0.1, one.slope);
            return normalPdf(one.shown, mean, Math.sqrt(variance + one.sigma ** 2));
          };
          const odds = slip / density(left);
          return { reading, known, odds, likely: odds * density(next) };
        });
        if (!tried.length) {
          expect(other).equal(undefined);
          return;
        }
        const best = tried.reduce((a, b) => (b.likely > a.likely ? b : a));
        if (!(best.likely > 1e-12 && best.odds < 1e12)) return;
        const same = tried.find(({ reading }) => reading === other?.reading)!;
        expect(same.likely / best.likely).closeTo(1, 1e-6);
        expect(other!.odds / same.odds).closeTo(1, 1e-6);
        for (const i of [0, 1, 2]) {
          const [got, wanted] = [gaussianAlong(other!.state, i), gaussianAlong(same.known, i)];
          expect(got.mean).closeTo(wanted.mean, 1e-8);
          expect(got.variance).closeTo(wanted.variance, 1e-8);
        }
        found++;
      }),
      { numRuns: 300 },
    );
    expect(found).greaterThan(100);
  });
});

describe('a first reading slipped to what a sound unit might just have shown', () => {
  const meter = multimeterById('bench');
  // A made-up sound unit with silicon diodes; over the whole bridge 0.8379 V was read, where it shows 1.05 V.
  const taken = [
    ['leads-null', 0.087],
    ['bridge-forward', 0.8379],
    ['bridge-reverse', Infinity],
    ['bridge-reverse-ohms', 6.218e6],
    ['joined-forward:A+', 0.5243],
    ['joined-forward:A-', 0.5199],
    ['joined-forward:B+', 0.5243],
    ['joined-forward:B-', 0.5202],
  ] as const;
  const after = (session: Session, many: number) =>
    session.diagnose({
      readings: taken.slice(0, many).map(([check, value], n) => {
        const outcome = value === Infinity ? ({ kind: 'over-range' } as const) : ({ kind: 'value', value } as const);
        return { id: String(n), check, outcome, meter: meter.id, celsius: 20 };
      }),
      assembly: 'opened',
      meter: meter.id,
      celsius: 20,
    });

  for (const [build, machine] of [
    ['is told', { ...clawPoleGeneric(12, 65), connection: 'star', diodeKind: 'silicon' } as const],
    ['is not known', clawPoleGeneric(12, 65)],
  ] as const)
    it(`condemns no unit whose build ${build}: what is read after it says which one was the slip`, () => {
      const session = unitSession(machine, 'none', [meter]);
      expect(after(session, 2).readings[1]!.repeat).equal(undefined);
      const { suspects, readings } = after(session, taken.length);
      for (const { fault, chance } of suspects) expect(chance, fault).lessThan(0.2);
      const fitNothing = readings.filter(({ repeat }) => repeat?.startsWith('Fits nothing expected'));
      expect(fitNothing.map(({ check }) => check)).deep.equal(['bridge-forward']);
    });
});
