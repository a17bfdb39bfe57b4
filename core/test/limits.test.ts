import { expect } from 'chai';
import {
  contradict,
  inHouseOrder,
  keeps,
  limitsFor,
  type SchoolLimit,
  studentT,
  unbalance,
} from '../src/limits/index.ts';
import { clawPoleGeneric, subjectOf } from '../src/machines/index.ts';

const { checks } = subjectOf(clawPoleGeneric(12, 90));
const check = (id: string) => checks.find((one) => one.id === id)!;
const none = { published: undefined, siblings: [], own: [] };

/** P(T ≤ t) by Simpson's rule over Student's density; Γ by its recurrence from Γ(1/2) and Γ(1). */
function below(t: number, degrees: number): number {
  const gamma = (x: number): number => (x === 0.5 ? Math.sqrt(Math.PI) : x === 1 ? 1 : (x - 1) * gamma(x - 1));
  const scale = gamma((degrees + 1) / 2) / (Math.sqrt(degrees * Math.PI) * gamma(degrees / 2));
  const density = (x: number) => scale * (1 + (x * x) / degrees) ** (-(degrees + 1) / 2);
  const steps = 2000;
  const h = t / steps;
  let sum = density(0) + density(t);
  for (let i = 1; i < steps; i++) sum += (i % 2 ? 4 : 2) * density(i * h);
  return 0.5 + (sum * h) / 3;
}

describe('limits: Student’s t against numerical integration', () => {
  for (const degrees of [2, 3, 5, 10, 20, 30, 31, 60, 120]) {
    it(`${degrees} degrees of freedom leave 2.5 % above`, () => {
      expect(below(studentT(degrees), degrees)).closeTo(0.975, 1e-4);
    });
  }
  it('refuses what has no spread', () => {
    expect(() => studentT(1)).throw('at least 2');
  });
});

describe('limits: the three schools', () => {
  it('published: both ends, or one, with their sources', () => {
    const least = { value: 0.129, source: 'manual, page 8' };
    const most = { value: 0.192, source: 'manual, page 8' };
    expect(limitsFor(check('stator-pair:AB'), { ...none, published: { least, most } })).deep.equal([
      { school: 'published', least: 0.129, most: 0.192, source: 'manual, page 8' },
    ]);
    const [open] = limitsFor(check('stator-pair:AB'), { ...none, published: { least, most: undefined } });
    expect(open!.most).equal(undefined);
  });
  it('siblings: copper by its share, junctions by volts, leaks not at all, one sibling not at all', () => {
    const [pair] = limitsFor(check('stator-pair:AB'), { ...none, siblings: [0.1, 0.12] });
    expect(pair!.least).closeTo(0.11 * 0.95, 1e-12);
    const [diode] = limitsFor(check('diode-forward:A+'), { ...none, siblings: [0.5, 0.504] });
    expect(diode!.most).closeTo(0.517, 1e-12);
    expect(limitsFor(check('diode-reverse-ohms:A+'), { ...none, siblings: [2e6, 3e6] })).deep.equal([]);
    expect(limitsFor(check('stator-pair:AB'), { ...none, siblings: [0.1] })).deep.equal([]);
  });
  it('our own: from three known-good units on, as wide as so few allow (reckoned by hand)', () => {
    expect(limitsFor(check('ring-ring'), { ...none, own: [3.2, 3.3] })).deep.equal([]);
    // Mean 3.3, deviation 0.1, t for 2 is 4.303, √(4/3) = 1.1547: 3.3 ± 0.4969.
    const [own] = limitsFor(check('ring-ring'), { ...none, own: [3.2, 3.3, 3.4] });
    expect(own!.least).closeTo(2.8031, 1e-4);
    expect(own!.most).closeTo(3.7969, 1e-4);
  });
  it('a meter too coarse for a limit is unsure on both sides of it, never right or wrong (0.129–0.192 Ω, 0.1 Ω steps)', () => {
    const limit: SchoolLimit = { school: 'published', least: 0.129, most: 0.192, source: '' };
    for (const value of [0, 0.1, 0.2, 0.3]) expect(keeps(limit, value, 0.12)).equal('unsure');
    expect(keeps(limit, 0.16, 0.005)).equal('inside');
    expect(keeps(limit, 0.21, 0.005)).equal('outside');
    expect(keeps(limit, 0.196, 0.005)).equal('unsure');
  });
  it('the house says which leads; a contradiction is between those that are sure', () => {
    const limits = (['published', 'siblings', 'own'] as const).map((school) => ({
      school,
      least: undefined,
      most: undefined,
      source: '',
    }));
    expect(inHouseOrder(limits, ['own', 'published', 'siblings']).map(({ school }) => school)).deep.equal([
      'own',
      'published',
      'siblings',
    ]);
    expect(contradict(['outside', 'inside'])).equal(true);
    expect(contradict(['outside', 'unsure'])).equal(false);
  });
  it('unbalance of three: largest deviation from the mean over the mean', () => {
    expect(unbalance([0.1, 0.1, 0.13])).closeTo(0.02 / 0.11, 1e-12);
  });
});
