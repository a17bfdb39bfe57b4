import { clawPoleGeneric, subjectOf } from '@refectum/core/machines';
import { expect } from 'chai';
import { outcomeTyped } from '../src/lib/live/typed-outcome.ts';

const { checks } = subjectOf(clawPoleGeneric(12, 90));
const typedAt = (id: string, entry: string) =>
  outcomeTyped(
    entry,
    checks.find((check) => check.id === id)!,
    20,
  );

describe('what is typed at a check', () => {
  it('is a number with its unit or without, or over-range', () => {
    expect(typedAt('ring-ring', '3.1')).deep.equal({ kind: 'value', value: 3.1 });
    expect(typedAt('ring-ring', ' 3,1 ')).deep.equal({ kind: 'value', value: 3.1 });
    expect(typedAt('ring-core', '2.2k')).deep.equal({ kind: 'value', value: 2200 });
    expect(typedAt('ring-core', 'OL')).deep.equal({ kind: 'over-range' });
  });
  it('is the number of a finding on the list; any other is answered with the list', () => {
    const looked = checks.find(({ id }) => id === 'rings-by-eye')!;
    const ids = looked.method.kind === 'finding' ? looked.method.outcomes.map(({ id }) => id) : [];
    expect(ids.length).greaterThan(2);
    ids.forEach((id, n) => expect(typedAt('rings-by-eye', `${n + 1}`)).deep.equal({ kind: 'finding', finding: id }));
    for (const entry of ['0', `${ids.length + 1}`, 'rough', ''])
      expect(JSON.stringify(typedAt('rings-by-eye', entry)), entry).match(
        /Type a number from 1 to \d, or touch one: 1 /,
      );
  });
  it('is the lowest and the highest of what was watched, and the finding follows from them', () => {
    const steady = typedAt('field-turning', '3.1 3.2');
    const jumps = typedAt('field-turning', '3.1 OL');
    expect([steady, jumps].map((one) => 'kind' in one && one.kind)).deep.equal(['finding', 'finding']);
    expect(steady).not.deep.equal(jumps);
    expect(JSON.stringify(typedAt('field-turning', '3.1 3.2 3.3'))).match(/Type a number/);
    expect(JSON.stringify(typedAt('field-turning', '3.1 soft'))).match(/Type a number/);
  });
  it('is “changes when touched” or “not accessible” by one letter, large or small', () => {
    for (const check of ['ring-ring', 'rings-by-eye', 'brush-length']) {
      expect(typedAt(check, 't')).deep.equal({ kind: 'changes' });
      expect(typedAt(check, ' N')).deep.equal({ kind: 'no-access' });
    }
    expect(typedAt('leads-null', 'n')).not.deep.equal({ kind: 'no-access' });
  });
  it('is refused where it can’t be read, with what to type instead; a length has no over-range', () => {
    expect(typedAt('ring-ring', 'three')).property('message').match(/three/);
    expect(typedAt('brush-length', 'OL')).deep.equal({ message: 'A length has no over-range: type it in mm.' });
  });
});
