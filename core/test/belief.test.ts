import { expect } from 'chai';
import fc from 'fast-check';
import { sigmasOf } from '../src/belief/dimensions.ts';
import { expectedByCircuit } from '../src/belief/expected-by-circuit.ts';
import { wholeCell } from '../src/belief/focus.ts';
import {
  type Belief,
  beliefAfter,
  buildChances,
  type Case,
  checkOf,
  faultChances,
  History,
  partWords,
  priorBelief,
  severityOf,
  type Scope,
  slipChanceOf,
  soundChance,
  wordOf,
} from '../src/belief/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { Circuit, networkBetween } from '../src/circuit/index.ts';
import { insulationTester, multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric } from '../src/machines/index.ts';
import { gaussianProject } from '../src/numeric/index.ts';
import { chanceOf, openKnown, openUnit, reading, toyCase } from './toy.ts';

const workshop = multimeterById('workshop');
const value = (v: number): Outcome => ({ kind: 'value', value: v });
const finding = (name: string): Outcome => ({ kind: 'finding', finding: name });
const OL: Outcome = { kind: 'over-range' };

const after = (opened: Case, ...taken: readonly (readonly [string, Outcome])[]): Belief =>
  taken.reduce(
    (belief, [check, outcome]) => beliefAfter(opened, belief, reading(opened, check, outcome)),
    priorBelief(opened),
  );

describe('belief: Bayes’ rule worked by hand on a toy of two faults', () => {
  // Prior: nothing 0.5; singles share 0.5·0.79 as 3 : 1; the pair has 0.5·0.21. A look sees with the slip mixed in:
  // 0.98·p + 0.02/2.
  const prior = { none: 0.5, a: 0.395 * 0.75, b: 0.395 * 0.25, both: 0.105 };
  const mixed = (p: number) => 0.98 * p + 0.01;

  it('prior', () => {
    const opened = toyCase();
    const belief = priorBelief(opened);
    expect(soundChance(belief)).closeTo(prior.none, 1e-12);
    expect(chanceOf(opened, belief, 'a')).closeTo(prior.a + prior.both, 1e-12);
    expect(chanceOf(opened, belief, 'b')).closeTo(prior.b + prior.both, 1e-12);
  });
  it('after seeing a, and not b', () => {
    const opened = toyCase();
    const belief = after(opened, ['sees-a', finding('yes')], ['sees-b', finding('no')]);
    const weights = {
      none: prior.none * mixed(0.1) * mixed(0.8),
      a: prior.a * mixed(0.8) * mixed(0.8),
      b: prior.b * mixed(0.1) * mixed(0.1),
      both: prior.both * mixed(0.8) * mixed(0.1),
    };
    const total = weights.none + weights.a + weights.b + weights.both;
    expect(soundChance(belief)).closeTo(weights.none / total, 1e-12);
    expect(chanceOf(opened, belief, 'a')).closeTo((weights.a + weights.both) / total, 1e-12);
    expect(chanceOf(opened, belief, 'b')).closeTo((weights.b + weights.both) / total, 1e-12);
  });
  it('weight of evidence is log2 of the likelihood ratio', () => {
    const opened = toyCase();
    const belief = after(opened, ['sees-a', finding('yes')]);
    expect(belief.evidence[0]!.bits[0]).closeTo(Math.log2(mixed(0.8) / mixed(0.1)), 1e-12);
  });
  it('a check that can’t see a fault leaves its odds alone', () => {
    const opened = toyCase();
    const before = faultChances(opened, priorBelief(opened));
    const belief = after(opened, ['sees-nothing', finding('yes')]);
    faultChances(opened, belief).forEach((chance, f) => expect(chance).closeTo(before[f]!, 1e-12));
  });
});

describe('belief: properties', () => {
  const opened = openKnown();
  const independent = fc.shuffledSubarray(
    [
      ['field-turning', finding('steady')],
      ['rings-by-eye', finding('dull')],
      ['brush-length', value(7.2)],
      ['bridge-forward', value(0.93)],
      ['ring-ring', value(3.3)],
    ] as const,
    { minLength: 2 },
  );

  it('sums to one after any readings', () => {
    fc.assert(
      fc.property(independent, (taken) => {
        const total = buildChances(after(opened, ...taken)).reduce((sum, p) => sum + p, 0);
        expect(total).closeTo(1, 1e-9);
      }),
      { numRuns: 12 },
    );
  });
  // A reading is straightened about what is known by then: more is known of a severity later on.
  it('the order of readings hardly matters: no chance moves by 2 in 100 000', () => {
    fc.assert(
      fc.property(independent, fc.infiniteStream(fc.nat()), (taken, order) => {
        const keys = new Map(taken.map((t) => [t, order.next().value as number]));
        const shuffled = [...taken].sort((a, b) => keys.get(a)! - keys.get(b)!);
        const [one, other] = [taken, shuffled].map((list) => faultChances(opened, after(opened, ...list)));
        one!.forEach((chance, f) => expect(chance, opened.faults[f]!.id).closeTo(other![f]!, 2e-5));
      }),
      { numRuns: 12 },
    );
  });
  it('a rotor reading off the machine leaves the diodes’ odds against one another alone', () => {
    const before = priorBelief(opened);
    const belief = after(opened, ['ring-ring', value(3.3)]);
    const alone = (id: string) =>
      opened.particles.findIndex((p) => p.faults.length === 1 && opened.faults[p.faults[0]!]!.id === id);
    const weight = ({ rows: [row] }: Belief, p: number) => row!.weights[row!.particles.indexOf(p)]!;
    const ratio = (b: Belief) => weight(b, alone('diode-open:A+')) / weight(b, alone('diode-leaky:B-'));
    expect(ratio(belief)).closeTo(ratio(before), 1e-9 * ratio(before));
    expect(belief.evidence[0]!.felt[opened.faults.findIndex((f) => f.id === 'diode-open:A+')]).equal(false);
  });
  it('one slipped entry never locks the answer: the readings after it bring the truth back', () => {
    const slipped = after(opened, ['ring-ring', OL]);
    expect(chanceOf(opened, slipped, 'rotor-open')).greaterThan(0.5);
    const back = after(opened, ['ring-ring', OL], ['field-ohms', value(3.5)], ['field-turning', finding('steady')]);
    expect(chanceOf(opened, back, 'rotor-open')).lessThan(0.05);
    expect(slipChanceOf(back, 0)).greaterThan(0);
  });
});

describe('belief: predictions', () => {
  const opened = openKnown();
  const conditions = { meter: workshop, celsius: 20 };
  const predictor = opened.predictor(conditions);
  const build = opened.builds[0]!;

  it('relabelling equal phases changes no prediction: every check and many faults, against the direct way', () => {
    const some = opened.particles.filter((p, i) => p.faults.length < 2 || i % 97 === 0);
    const pairs = opened.particles.flatMap(({ faults }, p) => (faults.length === 2 && p % 331 === 0 ? [p] : []));
    const three = pairs.flatMap((pair) =>
      opened.withMore(pair).map(({ particles }) => opened.particles[particles[0]!]!),
    );
    const particles = [...some, ...three];
    const compared = [0, 0, 0, 0];
    for (const check of opened.checks) {
      if (check.method.kind !== 'meter' || check.method.setup.function === 'lamp') continue;
      const { setup } = check.method;
      const network = opened.subject.network(build, check.assembly);
      const feed = setup.feed ? [[setup.feed.plus, setup.feed.minus] as const] : [];
      const circuit = new Circuit(networkBetween(network, [[setup.red, setup.black], ...feed]), 20);
      const sigmas = sigmasOf(opened.dimensions, opened.subject.nuisances(build));
      for (const particle of particles.filter((_, i) => i % 11 === 0)) {
        const faults = particle.faults.map((f, n) => ({
          fault: opened.faults[f]!,
          severity: particle.severities[n]!,
          sigma: particle.cellSigmas[n]!,
          focus: wholeCell,
        }));
        const known = predictor.predict(check, build, particle);
        if (known.kind !== 'number') throw new Error('a meter gives a number');
        // Several faults take over the bend of one of them.
        const feels = predictor.feels(check, build);
        const likened = particle.faults.filter((f) => feels[f]).length > 1 ? [known] : [];
        const { dimensions } = opened;
        const on = { circuit, meter: workshop, dimensions, sigmas, start: undefined };
        const direct = expectedByCircuit(check, faults, on, likened);
        if (direct.kind !== 'number') throw new Error('a meter gives a number');
        expect(known.mean, check.id).closeTo(direct.mean, 1e-6 * Math.max(1, Math.abs(direct.mean)));
        const slopes = (p: typeof direct) =>
          Object.fromEntries([...p.slope.index].map((at, i) => [opened.dimensions.names[at]!, p.slope.value[i]!]));
        for (const [name, slope] of Object.entries(slopes(direct))) {
          if (name.startsWith('severity')) continue;
          expect(slopes(known)[name] ?? 0, `${check.id} ${name}`).closeTo(
            slope,
            1e-4 * Math.max(1e-3, Math.abs(slope)) + 1e-7,
          );
        }
        compared[particle.faults.length]!++;
      }
    }
    expect(compared[1]! + compared[2]!).greaterThan(500);
    expect(compared[3]).greaterThan(500);
  });

  it('slopes are those of finite differences: rotor, temperature, one junction', () => {
    const sound = opened.particles[0]!;
    const slopeOf = (check: string, name: string) => {
      const p = predictor.predict(checkOf(opened, check), build, sound);
      if (p.kind !== 'number') throw new Error('a number');
      const at = p.slope.index.indexOf(opened.dimensions.index.get(name)!);
      return at < 0 ? 0 : p.slope.value[at]!;
    };
    const meanOf = (from: Case, check: string, celsius = 20) => {
      const p = from
        .predictor({ meter: workshop, celsius })
        .predict(checkOf(from, check), from.builds[0]!, from.particles[0]!);
      return p.kind === 'number' ? p.mean : Number.NaN;
    };
    const h = 1e-4;
    const more = openKnown({ rotorOhms: 3 * (1 + h) });
    expect(slopeOf('ring-ring', 'rotor')).closeTo((meanOf(more, 'ring-ring') - meanOf(opened, 'ring-ring')) / h, 1e-3);
    for (const check of ['ring-ring', 'bridge-forward', 'joined-forward:A+', 'field-ohms', 'current-drop:B-']) {
      const perKelvin = (meanOf(opened, check, 20.5) - meanOf(opened, check, 19.5)) / 1;
      expect(slopeOf(check, 'celsius'), check).closeTo(perKelvin, 0.02 * Math.abs(perKelvin));
    }
    // Junctions fall by about 2.2 mV per kelvin: common practice, no source.
    expect(slopeOf('bridge-forward', 'celsius') / 2).closeTo(-0.0022, 0.0003);
  });
  it('a shift of all junctions by 1 mV moves a lone diode by 1 mV, the bridge by two', () => {
    const p = (check: string) => {
      const found = predictor.predict(checkOf(opened, check), build, opened.particles[0]!);
      if (found.kind !== 'number') throw new Error('a number');
      return found.slope.value[found.slope.index.indexOf(opened.dimensions.index.get('junction')!)]!;
    };
    expect(p('diode-forward:A+')).closeTo(1, 0.06);
    expect(p('bridge-forward')).closeTo(2, 0.12);
  });
});

describe('belief: what is left out for good', () => {
  const opened = openKnown();
  /** The least likely that stands after two readings of a sound unit. */
  const least = (scope: Scope): number => {
    const taken = [reading(opened, 'bridge-forward', value(0.93)), reading(opened, 'ring-ring', value(3.3))];
    const belief = taken.reduce((before, one) => beliefAfter(opened, before, one), priorBelief(opened, scope));
    return Math.min(...belief.rows.flatMap(({ weights }) => [...weights]));
  };
  it('of a unit of its kind from a third of a millionth on', () => {
    expect(least('its kind')).within(3e-7, 1e-6);
  });
  it('of any unit, which is weighed where two things look wrong, thirty times later', () => {
    expect(least('any')).within(1e-8, 3e-8);
  });
});

describe('belief: what the readings say', () => {
  it('about half a volt on a silicon bridge is a shorted diode; on a low-loss bridge it is sound; unknown, both stand', () => {
    const half = [['bridge-forward', value(0.476)]] as const;
    const silicon = openKnown();
    expect(soundChance(after(silicon, ...half))).lessThan(0.01);
    const shorted = silicon.faults.reduce(
      (sum, f) => sum + (f.species === 'diode-shorted' ? chanceOf(silicon, after(silicon, ...half), f.id) : 0),
      0,
    );
    expect(shorted).greaterThan(0.6);
    const lowLoss = openKnown({ diodeKind: 'low-loss' });
    expect(soundChance(after(lowLoss, ...half))).greaterThan(0.3);
    const unknown = openUnit({ ...clawPoleGeneric(12, 90), connection: 'star' }, 'no-charge', ['workshop']);
    const belief = after(unknown, ...half);
    const lowLossChance = (b: Belief) => buildChances(b)[unknown.builds.findIndex((x) => x.id.includes('low-loss'))]!;
    expect(lowLossChance(belief)).greaterThan(lowLossChance(priorBelief(unknown)) * 1.5);
    expect(soundChance(belief)).greaterThan(0.05);
  });
  it('infers how bad a leak is, with an interval that holds the truth', () => {
    const opened = openKnown();
    const leak = opened.faults.findIndex((f) => f.id === 'diode-leaky:A+');
    const belief = after(opened, ['diode-reverse-ohms:A+', value(2e4)]);
    const estimate = severityOf(opened, belief, leak)!;
    expect(estimate.low).lessThan(2e4);
    expect(estimate.high).greaterThan(2e4);
    expect(estimate.high / estimate.low).lessThan(6);
  });
  for (const [check, fault] of [
    ['ring-core-insulation', 'rotor-core'],
    ['stator-core-insulation', 'stator-core'],
  ] as const)
    it(`what an insulation tester shows of a dead short, none or one count, tells no less of it than a megohm: ${fault}`, () => {
      const opened = openKnown();
      const f = opened.faults.findIndex(({ id }) => id === fault);
      const bits = (shown: number) => after(opened, [check, value(shown)]).evidence[0]!.bits[f]!;
      const megohm = bits(1e6);
      for (const shown of [0, insulationTester.step]) expect(bits(shown), `${shown} Ω`).greaterThan(megohm);
    });
  it('siblings alike: a diode 40 mV off two siblings is doubted more than one alone', () => {
    const opened = openKnown({}, 'no-charge', 'bench');
    const bench = multimeterById('bench');
    const take = (list: readonly (readonly [string, number])[]) =>
      list.reduce(
        (b, [check, v]) => beliefAfter(opened, b, reading(opened, check, value(v), bench)),
        priorBelief(opened),
      );
    const alone = take([['diode-forward:A+', 0.47]]);
    const among = take([
      ['diode-forward:B+', 0.511],
      ['diode-forward:C+', 0.51],
      ['diode-forward:A+', 0.47],
    ]);
    expect(chanceOf(opened, among, 'diode-leaky:A+')).greaterThan(2 * chanceOf(opened, alone, 'diode-leaky:A+'));
  });
});

describe('belief: readings that are alike', () => {
  it('three joined leads read the same: once one is read, the others are foreseen, on a unit unlike its kind too', () => {
    const opened = openKnown();
    const sound = opened.particles[0]!;
    const spread = (belief: Belief, check: string, b: number): number => {
      const taken = checkOf(opened, check);
      const state = belief.rows[b]!.sound;
      const prediction = opened
        .predictor({ meter: workshop, celsius: 20 })
        .predict(taken, opened.builds[b]!, sound, state);
      if (prediction.kind !== 'number') throw new TypeError(check);
      return Math.sqrt(gaussianProject(state, prediction.mean, prediction.slope).variance + prediction.noiseVariance);
    };
    const before = priorBelief(opened, 'any');
    const read = beliefAfter(opened, before, reading(opened, 'joined-reverse-ohms:A+', value(4e6)));
    opened.builds.forEach(({ id, contrary }, b) => {
      // Of diodes of another kind four megohms would be a slip, which foretells nothing.
      if (contrary) return;
      expect(spread(before, 'joined-reverse-ohms:B+', b), id).greaterThan(0.5);
      expect(spread(read, 'joined-reverse-ohms:B+', b), id).lessThan(0.25);
      // The other side has diodes of its own.
      expect(spread(read, 'joined-reverse-ohms:B-', b), id).greaterThan(0.4);
    });
  });
});

describe('belief: words and history', () => {
  const opened = openKnown();
  const nulled = after(opened, ['leads-null', value(0.3)]);
  const conditions = { meter: workshop, celsius: 20 };

  it('a stator pair can’t be told with a 0.1 Ω meter, but can with a milliohm meter', () => {
    const check = checkOf(opened, 'stator-pair-free:AB');
    expect(wordOf(opened, nulled, check, conditions, value(0.4))).equal("can't tell");
    const fine = openKnown({}, 'no-charge', 'bench');
    const bench = multimeterById('bench');
    const after100 = beliefAfter(fine, priorBelief(fine), reading(fine, 'leads-null', value(0.1), bench));
    expect(
      wordOf(fine, after100, checkOf(fine, 'stator-pair-free:AB'), { meter: bench, celsius: 20 }, value(0.22)),
    ).equal('sound');
  });
  it('uses the five words', () => {
    const word = (check: string, outcome: Outcome) =>
      wordOf(opened, nulled, checkOf(opened, check), conditions, outcome);
    expect(word('bridge-forward', value(0.93))).equal('sound');
    expect(word('bridge-forward', value(0.476))).equal('failed');
    expect(word('bridge-reverse', OL)).equal('sound');
    expect(word('bridge-reverse', value(0.86))).equal('failed');
    expect(word('bridge-forward', OL)).equal('failed');
    expect(word('brush-length', value(7))).equal('sound');
    expect(word('brush-length', value(3))).equal('failed');
    expect(word('brush-length', value(5))).equal('doubtful');
    expect(word('rings-by-eye', finding('burnt'))).equal('failed');
    expect(word('stator-core-lamp', finding('dark'))).equal('sound');
  });
  it('parts nobody looked at say so; a fault that was seen makes its part failed', () => {
    expect(partWords(opened, priorBelief(opened)).get('rotor')!.word).equal('not looked at');
    const belief = after(opened, ['ring-ring', OL], ['field-turning', finding('never')]);
    expect(partWords(opened, belief).get('rotor')!.word).equal('failed');
    expect(partWords(opened, belief).get('regulator')!.word).equal('not looked at');
  });
  it('following a list again, longer or shorter, gives what a fresh start gives', () => {
    const history = new History(opened);
    const list = [
      reading(opened, 'bridge-forward', value(0.93)),
      reading(opened, 'ring-ring', value(3.3)),
      reading(opened, 'ring-core', OL),
    ];
    history.follow(list);
    const shorter = history.follow([list[0]!, list[2]!]).belief;
    const fresh = new History(opened).follow([list[0]!, list[2]!]).belief;
    expect([...faultChances(opened, shorter)]).deep.equal([...faultChances(opened, fresh)]);
  });
});
