import { type Belief, type Case, type Conditions, separation, standings, viewOf } from '../belief/index.ts';
import type { Check } from '../checks/index.ts';

/** A kind of fault that the readings so far could not have shown. */
export interface Hidden {
  readonly faults: readonly number[];
  readonly chance: number;
  /** The least check that would show it with this meter; none when no check at rest can. */
  readonly seenBy: Check | undefined;
}

const clear = 0.9;
const negligible = 0.002;
const suspectBits = 0.5;

/** What may still hide, likeliest first; faults of one species together. */
export function hiddenFaults(
  opened: Case,
  belief: Belief,
  conditions: Conditions,
  done: ReadonlySet<string>,
): Hidden[] {
  const standing = standings(opened, belief);
  const species = new Map<string, number[]>();
  opened.faults.forEach((fault, f) => {
    const { cleared, bits, chance } = standing[f]!;
    // What was cleared, or is a suspect by its own evidence, hides no more.
    if (cleared || bits > suspectBits || chance < negligible || chance > 0.5) return;
    species.set(fault.species, [...(species.get(fault.species) ?? []), f]);
  });
  return [...species.values()]
    .map((faults) => ({
      faults,
      chance: faults.reduce((sum, f) => sum + standing[f]!.chance, 0),
      seenBy: leastThatSees(opened, belief, conditions, done, faults[0]!),
    }))
    .sort((a, b) => b.chance - a.chance);
}

/** The first check in the order of work that tells the fault, at its middle severity, from a sound unit. */
function leastThatSees(
  opened: Case,
  belief: Belief,
  conditions: Conditions,
  done: ReadonlySet<string>,
  fault: number,
): Check | undefined {
  const predictor = opened.predictor(conditions);
  const likeliest = belief.weights.map((row) => row.reduce((s, w) => s + w, 0));
  const b = likeliest.indexOf(Math.max(...likeliest));
  const build = opened.builds[b]!;
  const alone = opened.particles.flatMap((p, i) => (p.faults.length === 1 && p.faults[0] === fault ? [i] : []));
  const middle = alone[Math.floor(alone.length / 2)]!;
  const sound = { particle: opened.particles[0]!, state: belief.states[b]![0]! };
  const faulty = { particle: opened.particles[middle]!, state: belief.states[b]![0]! };
  return opened.checks.find((check) => {
    if (done.has(check.id) || !predictor.feels(check, build)[fault]) return false;
    const [x, y] = [sound, faulty].map(({ particle, state }) =>
      viewOf(predictor.predict(check, build, particle), state),
    );
    return separation(x!, y!) >= clear;
  });
}
