import { expect } from 'chai';
import { unitSession } from '../src/assess/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric, families, starterGeneric, subjectOf } from '../src/machines/index.ts';
import { seeded } from '../src/numeric/index.ts';
import { type Hidden, HiddenUnit } from '../src/practice/index.ts';
import { bench, hide, severitiesOf, type Told } from './hidden-units.ts';
import { spreads, starterSpreads } from './spreads.ts';

/** The study of hidden faults in small, at every run; in full it is `bin/refectum study bench`. */
describe('a small study: hidden faults, found by following the advice', () => {
  const meter = multimeterById('bench');
  const nominal: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
  const session = unitSession(nominal, 'none', [meter]);
  const random = seeded(20261125);
  const all = families['claw-pole'].checks(nominal).reduce((sum, check) => sum + check.minutes, 20);
  const study = (units: number, fits: (hidden: readonly Hidden[]) => boolean): Told[] => {
    const told: Told[] = [];
    while (told.length < units) {
      const hidden = hide(random, session.opened);
      if (fits(hidden))
        told.push(
          bench(session, new HiddenUnit(random, session.opened.subject, meter, hidden, spreads), meter, 'the advice'),
        );
    }
    return told;
  };

  const told: Told[] = [];
  // A few at a time: thirty take a while.
  for (let tens = 0; tens < 3; tens++)
    before(() => {
      told.push(...study(10, (hidden) => hidden.length === 1));
    });
  it('of 30 units with one fault each, at least nine in ten end with the right assembly, in under half the minutes of everything', () => {
    expect(told.length).equal(30);
    const wrong = told.filter(({ items }) => items.told !== items.truth);
    expect(wrong.length, JSON.stringify(wrong)).at.most(3);
    expect(told.reduce((sum, { minutes }) => sum + minutes, 0) / told.length).lessThan(all / 2);
  });
  it('sound units are not condemned', () => {
    for (const { parts } of study(8, (hidden) => hidden.length === 0)) expect(parts.told).equal('nothing');
  });
  it('however wide units are strewn, what runs reads numbers', () => {
    const kinds = [
      [{ ...clawPoleGeneric(24, 80), connection: 'star', diodeKind: 'low-loss' } as const, spreads],
      [starterGeneric(12, 1.4, 'direct'), starterSpreads],
    ] as const;
    for (const [machine, strewing] of kinds) {
      const subject = subjectOf(machine);
      const runs = subject.checks.flatMap(({ id, method }) =>
        method.kind === 'run' ? [[id, method.setup] as const] : [],
      );
      expect(runs.length).greaterThan(3);
      // Of the last two alternators the rotor’s damping would come out just under nothing.
      for (const seed of [1, 2, 3, 4, 5, 6, 77, 269]) {
        const unit = new HiddenUnit(seeded(seed), subject, meter, [], strewing, 4);
        for (const [id, setup] of runs) expect(Number.isFinite(unit.running(setup)), `${id}, seed ${seed}`).equal(true);
      }
    }
  });
  it('what is strewn beyond a fault is drawn again, not put on the edge: no two diodes leak alike', () => {
    class Opened extends HiddenUnit {
      readonly leaks = (places: readonly string[]) => places.map((place) => this.ohmsFactor(['leak', `leak:${place}`]));
    }
    const [least] = spreads.within.leak!;
    const places = ['A+', 'A-', 'B+', 'B-', 'C+', 'C-'];
    const drawn = Array.from({ length: 300 }, (_, seed) =>
      new Opened(seeded(seed), session.opened.subject, meter, [], spreads, 3).leaks(places),
    );
    for (const leaks of drawn) {
      expect(Math.min(...leaks)).least(least);
      expect(new Set(leaks).size).equal(places.length);
    }
    // In ln ohms from the edge to a tenth beyond it: a bell's share, not a heap.
    const near = drawn.flat().filter((leak) => leak < least * Math.exp(0.1)).length / drawn.flat().length;
    expect(near).lessThan(0.03);
  });

  // IEEE 43-2013, random-wound: 5 MΩ at the least; figure from memory.
  for (const check of ['stator-core-insulation', 'ring-core-insulation'])
    it(`no unit that the study calls sound reads less than 5 MΩ by “${check}”, however widely strewn`, () => {
      const { subject } = session.opened;
      const { method, assembly } = subject.checks.find(({ id }) => id === check)!;
      if (method.kind !== 'meter') throw new Error(`${check} is read with no meter`);
      const ohms = Array.from(
        { length: 300 },
        (_, seed) =>
          new HiddenUnit(seeded(seed), subject, meter, [], spreads, 3).measured(method.setup, assembly).value,
      );
      expect(Math.min(...ohms)).within(5e6, 20e6);
    });

  it('no study draws a fault that it then calls invisible, and it draws healthy, single and double as it says', () => {
    const drawn = Array.from({ length: 4000 }, () => hide(random, session.opened));
    const share = (faults: number) => drawn.filter((hidden) => hidden.length === faults).length / drawn.length;
    // Four standard errors of 4 000 draws.
    expect(share(0)).closeTo(0.3, 0.03);
    expect(share(1)).closeTo(0.55, 0.032);
    expect(share(2)).closeTo(0.15, 0.023);
    for (const hidden of drawn) {
      expect(new Set(hidden.map(({ fault }) => fault.part)).size).equal(hidden.length);
      for (const { fault, severity } of hidden) {
        expect(fault.species).not.equal('regulator');
        const [low, high] = severitiesOf(fault);
        expect(severity).within(low, high);
      }
    }
  });
});
