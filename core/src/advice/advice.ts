import { type Belief, type Case, type Conditions, faultChances, separation } from '../belief/index.ts';
import type { Check } from '../checks/index.ts';
import { ensembleOf, type Member, type Views, viewsUnder } from './ensemble.ts';
import { pays, payingTogether } from './pay.ts';
import { type Preparation, preparationOf, type Whereabouts } from './preparation.ts';
import { nextState } from './way.ts';
import { type Classes, expectedGains, type Gain } from './worth.ts';

/** A check worth doing. */
export interface Advised {
  readonly check: Check;
  /** Expected from it: of what to do, and of which part. */
  readonly gain: Gain;
  readonly preparation: Preparation;
  /** Bits per minute, the preparation charged to this check. */
  readonly score: number;
  /** The two suspects it tells apart best; undefined stands for "nothing more wrong". */
  readonly between: readonly [number | undefined, number | undefined] | undefined;
}

/** Two suspects, or one and "nothing more wrong", and the check that tells them apart best, where one does or hints at it. */
export interface ToldApart {
  readonly between: readonly [number | undefined, number | undefined];
  readonly by: Check | undefined;
  readonly clearly: boolean;
}

export interface Advice {
  readonly checks: readonly Advised[];
  /** Every two of the open suspects, likeliest first. */
  readonly apart: readonly ToldApart[];
  /** Whether some checks still pay for their minutes and the preparation that they share. */
  readonly worthwhile: boolean;
}

/** Weight of knowing what to do against knowing which part it is. */
const actionShare = 0.7;
/** A check that separates two suspects by less doesn't tell them apart, or doesn't even hint at which it is. */
const tellsApart = 0.5;
const hintsApart = 0.1;

/** All open checks are weighed by a few hypotheses; the best of them once more, by all. */
const weighedFully = 8;

/** One for each build and set of faults, the likeliest degree standing for all: the degrees of a common fault crowd out no rare one. */
function scoutsOf({ builds }: Case, members: readonly Member[]): Member[] {
  const bySet = new Map<string, Member>();
  for (const member of members) {
    const set = [builds.indexOf(member.build), ...member.particle.faults].join(' ');
    const first = bySet.get(set);
    bySet.set(set, first ? { ...first, weight: first.weight + member.weight } : member);
  }
  return [...bySet.values()];
}

/** What to check next, best first, among the checks not done yet. `mayRun`: whether nothing forbids it to run. */
export function advise(
  opened: Case,
  belief: Belief,
  conditions: Conditions,
  done: ReadonlySet<string>,
  here: Whereabouts,
  mayRun = true,
): Advice {
  const { assembly } = here;
  const members = ensembleOf(opened, belief);
  const open = opened.checks.filter(
    (check) =>
      !done.has(check.id) &&
      check.method.kind !== 'leads' &&
      isOpen(opened, check, assembly) &&
      (mayRun || !isRun(opened, check)),
  );
  const viewsOf = viewsUnder(opened, conditions);
  const weigh = (by: readonly Member[]) => weigher(opened, by, viewsOf, here);
  const { wrongVerdictMinutes } = opened.subject;
  const sorted = (weighed: readonly Weighed[]): Weighed[] => {
    const next = nextState(opened.subject, assembly, weighed);
    const paying = new Set(payingTogether(weighed, wrongVerdictMinutes));
    /**
     * What pays as the unit stands comes before what pays once it has rested, that before all that is done in the state to
     * go to next, and that before the rest.
     */
    const rank = (one: Weighed): number => {
      const { check, gain, preparation } = one;
      if (preparation.kind === 'none' && pays(gain.error, check.minutes, wrongVerdictMinutes)) return 3;
      if (preparation.kind === 'rest' && paying.has(one)) return 2;
      return Number(preparation.kind === 'way' && preparation.for === next);
    };
    return [...weighed].sort((a, b) => rank(b) - rank(a) || b.score - a.score);
  };
  const roughly = sorted(open.map(weigh(scoutsOf(opened, members))));
  const exactly = roughly
    .slice(0, weighedFully)
    .map(({ check }) => check)
    .map(weigh(members));
  const pairs = pairsOf(rivalsOf(opened, belief, members));
  const separations = new Map(open.map((check) => [check, separationsOf(members, check, viewsOf, pairs)]));
  const weighed = sorted([...exactly, ...roughly.slice(weighedFully)]);
  const checks = weighed.map((one): Advised => ({ ...one, between: mostApart(pairs, separations.get(one.check)!) }));
  const apart = pairs.map(({ between }, p): ToldApart => {
    const by = (check: Check) => separations.get(check)![p]!;
    const most = Math.max(hintsApart, ...open.map(by));
    return { between, by: checks.find(({ check }) => by(check) >= most)?.check, clearly: most >= tellsApart };
  });
  return { checks, apart, worthwhile: payingTogether(weighed, wrongVerdictMinutes).length > 0 };
}

type Weighed = Omit<Advised, 'between'>;

/** What is done on some stands is weighed there alone. */
export const isOpen = ({ subject }: Case, { assembly }: Check, now: string): boolean =>
  assembly === now || !subject.assemblies.some(({ id, whenThere }) => id === assembly && whenThere);

/** Whether a check is done while the unit runs. */
export const isRun = ({ subject }: Case, { assembly }: Check): boolean =>
  subject.assemblies.some(({ id, running }) => id === assembly && running);

/** How one check is weighed. */
function weigher(
  opened: Case,
  members: readonly Member[],
  viewsOf: Views,
  here: Whereabouts,
): (check: Check) => Weighed {
  const weights = Float64Array.from(members, (member) => member.weight);
  const actions = classesOf(members, (m) => m.particle.faults.map((f) => actionKey(opened, f)));
  const parts = classesOf(members, (m) => m.particle.faults.map((f) => opened.faults[f]!.part));
  return (check) => {
    const views = viewsOf(members, check);
    const [ofActions, ofParts] = expectedGains(views, weights, [actions, parts]);
    const both = (of: keyof Gain): number => actionShare * ofActions![of] + (1 - actionShare) * ofParts![of];
    const gain = { bits: both('bits'), error: both('error') };
    const preparation = preparationOf(opened.subject, here, check);
    return { check, gain, preparation, score: gain.bits / (check.minutes + preparation.minutes) };
  };
}

/** How well a check tells each pair apart. */
function separationsOf(members: readonly Member[], check: Check, viewsOf: Views, pairs: readonly Pair[]): number[] {
  const rivals = [...new Set(pairs.flatMap((pair) => pair.members))];
  const views = viewsOf(
    rivals.map((m) => members[m]!),
    check,
  );
  const view = new Map(rivals.map((m, i) => [m, views[i]!]));
  return pairs.map(({ members: [a, b] }) => separation(view.get(a)!, view.get(b)!));
}

/** What one would do about a fault: mend it in place, or replace an item. */
function actionKey(opened: Case, fault: number): string {
  const { repair, part } = opened.faults[fault]!;
  return repair ? `repair ${part}` : opened.subject.parts.find((p) => p.id === part)!.item;
}

function classesOf(members: readonly Member[], keys: (member: Member) => string[]): Classes {
  const known = new Map<string, number>();
  const of = Int32Array.from(members, (member) => {
    const key = [...new Set(keys(member))].sort().join(' + ');
    if (!known.has(key)) known.set(key, known.size);
    return known.get(key)!;
  });
  return { of, count: known.size };
}

interface Rival {
  readonly fault: number | undefined;
  readonly member: number;
  readonly chance: number;
}

/** A fault this likely is taken as there: the question is what else is wrong. */
const certain = 0.9;

/** The likeliest open suspects and "nothing more wrong", each with its heaviest hypothesis. */
function rivalsOf(opened: Case, belief: Belief, members: readonly Member[]): Rival[] {
  const chances = faultChances(opened, belief);
  const settled = (fault: number) => chances[fault]! >= certain;
  const open = [...chances.keys()].filter((fault) => !settled(fault)).sort((a, b) => chances[b]! - chances[a]!);
  const nothingMore = members.findIndex((m) => m.particle.faults.every(settled));
  return [
    ...(nothingMore >= 0 ? [{ fault: undefined, member: nothingMore, chance: members[nothingMore]!.weight }] : []),
    ...open.slice(0, 6).flatMap((fault) => {
      const member = members.findIndex((m) => m.particle.faults.includes(fault));
      return member >= 0 ? [{ fault, member, chance: chances[fault]! }] : [];
    }),
  ];
}

/** Two rivals, with the members that stand for them. */
interface Pair {
  readonly between: readonly [number | undefined, number | undefined];
  readonly members: readonly [number, number];
  readonly weight: number;
}

const pairsOf = (rivals: readonly Rival[]): Pair[] =>
  rivals
    .flatMap((a, i) =>
      rivals.slice(i + 1).map((b): Pair => {
        const weight = Math.sqrt(a.chance * b.chance);
        return { between: [a.fault, b.fault], members: [a.member, b.member], weight };
      }),
    )
    .sort((a, b) => b.weight - a.weight);

function mostApart(pairs: readonly Pair[], separations: readonly number[]): Advised['between'] {
  let best: { pair: Pair; worth: number } | undefined;
  pairs.forEach((pair, p) => {
    const worth = separations[p]! * pair.weight;
    if (worth > (best?.worth ?? 0.002)) best = { pair, worth };
  });
  return best?.pair.between;
}
