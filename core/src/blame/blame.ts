import { type Belief, type Case, chanceThat } from '../belief/index.ts';
import { formatChance } from '../quantity/index.ts';

/** Where the fault lies, and what follows for the unit. */
export interface Blame {
  /** Chance of a fault in each place, likeliest first; two can be at fault at once. */
  readonly places: readonly { readonly id: string; readonly name: string; readonly chance: number }[];
  /** Chance that the unit itself is at fault. */
  readonly unit: number;
  /**
   * `bench`: the unit is to blame; `clear`: it can't be cleared on the vehicle, the bench has to; `return`: it is
   * not to blame; `ask`: something more is worth asking or measuring first.
   */
  readonly course: 'bench' | 'clear' | 'return' | 'ask';
  readonly reason: string;
}

/** At this chance of a fault in the unit it is to blame: the chance at which a part on the bench is marked failed. */
const toBlame = 0.9;
/** Below this it is not [design: a faulty one returned as good in under 2 in 100]. */
const notToBlame = 0.02;
/** What was told alone never clears a unit: what we measured ourselves has to leave no more than this. */
const ownMost = 0.1;

/** Chance of any fault in one place. */
function chanceIn(opened: Case, belief: Belief, place: string): number {
  const inPlace = opened.faults.map((fault) => fault.part === place);
  return chanceThat(opened, belief, (faults) => faults.some((f) => inPlace[f]));
}

/**
 * @param belief after everything measured and told
 * @param own after what we measured ourselves alone
 * @param worthwhile whether a check on the vehicle still pays for its minutes
 */
export function blameOf(opened: Case, belief: Belief, own: Belief, worthwhile: boolean): Blame {
  const places = opened.subject.parts
    .map(({ id, name }) => ({ id, name, chance: chanceIn(opened, belief, id) }))
    .sort((a, b) => b.chance - a.chance);
  const unit = places.find(({ id }) => id === 'unit')!.chance;
  const ownUnit = chanceIn(opened, own, 'unit');
  return { places, unit, ...courseFor(unit, ownUnit, worthwhile, places.filter(({ id }) => id !== 'unit')[0]!) };
}

function courseFor(
  unit: number,
  ownUnit: number,
  worthwhile: boolean,
  elsewhere: Blame['places'][number],
): Pick<Blame, 'course' | 'reason'> {
  const other = `${elsewhere.name} ${formatChance(elsewhere.chance)}`;
  if (unit < notToBlame && ownUnit < ownMost) {
    return { course: 'return', reason: `The unit is not to blame (${formatChance(unit)}): ${other}.` };
  }
  if (unit >= toBlame) {
    return { course: 'bench', reason: `The unit is to blame (${formatChance(unit)}).` };
  }
  if (worthwhile) {
    const why =
      unit < notToBlame ? 'what was told alone does not clear it' : `the unit ${formatChance(unit)}, ${other}`;
    return { course: 'ask', reason: `Not settled yet: ${why}.` };
  }
  return {
    course: 'clear',
    reason: `The vehicle does not settle it (the unit ${formatChance(unit)}, ${other}): the bench will.`,
  };
}
