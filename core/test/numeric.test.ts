import { expect } from 'chai';
import fc from 'fast-check';
import { inverse, Matrix } from 'ml-matrix';
import {
  type Gaussian,
  gaussianAbove,
  gaussianAlong,
  gaussianBefore,
  gaussiansForget,
  gaussianOf,
  gaussianProject,
  gaussianUpdate,
  normalBetween,
  normalCdf,
  normalFrom,
  normalPdf,
  seeded,
  slopeOf,
} from '../src/numeric/index.ts';

describe('numeric: the normal distribution', () => {
  // Abramowitz and Stegun, Handbook of Mathematical Functions (1964), table 26.1.
  const table: readonly (readonly [number, number])[] = [
    [0, 0.5],
    [0.5, 0.691462461274013],
    [1, 0.841344746068543],
    [2, 0.977249868051821],
    [3, 0.99865010196837],
  ];
  for (const [z, p] of table) {
    it(`P(${z}) of table 26.1, and its mirror`, () => {
      expect(normalCdf(z)).closeTo(p, 1e-14);
      expect(normalCdf(-z)).closeTo(1 - p, 1e-14);
    });
  }
  it('falls off in the tail as the asymptotic series has it (same handbook, 26.2.12)', () => {
    for (const z of [8, 12, 20, 30]) {
      const tail = (Math.exp((-z * z) / 2) / (z * Math.sqrt(2 * Math.PI))) * (1 - z ** -2 + 3 * z ** -4 - 15 * z ** -6);
      expect(normalCdf(-z) / tail).closeTo(1, 1e-3);
    }
  });

  it('gives the conformity of the worked example in JCGM 106:2012, 7.4 (Zener diode; figures from memory)', () => {
    // Upper limit −5.40 V, estimate −5.47 V, standard uncertainty 0.05 V: 92 %.
    expect(normalBetween(-Infinity, -5.4, -5.47, 0.05)).closeTo(0.92, 0.005);
  });
  it('limits 0.129 to 0.192 Ω can be met with 95 % only below a standard uncertainty of about 0.016 Ω', () => {
    const best = (sigma: number) => normalBetween(0.129, 0.192, 0.1605, sigma);
    expect(best(0.016)).greaterThan(0.95);
    expect(best(0.0165)).lessThan(0.95);
  });
});

describe('numeric: a Gaussian state as a chain of observations', () => {
  const observation = fc.record({
    slope: fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 4, maxLength: 4 }),
    value: fc.double({ min: -5, max: 5, noNaN: true }),
    noise: fc.double({ min: 0.01, max: 2, noNaN: true }),
  });

  it('agrees with the posterior of the normal equations (information form, by ml-matrix)', () => {
    fc.assert(
      fc.property(fc.array(observation, { minLength: 1, maxLength: 8 }), (observations) => {
        const sigmas = [1, 0.5, 2, 0.1];
        let state: Gaussian = gaussianOf(sigmas);
        let information = Matrix.diag(sigmas.map((s) => 1 / (s * s)));
        let weighted = Matrix.zeros(4, 1);
        for (const { slope, value, noise } of observations) {
          state = gaussianUpdate(state, 0.3, slopeOf(Float64Array.from(slope), 0), value, noise);
          const column = Matrix.columnVector(slope);
          information = Matrix.add(information, Matrix.mul(column.mmul(column.transpose()), 1 / noise));
          weighted = Matrix.add(weighted, Matrix.mul(column, (value - 0.3) / noise));
        }
        const covariance = inverse(information);
        const mean = covariance.mmul(weighted);
        for (let i = 0; i < 4; i++) {
          const unit = Float64Array.from({ length: 4 }, (_, j) => (i === j ? 1 : 0));
          const seen = gaussianProject(state, 0, slopeOf(unit, 0));
          expect(seen.mean).closeTo(mean.get(i, 0), 1e-6);
          expect(seen.variance).closeTo(covariance.get(i, i), 1e-6);
        }
      }),
    );
  });
  it('forgets one component: it stands as before any observation, the others keep what they know of each other', () => {
    let state = gaussianOf([1, 0.5, 2]);
    for (const [slope, value] of [
      [[1, 1, 0], 2],
      [[0, 1, -1], 0.4],
    ] as const)
      state = gaussianUpdate(state, 0, slopeOf(Float64Array.from(slope), 0), value, 0.1);
    const learnt = gaussianUpdate(state, 0, slopeOf(Float64Array.of(0, 0, 1), 0), 1, 0.1);
    const [forgot, later] = gaussiansForget([state, learnt], 1, 3) as [Gaussian, Gaussian];
    expect(later.newest!.before, 'what they had in common they have').equal(forgot.newest);
    const along = (of: Gaussian, slope: number[]) => gaussianProject(of, 0, slopeOf(Float64Array.from(slope), 0));
    expect(along(forgot, [0, 1, 0])).deep.equal({ mean: 0, variance: 9 });
    expect(along(forgot, [1, 0, 1])).deep.equal(along(state, [1, 0, 1]));
    expect(along(forgot, [1, 1, 0]).variance).closeTo(along(forgot, [1, 0, 0]).variance + 9, 1e-12);
  });
  it('learns from what lay above a bound what counting does (importance sampling, seeded)', () => {
    const [sigmas, first, second] = [
      [1, 0.5, 2],
      [1, 1, 0],
      [1, 0, 0.7],
    ] as const;
    const slope = (of: readonly number[]) => slopeOf(Float64Array.from(of), 0);
    const [noise, bound] = [0.2, 1.5];
    const known = gaussianUpdate(gaussianOf([...sigmas]), 0, slope(first), 0.8, noise);
    const state = gaussianAbove(known, 0.1, slope(second), bound, noise);
    const normal = normalFrom(seeded(612));
    const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, one, i) => sum + one * b[i]!, 0);
    let mass = 0;
    const [sum, square] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    for (let n = 0; n < 300_000; n++) {
      const x = sigmas.map((sigma) => sigma * normal());
      const above = 1 - normalCdf((bound - 0.1 - dot(second, x)) / Math.sqrt(noise));
      const weight = normalPdf(0.8, dot(first, x), Math.sqrt(noise)) * above;
      mass += weight;
      x.forEach((one, i) => {
        sum[i]! += weight * one;
        square[i]! += weight * one * one;
      });
    }
    sigmas.forEach((_, i) => {
      const { mean, variance } = gaussianAlong(state, i);
      expect(mean).closeTo(sum[i]! / mass, 0.01);
      expect(variance).closeTo(square[i]! / mass - (sum[i]! / mass) ** 2, 0.02);
    });
    expect(gaussianAbove(known, 9, slope(second), bound, noise), 'no news').equal(known);
  });
  it('goes back to what it was before an observation', () => {
    const slope = (...of: number[]) => slopeOf(Float64Array.from(of), 0);
    const first = gaussianUpdate(gaussianOf([1, 0.5, 2]), 0, slope(1, 1, 0), 2, 0.1);
    const second = gaussianUpdate(first, 0.3, slope(0, 1, -1), 0.4, 0.2);
    const third = gaussianAbove(second, 0, slope(1, 0, 1), 1.5, 0.2);
    for (const [before, step] of [
      [first, second.newest!],
      [second, third.newest!],
    ] as const) {
      const again = gaussianBefore(third, step);
      expect(again.newest).equal(before.newest);
      again.mean.forEach((mean, i) => expect(mean).closeTo(before.mean[i]!, 1e-12));
    }
  });
  it('leaves the state before an observation as it was', () => {
    const before = gaussianOf([1, 1]);
    gaussianUpdate(before, 0, slopeOf(Float64Array.of(1, 0), 0), 3, 0.1);
    expect([...before.mean]).deep.equal([0, 0]);
    expect(before.newest).equal(undefined);
  });
});
