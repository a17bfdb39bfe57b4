import { type Belief, type Evidence, faultChances, priorBelief } from './belief.ts';
import type { Case } from './case.ts';
import { mostFaults } from './dimensions.ts';
import { entriesOf, type Entry, type Row, rowFrom } from './row.ts';
import { slipIn, type Slips } from './slips.ts';

/** Faults found together, ascending. */
export type FaultSet = readonly number[];

/**
 * How many faults a unit has on average, were they counted as Poisson's law has it: 55 units in 100 have one and 15 two
 * [from memory]. Of units with n faults a share of this over n + 1 has another.
 */
const meanFaults = (2 * 15) / 55;
/** Sets of faults in degrees less likely than this share of their likeliest are left without a further one. */
const leastStanding = 1e-3;

/** One number for a set of faults. */
export const codeOfSet = (faults: FaultSet): number => faults.reduce((code, f) => code * mostAtAll + f + 1, 0);
const mostAtAll = 4096;

interface Chance {
  readonly faults: FaultSet;
  chance: number;
}
const knownChances = new WeakMap<Belief, Map<number, Chance>>();

/** How likely each set of faults is to be all that is wrong, by its code. */
export function chancesOfSets(opened: Case, belief: Belief): ReadonlyMap<number, Readonly<Chance>> {
  let chances = knownChances.get(belief);
  if (!chances) {
    knownChances.set(belief, (chances = new Map()));
    for (const { particles, weights } of belief.rows)
      for (const [at, p] of particles.entries()) {
        const { faults } = opened.particles[p]!;
        const known = chances.get(codeOfSet(faults));
        if (known) known.chance += weights[at]!;
        else chances.set(codeOfSet(faults), { faults, chance: weights[at]! });
      }
  }
  return chances;
}

/** Sets of two faults and more that are all that is wrong as likely as this, and beside which no further one is weighed. */
export const setsFound = (opened: Case, belief: Belief, least: number): FaultSet[] =>
  [...chancesOfSets(opened, belief).values()]
    .filter(({ faults, chance }) => faults.length >= 2 && faults.length < mostFaults && chance >= least)
    .map(({ faults }) => faults)
    .filter((set) => !belief.beside.some((known) => isSame(known, set)));

/**
 * What was believed, before the first reading, of units with a set of faults, those alone or with a further one, and of
 * nothing else: in the degrees that still stand `now`, since a further fault changes little of how severe they are.
 */
export function beliefInSet(opened: Case, before: Belief, now: Belief, set: FaultSet): Belief {
  const share = sharesBeside(opened, before, set);
  const ofSet = now.rows.map((row) => entriesOf(row).filter(({ particle }) => isOf(opened, particle, set)));
  const least = leastStanding * Math.max(...ofSet.flat().map(({ weight }) => weight));
  const rows = entriesBefore(opened, before, now.beside, set).map((entries, b) => {
    const standing = new Set(ofSet[b]!.flatMap(({ particle, weight }) => (weight >= least ? [particle] : [])));
    const alone = entries.filter(({ particle }) => standing.has(particle));
    return rowFrom([...alone, ...withMore(opened, alone, share)], before.rows[b]!.sound);
  });
  return summedToOne({ rows, scope: now.scope, evidence: [], beside: [set], before: undefined, logLikelihood: 0 });
}

/** Before any reading, the units of each build with a set of faults; of three and more they follow from those with one less. */
function entriesBefore(opened: Case, before: Belief, beside: readonly FaultSet[], set: FaultSet): Entry[][] {
  const own = before.rows.map((row) => entriesOf(row).filter(({ particle }) => isOf(opened, particle, set)));
  const less = beside.find((known) => known.length === set.length - 1 && known.every((f) => set.includes(f)));
  if (!less || own.some(({ length }) => length > 0)) return own;
  const share = sharesBeside(opened, before, less);
  return entriesBefore(opened, before, beside, less).map((entries) =>
    withMore(opened, entries, share).filter(({ particle }) => isOf(opened, particle, set)),
  );
}

/** The same units with a further fault each. */
const withMore = (opened: Case, entries: readonly Entry[], share: Float64Array): Entry[] =>
  entries.flatMap(({ particle, weight, state }) =>
    opened.withMore(particle).flatMap(({ fault, particles }) =>
      particles.map((more): Entry => {
        return { particle: more, weight: (weight * share[fault]!) / particles.length, state };
      }),
    ),
  );

/** Of each fault the chance that it is there beside a set of others, before any reading. */
export function sharesBeside(opened: Case, before: Belief, set: FaultSet): Float64Array {
  const { faults, subject } = opened;
  const there = set.map((f) => faults[f]!);
  const likened = faults.map((fault) => {
    if (there.some(({ part }) => part === fault.part)) return 0;
    return there.reduce((product, one) => product * subject.chain(one, fault), 1);
  });
  const usual = faultChances(opened, priorBelief(opened));
  const total = usual.reduce((sum, chance, f) => sum + chance * likened[f]!, 0);
  const any = meanFaults / (set.length + 1);
  return faultChances(opened, before).map((chance, f) => (any * chance * likened[f]!) / total);
}

/**
 * A belief in which the units with a set of faults are those of another, after the same readings: they may have a further
 * one there, and were weighed as carefully as what is likely is.
 */
export function withSet(belief: Belief, ofSet: Belief): Belief {
  const scale = Math.exp(ofSet.logLikelihood - belief.logLikelihood);
  const rows = belief.rows.map((row, b): Row => {
    const those = entriesOf(ofSet.rows[b]!).map((entry) => ({ ...entry, weight: entry.weight * scale }));
    const all = new Map([...entriesOf(row), ...those].map((entry) => [entry.particle, entry]));
    return rowFrom([...all.values()], row.sound);
  });
  const evidence = belief.evidence.map((one, r): Evidence => {
    const slips = one.slips.map((known, b): Slips => {
      const { particles } = rows[b]!;
      const anew = ofSet.evidence[r]!.slips[b]!;
      return { particles, chances: Float32Array.from(particles, (p) => slipIn(anew, p) ?? slipIn(known, p)!) };
    });
    return { ...one, slips };
  });
  return summedToOne({ ...belief, rows, evidence, beside: [...belief.beside, ...ofSet.beside] });
}

/** All weights together made to sum to one. */
function summedToOne(belief: Belief): Belief {
  const total = belief.rows.reduce((sum, { chance }) => sum + chance, 0);
  const rows = belief.rows.map((row): Row => {
    return { ...row, weights: row.weights.map((weight) => weight / total), chance: row.chance / total };
  });
  return { ...belief, rows, logLikelihood: belief.logLikelihood + Math.log(total) };
}

const isSame = (a: FaultSet, b: FaultSet): boolean => a.length === b.length && a.every((f, n) => f === b[n]);
const isOf = ({ particles }: Case, particle: number, set: FaultSet): boolean =>
  isSame(particles[particle]!.faults, set);
