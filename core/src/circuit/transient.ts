import type { Damping } from './damper.ts';
import { type JunctionAt, junctionAt } from './junction.ts';
import { copperPerKelvin, type Network, perKelvinOf } from './network.ts';
import { type Laid, type Settled, Stepping } from './stepping.ts';

/** A winding in a turning field: resistance, inductance and a sinusoidal EMF in series, from `a` to `b`. */
export interface Coil {
  readonly name: string;
  readonly a: string;
  readonly b: string;
  /** At 20 °C, copper. */
  readonly ohms: number;
  readonly henries: number;
  /** Peak volts of the EMF, positive at `a`. */
  readonly emfVolts: number;
  /** By how much of a turn of the electrical angle it lags. */
  readonly lagRadians: number;
}

/** The flux that two coils share. */
export interface Coupling {
  readonly coils: readonly [string, string];
  readonly henries: number;
}

/** A network whose coils turn: what a machine on a running stand is. */
export interface TurningNetwork extends Network {
  readonly coils: readonly Coil[];
  readonly couplings?: readonly Coupling[];
  /** The poles that they turn in; without it the field alone. */
  readonly damping?: Damping | undefined;
}

/** A constant current drawn from one node and put back at another: a field winding, which smooths its own. */
export interface Draw {
  readonly from: string;
  readonly to: string;
  readonly amps: number;
}

export interface Running {
  /** Of the EMFs. */
  readonly electricalHertz: number;
  readonly draws?: readonly Draw[];
  readonly stepsPerPeriod?: number;
  /** Share of the coils' currents that may still change from one period to the next; for what is known roughly, more. */
  readonly settledShare?: number | undefined;
  /** A steady state to begin with, where it is of a network of the same make: what is near is settled sooner. */
  readonly from?: Settled | undefined;
}

/** One period in the steady state, sampled at equal steps. Arrays belong to the caller. */
export interface Period {
  readonly electricalHertz: number;
  /** Volts of a node against the reference, by step. */
  readonly volts: (node: string) => Float64Array;
  /** Amperes through a resistor from its first to its second node, by step. */
  readonly amps: (resistor: string) => Float64Array;
  /** How many periods were worked out until nothing changed. */
  readonly periods: number;
  readonly settled: Settled;
}

/**
 * A multiple of six: each of the six pulses switches at the same place between two steps, and what that errs by is no
 * order 1 of its own (with 181 steps a sound machine had one, a tenth of its ripple). Where a curve is fitted through
 * runs take a prime number instead: there the same place for all shows as kinks.
 */
const usualSteps = 180;
const mostPeriods = 40;
/** A period whose coil currents are within this share of the one before is the steady one. */
const usualSettledShare = 5e-4;

/**
 * The steady state of a turning network, by implicit steps for the coils and Newton's method for the junctions at each.
 * The nodes without a junction are eliminated once (Schur complement). The reference node has 0 V; every other must have
 * some path to it.
 */
export class Turning {
  readonly #network: TurningNetwork;
  readonly #nodes: ReadonlyMap<string, number>;
  /** How many of the nodes, the first after the reference, have junctions. */
  readonly #bent: number;
  readonly #laws: readonly JunctionAt[];
  readonly #ohms: Float64Array;
  readonly #coilOhms: Float64Array;

  constructor(network: TurningNetwork, reference: string, celsius: Celsius) {
    const nodes = new Map<string, number>([[reference, 0]]);
    const at = (name: string) => nodes.get(name) ?? nodes.set(name, nodes.size).size - 1;
    for (const { anode, cathode } of network.junctions) [anode, cathode].forEach(at);
    this.#bent = nodes.size - 1;
    for (const { a, b } of [...network.resistors, ...network.coils]) [a, b].forEach(at);
    for (const { plus, minus } of network.emfs ?? []) [plus, minus].forEach(at);
    const warm = (ohms: number, perKelvin: number) => ohms * (1 + perKelvin * (celsius.windings - 20));
    this.#network = network;
    this.#nodes = nodes;
    this.#laws = network.junctions.map(({ law }) => junctionAt(law, celsius.diodes));
    this.#ohms = Float64Array.from(network.resistors, (r) => warm(r.ohms, perKelvinOf(r)));
    this.#coilOhms = Float64Array.from(network.coils, ({ ohms }) => warm(ohms, copperPerKelvin));
  }

  /** One period of the steady state. */
  steady({
    electricalHertz,
    draws = [],
    stepsPerPeriod = usualSteps,
    settledShare = usualSettledShare,
    from,
  }: Running): Period {
    const stepping = new Stepping(this.#laid(), 1 / (electricalHertz * stepsPerPeriod), stepsPerPeriod, settledShare);
    for (const { from, to, amps } of draws) stepping.draw(this.#node(from), this.#node(to), amps);
    if (from) stepping.begin(from);
    let periods = 0;
    do stepping.period();
    while (++periods < mostPeriods && !stepping.settled);
    const { steps, size } = { steps: stepsPerPeriod, size: this.#nodes.size };
    const record = stepping.record;
    const volts = (node: string): Float64Array => {
      const n = this.#node(node);
      return Float64Array.from({ length: steps }, (_, k) => record[k * size + n]!);
    };
    const amps = (resistor: string): Float64Array => {
      const r = this.#network.resistors.findIndex(({ name }) => name === resistor);
      if (r < 0) throw new Error(`no resistor “${resistor}” in this network`);
      const [a, b] = [volts(this.#network.resistors[r]!.a), volts(this.#network.resistors[r]!.b)];
      return a.map((at, k) => (at - b[k]!) / this.#ohms[r]!);
    };
    return { electricalHertz, volts, amps, periods, settled: stepping.end };
  }

  #node(name: string): number {
    const node = this.#nodes.get(name);
    if (node === undefined)
      throw new Error(`no node “${name}” in this network: it has ${[...this.#nodes.keys()].join(', ')}`);
    return node;
  }

  /** The network by numbers. */
  #laid(): Laid {
    const { resistors, junctions, coils, couplings = [], emfs = [], damping } = this.#network;
    // Beside what the damper carries, its coils keep this much.
    const kept = damping?.share ?? 1;
    const at = (name: string) => this.#node(name);
    const coil = (name: string) => coils.findIndex((one) => one.name === name);
    const henries = coils.map((_, p) => coils.map((_, q) => (p === q ? kept * coils[p]!.henries : 0)));
    for (const {
      coils: [p, q],
      henries: shared,
    } of couplings) {
      henries[coil(p)]![coil(q)] = kept * shared;
      henries[coil(q)]![coil(p)] = kept * shared;
    }
    return {
      size: this.#nodes.size,
      bent: this.#bent,
      resistors: resistors.map(({ a, b }, r) => ({ a: at(a), b: at(b), ohms: this.#ohms[r]! })),
      emfs: emfs.map(({ plus, minus, volts, ohms }) => ({ plus: at(plus), minus: at(minus), volts, ohms })),
      junctions: junctions.map(({ anode, cathode }, j) => ({
        anode: at(anode),
        cathode: at(cathode),
        law: this.#laws[j]!,
      })),
      coils: coils.map((coil, c) => ({ ...coil, a: at(coil.a), b: at(coil.b), ohms: this.#coilOhms[c]! })),
      henries,
      damping,
    };
  }
}

export interface Celsius {
  readonly windings: number;
  readonly diodes: number;
}
