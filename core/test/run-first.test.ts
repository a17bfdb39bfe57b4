import { expect } from 'chai';
import { type Situation, unitSession } from '../src/assess/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric } from '../src/machines/index.ts';
import { seeded } from '../src/numeric/index.ts';
import { HiddenUnit } from '../src/practice/index.ts';
import { spreads } from './spreads.ts';
import { situationOf, type Taken } from './toy.ts';

describe('before a unit is taken apart it is run', () => {
  const meter = multimeterById('bench');
  const machine = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' } as const;
  const session = unitSession(machine, 'none', [meter]);
  const { opened } = session;
  const unit = new HiddenUnit(seeded(11), opened.subject, meter, [], { ...spreads, slips: 0 }, 1);
  const first = opened.subject.standRules!.first;
  const situation = (taken: readonly Taken[], assembly = 'closed'): Situation => situationOf(meter.id, assembly, taken);
  const stateOf = (id: string) => opened.checks.find((check) => check.id === id)!.assembly;
  const without = (left: string) => read.filter(([check]) => check !== left);
  /** What the advice has read of a sound unit by the time it says that it should be run, or wants it opened. */
  const read: Taken[] = [];
  before(() => {
    for (;;) {
      const { next, runFirst, stop } = session.outlook(situation(read));
      const check = opened.checks.find(({ id }) => id === next[0]?.check);
      if (runFirst || stop || !check || !['', 'closed'].includes(check.assembly)) return;
      read.push([check.id, unit.read(check)]);
    }
  });

  it('once nothing more is worth reading closed, its light green', () => {
    expect(read.length).greaterThan(6);
    const { runFirst, stop, next } = session.outlook(situation(read));
    expect(runFirst).equal(true);
    expect(stop).equal(undefined);
    expect(['opened', 'unsoldered']).include(stateOf(next[0]!.check));
    expect(session.gate(situation(read))!.green).equal(true);
  });
  it('not in a shop without a stand, nor twice, nor once it is open', () => {
    expect(session.outlook({ ...situation(read), lacks: ['stand'] }).runFirst).equal(false);
    const ran: Taken = ['exciter-volts', { kind: 'value', value: 13.6 }];
    expect(session.outlook(situation([...read, ran])).runFirst).equal(false);
    for (const assembly of ['opened', 'stand'])
      expect(session.outlook(situation(read, assembly)).runFirst, assembly).equal(false);
  });
  it('what its light still asks for comes first', () => {
    expect(first.length).greaterThan(3);
    for (const left of first) {
      const { runFirst, next } = session.outlook(situation(without(left)));
      expect(runFirst, left).equal(false);
      expect(next[0]!.check).equal(left);
    }
  });
  it('what can’t be looked at keeps it from running, and isn’t asked for for ever', () => {
    const hidden: Taken = ['pulley-by-hand', { kind: 'no-access' }];
    const { runFirst, next } = session.outlook(situation([...without('pulley-by-hand'), hidden]));
    expect(runFirst).equal(false);
    expect(next.map(({ check }) => check)).not.include('pulley-by-hand');
  });
  it('not one that hardly is sound: it has to be opened anyway', () => {
    const charging = unitSession(machine, 'no-charge', [meter]);
    const fault = charging.opened.faults.find(({ id }) => id === 'rotor-open')!;
    const torn = new HiddenUnit(seeded(12), charging.opened.subject, meter, [{ fault, severity: 1 }], spreads, 1);
    const taken: Taken[] = first.map((id) => [id, torn.read(opened.checks.find((check) => check.id === id)!)]);
    for (;;) {
      const { next, runFirst } = charging.outlook(situation(taken));
      const check = opened.checks.find(({ id }) => id === next[0]!.check)!;
      expect(runFirst, check.id).equal(false);
      if (!['', 'closed'].includes(check.assembly)) break;
      taken.push([check.id, torn.read(check)]);
    }
    expect(charging.gate(situation(taken))!.green).equal(true);
    expect(charging.diagnose(situation(taken)).sound).lessThan(0.5);
  });
  it('a danger forbids it', () => {
    const loose: Taken = ['pulley-by-hand', { kind: 'finding', finding: 'loose' }];
    const now = situation([...without('pulley-by-hand'), loose, loose]);
    expect(session.gate(now)!.reasons.map(({ id }) => id)).include('danger:pulley-worn');
    expect(session.outlook(now).runFirst).equal(false);
  });
});
