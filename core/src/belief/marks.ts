import type { Word } from '../checks/index.ts';
import { type Belief, faultChances, priorBelief } from './belief.ts';
import type { Case } from './case.ts';

/** What is known of each fault by now. */
export interface Standing {
  readonly chance: number;
  readonly prior: number;
  /** Weight of all evidence that could feel it, in bits. */
  readonly bits: number;
  /** Whether any reading could see it: moved it by at least half a bit. */
  readonly looked: boolean;
  /** Whether what was seen speaks against it: its odds fell to a quarter or less. */
  readonly cleared: boolean;
}

const lookedBits = 0.5;
const clearedBits = -2;
const failedChance = 0.9;
const doubtfulChance = 0.15;

export function standings(opened: Case, belief: Belief): Standing[] {
  const prior = faultChances(opened, priorBelief(opened));
  const chances = faultChances(opened, belief);
  return opened.faults.map((_, f) => {
    const all = belief.evidence.filter((evidence) => evidence.felt[f]).map((evidence) => evidence.bits[f]!);
    const bits = all.reduce((sum, b) => sum + b, 0);
    return {
      chance: chances[f]!,
      prior: prior[f]!,
      bits,
      looked: all.some((b) => Math.abs(b) >= lookedBits) || bits <= clearedBits,
      cleared: bits <= clearedBits,
    };
  });
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
