import { type Foreseen, outputCurve } from '../src/curves/index.ts';
import { type ClawPole, familyOf } from '../src/machines/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';

/** Speeds that a small stand reaches, rpm. */
export const nineSpeeds = [1500, 1750, 2000, 2250, 2500, 2750, 3000, 3250, 3500];
/** Of a point: a share of its amperes, and amperes. */
const noise = { share: 0.015, amps: 0.4 } as const;
/** What a plate leaves open of the winding's resistance; known better it was measured. */
const ohmsByPlate = 0.3;

/**
 * An alternator as far off its plate as that leaves open, its resistance known so well (a share), read at some speeds:
 * what the curve through them foresees at 6,000 rpm, and what it gives there.
 */
export function curveTrial(
  machine: ClawPole,
  seed: number,
  ohms: number,
  speeds: readonly number[],
): { readonly foreseen: Foreseen; readonly given: number } {
  const family = familyOf(machine);
  const measured = ohms < ohmsByPlate ? { mean: 0, sigma: ohms } : undefined;
  const modelOf = () => family.generates!.output(machine, family.builds(machine)[0]!, [], measured);
  const truth = modelOf();
  const normal = normalFrom(seeded(seed));
  const own = truth.priors.map(({ sigma }, i) => (i === 2 ? ohms : sigma) * normal());
  const at = { rpm: 6000, volts: (machine.ratedVolts * 13.5) / 12, celsius: 60 };
  const points = speeds.map((rpm) => {
    const amps = truth.amps({ ...at, rpm }, own);
    return { ...at, rpm, amps: Math.max(amps * (1 + noise.share * normal()) + noise.amps * normal(), 0) };
  });
  return { foreseen: outputCurve(modelOf(), points).foresee(at), given: truth.amps(at, own) };
}
