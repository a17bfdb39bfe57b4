import { expect } from 'chai';
import { type Diagnosis, type Suspect, unitSession } from '../src/assess/index.ts';
import type { Outcome, RunSetup } from '../src/checks/index.ts';
import type { OutputPoint } from '../src/curves/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import {
  type ClawPole,
  clawPoleBuilds,
  clawPoleGeneric,
  familyOf,
  runningFault,
  starterGeneric,
  subjectOf,
} from '../src/machines/index.ts';
import { situationOf, type Taken } from './toy.ts';

const machine: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
const meter = multimeterById('bench');
const session = unitSession(machine, 'no-charge', [meter]);
const value = (v: number): Outcome => ({ kind: 'value', value: v });
const finding = (id: string): Outcome => ({ kind: 'finding', finding: id });
const OL: Outcome = { kind: 'over-range' };

const situation = (assembly: string, ...read: readonly Taken[]) => situationOf(meter.id, assembly, read);
const atRest = [
  ['bridge-forward', value(0.935)],
  ['bridge-reverse', OL],
  ['bridge-reverse-ohms', value(5.2e6)],
  ['bearings-by-hand', finding('smooth')],
  ['pulley-by-hand', finding('right')],
] as const;
const suspectsAfter = (...read: readonly Taken[]) =>
  new Map(
    session.diagnose(situation('stand', ...atRest, ...read)).suspects.map(({ fault, chance }) => [fault, chance]),
  );

describe('the run stand: what running says', () => {
  it('no charge, but the output comes with the regulator bypassed: the regulator', () => {
    const chances = suspectsAfter(['regulation', finding('none')], ['output-bypassed:3000', value(68)]);
    expect(chances.get('regulator')).greaterThan(0.8);
  });
  it('no charge, and nothing comes bypassed: brushes or rotor, not the regulator', () => {
    const chances = suspectsAfter(['regulation', finding('none')], ['output-bypassed:3000', value(0.3)]);
    expect((chances.get('brush-worn') ?? 0) + (chances.get('rotor-open') ?? 0)).greaterThan(0.8);
    expect(chances.get('regulator') ?? 0).lessThan(0.2);
  });
  it('a gap once a period and the tap off its middle: the diode by its name', () => {
    const positive = suspectsAfter(['ripple-orders', finding('one')], ['tap-volts', value(10.6)]);
    expect([...positive.keys()][0]).equal('diode-open:A+');
    const negative = suspectsAfter(['ripple-orders', finding('one')], ['tap-volts', value(2.8)]);
    expect([...negative.keys()][0]).equal('diode-open:A-');
  });
  it('more amperes than foreseen are no fault; far fewer fail', () => {
    const word = (amps: number) =>
      session.diagnose(situation('stand', ...atRest, ['output-bypassed:6000', value(amps)])).readings.at(-1)!.word;
    expect(word(140)).equal('sound');
    expect(word(30)).equal('failed');
  });
  it('what hangs on nothing the plate leaves open has a sound band too: the tap, the exciter terminal', () => {
    const word = (check: string, volts: number) =>
      session.diagnose(situation('stand', ...atRest, [check, value(volts)])).readings.at(-1)!.word;
    for (const volts of [6.65, 6.75, 6.85]) expect(word('tap-volts', volts), `${volts}`).equal('sound');
    for (const volts of [2.8, 10.6]) expect(word('tap-volts', volts), `${volts}`).equal('failed');
    for (const volts of [13.4, 13.6, 13.7]) expect(word('exciter-volts', volts), `${volts}`).equal('sound');
    for (const volts of [0.1, 10.9, 19]) expect(word('exciter-volts', volts), `${volts}`).equal('failed');
  });
  it('two faults together leave less than each alone', () => {
    const { opened } = session;
    const predictor = opened.predictor({ meter, celsius: 20 });
    const check = opened.checks.find(({ id }) => id === 'output-bypassed:3000')!;
    const mean = (...ids: readonly string[]) => {
      const particle = opened.particles.find(
        ({ faults }) => faults.length === ids.length && faults.every((f) => ids.includes(opened.faults[f]!.id)),
      )!;
      const prediction = predictor.predict(check, opened.builds[0]!, particle);
      return prediction.kind === 'number' ? prediction.mean : Number.NaN;
    };
    const both = mean('diode-open:A-', 'stator-open:B');
    expect(both).lessThan(Math.min(mean('diode-open:A-'), mean('stator-open:B')));
    expect(mean()).greaterThan(mean('diode-open:A-'));
  });
  it('the exciter terminal a fifth below the post: an exciter diode is lost; at the post’s volts none is', () => {
    const lost = (volts: number, ...more: readonly Taken[]) =>
      [...suspectsAfter(['exciter-volts', value(volts)], ...more)].reduce(
        (sum, [fault, chance]) => (fault.startsWith('exciter-open') ? sum + chance : sum),
        0,
      );
    // What is left is mostly brushes so bad that it hardly charges: amperes speak against them.
    expect(lost(10.9)).greaterThan(0.7);
    expect(lost(10.9, ['output-bypassed:3000', value(47)])).greaterThan(0.9);
    expect(lost(13.6)).lessThan(0.005);
    const without = subjectOf({ ...machine, exciterDiodes: false }).checks.map(({ id }) => id);
    expect(without).include('tap-volts').and.not.include('exciter-volts');
  });
  it('nothing at the exciter terminal: no field, not a lost diode', () => {
    const [first] = suspectsAfter(['exciter-volts', value(0.1)]).keys();
    expect(first).match(/^(rotor-open|brush-worn|rings-dirty)/);
  });
  it('is advised on the stand alone', () => {
    const running = session.opened.checks.filter(({ assembly }) => assembly === 'stand').map(({ id }) => id);
    const advised = (assembly: string) =>
      session.outlook(situation(assembly, ...atRest)).next.map(({ check }) => check);
    expect(advised('closed').some((id) => running.includes(id))).equal(false);
    expect(running).include(advised('stand')[0]!);
  });
});

describe('the run stand: points of the output', () => {
  const { shows, outputCheck, builds } = session.opened.subject;
  /** What a machine with a fault gives at three speeds by its own regulator, at the rating's volts. */
  const pointsWith = (id?: string, severity = 1): OutputPoint[] => {
    const fault = session.opened.faults.find((one) => one.id === id);
    const faults = fault ? [runningFault(fault, severity)] : [];
    return [1600, 2400, 3200].map((rpm, n) => {
      const at = { rpm, volts: 13.5, celsius: 50 + 10 * n };
      const { setup } = outputCheck!(at).method as { setup: RunSetup };
      return { ...at, amps: shows!(builds[0]!, setup, faults, {}) };
    });
  };
  const told = (output: readonly OutputPoint[]) => session.diagnose({ ...situation('stand', ...atRest), output });
  const chanceOf = ({ suspects }: Diagnosis, species: string) =>
    suspects.filter(({ fault }) => fault.startsWith(species)).reduce((sum, { chance }) => sum + chance, 0);

  it('a sound machine’s clear phases and diodes, and are judged one by one', () => {
    const before = told([]);
    const after = told(pointsWith());
    expect(after.output.map(({ word }) => word)).deep.equal(['sound', 'sound', 'sound']);
    expect(after.readings).deep.equal(before.readings);
    const clears = ({ cleared }: Diagnosis) => cleared.some(({ fault }) => fault === 'stator-open:A');
    expect([clears(before), clears(after)]).deep.equal([false, true]);
    expect(before.output).deep.equal([]);
  });
  it('a lost phase’s raise it, and say so among the reasons', () => {
    const [before, after] = [told([]), told(pointsWith('stator-open:B'))];
    expect(chanceOf(after, 'stator-open')).greaterThan(10 * chanceOf(before, 'stator-open'));
    const [{ evidence }] = after.suspects.filter(({ fault }) => fault === 'stator-open:B') as [Suspect];
    expect(evidence.some(({ check, bits }) => check === 'Output at 2400 rpm, 13.5 V' && bits > 1)).equal(true);
  });
  it('leave what copper at rest told as it was: the curve through them would count it twice', () => {
    const copper = [...atRest, ['ring-ring', value(3.1)]] as const;
    const read = situation('stand', ...copper);
    const { windings } = session.diagnose({ ...read, output: pointsWith('diode-open:A+') });
    expect(windings.length).greaterThan(0);
    expect(windings).deep.equal(session.diagnose(read).windings);
  });
  it('without any output tell nothing: nobody knows whether the field was on', () => {
    const dead = pointsWith().map((point) => ({ ...point, amps: 0.2 }));
    expect(told(dead).suspects).deep.equal(told([]).suspects);
  });
  it('at a speed where the plate foresees next to nothing, an ampere or ten condemn nothing', () => {
    const faint = told([{ rpm: 1050, volts: 13.5, amps: 8, celsius: 40 }]);
    expect(faint.output.map(({ word }) => word)).not.include('failed');
    expect(Math.abs(faint.sound - told([]).sound)).lessThan(0.1);
  });
  it('say the same in whatever order they are thought through', () => {
    const [first, ...rest] = pointsWith('diode-leaky:C-', 5);
    const fresh = unitSession(machine, 'no-charge', [meter]);
    fresh.diagnose({ ...situation('stand', ...atRest), output: rest });
    const output = [first!, ...rest];
    expect(fresh.diagnose({ ...situation('stand', ...atRest), output }).suspects).deep.equal(told(output).suspects);
  });
  it('are refused of what gives no output', () => {
    const starter = unitSession(starterGeneric(12, 1.4, 'direct'), 'none', [meter]);
    const read = { readings: [], assembly: 'clamped', meter: meter.id, celsius: 20 };
    expect(() => starter.diagnose({ ...read, output: pointsWith() })).throw(/gives no output/);
  });
});

describe('the run stand: its light', () => {
  const gate = (...read: readonly Taken[]) => session.diagnose(situation('closed', ...read)).gate!;
  it('is red until what must be looked at was, and green when all of it is sound', () => {
    expect(gate().green).equal(false);
    expect(gate(...atRest.slice(0, 4)).reasons.map(({ check }) => check)).deep.equal(['pulley-by-hand']);
    expect(gate(...atRest)).deep.equal({ green: true, reasons: [] });
  });
  it('a place that couldn’t be reached was not looked at', () => {
    const read = [...atRest.slice(0, 4), ['pulley-by-hand', { kind: 'no-access' }]] as const;
    expect(gate(...read).green).equal(false);
  });
  it('is red for a reading both ways from output to case', () => {
    const { green, reasons } = gate(
      ['bridge-forward', value(0.31)],
      ['bridge-reverse', value(0.33)],
      ['bridge-reverse-ohms', value(310)],
      ...atRest.slice(3),
    );
    expect(green).equal(false);
    expect(reasons.map(({ why }) => why).join(' ')).match(/path from output post to case/);
  });
  for (const [what, read, why] of [
    ['a shorted diode', ['bridge-forward', value(0.477)], /shorted diode/],
    ['a seized bearing', ['bearings-by-hand', finding('seized')], /bearing/],
    ['a loose pulley', ['pulley-by-hand', finding('loose')], /pulley/],
  ] as const) {
    it(`is red for ${what}, and says why`, () => {
      const others = atRest.filter(([check]) => check !== read[0]);
      const { green, reasons } = gate(...others, read);
      expect(green).equal(false);
      expect(reasons.map((reason) => reason.why).join(' ')).match(why);
    });
  }
});

describe('the run stand: which diode was lost, by trace and phase tap', () => {
  const check = session.opened.checks.find(({ id }) => id === 'ripple-tap')!;
  const traced = check.method.kind === 'finding' ? check.method.traced! : () => 'no finding';
  const places = ['A+', 'A-', 'B+', 'B-', 'C+', 'C-'];
  for (const connection of ['star', 'delta'] as const)
    for (const ratedVolts of [12, 24] as const)
      it(`${connection}, ${ratedVolts} V: each of the six is named from 1 800 to 6 000 rpm, light and heavy; nothing else is`, () => {
        const own: ClawPole = { ...machine, ...clawPoleGeneric(ratedVolts, 90), connection };
        const family = familyOf(own);
        const spin = family.generates!.spin(own);
        const sets = ratedVolts / 12;
        const named = (fault: string, rpm: number, ohms: number) => {
          const there = family.faults(own).filter(({ id }) => id === fault);
          const faults = there.map((one) => runningFault(one, one.severity.grades[0]!));
          const celsius = { windings: 60, diodes: 60 };
          const battery = { batteryVolts: 12.6 * sets, batteryOhms: 0.1 * sets, cableOhms: 0.002 };
          const stand = { rpm, loadOhms: ohms * sets ** 2, ...battery, celsius, field: 'regulated' } as const;
          const { amps, tap, volts } = spin(family.builds(own)[0]!, stand, faults, {});
          return traced(amps, { orders: tap, share: tap.mean / volts.mean });
        };
        for (const rpm of [1800, 3000, 6000])
          for (const ohms of [0.2, 0.6]) {
            for (const place of places) expect(named(`diode-open:${place}`, rpm, ohms), `${rpm} rpm`).equal(place);
            expect(named('none', rpm, ohms)).equal('none');
            expect(named('stator-open:B', rpm, ohms)).equal(undefined);
            expect(named('diode-shorted:B+', rpm, ohms)).equal(undefined);
          }
      });
  it('says nothing without the tap', () => {
    const orders = {
      mean: 50,
      rms: [20, ...Array<number>(11).fill(0)],
      radians: Array<number>(12).fill(0),
      ripple: 20,
    };
    expect(traced(orders)).equal(undefined);
  });
  it('raises the diode that it names, and clears all when there is none', () => {
    const told = (place: string) =>
      session.diagnose(situation('stand', ...atRest, ['ripple-tap', finding(place)])).suspects[0]!.fault;
    for (const place of places) expect(told(place)).equal(`diode-open:${place}`);
    expect(told('none')).not.match(/^diode/);
  });
});

describe('the run stand: the regulator by its volts', () => {
  const regulated = (low: number, high: number, celsius = 25, volts: 12 | 24 = 12) => {
    const own = familyOf(machine)
      .checks({ ...machine, ...clawPoleGeneric(volts, 90) })
      .find(({ id }) => id === 'regulation')!;
    expect(own.unit).equal('volts');
    return own.method.kind === 'finding' ? own.method.watched!.says([low, high], celsius) : 'no finding';
  };
  /** 13.8 to 14.5 V, over 15 V batteries gas, below rested volts no charge: common practice, no source. */
  it('holds from 13.8 to 14.5 V at 25 °C, twice that on 24 V', () => {
    for (const volts of [13.8, 14.0, 14.2, 14.5]) expect(regulated(volts - 0.05, volts), String(volts)).equal('holds');
    expect(regulated(28.0, 28.3, 25, 24)).equal('holds');
    expect(regulated(14.0, 14.2, 25, 24)).equal('none');
  });
  it('battery volts alone, too low, sagging, running away', () => {
    expect(regulated(12.2, 12.6)).equal('none');
    expect(regulated(13.2, 13.4)).equal('low');
    expect(regulated(13.4, 14.2)).equal('low');
    expect(regulated(14.9, 15.2)).equal('high');
    expect(regulated(16, 18)).equal('high');
  });
  it('warm it holds less, cold more: compensated', () => {
    expect(regulated(13.3, 13.4, 70)).equal('holds');
    expect(regulated(13.3, 13.4, 20)).equal('low');
    expect(regulated(14.8, 14.9, -10)).equal('holds');
    expect(regulated(14.8, 14.9, 60)).equal('high');
  });
});

describe('the run stand: regulators that aren’t built in and alone', () => {
  const like = (regulator: ClawPole['regulator']): ClawPole => ({ ...machine, regulator });
  const checkOf = (of: ClawPole, id: string) =>
    familyOf(of)
      .checks(of)
      .find((check) => check.id === id);
  const says = (of: ClawPole, id: string, seen: readonly number[], celsius = 25) => {
    const method = checkOf(of, id)?.method;
    return method?.kind === 'finding' ? method.watched!.says(seen, celsius) : 'no finding';
  };

  it('each kind has what is asked of it, and nothing of another', () => {
    for (const [kind, ids] of [
      ['built-in', []],
      ['separate', []],
      ['commanded', ['command']],
      ['two-contact', ['two-steps']],
    ] as const) {
      const own = ['command', 'two-steps'].filter((id) => checkOf(like(kind), id));
      expect(own, kind).deep.equal(ids);
    }
    expect(checkOf(like('commanded'), 'command')!.needs).equal('commander');
  });
  it('a box of its own leaves the field terminal to the winding alone', () => {
    const build = clawPoleBuilds(machine)[0]!;
    const names = (kind: ClawPole['regulator']) =>
      subjectOf(like(kind))
        .network(build, 'closed')
        .resistors.map(({ name }) => name);
    expect(names('built-in').filter((name) => name.startsWith('regulator'))).length(2);
    for (const kind of ['separate', 'two-contact'] as const) {
      expect(names(kind).filter((name) => name.startsWith('regulator'))).deep.equal([]);
      expect(names(kind)).include.members(['rotor', 'brush:1', 'brush:2']);
    }
  });
  it('follows its command by most of a volt, or stays; on 24 V by twice that', () => {
    const commanded = like('commanded');
    expect(says(commanded, 'command', [13.4, 14.8])).equal('follows');
    expect(says(commanded, 'command', [14.8, 13.4]), 'in either order').equal('follows');
    expect(says(commanded, 'command', [14.2, 14.2])).equal('stays');
    expect(says(commanded, 'command', [12.5, 12.6])).equal('none');
    expect(says(commanded, 'command', [12.95, 12.95]), 'no set-point of any regulator').equal('none');
    expect(says(commanded, 'command', [15.6, 17])).equal('high');
    const of24 = { ...clawPoleGeneric(24, 90), regulator: 'commanded' as const };
    expect(says(of24, 'command', [28.0, 28.8])).equal('stays');
    expect(says(of24, 'command', [26.8, 29.6])).equal('follows');
  });
  /** The steps of one design: 0.2 to 0.7 V apart, what to bend: common practice, no source. */
  it('two steps tell the spring from the points and from a fuse wire', () => {
    const steps = (one: number, two: number) => says(like('two-contact'), 'two-steps', [one, two]);
    expect(steps(14.1, 14.5)).equal('holds');
    expect(steps(14.9, 15.3)).equal('spring too tight');
    expect(steps(13.2, 13.6)).equal('spring too slack');
    expect(steps(14.4, 14.2), 'the second below the first').equal('step too small');
    expect(steps(13.9, 14.8)).equal('step too large');
    expect(steps(12.4, 14.2)).equal('upper fuse wire');
    expect(steps(14.2, 17)).equal('lower fuse wire');
  });
  it('deaf to its command is found by a commander alone, and costs a regulator', () => {
    const deaf = unitSession(like('commanded'), 'low-charge', [meter]);
    const before = situation('stand', ...atRest, ['regulation', finding('holds')]);
    const chance = (of: ReturnType<typeof situation>) =>
      deaf.diagnose(of).suspects.find(({ fault }) => fault === 'regulator-deaf')?.chance ?? 0;
    expect(chance(before)).lessThan(0.5);
    const advised = (lacks: readonly 'commander'[]) =>
      deaf.advice({ ...before, lacks }).next.some(({ check }) => check === 'command');
    expect(advised(['commander']), 'a shop without a commander').equal(false);
    const after = situation('stand', ...atRest, ['regulation', finding('holds')], ['command', finding('stays')]);
    expect(deaf.diagnose(after).suspects[0]!.fault).equal('regulator-deaf');
    expect(chance(after)).greaterThan(0.5);
    const verdict = deaf.verdict({ ...after, prices: { items: { regulator: { price: 40 } } } });
    const course = verdict.courses.find(({ id }) => id === verdict.recommended)!;
    expect(course.actions.map(({ id }) => id)).include('regulator');
  });
  it('out of adjustment is mended, not renewed', () => {
    const session = unitSession(like('two-contact'), 'low-charge', [meter]);
    const after = situation('stand', ...atRest, ['two-steps', finding('spring too slack')]);
    expect(session.diagnose(after).suspects[0]!.fault).equal('regulator-setting');
    const { courses } = session.verdict({ ...after, prices: { items: {} } });
    const actions = courses.flatMap(({ actions }) => actions).filter(({ why }) => /adjustment/.test(why));
    expect(actions.map(({ kind }) => kind)).include('repair');
  });
});
