import { expect } from 'chai';
import { type TapeReading, unitSession } from '../src/assess/index.ts';
import {
  beliefAfterWork,
  type Case,
  checkOf,
  faultChances,
  History,
  partWords,
  priorBelief,
  type Reading,
  standings,
} from '../src/belief/index.ts';
import { countedReadings } from '../src/belief/counted.ts';
import { Trail } from '../src/belief/trail.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric } from '../src/machines/index.ts';
import { seeded } from '../src/numeric/index.ts';
import { HiddenUnit } from '../src/practice/index.ts';
import { spreads } from './spreads.ts';
import { openKnown } from './toy.ts';

const meter = multimeterById('workshop');
const machine: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };

const value = (of: number): Outcome => ({ kind: 'value', value: of });
const read = (opened: Case, check: string, outcome: Outcome): Reading => {
  return { check: checkOf(opened, check), outcome, meter, celsius: 20 };
};
const chanceOf = (opened: Case, belief: Parameters<typeof faultChances>[1], id: string): number =>
  faultChances(opened, belief)[opened.faults.findIndex((fault) => fault.id === id)]!;

describe('faults beside two that were found', () => {
  const shorted = (opened: Case) => [
    read(opened, 'brush-length', value(2)),
    read(opened, 'diode-forward:A+', value(0)),
    read(opened, 'diode-reverse:A+', value(0)),
  ];
  const sets = [
    ['brush-worn', 'stator-core', 'diode-open:B+'],
    ['diode-shorted:A+', 'diode-open:C-', 'rotor-open'],
    ['stator-open:A', 'rotor-core', 'exciter-open:B'],
  ];

  for (const [seed, ids] of sets.entries())
    it(`three faults hidden in one unit are found by the checks at rest, and nothing else is: ${ids.join(', ')}`, () => {
      const session = unitSession(machine, 'none', [meter]);
      const { opened } = session;
      const hidden = ids.map((id) => {
        const fault = opened.faults.find((one) => one.id === id)!;
        const { grades } = fault.severity;
        return { fault, severity: grades[Math.floor(grades.length / 2)]! };
      });
      const unit = new HiddenUnit(seeded(seed), opened.subject, meter, hidden, { ...spreads, slips: 0 }, 1);
      const readings = opened.checks
        .filter(({ method }) => method.kind !== 'run')
        .map((check): TapeReading => {
          return { id: check.id, check: check.id, outcome: unit.read(check), meter: meter.id, celsius: 20 };
        });
      const chances = faultChances(opened, session.beliefAfter({ readings }));
      const told = opened.faults.filter((_, f) => chances[f]! > 0.5).map(({ id }) => id);
      expect(told).have.members(ids);
      for (const id of ids) expect(chances[opened.faults.findIndex((one) => one.id === id)], id).greaterThan(0.9);
    });
  it('may be there still where two explain all that was read: what nobody looked at isn’t cleared', () => {
    const opened = openKnown();
    const { belief } = new History(opened).follow(shorted(opened));
    const words = partWords(opened, belief);
    expect(words.get('diode:A+')!.word).equal('failed');
    for (const part of ['diode:B-', 'exciter:A', 'output', 'rotor', 'stator:B', 'regulator'])
      expect(words.get(part)!.word, part).equal('not looked at');
    // One in six or seven has a third, by how often faults come alone and in pairs.
    const sure = ['brush-worn', 'diode-shorted:A+'];
    const other = opened.faults.reduce(
      (sum, { id }) => sum + (sure.includes(id) ? 0 : chanceOf(opened, belief, id)),
      0,
    );
    expect(other).within(0.1, 0.25);
    // What is looked at then is cleared.
    const looked = new History(opened).follow([
      ...shorted(opened),
      read(opened, 'diode-forward:B-', value(0.53)),
      read(opened, 'diode-reverse:B-', { kind: 'over-range' }),
      read(opened, 'ring-ring', value(3.3)),
      read(opened, 'ring-core', { kind: 'over-range' }),
    ]).belief;
    const cleared = standings(opened, looked).flatMap((one, f) => (one.cleared ? [opened.faults[f]!.id] : []));
    expect(cleared).include.members(['diode-open:B-', 'diode-shorted:B-', 'rotor-open', 'rotor-core']);
    expect(cleared).not.include.members(['diode-open:B+']).and.not.include.members(['diode-shorted:B+']);
  });
  it('following a list again after two were found gives what a fresh start gives', () => {
    const opened = openKnown();
    const list = [
      ...shorted(opened),
      read(opened, 'ring-ring', value(3.3)),
      read(opened, 'stator-pair:AB', value(0.4)),
    ];
    const history = new History(opened);
    for (const many of [3, 5, 4, 2, 5]) history.follow(list.slice(0, many));
    const without = [list[0]!, list[1]!, ...list.slice(3)];
    const again = history.follow(without).belief;
    const fresh = openKnown();
    const list2 = [...shorted(fresh), read(fresh, 'ring-ring', value(3.3)), read(fresh, 'stator-pair:AB', value(0.4))];
    const anew = new History(fresh).follow([list2[0]!, list2[1]!, ...list2.slice(3)]).belief;
    fresh.faults.forEach(({ id }) => expect(chanceOf(opened, again, id), id).closeTo(chanceOf(fresh, anew, id), 1e-9));
  });
  it('prepared in small steps and broken off anywhere, a list still gives what it gives at once', () => {
    const followed = (opened: Case, steps: number) => {
      const list = countedReadings([...shorted(opened), read(opened, 'ring-ring', value(3.3))]);
      const trail = new Trail(opened, priorBelief(opened, 'any'), 'further ones too');
      const work = trail.prepare(list);
      let made = 0;
      while (made < steps && !work.next().done) made++;
      return { made, belief: trail.follow(list).belief };
    };
    const opened = openKnown();
    const { made: all, belief: plain } = followed(opened, Infinity);
    expect(plain.beside.length, 'a further fault was weighed').greaterThan(0);
    for (const steps of [0, 1, 5, all - 20, all - 3, all - 1]) {
      const { made, belief } = followed(opened, steps);
      expect(made).equal(steps);
      expect([...faultChances(opened, belief)], `after ${steps} of ${all}`).deep.equal([
        ...faultChances(opened, plain),
      ]);
    }
  });
  it('two of three that are mended leave the third', () => {
    const opened = openKnown();
    const { belief } = new History(opened).follow([
      ...shorted(opened),
      // Twice over: once it may be a slip as well.
      read(opened, 'ring-ring', { kind: 'over-range' }),
      read(opened, 'ring-ring', { kind: 'over-range' }),
    ]);
    const three = ['brush-worn', 'diode-shorted:A+', 'rotor-open'];
    for (const id of three) expect(chanceOf(opened, belief, id), id).greaterThan(0.9);
    for (const part of ['diode:B-', 'stator:B', 'bearings'])
      expect(partWords(opened, belief).get(part)!.word, part).equal('not looked at');
    const next = openKnown();
    const { parts } = next.subject;
    const itemOf = (part: string) => parts.find(({ id }) => id === part)!.item;
    const fitted = ['brushes', 'diode:A+'].map(itemOf);
    const after = beliefAfterWork(opened, belief, next, { fitted, mended: [] }, 'any');
    expect(chanceOf(next, after, 'rotor-open')).greaterThan(0.8);
    for (const id of ['brush-worn', 'diode-shorted:A+']) expect(chanceOf(next, after, id), id).lessThan(0.1);
    // With nothing done, all three are still there.
    const same = openKnown();
    const idle = beliefAfterWork(opened, belief, same, { fitted: [], mended: [] }, 'any');
    for (const id of three) expect(chanceOf(same, idle, id), id).greaterThan(0.8);
    // Nothing was read in that round yet.
    expect(standings(same, idle).filter(({ looked }) => looked)).deep.equal([]);
    expect(after.rows.reduce((sum, { chance }) => sum + chance, 0)).closeTo(1, 1e-6);
  });
  it('one of four that is mended leaves three', () => {
    const opened = openKnown();
    const rough = [
      ['bearings-by-hand', 'rough'],
      ['bearings-by-ear', 'rumble'],
      ['bearings-in-fingers', 'rough'],
    ].map(([check, finding]) => read(opened, check!, { kind: 'finding', finding: finding! }));
    const open = read(opened, 'ring-ring', { kind: 'over-range' });
    const { belief } = new History(opened).follow([...shorted(opened), open, open, ...rough]);
    const three = ['diode-shorted:A+', 'rotor-open', 'bearing-worn'];
    for (const id of ['brush-worn', ...three]) expect(chanceOf(opened, belief, id), id).greaterThan(0.9);
    const next = openKnown();
    const brushes = next.subject.parts.find(({ id }) => id === 'brushes')!.item;
    const after = beliefAfterWork(opened, belief, next, { fitted: [brushes], mended: [] }, 'any');
    for (const id of three) expect(chanceOf(next, after, id), id).greaterThan(0.8);
    expect(chanceOf(next, after, 'brush-worn')).lessThan(0.1);
    // The next round goes on from there.
    const { belief: later } = new History(next, () => after).follow([read(next, 'ring-ring', { kind: 'over-range' })]);
    for (const id of three) expect(chanceOf(next, later, id), id).greaterThan(0.8);
  });
});
