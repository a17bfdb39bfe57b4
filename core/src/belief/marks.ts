import type { Word } from '../checks/index.ts';
import { type Belief, faultChances } from './belief.ts';
import type { Case } from './case.ts';
import { chancesOfSets, codeOfSet, sharesBeside } from './further.ts';

/** What is known of each fault by now. */
export interface Standing {
  readonly chance: number;
  /** Weight of all evidence on it, beside what is found: that something else explains a reading says nothing of it. */
  readonly bits: number;
  /** Whether any reading could see it: all of them moved it by at least half a bit. */
  readonly looked: boolean;
  /** Whether what was seen speaks against it: its odds fell to a quarter or less. */
  readonly cleared: boolean;
}

const lookedBits = 0.5;
const clearedBits = -2;
const failedChance = 0.9;
const doubtfulChance = 0.15;

export function standings(opened: Case, belief: Belief): Standing[] {
  const chances = faultChances(opened, belief);
  return bitsBeside(opened, belief).map((bits, f) => ({
    chance: chances[f]!,
    bits,
    looked: Math.abs(bits) >= lookedBits,
    cleared: bits <= clearedBits,
  }));
}

/** A belief this small and less is as good as none. */
const least = 1e-9;

/**
 * For each fault log2 of P(readings | what is found and it) / P(readings | what is found). What is found itself, and what
 * can't be there with it, goes by its readings one by one.
 */
function bitsBeside(opened: Case, belief: Belief): number[] {
  const found = foundOf(opened, belief);
  return opened.faults.map((_, f) => {
    const beside = found && oddsBeside(opened, belief, found, f);
    if (beside) return Math.log2(Math.max(beside.now, least) / beside.before);
    return belief.evidence.reduce((sum, { bits, felt }) => sum + (felt[f] ? bits[f]! : 0), 0);
  });
}

/** The likeliest set of faults beside which more are weighed. */
function foundOf(opened: Case, belief: Belief): readonly number[] | undefined {
  const withRoom = [...chancesOfSets(opened, belief).values()].filter(
    ({ faults }) => faults.length < 2 || belief.beside.some((set) => codeOfSet(set) === codeOfSet(faults)),
  );
  return withRoom.sort((a, b) => b.chance - a.chance)[0]?.faults;
}

/** The odds of a further fault beside what is found, before the readings and now; undefined where both can't be. */
function oddsBeside(
  opened: Case,
  belief: Belief,
  found: readonly number[],
  f: number,
): { before: number; now: number } | undefined {
  if (found.includes(f)) return undefined;
  const { before = belief } = belief;
  const both = [...found, f].sort((a, b) => a - b);
  const oddsIn = (of: Belief) => {
    const sets = chancesOfSets(opened, of);
    const [alone, together] = [found, both].map((faults) => sets.get(codeOfSet(faults))?.chance);
    return alone && together ? together / alone : undefined;
  };
  const usual = oddsIn(before) ?? sharesBeside(opened, before, found)[f]!;
  return usual > 0 ? { before: usual, now: oddsIn(belief) ?? 0 } : undefined;
}

/** The word of each part: from the belief, never from one reading. */
export function partWords(opened: Case, belief: Belief): Map<string, { word: Word; chance: number }> {
  const standing = standings(opened, belief);
  const chances = partChances(opened, belief);
  return new Map(
    opened.subject.parts.map(({ id }) => {
      const own = standing.filter((_, f) => opened.faults[f]!.part === id);
      const chance = chances.get(id) ?? 0;
      return [id, { word: wordFor(own, chance), chance }];
    }),
  );
}

function wordFor(own: readonly Standing[], chance: number): Word {
  if (chance >= failedChance) return 'failed';
  if (!own.some((s) => s.looked)) return 'not looked at';
  if (chance >= doubtfulChance) return 'doubtful';
  return own.every((s) => s.cleared) ? 'sound' : "can't tell";
}

/** Probability that anything is wrong with each part; faults of one hypothesis lie on different parts. */
function partChances(opened: Case, belief: Belief): Map<string, number> {
  const chances = new Map<string, number>();
  faultChances(opened, belief).forEach((chance, f) => {
    const { part } = opened.faults[f]!;
    chances.set(part, (chances.get(part) ?? 0) + chance);
  });
  return chances;
}
