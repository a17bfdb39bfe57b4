import { caliperSigma, type Check, type PresentFault } from '../checks/index.ts';
import { countSigma, type Multimeter } from '../instruments/index.ts';
import { uniform } from './chord.ts';
import { type Dimensions, leadsOf } from './dimensions.ts';
import { type FaultAt, kept, type Prediction } from './prediction.ts';
import { scaleSlope, toScale } from './scale.ts';

const longestMillimetres = 40;

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
      bends: [],
    };
  }
  const range = meter.ohms[0]!;
  const dy = scaleSlope(meter.leadOhms, check);
  slope[dimensions.index.get(leadsOf(meter))!] = dy;
  slope[dimensions.index.get(`ohms@${meter.id}`)!] = meter.leadOhms * dy;
  const top = toScale(range.fullScale, check);
  const noiseVariance = (countSigma(range) * dy) ** 2;
  return {
    kind: 'number',
    mean: toScale(meter.leadOhms, check),
    slope: kept(slope, noiseVariance),
    noiseVariance,
    top,
    span: top,
    bends: [],
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
