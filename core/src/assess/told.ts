import {
  type Belief,
  buildChances,
  type Case,
  type Counted,
  faultChances,
  learntOf,
  partWords,
  severityOf,
  standings,
  unlikeChance,
} from '../belief/index.ts';
import { kinOf } from '../machines/index.ts';
import { courseNames, decide, type Prices } from '../verdict/index.ts';
import type { AssessedVerdict, Assessment, Diagnosis, Suspect, Winding } from './assessment.ts';
import { outcomeText, severityText } from './words.ts';

const shownSuspects = 12;
/** Suspects with less chance than this are not shown. */
const leastChance = 0.005;

/** Siblings that differ by rounding alone stay in the order of the machine, on every computer the same. */
const even = (chance: number): number => Number(chance.toPrecision(9));

export function suspectsOf(
  opened: Case,
  belief: Belief,
  counted: readonly Counted[],
  tape: readonly { readonly id: string; readonly check: string }[],
): Suspect[] {
  const chances = faultChances(opened, belief);
  const readingOf = new Map(tape.map(({ check, id }) => [check, id]));
  const shown = counted.map(({ reading }) => outcomeText(reading.check, reading.outcome));
  return [...chances.keys()]
    .filter((f) => chances[f]! >= leastChance)
    .sort((a, b) => even(chances[b]!) - even(chances[a]!))
    .slice(0, shownSuspects)
    .map((f): Suspect => {
      const fault = opened.faults[f]!;
      const evidence = belief.evidence.map(({ bits }, r) => {
        const { check } = counted[r]!.reading;
        return { reading: readingOf.get(check.id)!, check: check.name, shown: shown[r]!, bits: bits[f]! };
      });
      return {
        fault: fault.id,
        name: fault.name,
        part: fault.part,
        chance: chances[f]!,
        severity: chances[f]! < 0.02 ? undefined : severityText(fault.severity, severityOf(opened, belief, f)),
        evidence: evidence.filter((e) => Math.abs(e.bits) >= 0.1).sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits)),
      };
    });
}

/** The builds that the unit may have, however it lies within them. */
export function buildsOf({ builds }: Case, belief: Belief): Diagnosis['builds'] {
  const chances = buildChances(belief);
  const kin = (id: string) => builds.flatMap((build, b) => (kinOf(build) === id ? [chances[b]!] : []));
  return builds
    .filter(({ strewn }) => !strewn)
    .map(({ id, name, contrary, variant }) => {
      const chance = kin(id).reduce((sum, chance) => sum + chance, 0);
      return { name, chance, contrary: contrary ?? (variant === undefined ? undefined : true) };
    })
    .filter(({ chance, contrary }) => chance > 0 || !contrary);
}

/** What a unit unlike its kind differs in alone, if that is likelier than in all. */
export const unlikeInOf = (opened: Case, belief: Belief): string | undefined =>
  opened.subject.strewnApart?.find(({ name }) => unlikeChance(opened, belief, name) > unlikeChance(opened, belief) / 2)
    ?.name;

export const clearedOf = (opened: Case, belief: Belief): Assessment['cleared'] =>
  standings(opened, belief).flatMap((standing, f) =>
    standing.cleared && standing.chance < leastChance
      ? [{ fault: opened.faults[f]!.id, name: opened.faults[f]!.name, bits: standing.bits }]
      : [],
  );

export function partsOf(opened: Case, belief: Belief): Assessment['parts'] {
  const words = partWords(opened, belief);
  return opened.subject.parts.map(({ id, name }) => ({ id, name, ...words.get(id)! }));
}

export const windingsOf = (opened: Case, belief: Belief): Winding[] =>
  (opened.subject.windings ?? []).flatMap(({ nuisance, name }) => {
    const learnt = learntOf(opened, belief, nuisance);
    return learnt ? [{ id: nuisance, name, ...learnt }] : [];
  });

export function verdictOf(opened: Case, belief: Belief, prices: Prices): AssessedVerdict {
  const verdict = decide(opened, belief, prices);
  return {
    ...verdict,
    courses: verdict.courses.map(({ id, actions, minutes, cost, unknownPrices, risk, barred }) => ({
      id,
      name: courseNames[id],
      actions: actions.map(({ kind, id: what, name, why, chance }) => ({ kind, id: what, name, why, chance })),
      minutes,
      cost,
      unknownPrices,
      risk,
      barred,
    })),
  };
}
