// bin/refectum study curve [MACHINES]: alternators off their plates, read on a stand that reaches 3,500 rpm; what the
// curve through the points foresees at 6,000 rpm beside what they give there.
import { type ClawPole, clawPoleGeneric } from '../core/src/machines/index.ts';
import { curveTrial, nineSpeeds } from '../core/test/curve-trials.ts';
import { wilson } from '../core/test/stories.ts';

/** Chosen before the first run; a machine's own seed is it and its number. */
const seed = 20261125;
const machines: readonly ClawPole[] = [
  { ...clawPoleGeneric(12, 100), connection: 'star', diodeKind: 'silicon' },
  { ...clawPoleGeneric(24, 80), connection: 'delta', diodeKind: 'silicon' },
];
const sweeps = {
  'four points': [1500, 2000, 2700, 3500],
  'nine points': nineSpeeds,
  'nine points twice': [...nineSpeeds, ...nineSpeeds],
};
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
  const { foreseen, given } = curveTrial(machine, seed + 7919 * number, ohms, speeds);
  const { amps, low, high } = foreseen;
  return { off: amps / given - 1, told: (high - low) / (2 * 1.96) / amps, inside: low <= given && given <= high };
}

function share(hits: number): string {
  const { share: of, low, high } = wilson(hits, count);
  return `${hits} of ${count}, ${percent(of)} (95 %: ${percent(low)} to ${percent(high)})`;
}
function percent(of: number): string {
  return `${(100 * of).toFixed(1)} %`;
}
