import { expect } from 'chai';
import { advise, hiddenFaults, preparationOf, wayMinutes, whereAfter, type Whereabouts } from '../src/advice/index.ts';
import { payingTogether, type Priced } from '../src/advice/pay.ts';
import { nextState } from '../src/advice/way.ts';
import { expectedGains } from '../src/advice/worth.ts';
import {
  type Case,
  checkOf,
  faultChances,
  History,
  priorBelief,
  separation,
  slipChance,
  type View,
} from '../src/belief/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { starterGeneric } from '../src/machines/index.ts';
import { openKnown, openUnit, toyCase } from './toy.ts';

const workshop = multimeterById('workshop');
const conditions = { meter: workshop, celsius: 20 };
const none: ReadonlySet<string> = new Set();
const number = (mean: number, sigma: number): View => ({ kind: 'number', mean, sigma, over: 0, span: 100 });

describe('advice: what a check is worth', () => {
  it('mutual information and quadratic error of a noisy yes or no, by hand', () => {
    const views: View[] = [
      { kind: 'chances', chances: [0.9, 0.1] },
      { kind: 'chances', chances: [0.2, 0.8] },
    ];
    const weights = Float64Array.of(0.5, 0.5);
    const [gain] = expectedGains(views, weights, [{ of: Int32Array.of(0, 1), count: 2 }]);
    const mixed = (p: number) => (1 - slipChance) * p + slipChance / 2;
    const h = (p: number) => -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
    const yes = (mixed(0.9) + mixed(0.2)) / 2;
    expect(gain!.bits).closeTo(h(yes) - (h(mixed(0.9)) + h(mixed(0.2))) / 2, 1e-9);
    // 2pq before, and after either answer.
    const pq = (a: number, b: number) => (2 * a * b) / (a + b) ** 2;
    const after = yes * pq(mixed(0.9), mixed(0.2)) + (1 - yes) * pq(mixed(0.1), mixed(0.8));
    expect(gain!.error).closeTo(0.5 - after, 1e-9);
  });
  it('two numbers far apart are worth their whole entropy; the same number nothing', () => {
    const weights = Float64Array.of(0.25, 0.75);
    const sort = { of: Int32Array.of(0, 1), count: 2 };
    const entropy = -0.25 * Math.log2(0.25) - 0.75 * Math.log2(0.75);
    const [apart] = expectedGains([number(1, 0.01), number(9, 0.01)], weights, [sort]);
    expect(apart!.bits).closeTo(entropy, 0.02);
    expect(apart!.error).closeTo(2 * 0.25 * 0.75, 0.02);
    const [same] = expectedGains([number(1, 0.1), number(1, 0.1)], weights, [sort]);
    expect(same!.bits).closeTo(0, 1e-9);
    expect(same!.error).closeTo(0, 1e-9);
  });
  it('what is unlikely is worth more in bits than it can change of what is told', () => {
    const sort = { of: Int32Array.of(0, 1), count: 2 };
    const worth = (p: number) =>
      expectedGains([number(1, 0.01), number(9, 0.01)], Float64Array.of(p, 1 - p), [sort])[0]!;
    const [rare, even] = [worth(0.003), worth(0.5)];
    expect(rare.error / rare.bits).lessThan(0.5 * (even.error / even.bits));
  });
  it('two overlapping normals: within 10 % of numerical integration', () => {
    const views = [number(0, 1), number(2, 1)];
    const weights = Float64Array.of(0.5, 0.5);
    const [gain] = expectedGains(views, weights, [{ of: Int32Array.of(0, 1), count: 2 }]);
    let integral = 0;
    const step = 0.001;
    for (let y = -8; y < 10; y += step) {
      const densities = [0, 2].map(
        (m) => 0.98 * (Math.exp(-((y - m) ** 2) / 2) / Math.sqrt(2 * Math.PI)) + 0.02 * 0.005,
      );
      const both = (densities[0]! + densities[1]!) / 2;
      for (const d of densities) integral += 0.5 * d * Math.log2(d / both) * step;
    }
    expect(gain!.bits).closeTo(integral, 0.1 * integral);
  });
  it('separation is 0 for like views and near 1 for far ones', () => {
    expect(separation(number(1, 0.1), number(1, 0.1))).closeTo(0, 1e-9);
    expect(separation(number(1, 0.1), number(3, 0.1))).greaterThan(0.999);
  });
});

/** Errors below are given by what must fall in a minute where a wrong verdict costs so many. */
const wrongVerdictMinutes = 400;
const priced = (assembly: string, wayMinutes: number, error: number, minutes = 1): Priced => ({
  check: { assembly, minutes },
  gain: { error: error / wrongVerdictMinutes },
  preparation: { kind: wayMinutes > 0 ? 'way' : 'none', for: assembly, minutes: wayMinutes },
});

describe('advice: whether checks pay', () => {
  const pay = (...priced: readonly Priced[]): boolean => payingTogether(priced, wrongVerdictMinutes).length > 0;
  it('by the error that falls per minute', () => {
    expect(pay(priced('closed', 0, 1.01))).equal(true);
    expect(pay(priced('closed', 0, 0.99))).equal(false);
    expect(pay(priced('closed', 0, 1.01, 2))).equal(false);
    expect(pay()).equal(false);
  });
  it('for a way of ten minutes none by itself, three together', () => {
    expect(pay(priced('opened', 10, 6))).equal(false);
    expect(pay(priced('opened', 10, 6), priced('opened', 10, 5))).equal(false);
    expect(pay(priced('opened', 10, 6), priced('opened', 10, 5), priced('opened', 10, 2.1))).equal(true);
  });
  it('what hardly tells anything hides nothing that pays, whatever the order', () => {
    expect(pay(priced('closed', 0, 0.001, 5), priced('closed', 0, 1.01))).equal(true);
  });
  it('checks of two states of assembly pay each for its own way', () => {
    expect(pay(priced('opened', 10, 6), priced('clamped', 10, 6))).equal(false);
  });
  it('checks of one run pay together for the rest before it, those of two runs don’t', () => {
    const rested = (run: string, error: number): Priced => ({
      ...priced('clamped', 0, error),
      preparation: { kind: 'rest', for: `clamped ${run}`, minutes: 2 },
    });
    const [one, two] = [rested('braked', 2.1), rested('held', 2.1)];
    expect(payingTogether([one, two], wrongVerdictMinutes)).deep.equal([]);
    const three = [one, rested('braked', 2.1), two];
    expect(payingTogether(three, wrongVerdictMinutes)).deep.equal(three.slice(0, 2));
  });
  it('the more a wrong verdict costs, the longer it is worth going on', () => {
    const one = [priced('closed', 0, 0.99)];
    expect(payingTogether(one, wrongVerdictMinutes)).deep.equal([]);
    expect(payingTogether(one, 1.1 * wrongVerdictMinutes)).deep.equal(one);
  });
});

describe('advice: what comes before a check', () => {
  const { subject } = openUnit(starterGeneric(12, 1.4, 'direct'), 'none', ['workshop']);
  const checkNamed = (id: string) => subject.checks.find((check) => check.id === id)!;
  const before = (id: string, ...done: readonly string[]) => {
    const here = done.reduce((here: Whereabouts, id) => whereAfter(subject, here, checkNamed(id)), {
      assembly: 'clamped',
    });
    const { kind, minutes } = preparationOf(subject, here, checkNamed(id));
    return [kind, minutes];
  };
  it('nothing before the first run, and none of the same run', () => {
    expect(before('no-load-amps')).deep.equal(['none', 0]);
    expect(before('no-load-rpm', 'no-load-amps')).deep.equal(['none', 0]);
    expect(before('noise', 'whole')).deep.equal(['none', 0]);
  });
  it('two minutes of rest before another run', () => {
    expect(before('loaded-amps', 'no-load-amps')).deep.equal(['rest', 2]);
    expect(before('no-load-amps', 'held-amps')).deep.equal(['rest', 2]);
    expect(before('motor-alone', 'whole')).deep.equal(['rest', 2]);
  });
  it('what is done meanwhile is no waiting, and needs none', () => {
    expect(before('battery-loaded', 'no-load-amps')).deep.equal(['none', 0]);
    expect(before('loaded-amps', 'no-load-amps', 'battery-loaded')).deep.equal(['rest', 1]);
    expect(before('no-load-rpm', 'no-load-amps', 'battery-loaded')).deep.equal(['rest', 1]);
    expect(before('loaded-amps', 'no-load-amps', 'battery-loaded', 'battery-loaded')).deep.equal(['none', 0]);
    expect(before('loaded-amps', 'no-load-amps', 'free-turning')).deep.equal(['way', 2]);
  });
  it('what is read at one state of the brake is of one run, and of no other', () => {
    const byHeld = new Map<string, Set<string | undefined>>();
    for (const { method, run } of subject.checks)
      if (method.kind === 'run' && method.setup.held.amps === undefined && Object.keys(method.setup.held).length > 0) {
        const held = JSON.stringify(method.setup.held);
        byHeld.set(held, (byHeld.get(held) ?? new Set()).add(run));
      }
    const runs = [...byHeld.values()].map((seen) => [...seen]);
    expect(runs).deep.equal([['free'], ['braked'], ['held']]);
  });
  it('the way alone to another state of assembly', () => {
    expect(before('pull-in', 'no-load-amps')).deep.equal(['way', 3]);
    expect(preparationOf(subject, { assembly: 'opened' }, checkNamed('loaded-amps')).minutes).equal(13);
    expect(preparationOf(subject, { assembly: 'opened' }, checkNamed('leads-null'))).deep.include({
      kind: 'none',
      minutes: 0,
    });
  });
  it('none where a check can still be done, or else the way to the nearest state that will do', () => {
    const from = (assembly: string, id: string) => {
      const { kind, for: state, minutes } = preparationOf(subject, { assembly }, checkNamed(id));
      return kind === 'none' ? kind : `${kind} to ${state}, ${minutes}`;
    };
    expect(from('closed', 'brush-length')).equal('way to cover-off, 5');
    expect(from('cover-off', 'brush-length')).equal('none');
    expect(from('opened', 'brush-length')).equal('none');
    expect(from('cover-off', 'growler')).equal('way to opened, 6');
    expect(from('cover-off', 'hold-in')).equal('none');
    expect(from('opened', 'hold-in')).equal('way to cover-off, 6');
    expect(from('opened', 'contacts-by-eye')).equal('none');
  });
  it('and the unit is left where the check was done', () => {
    const after = (assembly: string) => whereAfter(subject, { assembly }, checkNamed('brush-length')).assembly;
    expect(['opened', 'cover-off', 'closed'].map(after)).deep.equal(['opened', 'cover-off', 'cover-off']);
  });
});

describe('advice: where to go next', () => {
  const assemblies = [
    { id: 'clamped', name: 'Clamped', minutes: 0 },
    { id: 'closed', name: 'Closed', minutes: 2 },
    { id: 'lead-off', name: 'Lead off', minutes: 1 },
    { id: 'opened', name: 'Opened', minutes: 10 },
  ];
  /** Error, by what must fall in a minute, that one check of a minute in each state takes away. */
  const from = (here: string, errors: Readonly<Record<string, number>>): string | undefined => {
    const all = Object.entries(errors).map(([id, error]) => priced(id, wayMinutes({ assemblies }, here, id), error));
    return nextState({ assemblies, wrongVerdictMinutes }, here, all);
  };
  it('where most pays, if it pays on one side alone', () => {
    expect(from('closed', { clamped: 2.9, opened: 12.1 })).equal('opened');
    expect(from('closed', { clamped: 3.1, opened: 11.9 })).equal('clamped');
    expect(from('opened', { opened: 99, closed: 12.1 })).equal('closed');
  });
  it('to the nearer end first where it pays on both sides, however much more it does on the other', () => {
    expect(from('lead-off', { clamped: 4.1, opened: 99 })).equal('clamped');
    expect(from('closed', { clamped: 3.1, 'lead-off': 50, opened: 99 })).equal('clamped');
    expect(from('closed', { clamped: 99, 'lead-off': 2.1 })).equal('lead-off');
  });
  it('and does in passing what alone would be worth no way', () => {
    expect(from('clamped', { 'lead-off': 1.1, opened: 14.1 })).equal('lead-off');
    expect(from('clamped', { 'lead-off': 0.9, opened: 14.1 })).equal('opened');
    expect(from('clamped', { 'lead-off': 1.1, opened: 13.9 })).equal(undefined);
    expect(from('opened', { closed: 1.1, clamped: 14.1 })).equal('closed');
  });
  it('nowhere if nothing pays but as it stands', () => {
    expect(from('closed', { closed: 99, clamped: 0.1, opened: 3 })).equal(undefined);
    expect(from('closed', {})).equal(undefined);
  });
});

describe('advice: what to do next', () => {
  const opened = openKnown();
  const done = (...ids: string[]) => new Set(ids);
  const after = (from: Case, ...taken: readonly (readonly [string, Outcome])[]) =>
    new History(from).follow(taken.map(([check, outcome]) => ({ check: checkOf(from, check), outcome, ...conditions })))
      .belief;

  it('begins with checks that need nothing taken apart', () => {
    const { checks, worthwhile } = advise(opened, priorBelief(opened), conditions, none, { assembly: 'closed' });
    expect(checks.slice(0, 3).map((c) => c.preparation.minutes)).deep.equal([0, 0, 0]);
    expect(worthwhile).equal(true);
  });
  it('finds which diode is shorted by 5 A before it asks for the soldering iron', () => {
    const belief = after(
      opened,
      ['bridge-forward', { kind: 'value', value: 0.476 }],
      ['bridge-reverse-ohms', { kind: 'value', value: 2.2e5 }],
      ['field-ohms', { kind: 'value', value: 3.5 }],
      ['field-turning', { kind: 'finding', finding: 'steady' }],
      ['brush-length', { kind: 'value', value: 8 }],
    );
    const taken = done('bridge-forward', 'bridge-reverse-ohms', 'field-ohms', 'field-turning', 'brush-length');
    const { checks } = advise(opened, belief, conditions, taken, { assembly: 'opened' });
    const place = (species: string) => checks.findIndex((c) => c.check.species === species);
    expect(place('current-drop')).lessThan(place('diode-forward'));
  });
  it('finds an open exciter diode by 1.7 A before it asks for the soldering iron', () => {
    const belief = after(opened, ['exciter-forward:A', { kind: 'value', value: 0.52 }]);
    const { checks } = advise(opened, belief, conditions, done('exciter-forward:A'), { assembly: 'opened' });
    const place = (species: string) => checks.findIndex((c) => c.check.species === species);
    expect(place('exciter-drop')).within(0, place('exciter-alone'));
  });
  it('never offers a check twice, and stops when all are done', () => {
    const all = new Set(opened.checks.map((c) => c.id));
    const { checks, worthwhile } = advise(opened, priorBelief(opened), conditions, all, { assembly: 'closed' });
    expect(checks).deep.equal([]);
    expect(worthwhile).equal(false);
  });
  it('a check that sees nothing is worth nothing', () => {
    const toy = toyCase();
    const { checks } = advise(toy, priorBelief(toy), conditions, none, { assembly: 'closed' });
    expect(checks.at(-1)!.check.id).equal('sees-nothing');
    expect(checks.at(-1)!.gain.bits).closeTo(0, 1e-9);
  });
  it('counts preparation along the order of taking apart, both ways', () => {
    expect(wayMinutes(opened.subject, 'closed', 'unsoldered')).equal(20);
    expect(wayMinutes(opened.subject, 'opened', 'unsoldered')).equal(15);
    expect(wayMinutes(opened.subject, 'unsoldered', 'closed')).equal(20);
    expect(wayMinutes(opened.subject, 'closed', '')).equal(0);
  });
  it('names for any two of the open suspects a check that tells them apart, and none once all are done', () => {
    const belief = after(opened, ['field-ohms', { kind: 'value', value: 9 }]);
    const { apart } = advise(opened, belief, conditions, done('field-ohms'), { assembly: 'closed' });
    const pair = (...ids: string[]) =>
      apart.find(({ between }) => between.every((f) => f !== undefined && ids.includes(opened.faults[f]!.id)))!;
    // The whole field reads high: a film on the rings from a worn brush by its length or past the rotor.
    expect(pair('rings-dirty', 'brush-worn').by!.species).match(/^brush/);
    expect(pair('rings-dirty', 'brush-worn').clearly).equal(true);
    // Whether a regulator that can't be seen is at fault too, a twin hints at.
    expect(pair('rings-dirty', 'regulator')).include({ by: checkOf(opened, 'regulator-twin'), clearly: false });
    expect(new Set(apart.map(({ between }) => [...between].sort().join())).size).equal(apart.length);
    const all = new Set(opened.checks.map((c) => c.id));
    for (const { by } of advise(opened, belief, conditions, all, { assembly: 'closed' }).apart)
      expect(by).equal(undefined);
  });
  it('looks for rare faults while it is open before it goes back to the clamp for a likelier one', () => {
    const starter = openUnit(starterGeneric(12, 0.9, 'inertia'), 'none', ['workshop']);
    const finding = (check: string, finding: string) => [check, { kind: 'finding', finding } as Outcome] as const;
    const taken = [
      ['motor-to-case', { kind: 'value', value: 0.148 }] as const,
      finding('smell', 'none'),
      finding('drive-by-hand', 'right'),
      finding('pinion-by-eye', 'whole'),
      finding('free-turning', 'stiff'),
      finding('case-by-eye', 'whole'),
      finding('bushes-by-hand', 'worn'),
      finding('armature-by-eye', 'clean'),
      finding('commutator-by-eye', 'brown'),
      finding('drive-in-hand', 'right'),
    ];
    const belief = after(starter, ...taken);
    const { checks } = advise(starter, belief, conditions, done(...taken.map(([check]) => check)), {
      assembly: 'opened',
    });
    const place = (id: string) => checks.findIndex(({ check }) => check.id === id);
    const clamped = Math.min(...checks.flatMap(({ check }) => (check.assembly === 'clamped' ? place(check.id) : [])));
    expect(place('bar-to-shaft')).within(0, clamped - 1);
    expect(place('field-to-case')).within(0, clamped - 1);
  });
  it('does what pays closed as the lead goes back on, before it is clamped', () => {
    const starter = openUnit(starterGeneric(12, 1.2, 'direct'), 'none', ['workshop']);
    const motorToCase = ['motor-to-case', { kind: 'value', value: 0.2 }] as const;
    const { checks } = advise(starter, after(starter, motorToCase), conditions, done('motor-to-case'), {
      assembly: 'lead-off',
    });
    const place = (state: string) => checks.findIndex(({ preparation }) => preparation.for === state);
    expect(place('closed')).within(1, place('clamped') - 1);
    expect(place('clamped')).lessThan(place('opened'));
  });
  it('says what could still hide, and which check would show it', () => {
    const belief = after(opened, ['bridge-forward', { kind: 'value', value: 0.93 }]);
    const hidden = hiddenFaults(opened, belief, conditions, done('bridge-forward'), 'closed');
    const find = (species: string) => hidden.find((h) => opened.faults[h.faults[0]!]!.species === species);
    expect(find('diode-open')!.seenBy!.assembly).not.equal('closed');
    expect(find('rotor-open')!.seenBy!.species).equal('field-ohms');
    expect(find('regulator')!.clearly).equal(false);
    expect(find('diode-shorted')).equal(undefined);
  });
  it('a sibling’s reading shows no fault that would have shifted those read before alike', () => {
    const siblings = ['A', 'B'].map((phase) => [`exciter-forward:${phase}`, { kind: 'value', value: 0.54 }] as const);
    const read = siblings.map(([check]) => check);
    const hidden = hiddenFaults(opened, after(opened, ...siblings), conditions, done(...read), 'opened');
    const open = hidden.find(({ faults }) => opened.faults[faults[0]!]!.species === 'exciter-open')!;
    expect(open.seenBy!.species).equal('exciter-drop');
    expect(open.clearly).equal(true);
  });
  it('says so where two are found already: a third may hide beside them', () => {
    const found = [
      ['brush-length', { kind: 'value', value: 2 }],
      ['diode-forward:A+', { kind: 'value', value: 0 }],
      ['diode-reverse:A+', { kind: 'value', value: 0 }],
    ] as const;
    const belief = after(opened, ...found);
    const chances = faultChances(opened, belief);
    const certain = opened.faults.filter((_, f) => chances[f]! > 0.95).map(({ id }) => id);
    expect(certain).have.members(['brush-worn', 'diode-shorted:A+']);
    const hidden = hiddenFaults(opened, belief, conditions, done(...found.map(([check]) => check)), 'unsoldered');
    const species = hidden.map(({ faults }) => opened.faults[faults[0]!]!.species);
    // Nobody looked at any of them.
    expect(species).include.members(['diode-open', 'diode-shorted', 'stator-turns', 'rotor-open', 'bearing-worn']);
  });
});
