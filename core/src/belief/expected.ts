import { caliperSigma, type Check, findingsOf, type PresentFault, type RunSetup } from '../checks/index.ts';
import type { Circuit, Edit, ElementValues, Sensitivity, SpreadKind } from '../circuit/index.ts';
import {
  benchSupply,
  countSigma,
  gainSigma,
  measure,
  type Multimeter,
  rangeFor,
  type RunInstrument,
  runRanges,
  type Setup,
  type Shown,
} from '../instruments/index.ts';
import { type Fault, type Ran, runningFault, type RunningFault } from '../machines/index.ts';
import { normalCdf, type Slope, slopeOf } from '../numeric/index.ts';
import { bendOf, type Dimensions, leadsOf } from './dimensions.ts';
import type { Focus } from './focus.ts';
import { scaleSlope, toScale } from './scale.ts';

/** A number expected on the comparison scale: its mean, what moves it, and the noise each reading has anew. */
export interface NumberPrediction {
  readonly kind: 'number';
  readonly mean: number;
  readonly slope: Slope;
  readonly noiseVariance: number;
  /** Beyond this the instrument shows over-range. */
  readonly top: number;
  /** What a slipped probe could show lies between 0 and here. */
  readonly span: number;
  /** Of mean and noise, what the curve over the unit's uncertain quantities put there. */
  readonly bend: Bend;
}

/** What a reading's curve adds to its straight line, on the comparison scale. */
export interface Bend {
  readonly shift: number;
  readonly variance: number;
}
const straight: Bend = { shift: 0, variance: 0 };

export interface ChancePrediction {
  readonly kind: 'chances';
  readonly chances: readonly number[];
}

export type Prediction = NumberPrediction | ChancePrediction;

/** A fault at one severity, that of its focus; `sigma` is the standard deviation of ln(severity) over its whole cell. */
export interface FaultAt {
  readonly fault: Fault;
  readonly severity: number;
  readonly sigma: number;
  readonly focus: Focus;
}

/** A test lamp counts as lit above about half its current; the eye is not sharp about it [from memory]. */
const litShare = 0.5;
const litSigma = 0.1;
const longestMillimetres = 40;
/** What the model itself is trusted to, as a standard deviation on the comparison scale [from memory]. */
const modelSigma = {
  diode: 0.002,
  volts: 0.01,
  drop: 0.001,
  live: 0.04,
  amps: 0.05,
  lowOhms: 0.01,
  highOhms: 0.1,
  insulation: 0.1,
} as const;
/** What a slipped probe can show on a vehicle, V. */
const liveVolts = 30;
/** A slope that moves the reading by less than this share of its noise is left out. */
const unfelt = 1e-4;
const kept = (slope: Float64Array, noiseVariance: number): Slope => slopeOf(slope, unfelt * Math.sqrt(noiseVariance));

/** Expected result of a check that no circuit answers: leads, lengths, findings. */
export function expectedByRule(
  check: Check,
  faults: readonly FaultAt[],
  meter: Multimeter,
  dimensions: Dimensions,
): Prediction {
  const { method } = check;
  if (method.kind === 'finding') return { kind: 'chances', chances: chancesOver(faults, method.chances) };
  const slope = new Float64Array(dimensions.names.length);
  if (method.kind === 'length') {
    const { mean, sigma } = method.expected(faults.map((one) => presentAt(one)));
    const noiseVariance = sigma * sigma + caliperSigma * caliperSigma;
    return {
      kind: 'number',
      mean,
      slope: kept(slope, noiseVariance),
      noiseVariance,
      top: Infinity,
      span: longestMillimetres,
      bend: straight,
    };
  }
  const range = meter.ohms[0]!;
  const dy = scaleSlope(meter.leadOhms, 'ohms');
  slope[dimensions.index.get(leadsOf(meter))!] = dy;
  slope[dimensions.index.get(`ohms@${meter.id}`)!] = meter.leadOhms * dy;
  const top = toScale(range.fullScale, 'ohms');
  const noiseVariance = (countSigma(range) * dy) ** 2;
  return {
    kind: 'number',
    mean: toScale(meter.leadOhms, 'ohms'),
    slope: kept(slope, noiseVariance),
    noiseVariance,
    top,
    span: top,
    bend: straight,
  };
}

/** A fault as a rule has it, its severity off by so many standard deviations of its cell. */
const presentAt = ({ fault, severity, sigma, focus }: FaultAt, off = 0): PresentFault => {
  return { species: fault.species, place: fault.place, severity: severity * Math.exp(off * focus.width * sigma) };
};

/** Chances of what is seen or heard, each fault anywhere in its cell. */
function chancesOver(
  faults: readonly FaultAt[],
  chances: (faults: readonly PresentFault[]) => readonly number[],
): readonly number[] {
  const [first, ...rest] = faults;
  if (!first) return chances([]);
  const at = (off: number) => chancesOver(rest, (others) => chances([presentAt(first, off), ...others]));
  const middle = at(0);
  if (first.sigma === 0) return middle;
  const [above, below] = [at(uniform.node), at(-uniform.node)];
  return middle.map((chance, o) => chance + uniform.weight * (above[o]! + below[o]! - 2 * chance));
}

/**
 * Expected reading of an instrument on the running unit. `run`: what it shows with given faults; `times`: how much wider
 * than its kind the unit is strewn.
 */
export function expectedByRun(
  check: Check,
  faults: readonly FaultAt[],
  run: (faults: readonly RunningFault[]) => Ran,
  meter: Multimeter,
  dimensions: Dimensions,
  times = 1,
): NumberPrediction {
  const { setup } = check.method as { setup: RunSetup };
  const slope = new Float64Array(dimensions.names.length);
  /** With the severity of the n-th off by `logs` in its logarithm. */
  const at = (n: number, logs: number) =>
    run(faults.map(({ fault, severity }, m) => runningFault(fault, m === n ? severity * Math.exp(logs) : severity)));
  const { value, moves, sigma, strewn = [] } = at(0, 0);
  const dy = scaleSlope(value, check.unit);
  for (const [name, move] of Object.entries(moves)) slope[dimensions.index.get(name)!] = move * dy;
  const ranges = runRanges(setup.instrument, meter);
  const range = rangeFor(ranges, value);
  const gain = gainOf(setup.instrument, meter);
  if (gain) slope[dimensions.index.get(gain)!] = value * dy;
  const own = gain ? 0 : gainSigma(range) * value;
  const middle = toScale(value, check.unit);
  const noise = (Math.hypot(countSigma(range), sigma, own) * dy) ** 2;
  const bends = faults.map(({ sigma: cell, focus: { at: off, width } }, n): Bend => {
    if (cell === 0) return straight;
    const beside = (by: number) => toScale(at(n, by * width * cell).value, check.unit) - middle;
    const { chord, bend } = chordOf(beside(uniform.node), beside(-uniform.node), uniform);
    slope[dimensions.severity[n]!] = chord / width;
    return { ...bend, shift: bend.shift - (chord / width) * off };
  });
  const left = strewn.map(({ off, value: there }) => {
    const straight = Object.entries(off).reduce((sum, [name, by]) => sum + (moves[name] ?? 0) * dy * by, 0);
    return times ** 2 * (toScale(there, check.unit) - middle - straight);
  });
  const bend = sumOf([...bends, spreadOf(left)]);
  const noiseVariance = noise + bend.variance;
  const top = toScale(ranges.at(-1)!.fullScale, check.unit);
  const span = setup.instrument === 'voltmeter' ? liveVolts : toScale(range.fullScale, check.unit);
  return {
    kind: 'number',
    mean: middle + bend.shift,
    slope: kept(slope, noiseVariance),
    noiseVariance,
    top,
    span,
    bend: straight,
  };
}

/** What straight lines leave over on units strewn as their kind is: products of two things off at once. */
function spreadOf(left: readonly number[]): Bend {
  if (left.length === 0) return straight;
  const shift = left.reduce((sum, one) => sum + one, 0) / left.length;
  const variance = left.reduce((sum, one) => sum + (one - shift) ** 2, 0) / (left.length - 1);
  return { shift, variance };
}

/** The gain that all readings of an instrument share; a tachometer's and a torque arm's are met too seldom to be learnt. */
const gainOf = (instrument: RunInstrument, meter: Multimeter): string | undefined =>
  instrument === 'clamp' ? 'clamp' : instrument === 'voltmeter' ? `volts@${meter.id}` : undefined;

/** What two faults make of a running unit, as far as each by itself tells: their effects on the comparison scale add up. */
export function runTogether(
  sound: NumberPrediction,
  alone: readonly [NumberPrediction, NumberPrediction],
  severity: readonly [number, number],
): NumberPrediction {
  const effects = alone.map(({ mean }) => mean - sound.mean);
  const mean = Math.max(sound.mean + effects[0]! + effects[1]!, 0);
  const unsure = (togetherShare * Math.min(...effects.map(Math.abs))) ** 2;
  const extra = alone.map(({ noiseVariance }) => Math.max(noiseVariance - sound.noiseVariance, 0));
  const own = ({ slope: { index, value } }: NumberPrediction, n: 0 | 1) =>
    [...index].flatMap((i, at) => (i === severity[0] ? [[severity[n], value[at]!] as const] : []));
  const [stronger] = Math.abs(effects[0]!) > Math.abs(effects[1]!) ? alone : [alone[1]];
  const shared = [...stronger.slope.index].flatMap((i, at) =>
    i < severity[0] ? [[i, stronger.slope.value[at]!] as const] : [],
  );
  const parts = [...shared, ...own(alone[0], 0), ...own(alone[1], 1)];
  return {
    ...sound,
    mean,
    slope: {
      index: Int32Array.from(parts, ([i]) => i),
      value: Float64Array.from(parts, ([, value]) => value),
    },
    noiseVariance: sound.noiseVariance + extra[0]! + extra[1]! + unsure,
  };
}
/** Of the smaller effect, how unsure it is beside the other [our estimate]. */
const togetherShare = 0.5;

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

/** Where the share of a kind that a batch has in common lies, in its standard deviations. */
export interface Batch {
  readonly kind: SpreadKind;
  readonly dimension: number;
  readonly focus: Focus;
}

/**
 * Expected reading of an instrument on a circuit with faults. `likened`: what was expected with fewer of them; a bend
 * is taken over from the nearest rather than worked out anew.
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
  const dy = scaleSlope(shown.value, check.unit);
  const response = circuit.response(circuit.node(setup.red), circuit.node(setup.black));
  const moves = circuit.sensitivity(values, shown.point, response);
  const slope = unitSlope(circuit, values, moves, dimensions, shown.perVolt * dy);
  const noise = addInstrument(slope, circuit, setup, shown, response, meter, dimensions, dy);
  const chords: Chords = {
    middle: toScale(shown.value, check.unit),
    read: (other) => toScale(measure(circuit, other, setup, meter, shown.point.junctionVolts).value, check.unit),
  };
  const bend = !isBent(setup, shown, meter)
    ? straight
    : likened.length > 0
      ? nearestTo(chords.middle, likened).bend
      : sumOf(circuit.kinds.map((kind) => bendOverKind(slope, chords, values, kind, circumstances)));
  const ofSeverity = bendOverSeverity(slope, chords, withEdits, faults, dimensions);
  if (alike) slope[dimensions.index.get(bendOf(alike))!] = Math.sqrt(bend.variance);
  const noiseVariance = noise + (alike ? 0 : bend.variance) + ofSeverity.variance;
  const top = toScale(shown.fullScale, check.unit);
  const span = spanOf(setup, top);
  return {
    kind: 'number',
    mean: chords.middle + bend.shift + ofSeverity.shift - (batch ? slope[batch.dimension]! * off : 0),
    slope: kept(slope, noiseVariance),
    noiseVariance,
    top,
    span,
    bend,
  };
}

/**
 * Megohms are many leaks and junctions side by side, each known to a factor only, and copper under current may have a
 * junction beside it: no straight line describes them.
 */
export const mayBend = ({ function: use, held }: Setup): boolean =>
  use === 'insulation' || use === 'drop' || (use === 'ohms' && held !== 'lowest');
const isBent = (setup: Setup, { range }: Shown, meter: Multimeter): boolean =>
  mayBend(setup) && range !== meter.ohms[0];

const nearestTo = (middle: number, likened: readonly NumberPrediction[]): NumberPrediction =>
  likened.reduce((a, b) => (Math.abs(b.mean - middle) < Math.abs(a.mean - middle) ? b : a));

/** Outer nodes of a three-point quadrature, in standard deviations, with their weight: Gauss-Hermite for what is normal, Gauss-Legendre for what is uniform. */
const normal = { node: Math.sqrt(3), weight: 1 / 6 } as const;
const uniform = { node: Math.sqrt(9 / 5), weight: 5 / 18 } as const;
/** A chord may be so many times its tangent for what members have of their own. */
const steepest = 5;

/**
 * Statistical linearisation (after the unscented transform, Julier and Uhlmann 1997): along one uncertain quantity the
 * slope becomes the chord between two outer nodes, the curvature moves the mean and counts as noise.
 */
interface Chords {
  /** The reading on the comparison scale, and as it would be with other values. */
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

/** From how far the outer nodes lie from the middle. */
function chordOf(
  above: number,
  below: number,
  { node, weight }: typeof normal | typeof uniform,
): { chord: number; bend: Bend } {
  return {
    chord: (above - below) / (2 * node),
    bend: {
      shift: weight * (above + below),
      variance: (weight / 2 - weight * weight) * (above + below) ** 2,
    },
  };
}

const sumOf = (bends: readonly Bend[]): Bend => ({
  shift: bends.reduce((sum, { shift }) => sum + shift, 0),
  variance: bends.reduce((sum, { variance }) => sum + variance, 0),
});

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
): Bend {
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
  return found.bend;
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
  const model =
    setup.function === 'ohms'
      ? lowOhms
        ? modelSigma.lowOhms * shown.value * dy
        : modelSigma.highOhms
      : setup.function === 'volts' && !setup.feed
        ? modelSigma.live
        : modelSigma[setup.function as 'diode'];
  const noise = (countSigma(range) * dy) ** 2 + model ** 2;
  const own = (name: string) => index.get(`${name}@${meter.id}`)!;
  if (setup.function === 'insulation') return noise + (gainSigma(range) * shown.value * dy) ** 2;
  if (setup.function === 'amps') {
    slope[index.get('clamp')!]! += shown.value * dy;
    return noise;
  }
  slope[index.get(leadsOf(meter))!]! += shown.perLeadOhm * dy;
  if (setup.feed) {
    const amps = (benchSupply.volts - shown.value) / benchSupply.seriesOhms;
    const across = response[circuit.node(setup.feed.plus)]! - response[circuit.node(setup.feed.minus)]!;
    slope[index.get('supply')!]! += amps * across * dy;
  }
  // The lowest ohms range is where copper is measured: its gain is one error shared by all such readings.
  if (setup.function === 'ohms' && !lowOhms) return noise + (gainSigma(range) * shown.value * dy) ** 2;
  slope[own(setup.function === 'drop' ? 'volts' : setup.function)]! += shown.value * dy;
  return noise;
}
