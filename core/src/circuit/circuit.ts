import {
  type JunctionAt,
  junctionAt,
  junctionCurrent,
  junctionPerKelvin,
  leastConductance,
  limitStep,
} from './junction.ts';
import { type Edit, type Network, perKelvinOf } from './network.ts';

/** Voltage behind a resistance, put between two nodes: a meter's source, a bench supply, a tester. */
export interface Source {
  readonly plus: number;
  readonly minus: number;
  readonly volts: number;
  readonly ohms: number;
}

/** Element values of one machine state: what a fault edits and a temperature scales. */
export interface ElementValues {
  readonly ohms: Float64Array;
  readonly closed: Uint8Array;
  /** Of each EMF, V. */
  readonly volts: Float64Array;
  /** Of each resistance, the share that follows the machine's spreads: none of what a fault has set or added. */
  readonly spreadShare: Float64Array;
  /** Of each junction, its saturation current over that of its law. */
  readonly saturation: Float64Array;
}

/** A DC operating point. Arrays belong to the caller. */
export interface OperatingPoint {
  readonly nodeVolts: Float64Array;
  /** Voltages across the bare junctions, the state to start a neighbouring problem from. */
  readonly junctionVolts: Float64Array;
  readonly iterations: number;
}

const mostIterations = 200;
const undampedIterations = 40;
/** V; Newton's method squares its error: what is left after so small a move is some 1e-11. */
const undamped = { share: 1, settled: 1e-6 } as const;
/**
 * Newton's steps that go round in a circle come to rest when only half of each is taken. What then still trembles is
 * a node that hangs on leaks alone beside amperes: some nV of rounding.
 */
const damped = { share: 0.5, settled: 1e-7 } as const;

/**
 * A network laid out for solving: nodal analysis with Newton's method for the junctions.
 *
 * The nodal matrix is kept as off-diagonal conductances and eliminated star to mesh (Grassmann, Taksar and
 * Heyman 1985): nothing is ever subtracted, so joints of 1000 S and leaks of 1e-11 S live side by side.
 * Node 0 is the reference. Every node must have some path to it, however weak.
 */
export class Circuit {
  readonly nodes: readonly string[];
  readonly resistorNames: readonly string[];
  readonly junctionNames: readonly string[];
  readonly celsius: number;
  readonly sound: ElementValues;
  readonly resistorEnds: Int32Array;
  readonly junctionEnds: Int32Array;
  readonly emfs: readonly Source[];
  /** The uncertain quantities, each with the elements that follow it. */
  readonly spreads: readonly Spread[];
  /** The same by kind: what a batch shares and what its members have of their own move the same elements. */
  readonly kinds: readonly SpreadKind[];
  readonly #laws: readonly JunctionAt[];
  readonly #perKelvin: Float64Array;
  readonly #nodes: ReadonlyMap<string, number>;
  readonly #index: ReadonlyMap<string, number>;
  readonly #emfNames: ReadonlySet<string>;
  readonly #size: number;
  readonly #matrix: Float64Array;
  readonly #sums: Float64Array;
  readonly #injected: Float64Array;
  readonly #small = new Float64Array(2);
  /** Of the junctions as assembled: current and conductance. */
  readonly #junctionAmps: Float64Array;
  readonly #junctionSiemens: Float64Array;

  constructor(network: Network, celsius: number) {
    const nodes = new Map<string, number>();
    const at = (name: string) => nodes.get(name) ?? nodes.set(name, nodes.size).size - 1;
    this.celsius = celsius;
    this.resistorEnds = Int32Array.from(network.resistors.flatMap((r) => [at(r.a), at(r.b)]));
    this.junctionEnds = Int32Array.from(network.junctions.flatMap((j) => [at(j.anode), at(j.cathode)]));
    const emfs = network.emfs ?? [];
    this.emfs = emfs.map(({ plus, minus, volts, ohms }) => ({ plus: at(plus), minus: at(minus), volts, ohms }));
    this.#nodes = nodes;
    this.nodes = [...nodes.keys()];
    this.resistorNames = network.resistors.map((r) => r.name);
    this.junctionNames = network.junctions.map((j) => j.name);
    this.spreads = spreadsOf(network);
    this.kinds = kindsOf(this.spreads);
    this.#laws = network.junctions.map((j) => junctionAt(j.law, celsius));
    this.#perKelvin = Float64Array.from(network.resistors, perKelvinOf);
    this.sound = {
      ohms: Float64Array.from(network.resistors, (r) => r.ohms * (1 + perKelvinOf(r) * (celsius - 20))),
      closed: new Uint8Array(network.junctions.length).fill(1),
      volts: Float64Array.from(emfs, (emf) => emf.volts),
      spreadShare: new Float64Array(network.resistors.length).fill(1),
      saturation: new Float64Array(network.junctions.length).fill(1),
    };
    const names = [this.resistorNames, this.junctionNames, emfs.map((emf) => emf.name)];
    this.#index = new Map(names.flatMap((all) => all.map((name, i): [string, number] => [name, i])));
    this.#emfNames = new Set(names[2]);
    this.#size = this.nodes.length;
    this.#matrix = new Float64Array(this.#size * this.#size);
    this.#sums = new Float64Array(this.#size);
    this.#injected = new Float64Array(this.#size);
    this.#junctionAmps = new Float64Array(this.#laws.length);
    this.#junctionSiemens = new Float64Array(this.#laws.length);
  }

  /** The index of a named node; a name the network lacks is a mistake in the machine's model. */
  node(name: string): number {
    const index = this.#nodes.get(name);
    if (index === undefined) throw new Error(`circuit has no node “${name}”: it has ${this.nodes.join(', ')}`);
    return index;
  }

  /** Sound values with faults put in; edits to elements that this state of assembly lacks do nothing. */
  withEdits(edits: readonly Edit[]): ElementValues {
    if (edits.length === 0) return this.sound;
    const ohms = new Float64Array(this.sound.ohms);
    const closed = new Uint8Array(this.sound.closed);
    const volts = new Float64Array(this.sound.volts);
    const spreadShare = new Float64Array(this.sound.spreadShare);
    for (const edit of edits) {
      const index = this.#index.get(edit.element);
      if (index === undefined) continue;
      if (this.#emfNames.has(edit.element)) volts[index] = editedVolts(volts[index]!, edit);
      else if ('open' in edit) closed[index] = 0;
      else if ('set' in edit) {
        ohms[index] = edit.set;
        spreadShare[index] = 0;
      } else if ('add' in edit) {
        spreadShare[index]! *= ohms[index]! / (ohms[index]! + edit.add);
        ohms[index]! += edit.add;
      } else ohms[index]! *= edit.scale;
    }
    return { ...this.sound, ohms, closed, volts, spreadShare };
  }

  /**
   * The same machine with uncertain quantities off by `amount`: resistances by that much in ln(ohms), EMFs and the
   * forward volts of junctions (by way of their saturation current) by so many volts.
   */
  swayed(values: ElementValues, { resistors, junctions, emfs }: Followers, amount: number): ElementValues {
    const ohms = new Float64Array(values.ohms);
    const volts = new Float64Array(values.volts);
    const saturation = new Float64Array(values.saturation);
    for (const e of resistors) ohms[e]! *= Math.exp(amount * values.spreadShare[e]!);
    for (const j of junctions) saturation[j]! *= Math.exp(-amount / this.#laws[j]!.slopeVolts);
    for (const e of emfs) volts[e]! += amount;
    return { ...values, ohms, volts, saturation };
  }

  /** Whether this circuit has any of the edited elements. */
  touchedBy(edits: readonly Edit[]): boolean {
    return edits.some((edit) => this.#index.has(edit.element));
  }

  /** Node voltages for the given element values and sources, from an optional neighbouring state. */
  operatingPoint(values: ElementValues, sources: readonly Source[], start?: Float64Array): OperatingPoint {
    const junctionVolts = start ? new Float64Array(start) : new Float64Array(this.#laws.length);
    const nodeVolts = new Float64Array(this.#size);
    for (let iteration = 1; iteration <= mostIterations; iteration++) {
      this.#assemble(values, sources, junctionVolts);
      this.#eliminate();
      this.#substitute(this.#injected, nodeVolts);
      const { share, settled } = iteration > undampedIterations ? damped : undamped;
      if (this.#advance(values, nodeVolts, junctionVolts, share) < settled) {
        return { nodeVolts, junctionVolts, iterations: iteration };
      }
    }
    throw new Error(`no operating point after ${mostIterations} steps at ${this.celsius} °C`);
  }

  /** Node voltages (V/A) for one ampere pushed in at `plus` and drawn at `minus` of the circuit solved last. */
  response(plus: number, minus: number): Float64Array {
    const injected = new Float64Array(this.#size);
    injected[plus]! += 1;
    injected[minus]! -= 1;
    this.#carry(injected);
    return this.#substitute(injected, new Float64Array(this.#size));
  }

  /** Current change of each element at fixed voltage, projected on a response: what moves a reading, and how far. */
  sensitivity(values: ElementValues, point: OperatingPoint, response: Float64Array): Sensitivity {
    const perRelativeOhm = new Float64Array(values.ohms.length);
    let perKelvin = 0;
    for (let e = 0; e < perRelativeOhm.length; e++) {
      const a = this.resistorEnds[2 * e]!;
      const b = this.resistorEnds[2 * e + 1]!;
      const across = point.nodeVolts[a]! - point.nodeVolts[b]!;
      perRelativeOhm[e] = ((response[a]! - response[b]!) * across) / values.ohms[e]!;
      const slope = this.#perKelvin[e]!;
      if (slope !== 0) perKelvin += (perRelativeOhm[e]! * slope) / (1 + slope * (this.celsius - 20));
    }
    const perShiftVolt = new Float64Array(this.#laws.length);
    for (let j = 0; j < perShiftVolt.length; j++) {
      if (!values.closed[j]) continue;
      const law = this.#laws[j]!;
      const across = response[this.junctionEnds[2 * j]!]! - response[this.junctionEnds[2 * j + 1]!]!;
      const volts = point.junctionVolts[j]!;
      junctionCurrent(law, values.saturation[j]!, volts, this.#small);
      const behind = 1 + this.#small[1]! * law.seriesOhms;
      // A junction of more forward volts is one of less saturation current: reversed, it lets less through as well.
      perShiftVolt[j] = (across * (this.#small[0]! - leastConductance * volts)) / law.slopeVolts / behind;
      perKelvin -= (across * values.saturation[j]! * junctionPerKelvin(law, volts)) / behind;
    }
    const perEmfVolt = Float64Array.from(this.emfs, (e) => (response[e.plus]! - response[e.minus]!) / e.ohms);
    return { perRelativeOhm, perShiftVolt, perEmfVolt, perKelvin };
  }

  #couple(a: number, b: number, siemens: number, amps: number): void {
    const n = this.#size;
    this.#matrix[a * n + b]! += siemens;
    this.#matrix[b * n + a]! += siemens;
    this.#injected[a]! -= amps;
    this.#injected[b]! += amps;
  }

  #assemble(values: ElementValues, sources: readonly Source[], junctionVolts: Float64Array): void {
    this.#matrix.fill(0);
    this.#injected.fill(0);
    const { ohms, closed } = values;
    for (let e = 0; e < ohms.length; e++) {
      this.#couple(this.resistorEnds[2 * e]!, this.resistorEnds[2 * e + 1]!, 1 / ohms[e]!, 0);
    }
    for (const s of sources) this.#couple(s.plus, s.minus, 1 / s.ohms, -s.volts / s.ohms);
    this.emfs.forEach((e, i) => this.#couple(e.plus, e.minus, 1 / e.ohms, -values.volts[i]! / e.ohms));
    for (let j = 0; j < closed.length; j++) {
      if (!closed[j]) continue;
      const law = this.#laws[j]!;
      const volts = junctionVolts[j]!;
      junctionCurrent(law, values.saturation[j]!, volts, this.#small);
      const siemens = this.#small[1]!;
      this.#junctionAmps[j] = this.#small[0]!;
      this.#junctionSiemens[j] = siemens;
      const behind = 1 + siemens * law.seriesOhms;
      const amps = (this.#small[0]! - siemens * volts) / behind;
      this.#couple(this.junctionEnds[2 * j]!, this.junctionEnds[2 * j + 1]!, siemens / behind, amps);
    }
  }

  #eliminate(): void {
    const n = this.#size;
    const m = this.#matrix;
    for (let k = n - 1; k > 0; k--) {
      const row = k * n;
      let sum = 0;
      for (let j = 0; j < k; j++) sum += m[row + j]!;
      this.#sums[k] = sum;
      for (let i = 1; i < k; i++) {
        const share = m[row + i]! / sum;
        if (share === 0) continue;
        for (let j = 0; j < i; j++) {
          const mesh = share * m[row + j]!;
          m[i * n + j]! += mesh;
          m[j * n + i]! += mesh;
        }
      }
    }
    this.#carry(this.#injected);
  }

  #carry(injected: Float64Array): void {
    const n = this.#size;
    for (let k = n - 1; k > 0; k--) {
      const amps = injected[k]! / this.#sums[k]!;
      if (amps === 0) continue;
      for (let i = 0; i < k; i++) injected[i]! += amps * this.#matrix[k * n + i]!;
    }
  }

  #substitute(injected: Float64Array, volts: Float64Array): Float64Array {
    const n = this.#size;
    for (let k = 1; k < n; k++) {
      let amps = injected[k]!;
      for (let j = 1; j < k; j++) amps += this.#matrix[k * n + j]! * volts[j]!;
      volts[k] = amps / this.#sums[k]!;
    }
    return volts;
  }

  /** Moves the junction voltages by a share of the way to the new solution; answers the largest move. */
  #advance(values: ElementValues, nodeVolts: Float64Array, junctionVolts: Float64Array, share: number): number {
    let largest = 0;
    for (let j = 0; j < junctionVolts.length; j++) {
      if (!values.closed[j]) continue;
      const law = this.#laws[j]!;
      const last = junctionVolts[j]!;
      const siemens = this.#junctionSiemens[j]!;
      const across = nodeVolts[this.junctionEnds[2 * j]!]! - nodeVolts[this.junctionEnds[2 * j + 1]!]!;
      const amps = (this.#junctionAmps[j]! + siemens * (across - last)) / (1 + siemens * law.seriesOhms);
      const next = last + share * (limitStep(law, across - amps * law.seriesOhms, last) - last);
      largest = Math.max(largest, Math.abs(next - last));
      junctionVolts[j] = next;
    }
    return largest;
  }
}

function editedVolts(volts: number, edit: Edit): number {
  if ('set' in edit) return edit.set;
  if ('add' in edit) return volts + edit.add;
  return 'scale' in edit ? volts * edit.scale : volts;
}

/** The indices of what an uncertain quantity scales (resistors) or shifts (junctions, EMFs). */
interface Followers {
  readonly resistors: readonly number[];
  readonly junctions: readonly number[];
  readonly emfs: readonly number[];
}

export interface Spread extends Followers {
  readonly name: string;
}

export interface SpreadKind extends Followers {
  readonly name: string;
  /** What the batch shares, where it does. */
  readonly shared: string | undefined;
  /** What each member has of its own: `kind:place`. */
  readonly own: readonly string[];
}

function spreadsOf(network: Network): Spread[] {
  const emfs = network.emfs ?? [];
  const names = new Set(
    [...network.resistors, ...network.junctions, ...emfs].flatMap((element) => element.spread ?? []),
  );
  const following = (elements: readonly { spread?: readonly string[] }[], name: string) =>
    elements.flatMap((element, i) => (element.spread?.includes(name) ? [i] : []));
  return [...names].map((name) => ({
    name,
    resistors: following(network.resistors, name),
    junctions: following(network.junctions, name),
    emfs: following(emfs, name),
  }));
}

function kindsOf(spreads: readonly Spread[]): SpreadKind[] {
  const kindOf = ({ name }: Spread): string => name.split(':')[0]!;
  return [...new Set(spreads.map(kindOf))].map((kind) => {
    const of = spreads.filter((spread) => kindOf(spread) === kind);
    const all = (list: keyof Followers) => [...new Set(of.flatMap((spread) => spread[list]))];
    return {
      name: kind,
      shared: of.find(({ name }) => name === kind)?.name,
      own: of.map(({ name }) => name).filter((name) => name !== kind),
      resistors: all('resistors'),
      junctions: all('junctions'),
      emfs: all('emfs'),
    };
  });
}

/** How far one reading (V) moves: per relative change of each resistance, per volt of each junction's shift and of each EMF, per kelvin. */
export interface Sensitivity {
  readonly perRelativeOhm: Float64Array;
  readonly perShiftVolt: Float64Array;
  readonly perEmfVolt: Float64Array;
  readonly perKelvin: number;
}
