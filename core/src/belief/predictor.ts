import type { Check, RunSetup } from '../checks/index.ts';
import { Circuit, networkBetween } from '../circuit/index.ts';
import { measure, type Multimeter, type Setup } from '../instruments/index.ts';
import { type Build, type Fault, kinOf, type RunningFault, type Subject, timesWider } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import { type Dimensions, mostFaults, sigmasOf } from './dimensions.ts';
import { type Circumstances, expectedByCircuit, mayBend } from './expected-by-circuit.ts';
import { expectedByRule } from './expected-by-rule.ts';
import { expectedByRun, runTogether } from './expected-by-run.ts';
import { batchFocusCodes, batchFocusOf, type Focus, focusCodes, focusOf, wholeCell } from './focus.ts';
import { codeWithFault, faultOfCode, type Particle } from './hypotheses.ts';
import type { Batch, FaultAt, NumberPrediction, Prediction } from './prediction.ts';
import type { Key, Memory, Remembered } from './memory.ts';

/** The circumstances of a reading. */
export interface Conditions {
  readonly meter: Multimeter;
  /** Of the part measured. */
  readonly celsius: number;
}

/** Where faults and uncertainties go when equal phases change places. */
interface Relabelling {
  readonly faults: Int32Array;
  /** From the new name of an uncertainty back to the old. */
  readonly back: Int32Array;
}

/** The equivalent check that stands for all of its kind, and the relabellings that lead there. */
interface Stand {
  readonly check: Check;
  readonly relabellings: readonly Relabelling[];
}

/** One check on one build: its circuit, cut down to what the check can feel, and all that was worked out for it. */
interface Bench {
  readonly on: Circumstances | undefined;
  /** What bends its readings most, where something does. */
  readonly bentBy: Omit<Batch, 'focus'> | undefined;
  readonly batches: WeakMap<Gaussian, Focus>;
  readonly feels: readonly boolean[];
  readonly known: Remembered;
}

/** A fault that a check feels: which of a particle's it is, its code and where its severity lies. */
interface Felt {
  readonly slot: number;
  readonly code: number;
  readonly focus: Focus;
}

/** One number for a fault at a focus; none is 0. */
const placeOf = ({ code, focus }: Felt): number => 1 + code * focusCodes + focus.code;
const nothingFelt: readonly Felt[] = [];

const placeCodes = 2 ** 21;
const slotCodes = mostFaults ** 2;
/**
 * A name for the felt faults of a particle: a number, which is quicker, as long as one can hold them. `slots`: which of the
 * particle's they are, where it matters that their severities find their places.
 */
function keyOf(felt: readonly Felt[], batch: Focus, slots = 0): Key {
  if (felt.length > 2) return [...felt.map(placeOf), slots, batch.code].join(' ');
  const places = felt.reduce((key, one) => key * placeCodes + placeOf(one), 0);
  return (places * slotCodes + slots) * batchFocusCodes + batch.code;
}

/** One number for which of a particle's faults are felt; 0 where they are its first ones. */
const slotsOf = (felt: readonly Felt[]): number => felt.reduce((code, { slot }, n) => code * mostFaults + slot - n, 0);

/** The same, felt faults' severities where the particle has them. */
function inSlots(prediction: NumberPrediction, felt: readonly Felt[], severity: readonly number[]): NumberPrediction {
  if (felt.every(({ slot }, n) => slot === n)) return prediction;
  const { index, value } = prediction.slope;
  const moved = (i: number) => (severity.includes(i) ? severity[felt[severity.indexOf(i)]!.slot]! : i);
  return { ...prediction, slope: { index: index.map(moved), value } };
}

/**
 * Predicts readings of one machine under given conditions, on demand, and remembers them. One calculation serves
 * every place that a relabelling of equal phases turns into another.
 */
export class Predictor {
  readonly #subject: Subject;
  readonly #faults: readonly Fault[];
  readonly #dimensions: Dimensions;
  readonly #conditions: Conditions;
  readonly #memory: Memory;
  readonly #checks: ReadonlyMap<string, Check>;
  readonly #relabellings: readonly Relabelling[];
  readonly #stands = new Map<string, Stand>();
  readonly #benches = new Map<Check, Map<string, Bench>>();

  constructor(subject: Subject, dimensions: Dimensions, conditions: Conditions, memory: Memory) {
    const { faults, checks, symmetries } = subject;
    this.#subject = subject;
    this.#faults = faults;
    this.#checks = new Map(checks.map((check) => [check.id, check]));
    this.#dimensions = dimensions;
    this.#conditions = conditions;
    this.#memory = memory;
    const faultIndex = new Map(faults.map((fault, i) => [fault.id, i]));
    this.#relabellings = symmetries.map((map) => {
      const back = new Int32Array(dimensions.names.length);
      dimensions.names.forEach((name, i) => (back[dimensions.index.get(relabel(name, map))!] = i));
      return { faults: Int32Array.from(faults, (fault) => faultIndex.get(relabel(fault.id, map))!), back };
    });
  }

  /**
   * What the check would give if the particle were true, its severities where the state has them (over their whole
   * cells without one). Equal predictions asked for one after another are one object.
   */
  predict(check: Check, build: Build, particle: Particle, state?: Gaussian): Prediction {
    const bench = this.#bench(check, build);
    const felt = this.#feltOf(bench, particle, state);
    const batch = state && bench.bentBy ? this.#batchOf(bench, state) : wholeCell;
    const key = felt === nothingFelt && batch === wholeCell ? 0 : keyOf(felt, batch, slotsOf(felt));
    return bench.known.get(key, () => {
      if (bench.on) return this.#byCircuit(check, build, particle, felt, batch);
      return check.method.kind === 'run'
        ? this.#byRun(check, build, particle, felt)
        : this.#byRule(check, particle, felt);
    });
  }

  /** Which faults can move this check's result at all. */
  feels(check: Check, build: Build): readonly boolean[] {
    return this.#bench(check, build).feels;
  }

  #faultsAt({ severities, cellSigmas }: Particle, felt: readonly Felt[]): FaultAt[] {
    return felt.map(({ slot, code, focus }) => {
      const sigma = cellSigmas[slot]!;
      const severity = severities[slot]! * Math.exp(focus.at * sigma);
      return { fault: this.#faults[faultOfCode(code)]!, severity, sigma, focus };
    });
  }

  #byRule(check: Check, particle: Particle, felt: readonly Felt[]): Prediction {
    return expectedByRule(check, this.#faultsAt(particle, felt), this.#conditions.meter, this.#dimensions);
  }

  /** Runs with the faults that are felt; where a run costs something, several are put together from one and one. */
  #byRun(check: Check, build: Build, particle: Particle, felt: readonly Felt[]): NumberPrediction {
    const { setup } = check.method as { setup: RunSetup };
    const { meter } = this.#conditions;
    const run = (faults: readonly RunningFault[]) => this.#subject.run!(build, setup, faults);
    const { known } = this.#bench(check, build);
    const together = (some: readonly Felt[]) =>
      expectedByRun(check, this.#faultsAt(particle, some), run, meter, this.#dimensions, timesWider(build, 'flux'));
    const { severity } = this.#dimensions;
    const at = (some: readonly Felt[]) => {
      const there = known.get(keyOf(some, wholeCell), () => together(some)) as NumberPrediction;
      return inSlots(there, some, severity);
    };
    if (felt.length < 2 || this.#subject.runsPairs) return at(felt);
    return runTogether(
      at([]),
      felt.map((one) => at([one])),
      severity,
    );
  }

  #feltOf({ feels }: Bench, { faults, codes, cellSigmas }: Particle, state: Gaussian | undefined): readonly Felt[] {
    if (!faults.some((fault) => feels[fault])) return nothingFelt;
    const felt: Felt[] = [];
    faults.forEach((fault, slot) => {
      if (!feels[fault]) return;
      const spread = state !== undefined && cellSigmas[slot]! > 0;
      const focus = spread ? focusOf(state, this.#dimensions.severity[slot]!) : wholeCell;
      felt.push({ slot, code: codes[slot]!, focus });
    });
    return felt;
  }

  /** Where a bent reading finds the batch; worked out once for each state, which many particles share. */
  #batchOf({ on, bentBy, batches }: Bench, state: Gaussian): Focus {
    let focus = batches.get(state);
    if (!focus) {
      const { dimension } = bentBy!;
      batches.set(state, (focus = batchFocusOf(state, dimension, on!.sigmas[dimension]!)));
    }
    return focus;
  }

  /** Works the prediction out where its whole kind is worked out, and carries it back. */
  #byCircuit(check: Check, build: Build, particle: Particle, felt: readonly Felt[], batch: Focus): Prediction {
    const stand = this.#standOf(check);
    const { relabelling, moved } = lowest(stand.relabellings, felt);
    const { known, on, bentBy } = this.#bench(stand.check, build);
    const there = known.get(keyOf(moved, batch), () => {
      const circumstances = { ...on!, batch: batch === wholeCell ? undefined : { ...bentBy!, focus: batch } };
      const likened = moved.length > 1 ? this.#oneByOne(stand.check, known, circumstances, moved, particle) : [];
      return expectedByCircuit(stand.check, this.#faultsAt(particle, moved), circumstances, likened);
    });
    if (there.kind !== 'number') return there;
    const { severity } = this.#dimensions;
    const index = there.slope.index.map((i) =>
      i < severity[0]! ? relabelling.back[i]! : severity[moved[i - severity[0]!]!.slot]!,
    );
    return { ...there, slope: { index, value: there.slope.value } };
  }

  /** What each fault alone would give: several bend a reading much as the one of them does that it is nearer to. */
  #oneByOne(
    check: Check,
    known: Remembered,
    circumstances: Circumstances,
    moved: readonly Felt[],
    particle: Particle,
  ): NumberPrediction[] {
    return moved.flatMap((one) => {
      const alone = known.get(keyOf([one], circumstances.batch?.focus ?? wholeCell), () =>
        expectedByCircuit(check, this.#faultsAt(particle, [one]), circumstances),
      );
      return alone.kind === 'number' ? [alone] : [];
    });
  }

  #standOf(check: Check): Stand {
    let stand = this.#stands.get(check.id);
    if (!stand) {
      const moved = this.#subject.symmetries.flatMap((map, s) => {
        const there = this.#checks.get(relabel(check.id, map));
        return there && samePlaces(check, there, map) ? [{ there, s }] : [];
      });
      const first = moved.map(({ there }) => there).sort((a, b) => (a.id < b.id ? -1 : 1))[0]!;
      const relabellings = moved.filter(({ there }) => there === first).map(({ s }) => this.#relabellings[s]!);
      this.#stands.set(check.id, (stand = { check: first, relabellings }));
    }
    return stand;
  }

  #bench(check: Check, build: Build): Bench {
    let row = this.#benches.get(check);
    if (!row) this.#benches.set(check, (row = new Map()));
    const like = bends(check) ? build.id : kinOf(build);
    let bench = row.get(like);
    if (!bench) row.set(like, (bench = this.#makeBench(check, build)));
    return bench;
  }

  #makeBench(check: Check, build: Build): Bench {
    const { method } = check;
    const known = this.#memory.open();
    const sigmas = sigmasOf(this.#dimensions, this.#subject.nuisances(build));
    const batches = new WeakMap<Gaussian, Focus>();
    if (method.kind === 'run') {
      const feels = this.#faults.map((fault) => fault.edits(fault.severity.grades[0]!).length > 0);
      return { on: undefined, bentBy: undefined, batches, feels, known };
    }
    if (method.kind !== 'meter') {
      return { on: undefined, bentBy: undefined, batches, feels: this.#feelsByRule(check), known };
    }
    const { meter } = this.#conditions;
    const circuit = this.#circuitFor(check, build, method.setup);
    const feels = this.#faults.map((fault) => circuit.touchedBy(fault.edits(fault.severity.grades[0]!)));
    const { point } = measure(circuit, circuit.sound, method.setup, meter);
    const on = { circuit, meter, dimensions: this.#dimensions, sigmas, start: point.junctionVolts };
    return { on, bentBy: this.#bentBy(method.setup, circuit), batches, feels, known };
  }

  /** Reversed junctions bend ohms most, and forward readings soon tell what the batch of them shares. */
  #bentBy(setup: Setup, circuit: Circuit): Omit<Batch, 'focus'> | undefined {
    if (setup.function !== 'ohms' || !mayBend(setup)) return undefined;
    const kind = circuit.kinds.find(({ shared, junctions }) => shared !== undefined && junctions.length > 0);
    return kind && { kind, dimension: this.#dimensions.index.get(kind.shared!)! };
  }

  /** A rule feels a fault that changes what it expects. */
  #feelsByRule(check: Check): boolean[] {
    const expected = (faults: readonly FaultAt[]) =>
      JSON.stringify(expectedByRule(check, faults, this.#conditions.meter, this.#dimensions));
    const sound = expected([]);
    return this.#faults.map((fault) => {
      return fault.severity.grades.some(
        (severity) => expected([{ fault, severity, sigma: 0, focus: wholeCell }]) !== sound,
      );
    });
  }

  #circuitFor(check: Check, build: Build, { red, black, feed }: Setup): Circuit {
    const whole = this.#subject.network(build, check.assembly);
    const terminals: [string, string][] = [[red, black]];
    if (feed) terminals.push([feed.plus, feed.minus]);
    return new Circuit(networkBetween(whole, terminals), this.#conditions.celsius);
  }
}

/** Readings without a bend are the same however widely a unit is strewn. */
const bends = ({ method }: Check): boolean =>
  method.kind === 'run' || (method.kind === 'meter' && mayBend(method.setup));

/** The relabelling under which the felt faults get the lowest key, faults in ascending order. */
function lowest(
  relabellings: readonly Relabelling[],
  felt: readonly Felt[],
): { relabelling: Relabelling; moved: readonly Felt[] } {
  let best: { relabelling: Relabelling; moved: Felt[]; key: Key } | undefined;
  for (const relabelling of relabellings) {
    const moved = felt.map((one): Felt => {
      return { ...one, code: codeWithFault(one.code, relabelling.faults[faultOfCode(one.code)]!) };
    });
    moved.sort((a, b) => a.code - b.code);
    const key = keyOf(moved, wholeCell);
    if (!best || key < best.key) best = { relabelling, moved, key };
  }
  return best!;
}

/** A name `species:place` with the letters of its place exchanged. */
function relabel(name: string, map: Readonly<Record<string, string>>): string {
  const colon = name.indexOf(':');
  if (colon < 0) return name;
  return name.slice(0, colon + 1) + [...name.slice(colon + 1)].map((letter) => map[letter] ?? letter).join('');
}

/** Whether a check's probes, relabelled, are those of the other check. */
function samePlaces(from: Check, to: Check, map: Readonly<Record<string, string>>): boolean {
  if (from.method.kind !== 'meter' || to.method.kind !== 'meter') return false;
  const places = ({ red, black, feed }: Setup) => [red, black, feed?.plus ?? '', feed?.minus ?? ''];
  const wanted = places(to.method.setup);
  return places(from.method.setup).every((node, i) => relabel(node, map) === wanted[i]);
}
