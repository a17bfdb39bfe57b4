import { multimeters } from '@refectum/core/instruments';
import { expect } from 'chai';
import { netOfTaken, netValue, nullOf, siblingsOf, sigmaOf } from '../src/lib/limits.ts';
import { dueOf, isOverdue, meterDraft, readMeter } from '../src/lib/meters.ts';
import { beforeAndAfter, workLines } from '../src/lib/rounds.ts';
import { rulesSchema } from '../src/lib/rules.ts';
import { subjectOf } from '@refectum/core/machines';
import { jobWith, taken } from './job.ts';

const shopMeter = (at: number) => ({ known: multimeters[at]!, calibratedOn: null, everyMonths: null, retired: false });

describe('a meter as it is typed', () => {
  for (const [at, { name }] of multimeters.entries()) {
    it(`${name}: typed out and read again it is the same`, () => {
      expect(readMeter(meterDraft(shopMeter(at)))).deep.equal({ meter: shopMeter(at) });
    });
  }
  const draft = (more: object) => ({ ...meterDraft(shopMeter(1)), ...more });
  const wrong: readonly (readonly [object, string, RegExp])[] = [
    [{ name: ' ' }, 'name', /called in the shop/],
    [{ ohms: '400, 0.1, 0.8' }, 'ohms', /Line 1: 6 values/],
    [{ ohms: '400, 0.1, 0.8, 2, 1.2, 1k6\n400, 0.1, 0.8, 2, 1.2, 1k6' }, 'ohms', /lowest full scale up/],
    [{ volts: '4, 1, 0.5, 2' }, 'volts', /fiftieth/],
    [{ diode: '2, x, 1, 2, 2.8, 2k' }, 'diode', /not a number/],
    [{ diode: '2, 0.001, 1, 2, 2.8, 2k\n2, 0.001, 1, 2, 2.8, 2k' }, 'diode', /one range/],
    [{ leads: '55' }, 'leads', /broken/],
    [{ leadsSpread: '0' }, 'leadsSpread', /above 0/],
    [{ everyMonths: '0.5' }, 'everyMonths', /whole months|at least one/],
    [{ bandwidth: 'wide' }, 'bandwidth', /no number/],
    [{ calibratedOn: 'yesterday' }, 'calibratedOn', /2026-05-04/],
  ];
  for (const [more, field, message] of wrong) {
    it(`${JSON.stringify(more)}: told at ${field}`, () => {
      const read = readMeter(draft(more));
      expect(read).property('problems');
      expect((read as { problems: Record<string, string> }).problems[field]).match(message);
    });
  }
  it('a calibration is due so many months on, and overdue the day after', () => {
    const meter = { calibratedOn: '2025-11-25', everyMonths: 12 };
    expect(dueOf(meter)).equal('2026-11-25');
    expect(isOverdue(meter, new Date('2026-11-24T12:00:00'))).equal(false);
    expect(isOverdue(meter, new Date('2026-11-26T12:00:00'))).equal(true);
    expect(dueOf({ calibratedOn: '2025-11-25', everyMonths: null })).equal(undefined);
  });
});

describe('what a reading is held against', () => {
  const { checks } = subjectOf(jobWith([]).machine);
  const check = (id: string) => checks.find((one) => one.id === id)!;
  const bench = { place: 'bench', meter: 'bench' } as const;

  it('low ohms less the leads, nothing where their null isn’t known, the rest as it is', () => {
    expect(netValue(check('stator-pair:AB'), 0.35, 0.1)).closeTo(0.25, 1e-12);
    expect(netValue(check('stator-pair:AB'), 0.05, 0.1)).equal(0);
    expect(netValue(check('stator-pair:AB'), 0.35, undefined)).equal(undefined);
    expect(netValue(check('diode-forward:A+'), 0.52, undefined)).equal(0.52);
    expect(netValue(check('bridge-reverse-ohms'), 5e6, undefined)).equal(5e6);
  });
  it('siblings are the same check at its other places by the same meter, the newest of each', () => {
    const readings = [
      taken('leads-null', 0.1, bench),
      taken('stator-pair:BC', 0.3, bench),
      taken('stator-pair:BC', 0.34, bench),
      taken('stator-pair:CA', 0.36, bench),
      taken('stator-pair:AB', 9, bench),
      taken('stator-drop:BC', 0.6, bench),
    ];
    expect(nullOf(readings, 'bench')).equal(0.1);
    const found = siblingsOf(check('stator-pair:AB'), checks, readings, 'bench');
    expect(found.map((x) => x.toFixed(2)).sort()).deep.equal(['0.24', '0.26']);
    expect(siblingsOf(check('stator-pair:AB'), checks, readings, 'pocket')).deep.equal([]);
  });
  it('a reading keeps the null that held for it; one before any null takes the first after it', () => {
    const readings = [
      taken('stator-pair:AB', 0.4, bench),
      taken('leads-null', 0.1, bench),
      taken('stator-pair:BC', 0.34, bench),
      taken('leads-null', 0.2, bench),
      taken('stator-pair:CA', 0.44, bench),
    ];
    const nets = [0, 2, 4].map((at) => netOfTaken(check(readings[at]!.check), readings[at]!, readings)!);
    expect(nets.map((net) => net.toFixed(2))).deep.equal(['0.30', '0.24', '0.24']);
    expect(nullOf(readings, 'bench')).equal(0.2);
  });
  it('a coarse meter is as unsure as its steps', () => {
    const [pocket, , fine] = multimeters;
    expect(sigmaOf(check('stator-pair:AB'), 0.2, pocket!)).greaterThan(0.15);
    expect(sigmaOf(check('stator-pair:AB'), 0.2, fine!)).lessThan(0.01);
    expect(sigmaOf(check('stator-drop:AB'), 0.6, fine!)).lessThan(0.001);
  });
  it('house rules name each school once', () => {
    const output = 'most';
    const limits = ['own', 'published', 'siblings'];
    expect(rulesSchema.isValidSync({ limits, output })).equal(true);
    expect(rulesSchema.isValidSync({ limits: ['own', 'own', 'siblings'], output })).equal(false);
    expect(rulesSchema.isValidSync({ limits: ['own'], output })).equal(false);
    expect(rulesSchema.isValidSync({ limits: ['own', 'published', 'moon'], output })).equal(false);
    expect(rulesSchema.isValidSync({ limits })).equal(false);
    expect(rulesSchema.isValidSync({ limits, output: 'guessed' })).equal(false);
  });
});

describe('rounds side by side', () => {
  const at = '2026-11-25T09:30:00Z';
  const work = { id: 'w', fitted: ['brushes'], mended: ['rings'], note: 'turned', at, technician: 'Wenna Oskarby' };
  const bench = { place: 'bench', meter: 'bench' } as const;

  it('every check of either round, the newest of each, leads aside', () => {
    const readings = [
      taken('leads-null', 0.1, bench),
      taken('ring-ring', 9, { ...bench, struck: { at, technician: 'X' } }),
      taken('ring-ring', 3.1, bench),
      taken('field-ohms', 6.2, bench),
      taken('field-ohms', 3.4, { ...bench, round: 2 }),
    ];
    expect(beforeAndAfter(jobWith(readings, { works: [work] }))).deep.equal([
      { name: 'Field through the brushes, shaft at rest', before: '6.2\u202fΩ', after: '3.4\u202fΩ' },
      { name: 'Slip ring to slip ring', before: '3.1\u202fΩ', after: 'not measured' },
    ]);
    expect(beforeAndAfter(jobWith(readings))).deep.equal([]);
  });
  it('what was done, in the shop’s words', () => {
    const [line] = workLines(jobWith([], { works: [work] }));
    expect(line).match(/^Fitted new: Brush set\. Mended: clean the slip rings.*\. Turned \(Wenna Oskarby, /);
  });
});
