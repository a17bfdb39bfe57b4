// bin/refectum study curve [MACHINES]: alternators off their plates, read on a stand that reaches 3,500 rpm; what the
// curve through the points foresees at 6,000 rpm beside what they give there.
import { outputCurve } from '../core/src/curves/index.ts';
import { type ClawPole, clawPoleGeneric, familyOf } from '../core/src/machines/index.ts';
import { normalFrom, seeded } from '../core/src/numeric/index.ts';
import { wilson } from '../core/test/stories.ts';

/** Chosen before the first run; a machine's own seed is it and its number. */
const seed = 20261125;
const machines: readonly ClawPole[] = [
  { ...clawPoleGeneric(12, 100), connection: 'star', diodeKind: 'silicon' },
  { ...clawPoleGeneric(24, 80), connection: 'delta', diodeKind: 'silicon' },
];
const nine = [1500, 1750, 2000, 2250, 2500, 2750, 3000, 3250, 3500];
const sweeps = {
  'four points': [1500, 2000, 2700, 3500],
  'nine points': nine,
  'nine points twice': [...nine, ...nine],
};
/** Of a point: a share of its amperes, and amperes. */
const noise = { share: 0.015, amps: 0.4 } as const;
/** Resistance known so well, and the target for what is foreseen, as shares. */
const targets = [
  { ohms: 0.3, within: 0.04 },
  { ohms: 0.05, within: 0.03 },
] as const;

const count = Number(process.argv[2] ?? 100);
if (!Number.isInteger(count) || count < 1 || process.argv.length > 3) {
  console.error(`“${process.argv.slice(2).join(' ')}”: give the number of machines.`);
  process.exit(1);
}

for (const { ohms, within } of targets)
  for (const [name, speeds] of Object.entries(sweeps)) {
    const all = Array.from({ length: count }, (_, i) => trial(machines[i % machines.length]!, i, ohms, speeds));
    const rms = Math.sqrt(all.reduce((sum, { off }) => sum + off ** 2, 0) / count);
    const told = Math.sqrt(all.reduce((sum, { told }) => sum + told ** 2, 0) / count);
    const near = share(all.filter(({ off }) => Math.abs(off) <= within).length);
    const covered = share(all.filter(({ inside }) => inside).length);
    console.log(
      `resistance known to ${percent(ohms)}, ${name}: off by ${percent(rms)} rms, told ${percent(told)}; within ${percent(within)}: ${near}; inside the 95 % interval: ${covered}`,
    );
  }

function trial(machine: ClawPole, number: number, ohms: number, speeds: readonly number[]) {
  const family = familyOf(machine);
  const measured = ohms < 0.3 ? { mean: 0, sigma: ohms } : undefined;
  const modelOf = () => family.generates!.output(machine, family.builds(machine)[0]!, [], measured);
  const truth = modelOf();
  const normal = normalFrom(seeded(seed + 7919 * number));
  // Its resistance is as far off as what is known of it leaves open.
  const own = truth.priors.map(({ sigma }, i) => (i === 2 ? ohms : sigma) * normal());
  const at = { rpm: 6000, volts: (machine.ratedVolts * 13.5) / 12, celsius: 60 };
  const points = speeds.map((rpm) => {
    const amps = truth.amps({ ...at, rpm }, own);
    return { ...at, rpm, amps: Math.max(amps * (1 + noise.share * normal()) + noise.amps * normal(), 0) };
  });
  const { amps, low, high } = outputCurve(modelOf(), points).foresee(at);
  const given = truth.amps(at, own);
  return { off: amps / given - 1, told: (high - low) / (2 * 1.96) / amps, inside: low <= given && given <= high };
}

function share(hits: number): string {
  const { share: of, low, high } = wilson(hits, count);
  return `${hits} of ${count}, ${percent(of)} (95 %: ${percent(low)} to ${percent(high)})`;
}
function percent(of: number): string {
  return `${(100 * of).toFixed(1)} %`;
}
