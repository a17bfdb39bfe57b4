import { caliperSigma, type Check, findingsOf, type PresentFault } from '../checks/index.ts';
import type { Circuit, ElementValues } from '../circuit/index.ts';
import {
  benchSupply,
  countSigma,
  gainSigma,
  measure,
  type Multimeter,
  type Setup,
  type Shown,
} from '../instruments/index.ts';
import type { Fault } from '../machines/index.ts';
import { normalCdf, type Slope, slopeOf } from '../numeric/index.ts';
import type { Dimensions } from './dimensions.ts';
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
}

export interface ChancePrediction {
  readonly kind: 'chances';
  readonly chances: readonly number[];
}

export type Prediction = NumberPrediction | ChancePrediction;

/** A fault at one severity; `sigma` is the standard deviation of ln(severity). */
export interface FaultAt {
  readonly fault: Fault;
  readonly severity: number;
  readonly sigma: number;
}

/** A test lamp counts as lit above about half its current; the eye is not sharp about it [from memory]. */
const litShare = 0.5;
const litSigma = 0.1;
const longestMillimetres = 40;
/** What the model itself is trusted to, as a standard deviation on the comparison scale [from memory]. */
const modelSigma = {
  diode: 0.002,
  volts: 0.01,
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
/** Step in severity for its derivative. */
const raise = 1.01;

/** Expected result of a check that no circuit answers: leads, lengths, findings. */
export function expectedByRule(
  check: Check,
  faults: readonly FaultAt[],
  meter: Multimeter,
  dimensions: Dimensions,
): Prediction {
  const { method } = check;
  const present = faults.map(({ fault, severity }): PresentFault => {
    return { species: fault.species, place: fault.place, severity };
  });
  if (method.kind === 'finding') return { kind: 'chances', chances: method.chances(present) };
  const slope = new Float64Array(dimensions.names.length);
  if (method.kind === 'length') {
    const { mean, sigma } = method.expected(present);
    const noiseVariance = sigma * sigma + caliperSigma * caliperSigma;
    return {
      kind: 'number',
      mean,
      slope: kept(slope, noiseVariance),
      noiseVariance,
      top: Infinity,
      span: longestMillimetres,
    };
  }
  const range = meter.ohms[0]!;
  const dy = scaleSlope(meter.leadOhms, 'ohms');
  slope[dimensions.index.get(`leads@${meter.id}`)!] = dy;
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
  };
}

/** Expected reading of an instrument on a circuit with faults; `start` are junction volts of a neighbouring state. */
export function expectedByCircuit(
  check: Check,
  circuit: Circuit,
  faults: readonly FaultAt[],
  meter: Multimeter,
  dimensions: Dimensions,
  start: Float64Array | undefined,
): Prediction {
  const { setup } = check.method as { setup: Setup };
  const values = circuit.withEdits(faults.flatMap(({ fault, severity }) => fault.edits(severity)));
  const shown = measure(circuit, values, setup, meter, start);
  if (setup.function === 'lamp') {
    const lit = normalCdf((shown.value - litShare) / litSigma);
    return { kind: 'chances', chances: findingsOf(check).map(({ id }) => (id === 'lit' ? lit : 1 - lit)) };
  }
  const dy = scaleSlope(shown.value, check.unit);
  const response = circuit.response(circuit.node(setup.red), circuit.node(setup.black));
  const slope = unitSlope(circuit, values, shown, response, faults, dimensions, shown.perVolt * dy);
  const noiseVariance = addInstrument(slope, circuit, setup, shown, response, meter, dimensions, dy);
  const top = toScale(shown.fullScale, check.unit);
  const span = spanOf(setup, top);
  return {
    kind: 'number',
    mean: toScale(shown.value, check.unit),
    slope: kept(slope, noiseVariance),
    noiseVariance,
    top,
    span,
  };
}

function spanOf(setup: Setup, top: number): number {
  if (setup.function !== 'volts') return top;
  return Math.min(top, setup.feed ? benchSupply.volts : liveVolts);
}

/** How the reading follows what is uncertain of the unit: spreads, temperature, severities. */
function unitSlope(
  circuit: Circuit,
  values: ElementValues,
  shown: Shown,
  response: Float64Array,
  faults: readonly FaultAt[],
  { index, names, severity }: Dimensions,
  perVolt: number,
): Float64Array {
  const slope = new Float64Array(names.length);
  const moves = circuit.sensitivity(values, shown.point, response);
  for (const { name, resistors, junctions, emfs } of circuit.spreads) {
    let sum = 0;
    for (const e of resistors) sum += values.spreadShare[e]! * moves.perRelativeOhm[e]!;
    for (const j of junctions) sum += moves.perShiftVolt[j]!;
    for (const e of emfs) sum += moves.perEmfVolt[e]!;
    slope[index.get(name)!] = perVolt * sum;
  }
  slope[index.get('celsius')!]! += perVolt * moves.perKelvin;
  faults.forEach(({ sigma }, n) => {
    if (sigma === 0) return;
    const above = circuit.withEdits(
      faults.flatMap(({ fault, severity: size }, m) => fault.edits(m === n ? size * raise : size)),
    );
    let perLogSeverity = 0;
    for (let e = 0; e < values.ohms.length; e++) {
      const relative = above.ohms[e]! / values.ohms[e]! - 1;
      if (relative !== 0) perLogSeverity += (moves.perRelativeOhm[e]! * relative) / Math.log(raise);
    }
    for (let e = 0; e < values.volts.length; e++) {
      perLogSeverity += (moves.perEmfVolt[e]! * (above.volts[e]! - values.volts[e]!)) / Math.log(raise);
    }
    slope[severity[n]!] = perVolt * perLogSeverity * sigma;
  });
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
  slope[own('leads')]! += shown.perLeadOhm * dy;
  if (setup.feed) {
    const amps = (benchSupply.volts - shown.value) / benchSupply.seriesOhms;
    const across = response[circuit.node(setup.feed.plus)]! - response[circuit.node(setup.feed.minus)]!;
    slope[index.get('supply')!]! += amps * across * dy;
  }
  // The lowest ohms range is where copper is measured: its gain is one error shared by all such readings.
  if (setup.function === 'ohms' && !lowOhms) return noise + (gainSigma(range) * shown.value * dy) ** 2;
  slope[own(setup.function)]! += shown.value * dy;
  return noise;
}
