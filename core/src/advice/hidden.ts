import {
  buildChances,
  type Belief,
  type Case,
  type Conditions,
  faultChances,
  priorBelief,
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
  const chances = chancesWithRoom(opened, belief);
  const species = new Map<string, number[]>();
  opened.faults.forEach((fault, f) => {
    const { cleared, bits } = standing[f]!;
    const chance = chances[f]!;
    // What was cleared, or is a suspect by its own evidence, hides no more.
    if (cleared || bits > suspectBits || chance < negligible || chance > 0.5) return;
    species.set(fault.species, [...(species.get(fault.species) ?? []), f]);
  });
  return [...species.values()]
    .map((faults) => ({
      faults,
      chance: faults.reduce((sum, f) => sum + chances[f]!, 0),
      ...seenBy(opened, belief, conditions, open, faults[0]!),
    }))
    .sort((a, b) => b.chance - a.chance);
}

/** With less room than this no fault is weighed beside those found: it is as likely as before any reading. */
const leastRoom = 1e-4;

/**
 * How likely each fault is where a hypothesis has room for it: two are weighed at once, and where two are found a third
 * may hide all the same.
 */
function chancesWithRoom(opened: Case, belief: Belief): readonly number[] {
  const chances = faultChances(opened, belief);
  const prior = faultChances(opened, priorBelief(opened));
  let full = 0;
  const fullWith = new Float64Array(opened.faults.length);
  for (const { particles, weights } of belief.rows)
    particles.forEach((p, at) => {
      const { faults } = opened.particles[p]!;
      if (faults.length < 2) return;
      full += weights[at]!;
      for (const f of faults) fullWith[f]! += weights[at]!;
    });
  return opened.faults.map((_, f) => {
    const room = 1 - full + fullWith[f]!;
    return room < leastRoom ? prior[f]! : chances[f]! / room;
  });
}

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
  const state = belief.rows[b]!.sound;
  const alone = opened.particles.filter((p) => p.faults.length === 1 && p.faults[0] === fault);
  const faulty = alone[Math.floor(alone.length / 2)]!;
  let best: { check: Check; apart: number } | undefined;
  for (const check of open) {
    if (!predictor.feels(check, build)[fault]) continue;
    const [x, y] = [opened.particles[0]!, faulty].map((p) => viewOf(predictor.predict(check, build, p), state));
    const apart = separation(x!, y!);
    if (apart >= clear) return { seenBy: check, clearly: true };
    if (apart > (best?.apart ?? hint)) best = { check, apart };
  }
  return { seenBy: best?.check, clearly: false };
}
