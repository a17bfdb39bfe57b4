import {
  buildChances,
  type Belief,
  type Case,
  type Conditions,
  separation,
  standings,
  viewOf,
} from '../belief/index.ts';
import type { Check } from '../checks/index.ts';
import { isOpen } from './advice.ts';

/** A kind of fault that the readings so far could not have shown. */
export interface Hidden {
  readonly faults: readonly number[];
  readonly chance: number;
  /** The least check that would show it with this meter, or else the one that hints at it best; none when none does. */
  readonly seenBy: Check | undefined;
  readonly clearly: boolean;
}

/** Separation from a sound unit that shows a fault, and that hints at one. */
const clear = 0.9;
const hint = 0.3;
const negligible = 0.002;
const suspectBits = 0.5;

/** What may still hide, likeliest first; faults of one species together. */
export function hiddenFaults(
  opened: Case,
  belief: Belief,
  conditions: Conditions,
  done: ReadonlySet<string>,
  assembly: string,
): Hidden[] {
  const open = opened.checks.filter((check) => !done.has(check.id) && isOpen(opened, check, assembly));
  const standing = standings(opened, belief);
  const species = new Map<string, number[]>();
  opened.faults.forEach((fault, f) => {
    const { chance, cleared, bits } = standing[f]!;
    // What was cleared, or is a suspect by its own evidence, hides no more.
    if (cleared || bits > suspectBits || chance > 0.5) return;
    species.set(fault.species, [...(species.get(fault.species) ?? []), f]);
  });
  return [...species.values()]
    .map((faults) => ({ faults, chance: faults.reduce((sum, f) => sum + standing[f]!.chance, 0) }))
    .filter(({ chance }) => chance >= negligible)
    .map((hidden) => ({ ...hidden, ...seenBy(opened, belief, conditions, open, hidden.faults[0]!) }))
    .sort((a, b) => b.chance - a.chance);
}

const middleOf = (places: readonly number[]): number => places[Math.floor(places.length / 2)]!;

/** The first check in the order of work that tells the fault, at its middle severity, from a sound unit. */
function seenBy(
  opened: Case,
  belief: Belief,
  conditions: Conditions,
  open: readonly Check[],
  fault: number,
): Pick<Hidden, 'seenBy' | 'clearly'> {
  const predictor = opened.predictor(conditions);
  const chances = buildChances(belief);
  const b = chances.indexOf(Math.max(...chances));
  const build = opened.builds[b]!;
  const row = belief.rows[b]!;
  const alone = [...opened.particles.keys()].filter((p) => {
    const { faults } = opened.particles[p]!;
    return faults.length === 1 && faults[0] === fault;
  });
  const standing = alone.filter((p) => row.particles.includes(p));
  const faulty = middleOf(standing.length > 0 ? standing : alone);
  // Each as the readings so far have it: what a fault would have shown in them already, it doesn't show anew.
  const compared = [0, faulty].map((p) => ({
    particle: opened.particles[p]!,
    state: row.states[row.particles.indexOf(p)] ?? row.sound,
  }));
  let best: { check: Check; apart: number } | undefined;
  for (const check of open) {
    if (!predictor.feels(check, build)[fault]) continue;
    const [x, y] = compared.map(({ particle, state }) => viewOf(predictor.predict(check, build, particle), state));
    const apart = separation(x!, y!);
    if (apart >= clear) return { seenBy: check, clearly: true };
    if (apart > (best?.apart ?? hint)) best = { check, apart };
  }
  return { seenBy: best?.check, clearly: false };
}
