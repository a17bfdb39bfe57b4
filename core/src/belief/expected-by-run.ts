import type { Check, RunSetup } from '../checks/index.ts';
import {
  countSigma,
  gainSigma,
  type Multimeter,
  rangeFor,
  type RunInstrument,
  runRanges,
} from '../instruments/index.ts';
import { type Ran, runningFault, type RunningFault } from '../machines/index.ts';
import { type Bend, chordOf, straight, sumOf, uniform } from './chord.ts';
import type { Dimensions } from './dimensions.ts';
import { type FaultAt, kept, liveVolts, type NumberPrediction } from './prediction.ts';
import { scaleSlope, toScale } from './scale.ts';

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
  const { value, moves, sigma, astray = 0, strewn = [] } = at(0, 0);
  const dy = scaleSlope(value, check);
  for (const [name, move] of Object.entries(moves)) slope[dimensions.index.get(name)!] = move * dy;
  const ranges = runRanges(setup.instrument, meter);
  const range = rangeFor(ranges, value);
  const gain = gainOf(setup.instrument, meter);
  if (gain) slope[dimensions.index.get(gain)!] = value * dy;
  const own = gain ? 0 : gainSigma(range) * value;
  const middle = toScale(value, check);
  const noise = (Math.hypot(countSigma(range), sigma, own) * dy) ** 2;
  const bends = faults.map(({ sigma: cell, focus: { at: off, width } }, n): Bend => {
    if (cell === 0) return straight;
    const beside = (by: number) => toScale(at(n, by * width * cell).value, check) - middle;
    const { chord, bend } = chordOf(beside(uniform.node), beside(-uniform.node), uniform);
    slope[dimensions.severity[n]!] = chord / width;
    return { ...bend, shift: bend.shift - (chord / width) * off };
  });
  const left = strewn.map(({ off, value: there }) => {
    const straight = Object.entries(off).reduce((sum, [name, by]) => sum + (moves[name] ?? 0) * dy * by, 0);
    return times ** 2 * (toScale(there, check) - middle - straight);
  });
  const bend = sumOf([...bends, spreadOf(left)]);
  const noiseVariance = noise + bend.variance;
  const top = toScale(ranges.at(-1)!.fullScale, check);
  const span = setup.instrument === 'voltmeter' ? liveVolts : toScale(range.fullScale, check);
  return {
    kind: 'number',
    mean: middle + bend.shift,
    slope: kept(slope, noiseVariance),
    noiseVariance,
    ownVariance: (sigma * dy) ** 2,
    astray,
    top,
    span,
    bends: [],
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

/**
 * What several faults make of a running unit, as far as each by itself tells: their effects on the comparison scale add up.
 * `alone`: what each gives, its own severity where it stands among the others'.
 */
export function runTogether(
  sound: NumberPrediction,
  alone: readonly NumberPrediction[],
  severity: readonly number[],
): NumberPrediction {
  const byEffect = alone
    .map((one) => ({ one, effect: one.mean - sound.mean }))
    .sort((a, b) => Math.abs(b.effect) - Math.abs(a.effect));
  const [strongest, ...smaller] = byEffect;
  const mean = Math.max(
    byEffect.reduce((sum, { effect }) => sum + effect, sound.mean),
    0,
  );
  const unsure = smaller.reduce((sum, { effect }) => sum + (togetherShare * effect) ** 2, 0);
  const extra = alone.reduce((sum, { noiseVariance }) => sum + Math.max(noiseVariance - sound.noiseVariance, 0), 0);
  const part = ({ slope: { index, value } }: NumberPrediction, isPart: (i: number) => boolean) =>
    index.flatMap((i, at) => (isPart(i) ? [[i, value[at]!] as const] : []));
  const isOwn = (i: number) => severity.includes(i);
  const parts = [...part(strongest!.one, (i) => !isOwn(i)), ...alone.flatMap((one) => part(one, isOwn))];
  return {
    ...sound,
    mean,
    slope: { index: parts.map(([i]) => i), value: parts.map(([, value]) => value) },
    noiseVariance: sound.noiseVariance + extra + unsure,
    astray: Math.max(astrayTogether, ...alone.map(({ astray = 0 }) => astray)),
  };
}
/** So often faults make of a running unit together what none tells: it no longer excites itself, say [counted, see the test]. */
const astrayTogether = 0.05;
/** Of a smaller effect, how unsure it is beside the largest [our estimate]. */
const togetherShare = 0.5;
