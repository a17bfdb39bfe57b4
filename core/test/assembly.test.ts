import { expect } from 'chai';
import { unitSession } from '../src/assess/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric, type Machine, starterGeneric } from '../src/machines/index.ts';
import { seeded } from '../src/numeric/index.ts';
import { HiddenUnit } from '../src/practice/index.ts';
import { spreads, starterSpreads } from './spreads.ts';

const meter = multimeterById('bench');
const machines: readonly (readonly [string, Machine, typeof spreads])[] = [
  ['an alternator', { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' }, spreads],
  ['a starter with field coils', starterGeneric(12, 1.4, 'direct'), starterSpreads],
  ['a starter with magnets', starterGeneric(12, 1.1, 'planetary'), starterSpreads],
];

describe('a check that can be done in several states of assembly', () => {
  for (const [name, machine, strewn] of machines)
    it(`of ${name} reads the same in each, whatever is wrong`, () => {
      const { subject, faults } = unitSession(machine, 'none', [meter]).opened;
      const ids = subject.assemblies.map(({ id }) => id);
      let compared = 0;
      for (const { assembly, upTo, method, id } of subject.checks) {
        if (method.kind !== 'meter' || upTo === undefined) continue;
        expect(ids.indexOf(upTo), id).greaterThan(ids.indexOf(assembly));
        for (const hidden of [[], ...faults.map((fault) => [{ fault, severity: fault.severity.grades[0]! }])]) {
          const [first, last] = [assembly, upTo].map(
            (state) => new HiddenUnit(seeded(7), subject, meter, hidden, strewn).measured(method.setup, state).value,
          );
          const what = `${id}: ${hidden.map(({ fault }) => fault.id).join() || 'sound'}`;
          if (Number.isFinite(first)) expect(last, what).closeTo(first!, 1e-6 * Math.abs(first!) + 1e-9);
          else expect(last, what).equal(first);
          compared++;
        }
      }
      expect(compared).greaterThan(20);
    });
});
