import type { Source } from './circuit.ts';
import { Damper, type Damping } from './damper.ts';
import { type JunctionAt, junctionCurrent, limitStep } from './junction.ts';

/**
 * Weight of a step's end against its beginning (the θ-method): between the trapezium's ringing (0.5), where a diode cuts
 * a winding off, and Euler's damping (1). With 180 steps a period this one lies within 1 % of the mean and 3 % of the
 * ripple, see the test against ngspice.
 */
const weight = 0.7;
/** Coil currents that change by less from one period to the next are steady, whatever their share. */
const settledAmps = 1e-3;
const mostIterations = 60;
/** Newton's method squares its error: after a move of so many volts what is left is some microvolts. */
const newtonVolts = 1e-3;

/** Where a period ends. */
export interface Settled {
  readonly coilAmps: Float64Array;
  readonly coilFluxVolts: Float64Array;
  readonly junctionVolts: Float64Array;
  readonly poleWebers: Float64Array | undefined;
}

/** A turning network by numbers. */
export interface Laid {
  readonly size: number;
  readonly bent: number;
  readonly resistors: readonly { readonly a: number; readonly b: number; readonly ohms: number }[];
  readonly emfs: readonly Source[];
  readonly junctions: readonly { readonly anode: number; readonly cathode: number; readonly law: JunctionAt }[];
  readonly coils: readonly {
    readonly a: number;
    readonly b: number;
    readonly ohms: number;
    /** Synchronous. */
    readonly henries: number;
    readonly emfVolts: number;
    readonly lagRadians: number;
  }[];
  readonly henries: readonly (readonly number[])[];
  readonly damping: Damping | undefined;
}

/** A laid-out network while it is stepped through time. */
export class Stepping {
  /** Node volts of the newest period, row by row. */
  readonly record: Float64Array;
  /** Whether the newest period is like the one before. */
  settled = false;
  readonly #laid: Laid;
  readonly #steps: number;
  readonly #settledShare: number;
  /** Amperes pushed into each node by what doesn't change: EMFs and draws. */
  readonly #constant: Float64Array;
  /** Of the coils: conductance of one step, and their inductance over its weighed length. */
  readonly #coilSiemens: Float64Array;
  readonly #henriesPerStep: Float64Array;
  readonly #coilAmps: Float64Array;
  /** Volts that change a coil's flux. */
  readonly #coilFluxVolts: Float64Array;
  readonly #coilDrive: Float64Array;
  readonly #coilRecord: Float64Array;
  readonly #coilSource: Float64Array;
  readonly #coilEmf: Float64Array;
  readonly #damper: Damper | undefined;
  readonly #junctionVolts: Float64Array;
  /** At each step of the period before: where Newton's method begins, once there was one. */
  readonly #junctionRecord: Float64Array;
  #recorded = false;
  /** Of the junctions at these volts: current and conductance. */
  readonly #junctionAmps: Float64Array;
  readonly #junctionSiemens: Float64Array;
  /** What is linear, reduced to the nodes with junctions; and what carries the others back. */
  readonly #reduced: Float64Array;
  readonly #carry: Float64Array;
  readonly #inner: Float64Array;
  readonly #injected: Float64Array;
  readonly #carried: Float64Array;
  readonly #matrix: Float64Array;
  readonly #right: Float64Array;
  readonly #volts: Float64Array;
  readonly #small = new Float64Array(2);

  constructor(laid: Laid, stepSeconds: number, steps: number, settledShare: number) {
    const { size, bent, coils, junctions } = laid;
    const inner = size - 1 - bent;
    const count = coils.length;
    this.#laid = laid;
    this.#steps = steps;
    this.#settledShare = settledShare;
    this.record = new Float64Array(steps * size);
    this.#constant = new Float64Array(size);
    this.#henriesPerStep = Float64Array.from(laid.henries.flat(), (henries) => henries / (weight * stepSeconds));
    this.#coilSiemens = inverse(
      this.#henriesPerStep.map((h, at) => h + (at % (count + 1) === 0 ? coils[at / (count + 1)]!.ohms : 0)),
      count,
    );
    this.#coilAmps = new Float64Array(count);
    this.#coilFluxVolts = new Float64Array(count);
    this.#coilDrive = new Float64Array(count);
    this.#coilRecord = new Float64Array(steps * count);
    this.#coilSource = new Float64Array(count);
    this.#coilEmf = new Float64Array(count);
    this.#damper = laid.damping && new Damper(coils, laid.damping, steps, stepSeconds);
    this.#junctionVolts = new Float64Array(junctions.length);
    this.#junctionRecord = new Float64Array(steps * junctions.length);
    this.#junctionAmps = new Float64Array(junctions.length);
    this.#junctionSiemens = new Float64Array(junctions.length);
    this.#injected = new Float64Array(size);
    this.#volts = new Float64Array(size);
    this.#matrix = new Float64Array(bent * bent);
    this.#right = new Float64Array(bent);
    this.#carried = new Float64Array(bent);
    const whole = this.#linear();
    const block = (rows: number, columns: number, r0: number, c0: number) =>
      Float64Array.from({ length: rows * columns }, (_, at) => {
        return whole[(r0 + Math.floor(at / columns)) * (size - 1) + c0 + (at % columns)]!;
      });
    this.#inner = inverse(block(inner, inner, bent, bent), inner);
    const across = block(inner, bent, bent, 0);
    this.#carry = product(this.#inner, across, inner, inner, bent);
    this.#reduced = block(bent, bent, 0, 0);
    for (let i = 0; i < bent; i++)
      for (let j = 0; j < bent; j++)
        for (let k = 0; k < inner; k++)
          this.#reduced[i * bent + j]! -= across[k * bent + i]! * this.#carry[k * bent + j]!;
    for (const { plus, minus, volts, ohms } of laid.emfs) this.draw(minus, plus, volts / ohms);
  }

  /** A constant current from one node to another, outside the network. */
  draw(from: number, to: number, amps: number): void {
    this.#constant[from]! -= amps;
    this.#constant[to]! += amps;
  }

  /** Of a network of another make nothing can be taken over. */
  begin({ coilAmps, coilFluxVolts, junctionVolts, poleWebers }: Settled): void {
    if (coilAmps.length !== this.#coilAmps.length || junctionVolts.length !== this.#junctionVolts.length) return;
    this.#coilAmps.set(coilAmps);
    this.#coilFluxVolts.set(coilFluxVolts);
    this.#junctionVolts.set(junctionVolts);
    if (poleWebers) this.#damper?.webers.set(poleWebers);
  }
  get end(): Settled {
    return {
      coilAmps: this.#coilAmps,
      coilFluxVolts: this.#coilFluxVolts,
      junctionVolts: this.#junctionVolts,
      poleWebers: this.#damper?.webers,
    };
  }

  /** One period further. */
  period(): void {
    const { size } = this.#laid;
    const count = this.#coilAmps.length;
    let [changed, all] = [0, 0];
    const bends = this.#junctionVolts.length;
    for (let k = 0; k < this.#steps; k++) {
      const before = this.#junctionRecord.subarray(k * bends, (k + 1) * bends);
      if (this.#recorded) this.#junctionVolts.set(before);
      this.#step(k);
      before.set(this.#junctionVolts);
      for (let n = 1; n < size; n++) this.record[k * size + n] = this.#volts[n]!;
      for (let c = 0; c < count; c++) {
        const amps = this.#coilAmps[c]!;
        changed += (amps - this.#coilRecord[k * count + c]!) ** 2;
        all += amps ** 2;
        this.#coilRecord[k * count + c] = amps;
      }
    }
    this.#recorded = true;
    const least = settledAmps ** 2 * this.#steps * count;
    const still = this.#damper?.settle(this.#settledShare) ?? true;
    this.settled = still && changed <= Math.max(this.#settledShare ** 2 * all, least);
  }

  /** Conductances of resistors, EMFs and coils, without the reference. */
  #linear(): Float64Array {
    const { size, resistors, emfs, coils } = this.#laid;
    const n = size - 1;
    const matrix = new Float64Array(n * n);
    const add = (a: number, b: number, siemens: number) => {
      if (a > 0 && b > 0) matrix[(a - 1) * n + b - 1]! += siemens;
    };
    const couple = (a: number, b: number, c: number, d: number, siemens: number) => {
      add(a, c, siemens);
      add(a, d, -siemens);
      add(b, c, -siemens);
      add(b, d, siemens);
    };
    for (const { a, b, ohms } of resistors) couple(a, b, a, b, 1 / ohms);
    for (const { plus, minus, ohms } of emfs) couple(plus, minus, plus, minus, 1 / ohms);
    coils.forEach((p, i) =>
      coils.forEach((q, j) => couple(p.a, p.b, q.a, q.b, this.#coilSiemens[i * coils.length + j]!)),
    );
    return matrix;
  }

  /** From a step to the next. */
  #step(from: number): void {
    this.#damper?.step(from, this.#coilAmps);
    this.#drive((from + 1) % this.#steps);
    this.#solve();
    this.#remember();
  }

  /** What the coils push into the nodes: u − e = R·i + dψ/dt, its ends weighed, turned round. */
  #drive(step: number): void {
    const { coils } = this.#laid;
    const angle = (2 * Math.PI * step) / this.#steps;
    const count = coils.length;
    this.#injected.set(this.#constant);
    for (let p = 0; p < count; p++) {
      const { emfVolts, lagRadians } = coils[p]!;
      this.#coilEmf[p] = this.#damper?.volts(p, step) ?? emfVolts * Math.cos(angle - lagRadians);
      let past = (1 / weight - 1) * this.#coilFluxVolts[p]!;
      for (let q = 0; q < count; q++) past += this.#henriesPerStep[p * count + q]! * this.#coilAmps[q]!;
      this.#coilDrive[p] = past - this.#coilEmf[p]!;
    }
    for (let p = 0; p < count; p++) {
      const { a, b } = coils[p]!;
      let amps = 0;
      for (let q = 0; q < count; q++) amps += this.#coilSiemens[p * count + q]! * this.#coilDrive[q]!;
      this.#coilSource[p] = amps;
      this.#injected[a]! -= amps;
      this.#injected[b]! += amps;
    }
  }

  /** Node volts at this step. */
  #solve(): void {
    const { size, bent, junctions } = this.#laid;
    const inner = size - 1 - bent;
    const small = this.#small;
    for (let i = 0; i < bent; i++) {
      let amps = this.#injected[i + 1]!;
      for (let k = 0; k < inner; k++) amps -= this.#carry[k * bent + i]! * this.#injected[1 + bent + k]!;
      this.#carried[i] = amps;
    }
    for (let iteration = 0; iteration < mostIterations; iteration++) {
      this.#matrix.set(this.#reduced);
      this.#right.set(this.#carried);
      for (let j = 0; j < junctions.length; j++) {
        const { anode, cathode, law } = junctions[j]!;
        const volts = this.#junctionVolts[j]!;
        junctionCurrent(law, 1, volts, small);
        const [amps, siemens] = [small[0]!, small[1]!];
        this.#junctionAmps[j] = amps;
        this.#junctionSiemens[j] = siemens;
        const behind = 1 + siemens * law.seriesOhms;
        this.#add(anode - 1, cathode - 1, siemens / behind, (amps - siemens * volts) / behind);
      }
      solveInPlace(this.#matrix, this.#right, bent);
      for (let i = 0; i < bent; i++) this.#volts[i + 1] = this.#right[i]!;
      if (this.#advance() < newtonVolts) break;
    }
    for (let k = 0; k < inner; k++) {
      let volts = 0;
      for (let l = 0; l < inner; l++) volts += this.#inner[k * inner + l]! * this.#injected[1 + bent + l]!;
      for (let i = 0; i < bent; i++) volts -= this.#carry[k * bent + i]! * this.#volts[i + 1]!;
      this.#volts[1 + bent + k] = volts;
    }
  }

  #add(a: number, b: number, siemens: number, amps: number): void {
    const n = this.#laid.bent;
    if (a >= 0) {
      this.#matrix[a * n + a]! += siemens;
      this.#right[a]! -= amps;
    }
    if (b >= 0) {
      this.#matrix[b * n + b]! += siemens;
      this.#right[b]! += amps;
    }
    if (a >= 0 && b >= 0) {
      this.#matrix[a * n + b]! -= siemens;
      this.#matrix[b * n + a]! -= siemens;
    }
  }

  /** Moves the junctions to the new solution; answers the largest move. */
  #advance(): number {
    const { junctions } = this.#laid;
    let largest = 0;
    for (let j = 0; j < junctions.length; j++) {
      const { anode, cathode, law } = junctions[j]!;
      const last = this.#junctionVolts[j]!;
      const siemens = this.#junctionSiemens[j]!;
      const across = this.#volts[anode]! - this.#volts[cathode]!;
      const amps = (this.#junctionAmps[j]! + siemens * (across - last)) / (1 + siemens * law.seriesOhms);
      const next = limitStep(law, across - amps * law.seriesOhms, last);
      largest = Math.max(largest, Math.abs(next - last));
      this.#junctionVolts[j] = next;
    }
    return largest;
  }

  /** Currents and flux at this step, for the next. */
  #remember(): void {
    const { coils } = this.#laid;
    const count = coils.length;
    for (let p = 0; p < count; p++) this.#coilDrive[p] = this.#volts[coils[p]!.a]! - this.#volts[coils[p]!.b]!;
    for (let p = 0; p < count; p++) {
      let amps = this.#coilSource[p]!;
      for (let q = 0; q < count; q++) amps += this.#coilSiemens[p * count + q]! * this.#coilDrive[q]!;
      this.#coilAmps[p] = amps;
      this.#coilFluxVolts[p] = this.#coilDrive[p]! - this.#coilEmf[p]! - coils[p]!.ohms * amps;
    }
  }
}

/** Solves a symmetric positive definite system in place (Cholesky, LDLᵀ). */
function solveInPlace(matrix: Float64Array, right: Float64Array, n: number): void {
  for (let k = 0; k < n; k++) {
    const pivot = matrix[k * n + k]!;
    for (let i = k + 1; i < n; i++) {
      const share = matrix[i * n + k]! / pivot;
      if (share === 0) continue;
      for (let j = i; j < n; j++) matrix[j * n + i]! -= share * matrix[j * n + k]!;
      right[i]! -= share * right[k]!;
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    let sum = right[k]!;
    for (let i = k + 1; i < n; i++) sum -= matrix[i * n + k]! * right[i]!;
    right[k] = sum / matrix[k * n + k]!;
  }
}

function inverse(matrix: Float64Array, n: number): Float64Array {
  const found = new Float64Array(n * n);
  for (let column = 0; column < n; column++) {
    const right = new Float64Array(n);
    right[column] = 1;
    solveInPlace(new Float64Array(matrix), right, n);
    for (let row = 0; row < n; row++) found[row * n + column] = right[row]!;
  }
  return found;
}

function product(a: Float64Array, b: Float64Array, rows: number, shared: number, columns: number): Float64Array {
  const found = new Float64Array(rows * columns);
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++)
      for (let k = 0; k < shared; k++) found[i * columns + j]! += a[i * shared + k]! * b[k * columns + j]!;
  return found;
}
