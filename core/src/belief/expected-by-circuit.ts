import { type Check, findingsOf } from '../checks/index.ts';
import type { Circuit, Edit, ElementValues, Sensitivity, SpreadKind } from '../circuit/index.ts';
import {
  benchSupply,
  countSigma,
  gainSigma,
  measure,
  type Multimeter,
  type Setup,
  type Shown,
} from '../instruments/index.ts';
import { normalCdf } from '../numeric/index.ts';
import { type Bend, chordOf, normal, straight, sumOf, uniform } from './chord.ts';
import { bendOf, type Dimensions, leadsOf } from './dimensions.ts';
import {
  type Batch,
  type FaultAt,
  kept,
  type KindBend,
  liveVolts,
  type NumberPrediction,
  type Prediction,
} from './prediction.ts';
import { scaleSlope, toScale } from './scale.ts';

/** A test lamp counts as lit above about half its current; the eye is not sharp about it [from memory]. */
const litShare = 0.5;
const litSigma = 0.1;
/**
 * What the model itself is trusted to, as a standard deviation on the comparison scale [from memory]. `junction`: by as
 * much as a reading follows a junction that carries amps, which warms.
 */
const modelSigma = {
  diode: 0.002,
  copper: 0.001,
  junction: 0.01,
  live: 0.04,
  amps: 0.05,
  lowOhms: 0.01,
  highOhms: 0.1,
  insulation: 0.1,
} as const;

/** What a reading is foreseen on. */
export interface Circumstances {
  readonly circuit: Circuit;
  readonly meter: Multimeter;
  readonly dimensions: Dimensions;
  /** Of each dimension, before any reading. */
  readonly sigmas: Float64Array;
  /** Junction volts of a neighbouring state. */
  readonly start: Float64Array | undefined;
  /** A kind of uncertain quantity whose batch is known to lie off the middle. */
  readonly batch?: Batch | undefined;
}

/**
 * Expected reading of an instrument on a circuit with faults. `likened`: what was expected with fewer of them; a bend
 * is taken over from the nearest rather than worked out anew, but under current, where what one fault opens another may
 * no longer bend.
 */
export function expectedByCircuit(
  check: Check,
  faults: readonly FaultAt[],
  circumstances: Circumstances,
  likened: readonly NumberPrediction[] = [],
): Prediction {
  const { circuit, meter, dimensions, sigmas, start, batch } = circumstances;
  const { setup, alike } = check.method as { setup: Setup; alike?: string };
  const off = batch ? batch.focus.at * sigmas[batch.dimension]! : 0;
  const withEdits = (edits: readonly Edit[]): ElementValues =>
    off === 0 ? circuit.withEdits(edits) : circuit.swayed(circuit.withEdits(edits), batch!.kind, off);
  const values = withEdits(faults.flatMap(({ fault, severity }) => fault.edits(severity)));
  const shown = measure(circuit, values, setup, meter, start);
  if (setup.function === 'lamp') {
    const lit = normalCdf((shown.value - litShare) / litSigma);
    return { kind: 'chances', chances: findingsOf(check).map(({ id }) => (id === 'lit' ? lit : 1 - lit)) };
  }
  const dy = scaleSlope(shown.value, check);
  const response = circuit.response(circuit.node(setup.red), circuit.node(setup.black));
  const moves = circuit.sensitivity(values, shown.point, response);
  const slope = unitSlope(circuit, values, moves, dimensions, shown.perVolt * dy);
  const noise = addInstrument(slope, circuit, setup, shown, response, meter, dimensions, dy);
  const chords: Chords = {
    middle: toScale(shown.value, check),
    read: (other) => toScale(measure(circuit, other, setup, meter, shown.point.junctionVolts).value, check),
  };
  const bends = !isBent(setup, shown, meter)
    ? []
    : likened.length > 0 && !isFed(setup)
      ? nearestTo(chords.middle, likened).bends
      : circuit.kinds.map((kind) => bendOverKind(slope, chords, values, kind, circumstances));
  const bend = sumOf(bends);
  const ofSeverity = bendOverSeverity(slope, chords, withEdits, faults, dimensions);
  if (alike) slope[dimensions.index.get(bendOf(alike))!] = Math.sqrt(bend.variance);
  const noiseVariance = noise + (alike ? 0 : bend.variance) + ofSeverity.variance;
  const top = toScale(shown.fullScale, check);
  const span = spanOf(setup, top);
  return {
    kind: 'number',
    mean: chords.middle + bend.shift + ofSeverity.shift - (batch ? slope[batch.dimension]! * off : 0),
    slope: kept(slope, noiseVariance),
    noiseVariance,
    top,
    span,
    bends,
  };
}

/**
 * Megohms are many leaks and junctions side by side, each known to a factor only; under current copper may have a
 * junction beside it, and a junction copper: no straight line describes them.
 */
export const mayBend = (setup: Setup): boolean =>
  setup.function === 'insulation' || isFed(setup) || (setup.function === 'ohms' && setup.held !== 'lowest');

/** Whether the bench sends its current through what is measured. */
const isFed = ({ function: use, feed }: Setup): boolean => use === 'drop' || (use === 'volts' && feed !== undefined);
const isBent = (setup: Setup, { range }: Shown, meter: Multimeter): boolean =>
  mayBend(setup) && range !== meter.ohms[0];

const nearestTo = (middle: number, likened: readonly NumberPrediction[]): NumberPrediction =>
  likened.reduce((a, b) => (Math.abs(b.mean - middle) < Math.abs(a.mean - middle) ? b : a));

/** A chord may be so many times its tangent for what members have of their own. */
const steepest = 5;

/** What chords are drawn through: the reading on the comparison scale, and as it would be with other values. */
interface Chords {
  readonly middle: number;
  readonly read: (values: ElementValues) => number;
}

/** The chord for each standard deviation, and the bend. */
function chordOver(
  { middle, read }: Chords,
  at: (sigmas: number) => ElementValues,
  { node, weight }: typeof normal | typeof uniform,
): { chord: number; bend: Bend } {
  return chordOf(read(at(node)) - middle, read(at(-node)) - middle, { node, weight });
}

function bendOverSeverity(
  slope: Float64Array,
  chords: Chords,
  withEdits: (edits: readonly Edit[]) => ElementValues,
  faults: readonly FaultAt[],
  { severity }: Dimensions,
): Bend {
  const bends = faults.map(({ sigma, focus: { at, width } }, n) => {
    if (sigma === 0) return straight;
    const around = (by: number) => withEdits(severer(faults, n, by * width * sigma));
    const { chord, bend } = chordOver(chords, around, uniform);
    slope[severity[n]!] = chord / width;
    return { ...bend, shift: bend.shift - (chord / width) * at };
  });
  return sumOf(bends);
}

/** What the faults do when the severity of the n-th is off by `logs` in its logarithm. */
const severer = (faults: readonly FaultAt[], n: number, logs: number): Edit[] =>
  faults.flatMap(({ fault, severity }, m) => fault.edits(m === n ? severity * Math.exp(logs) : severity));

/** Along one kind of uncertain quantity of the unit, what a batch shares and what its members have of their own at once. */
function bendOverKind(
  slope: Float64Array,
  chords: Chords,
  values: ElementValues,
  kind: SpreadKind,
  { circuit, dimensions: { index }, sigmas, batch }: Circumstances,
): KindBend {
  const shared = kind.shared === undefined ? undefined : index.get(kind.shared)!;
  const own = kind.own.map((name) => index.get(name)!);
  const known = kind === batch?.kind ? batch.focus.width : 1;
  const width = Math.hypot(shared === undefined ? 0 : known * sigmas[shared]!, own.length ? sigmas[own[0]!]! : 0);
  const found = chordOver(chords, (by) => circuit.swayed(values, kind, by * width), normal);
  const chord = found.chord / width;
  const tangent = shared === undefined ? own.reduce((sum, i) => sum + slope[i]!, 0) : slope[shared]!;
  if (shared !== undefined) slope[shared] = chord;
  const ratio = tangent === 0 ? 1 : Math.min(Math.max(chord / tangent, 0), steepest);
  for (const i of own) slope[i]! *= ratio;
  const { shift, variance } = found.bend;
  // Written out: of a spread that more is added to, V8 keeps a shape for each object, larger than the object.
  return { kind: kind.name, shift, variance, batch: kind === batch?.kind ? batch : undefined };
}

function spanOf(setup: Setup, top: number): number {
  if (setup.function !== 'volts' && setup.function !== 'drop') return top;
  return Math.min(top, setup.feed ? benchSupply.volts : liveVolts);
}

/** How the reading follows what is uncertain of the unit: spreads and temperature. */
function unitSlope(
  circuit: Circuit,
  values: ElementValues,
  moves: Sensitivity,
  { index, names }: Dimensions,
  perVolt: number,
): Float64Array {
  const slope = new Float64Array(names.length);
  for (const { name, resistors, junctions, emfs } of circuit.spreads) {
    let sum = 0;
    for (const e of resistors) sum += values.spreadShare[e]! * moves.perRelativeOhm[e]!;
    for (const j of junctions) sum += moves.perShiftVolt[j]!;
    for (const e of emfs) sum += moves.perEmfVolt[e]!;
    slope[index.get(name)!] = perVolt * sum;
  }
  slope[index.get('celsius')!]! += perVolt * moves.perKelvin;
  return slope;
}

/** Adds the instrument's part (gain, leads, supply) to the slope; answers the variance each reading has anew. */
function addInstrument(
  slope: Float64Array,
  circuit: Circuit,
  setup: Setup,
  shown: Shown,
  response: Float64Array,
  meter: Multimeter,
  { index }: Dimensions,
  dy: number,
): number {
  const range = shown.range!;
  const lowOhms = setup.function === 'ohms' && range === meter.ohms[0];
  const model = (): number => {
    const { function: use } = setup;
    if (use === 'ohms') return lowOhms ? modelSigma.lowOhms * shown.value * dy : modelSigma.highOhms;
    if (isFed(setup)) return Math.hypot(modelSigma.copper, modelSigma.junction * followed(slope, circuit, index));
    return use === 'volts' ? modelSigma.live : modelSigma[use as 'diode'];
  };
  const noise = (countSigma(range) * dy) ** 2 + model() ** 2;
  const own = (name: string) => index.get(`${name}@${meter.id}`)!;
  if (setup.function === 'insulation') return noise + (gainSigma(range) * shown.value * dy) ** 2;
  if (setup.function === 'amps') {
    slope[index.get('clamp')!]! += shown.value * dy;
    return noise;
  }
  slope[index.get(leadsOf(meter))!]! += shown.perLeadOhm * dy;
  if (setup.feed) {
    const amps = (benchSupply.volts - shown.value) / setup.feed.seriesOhms;
    const across = response[circuit.node(setup.feed.plus)]! - response[circuit.node(setup.feed.minus)]!;
    slope[index.get('supply')!]! += amps * across * dy;
  }
  // The lowest ohms range is where copper is measured: its gain is one error shared by all such readings.
  if (setup.function === 'ohms' && !lowOhms) return noise + (gainSigma(range) * shown.value * dy) ** 2;
  slope[own(setup.function === 'drop' ? 'volts' : setup.function)]! += shown.value * dy;
  return noise;
}

/** By how much of a volt a reading follows where the junctions of the unit lie a volt off. */
const followed = (slope: Float64Array, { kinds }: Circuit, index: ReadonlyMap<string, number>): number =>
  kinds
    .filter(({ junctions }) => junctions.length > 0)
    .flatMap(({ shared, own }) => (shared === undefined ? own : [shared]))
    .reduce((sum, name) => sum + Math.abs(slope[index.get(name)!]!), 0);
