import { expect } from 'chai';
import { type Belief, beliefAfter, type Case, checkOf, faultChances, priorBelief } from '../src/belief/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type CourseId, decide, type Prices } from '../src/verdict/index.ts';
import { openKnown } from './toy.ts';

const workshop = multimeterById('workshop');
const value = (v: number): Outcome => ({ kind: 'value', value: v });
const OL: Outcome = { kind: 'over-range' };
const finding = (name: string): Outcome => ({ kind: 'finding', finding: name });
const after = (opened: Case, ...taken: readonly (readonly [string, Outcome])[]): Belief =>
  taken.reduce(
    (b, [check, outcome]) =>
      beliefAfter(opened, b, { check: checkOf(opened, check), outcome, meter: workshop, celsius: 20 }),
    priorBelief(opened),
  );

/** A sound unit as far as checks at rest go. */
const sound: readonly (readonly [string, Outcome])[] = [
  ['bridge-forward', value(0.93)],
  ['bridge-reverse', OL],
  ['bridge-reverse-ohms', value(5e6)],
  ['field-ohms', value(3.5)],
  ['field-turning', finding('steady')],
  ['brush-length', value(8)],
  ['rings-by-eye', finding('smooth')],
  ['ring-core', OL],
  ['current-drop:A+', value(0.86)],
  ['current-drop:B+', value(0.86)],
  ['current-drop:C+', value(0.86)],
  ['current-drop:A-', value(0.86)],
  ['current-drop:B-', value(0.86)],
  ['current-drop:C-', value(0.86)],
];
const noPrices: Prices = { items: {} };
const prices: Prices = {
  labourPerHour: 60,
  exchange: 200,
  core: 20,
  comeback: 100,
  items: { brushes: { price: 10 }, rectifier: { price: 45 }, regulator: { price: 40 }, rotor: { price: 90 } },
};
const courseOf = (opened: Case, belief: Belief, entered: Prices, id: CourseId) =>
  decide(opened, belief, entered).courses.find((c) => c.id === id)!;

describe('verdict', () => {
  it('sound readings at rest never send a no-charge unit back as it is', () => {
    const opened = openKnown({}, 'no-charge');
    const verdict = decide(opened, after(opened, ...sound), noPrices);
    expect(verdict.recommended).not.equal('return');
    expect(verdict.courses.find((c) => c.id === 'return')!.barred).match(/run the unit/);
  });
  it('the same readings on a unit for stock may send it back', () => {
    const opened = openKnown({}, 'none');
    expect(courseOf(opened, after(opened, ...sound), noPrices, 'return').barred).equal(undefined);
  });
  it('a worn brush: replace the brush set, cost by hand', () => {
    const opened = openKnown({}, 'no-charge');
    const belief = after(
      opened,
      ['field-ohms', OL],
      ['brush-length', value(2)],
      ['ring-ring', value(3.3)],
      ['rings-by-eye', finding('smooth')],
    );
    const course = courseOf(opened, belief, prices, 'replace');
    expect(course.actions.map((a) => a.id)).deep.equal(['brushes']);
    // 15 min for the brushes, 15 to put together and prove, at 60 an hour; the brushes 10.
    expect(course.minutes).equal(30);
    expect(course.cost).closeTo(10 + 30, 1e-9);
    expect(decide(opened, belief, prices).recommended).equal('replace');
  });
  it('dirty rings: repair, nothing to buy', () => {
    const opened = openKnown({}, 'low-charge');
    const belief = after(
      opened,
      ['field-ohms', value(6.5)],
      ['field-turning', finding('jumps')],
      ['ring-ring', value(3.3)],
      ['rings-by-eye', finding('dull')],
      ['brush-length', value(8)],
    );
    const verdict = decide(opened, belief, prices);
    expect(verdict.recommended).equal('repair');
    expect(verdict.courses.find((c) => c.id === 'repair')!.actions.map((a) => a.id)).deep.equal(['rings']);
  });
  it('no price is “price unknown”: ranked without money, the missing price named, no reject', () => {
    const opened = openKnown({}, 'no-charge');
    const belief = after(
      opened,
      ['bridge-forward', value(0.476)],
      ['diode-forward:A+', value(0)],
      ['diode-reverse:A+', value(0)],
    );
    const verdict = decide(opened, belief, noPrices);
    const replace = verdict.courses.find((c) => c.id === 'replace')!;
    expect(verdict.inMoney).equal(false);
    expect(replace.cost).equal(undefined);
    expect(replace.unknownPrices).deep.equal(['Rectifier']);
    expect(verdict.courses.find((c) => c.id === 'reject')!.barred).match(/exchange price/);
    expect(verdict.reason).match(/price unknown/);
    expect(verdict.recommended).equal('replace');
  });
  it('a dear part tips the scale to the exchange unit', () => {
    const opened = openKnown({}, 'no-charge');
    const belief = after(opened, ['ring-ring', OL], ['field-turning', finding('never')], ['ring-core', OL]);
    const dear = { ...prices, exchange: 60, core: 20 };
    // The rotor and its labour cost 145; a comeback at worst adds 190 at less than even odds; 300 less the core is 280.
    expect(decide(opened, belief, { ...prices, exchange: 300 }).recommended).equal('replace');
    expect(decide(opened, belief, dear).recommended).equal('reject');
  });
  it('the chance that something stays wrong is what the actions leave over', () => {
    const opened = openKnown({}, 'no-charge');
    const belief = after(opened, ['field-ohms', OL], ['brush-length', value(2)], ['ring-ring', value(3.3)]);
    const chances = faultChances(opened, belief);
    const brushFaults = opened.faults.flatMap((f, i) => (f.part === 'brushes' ? [chances[i]!] : []));
    const nothing = courseOf(opened, belief, prices, 'return').risk;
    const replaced = courseOf(opened, belief, prices, 'replace').risk;
    expect(nothing).greaterThan(0.99);
    expect(nothing - replaced).at.most(brushFaults.reduce((sum, p) => sum + p, 0) + 1e-6);
    expect(replaced).lessThan(0.5);
  });
  it('nothing is rejected before anything is found', () => {
    const opened = openKnown({}, 'no-charge');
    expect(courseOf(opened, priorBelief(opened), prices, 'reject').barred).match(/Nothing found yet/);
  });
});
