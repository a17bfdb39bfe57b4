import { expect } from 'chai';
import {
  beliefAfter,
  type Case,
  checkOf,
  faultChances,
  type Particle,
  priorBelief,
  type Reading,
} from '../src/belief/index.ts';
import type { Check } from '../src/checks/index.ts';
import { Circuit, networkBetween } from '../src/circuit/index.ts';
import {
  countSigma,
  gainSigma,
  measure,
  type Multimeter,
  multimeterById,
  type Setup,
} from '../src/instruments/index.ts';
import { type Build, kinOf } from '../src/machines/index.ts';
import { gaussianProject, normalFrom, seeded } from '../src/numeric/index.ts';
import { openKnown } from './toy.ts';

/**
 * The belief without its short cuts: machines drawn by the thousand from the prior, each measured by the circuit with
 * its own resistances, temperature, leads and meter error, and those that show about the reading counted. No slopes,
 * no Gaussian states, no cells: what linearising costs shows here.
 */
class DrawnMachines {
  readonly #opened: Case;
  readonly #checks: readonly Check[];
  readonly #meter: Multimeter;
  readonly #random: () => number;
  readonly #normal: () => number;
  /** At five temperatures, with every check's probes. */
  readonly #circuits: readonly Circuit[];
  readonly #sigma: ReadonlyMap<string, number>;
  readonly #cumulative: readonly number[];

  constructor(opened: Case, checks: readonly Check[], meter: Multimeter, seed: number, build = opened.builds[0]!) {
    this.#opened = opened;
    this.#checks = checks;
    this.#meter = meter;
    this.#random = seeded(seed);
    this.#normal = normalFrom(this.#random);
    this.#sigma = new Map(opened.subject.nuisances(build).map(({ name, sigma }) => [name, sigma]));
    const [assembly, ...others] = new Set(checks.map((check) => check.assembly || 'closed'));
    expect(others, 'assemblies beside the first').lengthOf(0);
    const probes = checks.map(({ method }) => (method as { setup: Setup }).setup);
    const network = networkBetween(
      opened.subject.network(build, assembly!),
      probes.map(({ red, black }) => [red, black]),
    );
    this.#circuits = [-2, -1, 0, 1, 2].map(
      (step) => new Circuit(network, 20 + step * (this.#sigma.get('celsius') ?? 0)),
    );
    let sum = 0;
    this.#cumulative = opened.particles.map((particle) => (sum += particle.prior));
  }

  /** One machine's faults and what the meter shows on it for each check, rounded to nothing; Infinity is over-range. */
  draw(): { faults: readonly number[]; shown: readonly number[] } {
    const at = this.#random() * this.#cumulative.at(-1)!;
    return this.drawOf(this.#opened.particles[this.#cumulative.findIndex((sum) => sum >= at)]!);
  }

  drawOf(particle: Particle): { faults: readonly number[]; shown: readonly number[] } {
    const warmth = Math.max(0, Math.min(4, Math.round(2 + this.#normal())));
    const edits = particle.faults.flatMap((fault, slot) => {
      const cell = particle.cellSigmas[slot]! * Math.sqrt(12);
      return this.#opened.faults[fault]!.edits(particle.severities[slot]! * Math.exp(cell * (this.#random() - 0.5)));
    });
    const swayOf = (name: string): number => this.#normal() * (this.#sigma.get(name) ?? 0);
    const leads = Math.max(this.#meter.leadOhms + this.#meter.leadOhmsSigma * this.#normal(), 0);
    const circuit = this.#circuits[warmth]!;
    const values = circuit.spreads.reduce(
      (swayed, spread) => circuit.swayed(swayed, spread, swayOf(spread.name)),
      circuit.withEdits(edits),
    );
    const shown = this.#checks.map(({ method }) => {
      const read = measure(circuit, values, (method as { setup: Setup }).setup, { ...this.#meter, leadOhms: leads });
      if (read.value > read.fullScale) return Infinity;
      const gain = 1 + gainSigma(read.range!) * this.#normal();
      return read.value * gain + countSigma(read.range!) * this.#normal();
    });
    return { faults: particle.faults, shown };
  }
}

describe('belief: against machines drawn from the prior and counted (Monte Carlo, seeded)', () => {
  const meter = multimeterById('workshop');
  const draws = 60_000;
  const units = { silicon: openKnown(), 'low-loss': openKnown({ diodeKind: 'low-loss' }) } as const;
  /** `allowed`: what linearising may cost beside the error of counting. */
  const readings: readonly {
    readonly kind: keyof typeof units;
    readonly check: string;
    readonly ohms: readonly number[];
    readonly allowed: number;
  }[] = [
    { kind: 'silicon', check: 'ring-ring', ohms: [3.4, 2.7, 2.2, 4], allowed: 0.01 },
    { kind: 'silicon', check: 'stator-pair:AB', ohms: [0.42, 0.36], allowed: 0.01 },
    // A leak beside a junction's own: no straight line.
    { kind: 'low-loss', check: 'diode-reverse-ohms:A+', ohms: [6e4, 2e5, 8e5], allowed: 0.02 },
    { kind: 'silicon', check: 'diode-reverse-ohms:A+', ohms: [1.5e6, 8e6], allowed: 0.02 },
  ];
  for (const { kind, check: id, ohms: shownOhms, allowed } of readings) {
    const opened = units[kind];
    const check = checkOf(opened, id);
    describe(`${check.name}, ${kind}: every fault’s odds as counted, within five standard errors of counting`, () => {
      let drawn: ReturnType<DrawnMachines['draw']>[];
      before(() => {
        const machines = new DrawnMachines(opened, [check], meter, 4711);
        drawn = Array.from({ length: draws }, () => machines.draw());
      });
      for (const ohms of shownOhms)
        it(`at ${ohms} Ω`, () => {
          const reading = { check, outcome: { kind: 'value', value: ohms }, meter, celsius: 20 } as const;
          // No slips: drawn machines have none.
          const after = faultChances(opened, beliefAfter(opened, priorBelief(opened), reading, 0));
          const width = ohms > 100 ? 0.1 : 0.02;
          const window = drawn.filter(({ shown: [shown] }) => Math.abs(shown! / ohms - 1) < width);
          expect(window.length, 'drawn machines that show about this').greaterThan(40);
          opened.faults.forEach((fault, f) => {
            const share = window.filter(({ faults }) => faults.includes(f)).length / window.length;
            const error = Math.sqrt((Math.max(share, 1 / window.length) * (1 - share)) / window.length);
            expect(after[f]!, `${fault.name} in ${window.length}`).closeTo(share, 5 * error + allowed);
          });
        });
    });
  }

  describe('several readings of one sound unit, as its kind is and unlike it', () => {
    const opened = units.silicon;
    const kin = opened.builds.filter((build) => kinOf(build) === opened.builds[0]!.id);
    // Windings of another make change nothing of megohms: told below, not counted.
    const builds = kin.filter(({ strewn }) => strewn?.apart?.name !== 'windings');
    const leaks = ['A+', 'B+', 'C+', 'A-', 'B-', 'C-'].map((place) => checkOf(opened, `diode-reverse-ohms:${place}`));
    const many = 60_000;
    /** Nats that straight lines may cost: a factor of e. Six readings taken one by one would cost eight. */
    const allowed = 1;
    const drawn: (readonly number[])[][] = [];
    // As its kind is and each way unlike it, in a hook of its own: they take a while.
    for (const [b, build] of builds.entries())
      before(() => {
        const machines = new DrawnMachines(opened, leaks, meter, 97 + b, build);
        drawn.push(Array.from({ length: many }, () => machines.drawOf(opened.particles[0]!).shown));
      });
    /** How much likelier than the first build each other makes the readings, if the unit is sound. */
    const ratiosOf = (outcomes: readonly Reading['outcome'][], others: readonly Build[]): readonly number[] => {
      const prior = priorBelief(opened, 'any');
      const readings = outcomes.map((outcome, n): Reading => ({ check: leaks[n]!, outcome, meter, celsius: 20 }));
      const after = readings.reduce((belief, reading) => beliefAfter(opened, belief, reading, 0), prior);
      const sound = ({ rows }: typeof prior, b: number) => {
        expect(rows[b]!.particles[0], `${opened.builds[b]!.id} still sound`).equal(0);
        return rows[b]!.weights[0]!;
      };
      const odds = (belief: typeof prior, b: number) => sound(belief, b) / sound(belief, 0);
      return others.map((build) => {
        const b = opened.builds.indexOf(build);
        return odds(after, b) / odds(prior, b);
      });
    };
    const counted = (holds: (shown: readonly number[]) => boolean): number[] =>
      drawn.map((shown) => shown.filter(holds).length / many);
    const compare = (outcomes: readonly Reading['outcome'][], [kind, ...strewn]: readonly number[]): void => {
      expect(Math.min(kind!, ...strewn) * many, 'drawn').greaterThan(100);
      for (const [n, ratio] of ratiosOf(outcomes, builds.slice(1)).entries())
        expect(Math.log(ratio), builds[n + 1]!.id).closeTo(Math.log(strewn[n]! / kind!), allowed);
    };
    it('windings of another make are none of what they tell', () => {
      const outcomes = [1.7e6, 2.3e6, 9e6].map((value) => ({ kind: 'value', value }) as const);
      const ratios = ratiosOf(
        outcomes,
        kin.filter((build) => !builds.includes(build)),
      );
      expect(ratios).lengthOf(1);
      expect(Math.log(ratios[0]!)).closeTo(0, 0.01);
    });
    it('six diodes that show no end are one piece of news more than six', () => {
      const over = leaks.map(() => ({ kind: 'over-range' }) as const);
      compare(
        over,
        counted((shown) => shown.every((ohms) => ohms === Infinity)),
      );
    });
    for (const [what, leaky] of [
      ['leak alike tell of a leaky batch', [1.7e6, 2.3e6, 3.1e6]],
      ['hardly leak tell of a tight one', [9e6, 1.2e7, 1.5e7]],
    ] as const)
      it(`three diodes that ${what}, and each next one less`, () => {
        const between = leaky.map((value) => ({ kind: 'value', value }) as const);
        compare(
          between,
          counted((shown) => leaky.every((ohms, n) => Math.abs(Math.log(shown[n]! / ohms)) < 0.2)),
        );
      });
  });

  describe('two faults at once under current, in a unit of its kind and in one strewn two and a half times as wide', () => {
    const opened = units.silicon;
    const check = checkOf(opened, 'current-drop:B+');
    const drawnOf = (particle: Particle, build: Build) => {
      const machines = new DrawnMachines(opened, [check], meter, 5, build);
      const shown = Array.from({ length: 4000 }, () => machines.drawOf(particle).shown[0]!);
      expect(shown.every(Number.isFinite)).equal(true);
      const mean = shown.reduce((sum, volts) => sum + volts, 0) / shown.length;
      const variance = shown.reduce((sum, volts) => sum + (volts - mean) ** 2, 0) / shown.length;
      return { mean, sigma: Math.sqrt(variance) };
    };
    for (const ids of [
      ['diode-open:B+', 'diode-shorted:C+'],
      ['diode-open:B+', 'diode-open:C+'],
      ['diode-leaky:B+', 'diode-shorted:C+'],
    ])
      it(ids.join(' and '), () => {
        const faults = ids.map((id) => opened.faults.findIndex((fault) => fault.id === id));
        const both = opened.particles.filter((p) => p.faults.length === 2 && faults.every((f) => p.faults.includes(f)));
        const builds = opened.builds.filter(({ strewn }) => !strewn || (!strewn.apart && strewn.times > 2));
        expect(builds.length * both.length).greaterThan(1);
        for (const build of builds)
          for (const particle of both.slice(0, 2)) {
            const drawn = drawnOf(particle, build);
            const foreseen = opened.predictor({ meter, celsius: 20 }).predict(check, build, particle);
            if (foreseen.kind !== 'number') throw new Error('volts are a number');
            const { mean, variance } = gaussianProject(
              opened.priorStates[opened.builds.indexOf(build)]!,
              foreseen.mean,
              foreseen.slope,
            );
            const what = `${build.id}, ${particle.severities.join(' and ')}`;
            expect(mean, what).closeTo(drawn.mean, 0.012);
            expect(Math.sqrt(variance + foreseen.noiseVariance) / drawn.sigma, what).within(0.93, 1.1);
          }
      });
  });
});
