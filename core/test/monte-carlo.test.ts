import { expect } from 'chai';
import { beliefAfter, type Case, checkOf, faultChances, priorBelief } from '../src/belief/index.ts';
import type { Check } from '../src/checks/index.ts';
import { Circuit, networkBetween } from '../src/circuit/index.ts';
import { countSigma, gainSigma, measure, type Multimeter, multimeterById } from '../src/instruments/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';
import { openKnown } from './toy.ts';

/**
 * The belief without its short cuts: machines drawn by the thousand from the prior, each measured by the circuit with
 * its own resistances, temperature, leads and meter error, and those that show about the reading counted. No slopes,
 * no Gaussian states, no cells: what linearising costs shows here.
 */
class DrawnMachines {
  readonly #opened: Case;
  readonly #check: Check;
  readonly #meter: Multimeter;
  readonly #random: () => number;
  readonly #normal: () => number;
  readonly #circuits: readonly Circuit[];
  readonly #sigma: ReadonlyMap<string, number>;
  readonly #cumulative: readonly number[];

  constructor(opened: Case, check: Check, meter: Multimeter, seed: number) {
    this.#opened = opened;
    this.#check = check;
    this.#meter = meter;
    this.#random = seeded(seed);
    this.#normal = normalFrom(this.#random);
    const build = opened.builds[0]!;
    this.#sigma = new Map(opened.subject.nuisances(build).map(({ name, sigma }) => [name, sigma]));
    const { setup } = check.method as { setup: { red: string; black: string } };
    const network = opened.subject.network(build, check.assembly || 'closed');
    this.#circuits = [-2, -1, 0, 1, 2].map(
      (step) =>
        new Circuit(networkBetween(network, [[setup.red, setup.black]]), 20 + step * (this.#sigma.get('celsius') ?? 0)),
    );
    let sum = 0;
    this.#cumulative = opened.particles.map((particle) => (sum += particle.prior));
  }

  /** One machine's faults and what the meter shows on it, rounded to nothing. */
  draw(): { faults: readonly number[]; shown: number } {
    const { method } = this.#check as { method: { setup: Parameters<typeof measure>[2] } };
    const at = this.#random() * this.#cumulative.at(-1)!;
    const particle = this.#opened.particles[this.#cumulative.findIndex((sum) => sum >= at)]!;
    const circuit = this.#circuits[Math.max(0, Math.min(4, Math.round(2 + this.#normal())))]!;
    const edits = particle.faults.flatMap((fault, slot) => {
      const cell = particle.cellSigmas[slot]! * Math.sqrt(12);
      return this.#opened.faults[fault]!.edits(particle.severities[slot]! * Math.exp(cell * (this.#random() - 0.5)));
    });
    const values = circuit.spreads.reduce(
      (swayed, spread) => circuit.swayed(swayed, spread, this.#normal() * (this.#sigma.get(spread.name) ?? 0)),
      circuit.withEdits(edits),
    );
    const leads = this.#meter.leadOhms + this.#meter.leadOhmsSigma * this.#normal();
    const shown = measure(circuit, values, method.setup, { ...this.#meter, leadOhms: Math.max(leads, 0) });
    const gain = 1 + gainSigma(shown.range!) * this.#normal();
    return { faults: particle.faults, shown: shown.value * gain + countSigma(shown.range!) * this.#normal() };
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
    const machines = new DrawnMachines(opened, check, meter, 4711);
    const drawn = Array.from({ length: draws }, () => machines.draw());
    for (const ohms of shownOhms) {
      it(`${check.name} at ${ohms} Ω, ${kind}: every fault’s odds as counted, within five standard errors of counting`, () => {
        const reading = { check, outcome: { kind: 'value', value: ohms }, meter, celsius: 20 } as const;
        // No slips: drawn machines have none.
        const after = faultChances(opened, beliefAfter(opened, priorBelief(opened), reading, 0));
        const width = ohms > 100 ? 0.1 : 0.02;
        const window = drawn.filter(({ shown }) => Math.abs(shown / ohms - 1) < width);
        expect(window.length, 'drawn machines that show about this').greaterThan(40);
        opened.faults.forEach((fault, f) => {
          const share = window.filter(({ faults }) => faults.includes(f)).length / window.length;
          const error = Math.sqrt((Math.max(share, 1 / window.length) * (1 - share)) / window.length);
          expect(after[f]!, `${fault.name} in ${window.length}`).closeTo(share, 5 * error + allowed);
        });
      });
    }
  }
});
