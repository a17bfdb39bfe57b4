import { expect } from 'chai';
import { countedReadings, countingOf, History, type Reading } from '../src/belief/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { gaussianAlong } from '../src/numeric/index.ts';
import { chanceOf, openKnown, reading } from './toy.ts';

const value = (v: number): Outcome => ({ kind: 'value', value: v });
const finding = (name: string): Outcome => ({ kind: 'finding', finding: name });
const OL: Outcome = { kind: 'over-range' };
describe('repeats of a check', () => {
  const opened = openKnown();

  it('a repeat that agrees is one reading, surer of not being a slip; one that disagrees takes its place', () => {
    const take = (v: number) => reading(opened, 'ring-ring', value(v));
    expect(countedReadings([take(3.3), take(3.4)])[0]).deep.include({
      reading: take(3.3),
      entries: 2,
      undecided: false,
    });
    const [other, ...none] = countedReadings([take(3.3), take(33)]);
    expect(other).deep.include({ reading: take(33), entries: 1, undecided: true });
    expect(none).deep.equal([]);
    const history = new History(opened);
    const last = (...list: Reading[]) => history.follow(list).belief;
    const once = chanceOf(opened, last(reading(opened, 'ring-ring', OL)), 'rotor-open');
    const twice = chanceOf(
      opened,
      last(reading(opened, 'ring-ring', OL), reading(opened, 'ring-ring', OL)),
      'rotor-open',
    );
    expect(twice).greaterThan(once);
  });
  it('of entries that disagree count those that most agree on, of as many the last ones', () => {
    const take = (v: number) => reading(opened, 'ring-ring', value(v));
    const count = (...ohms: number[]) => countedReadings(ohms.map(take))[0]!;
    const [right, slip, anew] = [take(3.3), take(33), take(3.4)];
    const settled = countedReadings([right, slip, anew])[0]!;
    expect(settled).deep.include({ reading: right, entries: 2, undecided: false });
    expect([right, slip, anew].map((one) => countingOf(settled, one))).deep.equal(['counts', 'outvoted', 'counts']);
    expect(count(3.3, 33, 3.4, 33.1)).deep.include({ reading: slip, entries: 2, undecided: true });
    expect(count(3.3, 3.4, 33, 33.1)).deep.include({ reading: slip, entries: 2, undecided: true });
    expect(count(3.3, 33, 0.1)).deep.include({ reading: take(0.1), entries: 1, undecided: true });
    const history = new History(opened);
    const open = (...list: Reading[]) => chanceOf(opened, history.follow(list).belief, 'rotor-open');
    const broken = reading(opened, 'ring-ring', OL);
    expect(open(broken, right, broken)).closeTo(open(broken, broken), 1e-9);
    expect(open(right, broken, right)).closeTo(open(right, right), 1e-9);
    expect(open(broken, broken, right)).greaterThan(0.5);
  });
  it('a number read with another meter, or at another warmth, takes the place of those before it, however many', () => {
    const take = (v: number) => reading(opened, 'ring-ring', value(v));
    const better = { ...take(3.9), meter: multimeterById('bench') };
    for (const anew of [better, { ...take(3.9), celsius: 60 }]) {
      const settled = countedReadings([take(3.3), take(3.4), anew])[0]!;
      expect(settled).deep.include({ reading: anew, entries: 1, undecided: false });
      expect([take(3.3), anew].map((one) => countingOf(settled, one))).deep.equal(['replaced', 'counts']);
    }
    // What is seen is seen with any meter.
    const seen = reading(opened, 'rings-by-eye', finding('burnt'));
    expect(countedReadings([seen, { ...seen, meter: multimeterById('bench') }])[0]).deep.include({ entries: 2 });
  });
  it('other leads in the meter: what is read after them is held against their null, what was read before against its own', () => {
    const readings = [
      reading(opened, 'leads-null', value(0.3)),
      reading(opened, 'field-ohms', value(3.7)),
      reading(opened, 'leads-null', value(1.1)),
      reading(opened, 'ring-ring', value(4.3)),
    ];
    const counted = countedReadings(readings);
    expect(counted.map(({ otherLeads }) => otherLeads)).deep.equal([false, false, true, false]);
    const leads = opened.dimensions.index.get('leads@workshop')!;
    const { outsets, belief } = new History(opened).follow(readings);
    const along = (at: number) => gaussianAlong(outsets[at]!.rows[0]!.sound, leads);
    expect(along(1).mean).closeTo(0, 0.05);
    expect(along(3).mean).closeTo(0.8, 0.15);
    expect(chanceOf(opened, belief, 'brush-worn')).lessThan(0.05);
    // With the first null kept, the same ring to ring would be 0.8 ohms higher.
    const kept = new History(opened).follow(readings.filter((_, i) => i !== 2)).belief;
    expect(along(4).mean).greaterThan(gaussianAlong(kept.rows[0]!.sound, leads).mean + 0.5);
  });
  it('each meter has leads of its own: their nulls don’t replace each other', () => {
    const nulls = [
      reading(opened, 'leads-null', value(0.3)),
      { ...reading(opened, 'leads-null', value(0.1)), meter: multimeterById('bench') },
      reading(opened, 'leads-null', value(0.3)),
    ];
    expect(countedReadings(nulls).map(({ reading: { meter }, entries }) => [meter.id, entries])).deep.equal([
      ['workshop', 2],
      ['bench', 1],
    ]);
  });
  it('what changed when touched is outvoted by nothing steady, and outvotes nothing', () => {
    const steady = reading(opened, 'ring-ring', value(3.3));
    const touched = reading(opened, 'ring-ring', { kind: 'changes' });
    expect(countedReadings([steady, steady, touched])[0]).deep.include({ reading: touched, undecided: false });
    expect(countedReadings([touched, touched, steady])[0]).deep.include({ reading: steady, entries: 1 });
    const seen = reading(opened, 'rings-by-eye', finding('burnt'));
    const bent = reading(opened, 'rings-by-eye', { kind: 'changes' });
    expect(countedReadings([seen, seen, bent])[0]).deep.include({ reading: bent, undecided: false });
  });
});
