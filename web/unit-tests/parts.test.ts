import { familyOf, clawPoleGeneric, type Machine, starterGeneric } from '@refectum/core/machines';
import { expect } from 'chai';
import { tagCode, tagFromCode, overrode } from '../src/lib/job.ts';
import { keys } from '../src/lib/keys.ts';
import { planOf } from '../src/lib/parts/anatomy-plan.ts';
import { checkInSchema, decisionSchema } from '../src/lib/schemas.ts';

const machines: Record<string, Machine> = {
  'starter, direct drive': starterGeneric(12, 1.4, 'direct'),
  'starter, reduction gear': starterGeneric(24, 5.5, 'reduction'),
  'starter, magnets': starterGeneric(12, 1.1, 'planetary'),
  'starter, inertia drive': starterGeneric(12, 0.9, 'inertia'),
  'star, six diodes': { ...clawPoleGeneric(12, 90), connection: 'star' },
  'delta, supply side': { ...clawPoleGeneric(24, 90), connection: 'delta', regulatorSide: 'supply' },
  'eight diodes, no exciter diodes': {
    ...clawPoleGeneric(12, 90),
    connection: 'star',
    diodes: 8,
    exciterDiodes: false,
  },
};

describe('the anatomy', () => {
  for (const [name, machine] of Object.entries(machines)) {
    const plan = planOf(machine);
    it(`${name}: every part of the unit is drawn, and nothing else`, () => {
      const parts = familyOf(machine)
        .parts(machine)
        .map((part) => part.id);
      expect([...new Set(plan.parts.map((p) => p.part))].sort()).deep.equal([...parts].sort());
    });
    it(`${name}: every probe of every check has its place, inside the drawing`, () => {
      for (const check of familyOf(machine).checks(machine)) {
        if (check.method.kind !== 'meter') continue;
        for (const node of [check.method.setup.red, check.method.setup.black]) {
          const at = plan.nodes[node];
          expect(at, `${check.id}: ${node}`).not.equal(undefined);
          expect(at!.x).within(0, plan.size.width);
          const probe = at!.fromAbove ? -56 : 56;
          expect(at!.y + probe).within(plan.size.top, plan.size.bottom);
        }
      }
    });
    it(`${name}: no two parts lie on each other`, () => {
      plan.parts.forEach((p, i) =>
        plan.parts
          .slice(i + 1)
          .forEach((q) => expect(Math.hypot(p.x - q.x, p.y - q.y), `${p.part} ${q.part}`).greaterThan(14)),
      );
    });
  }
});

describe('tags and keys', () => {
  it('a tag’s code reads back; a reading is none', () => {
    expect(tagFromCode(tagCode(1004))).equal(1004);
    expect(tagFromCode(' 1004 ')).equal(1004);
    for (const text of ['', 'TAG-', '0.14', '1k2', 'OL', 'TAG-12x']) expect(tagFromCode(text), text).equal(undefined);
  });
  it('no key is a letter that a reading may hold (WCAG 2.1.4 apart: they can be switched off)', () => {
    for (const { key } of keys) expect('kKmMuUoOlLeEgGrR'.includes(key), key).equal(false);
  });
});

describe('a decision', () => {
  it('says when it went against the sheet, and only then', () => {
    const decided = { course: 'repair', advised: undefined, barred: undefined } as const;
    expect(overrode({ ...decided, advised: 'reject' })).equal('against the sheet, which advised: reject');
    expect(overrode({ ...decided, barred: 'Nothing found.' })).equal('against the sheet: “Nothing found.”');
    expect(overrode({ ...decided, advised: 'repair' })).equal('');
    expect(overrode(decided)).equal('');
  });
});

describe('schemas that form and server share', () => {
  const entry = () => ({
    id: '3f0c2b1a-7d43-4b6e-9a52-0c7f5a1e9d10',
    customer: 'Quay Ferries',
    model: 'unknown',
    serial: '',
    complaint: 'no-charge',
    words: '',
    due: '',
    machine: clawPoleGeneric(12, 90),
  });
  const told = async (change: Record<string, unknown>) =>
    checkInSchema.validate({ ...entry(), ...change }, { abortEarly: false }).then(
      () => '',
      (error: { errors: string[] }) => error.errors.join('; '),
    );

  it('takes a whole entry', async () => expect(await told({})).equal(''));
  it('says what is missing, in the words of the shop', async () => {
    expect(await told({ customer: ' ' })).match(/Who does the unit belong to/);
    expect(await told({ complaint: '' })).match(/Choose a complaint/);
    expect(await told({ due: 'soon' })).match(/a date like/);
  });
  it('names range and value of a number that can’t be', async () => {
    expect(await told({ machine: { ...clawPoleGeneric(12, 90), ratedAmps: 9000 } })).match(/between 5 and 500 A.*9000/);
    expect(await told({ machine: { ...clawPoleGeneric(12, 90), brushLeastMillimetres: 12 } })).match(
      /least brush must be shorter/,
    );
    expect(await told({ machine: { ...clawPoleGeneric(12, 90), connection: 'delta', diodes: 8 } })).match(
      /need a star point/,
    );
  });
  it('a decision needs a course and a reason', async () => {
    const wrong = await decisionSchema
      .validate({ id: entry().id, technician: entry().id, reason: '' }, { abortEarly: false })
      .then(
        () => [],
        (error: { errors: string[] }) => error.errors,
      );
    expect(wrong.join(' ')).match(/Choose what happens.*Say why|Say why.*Choose what happens/s);
  });
});
