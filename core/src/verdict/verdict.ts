import { type Belief, type Case, chanceThat, faultChances, soundChance } from '../belief/index.ts';
import { formatChance } from '../quantity/index.ts';

/** Money and minutes as the shop entered them. What isn't entered is unknown, never guessed. */
export interface Prices {
  readonly labourPerHour?: number;
  /** An exchange or new unit. */
  readonly exchange?: number;
  /** What the old unit fetches. */
  readonly core?: number;
  /** What a comeback costs besides the work done twice. */
  readonly comeback?: number;
  readonly items: Readonly<Record<string, { readonly price?: number; readonly minutes?: number }>>;
}

export type CourseId = 'return' | 'repair' | 'replace' | 'reject';

export const courseNames: Readonly<Record<CourseId, string>> = {
  return: 'Return as is',
  repair: 'Repair',
  replace: 'Replace parts',
  reject: 'Reject',
};

export interface Action {
  readonly kind: 'repair' | 'replace';
  /** The part to mend or the item to replace. */
  readonly id: string;
  readonly name: string;
  /** The suspects it answers, by index, likeliest first. */
  readonly faults: readonly number[];
  /** The likeliest of them in words: joined by “or” where only one can be it, else by a semicolon. */
  readonly why: string;
  readonly chance: number;
}

export interface Course {
  readonly id: CourseId;
  readonly actions: readonly Action[];
  readonly minutes: number;
  /** Parts and labour; undefined when a price is missing. */
  readonly cost: number | undefined;
  readonly unknownPrices: readonly string[];
  /** Chance that something stays wrong. */
  readonly risk: number;
  /** Cost with the comeback's share in it, in money, or in minutes where money is unknown. */
  readonly expected: number;
  /** Why it can't be chosen on what is known; undefined when it can. */
  readonly barred: string | undefined;
}

export interface Verdict {
  readonly courses: readonly Course[];
  readonly inMoney: boolean;
  readonly recommended: CourseId | undefined;
  readonly reason: string;
}

/** Minutes to put a unit together and prove it, and those a comeback takes [from memory]. */
const rebuildMinutes = 15;
const repairMinutes = 15;
const comebackMinutes = 90;
/** Chance that an exchange unit comes back [from memory]. */
const exchangeRisk = 0.02;
/** Without prices, an action is taken at this chance of being needed [from memory]. */
const usualThreshold = 0.25;

/** The four courses over the belief, and the one to take. */
export function decide(opened: Case, belief: Belief, prices: Prices): Verdict {
  const wanted = actionsWanted(opened, belief, prices);
  const repairs = wanted.filter((action) => action.kind === 'repair');
  const courses = [
    course(opened, belief, prices, 'return', [], barredReturn(opened, belief)),
    course(
      opened,
      belief,
      prices,
      'repair',
      repairs,
      repairs.length ? undefined : 'Nothing found that can be mended in place.',
    ),
    course(opened, belief, prices, 'replace', wanted, barredReplace(wanted)),
    course(opened, belief, prices, 'reject', [], barredReject(wanted, prices)),
  ];
  const possible = courses.filter((c) => !c.barred);
  const inMoney = possible.every((c) => c.cost !== undefined) && prices.labourPerHour !== undefined;
  const ranked = inMoney ? courses : courses.map(inMinutes);
  const best = ranked.filter((c) => !c.barred).sort((a, b) => a.expected - b.expected)[0];
  return { courses: ranked, inMoney, recommended: best?.id, reason: reasonFor(best, inMoney) };
}

/** Whether a fault is the unit's, not the bench's. */
function ofUnit({ faults, subject }: Case): readonly boolean[] {
  const ofBench = new Set(subject.parts.flatMap((part) => (part.ofBench ? [part.id] : [])));
  return faults.map(({ part }) => !ofBench.has(part));
}

function barredReturn(opened: Case, belief: Belief): string | undefined {
  const own = ofUnit(opened);
  const wrong = chanceThat(opened, belief, (faults) => faults.some((f) => own[f]));
  if (wrong > 0.5) return `Something is wrong with a chance of ${formatChance(wrong)}.`;
  if (soundChance(belief) < 0.5) return 'The bench itself is in doubt: mend that and read again.';
  return opened.complaint.charging
    ? `“${opened.complaint.name}” isn't answered by readings at rest: run the unit before it goes back.`
    : undefined;
}

const barredReplace = (wanted: readonly Action[]): string | undefined =>
  wanted.some((action) => action.kind === 'replace') ? undefined : 'No part is suspected strongly enough to replace.';

function barredReject(wanted: readonly Action[], prices: Prices): string | undefined {
  if (prices.exchange === undefined) return 'No exchange price entered.';
  return wanted.some((action) => action.chance >= 0.5) ? undefined : 'Nothing found yet that condemns the unit.';
}

/** Every action whose need outweighs its cost, likeliest first; a replaced item makes mending on it needless. */
function actionsWanted(opened: Case, belief: Belief, prices: Prices): Action[] {
  const parts = opened.subject.parts;
  const items = opened.subject.items;
  const chances = faultChances(opened, belief);
  const groups = new Map<string, Omit<Action, 'chance' | 'why'> & { faults: number[] }>();
  const own = ofUnit(opened);
  opened.faults.forEach((fault, f) => {
    if (!own[f]) return;
    const part = parts.find((p) => p.id === fault.part)!;
    const kind = fault.repair ? 'repair' : 'replace';
    const id = fault.repair ? part.id : part.item;
    const name = fault.repair ?? items.find((item) => item.id === part.item)!.name;
    const key = `${kind} ${id}`;
    const group = groups.get(key) ?? { kind, id, name, faults: [] };
    group.faults.push(f);
    groups.set(key, group);
  });
  const wanted = [...groups.values()]
    .map((group): Action => {
      const faults = group.faults.filter((f) => chances[f]! > 0.02).sort((a, b) => chances[b]! - chances[a]!);
      const chance = chanceOfAny(opened, belief, new Set(group.faults));
      return { ...group, faults, why: whyOf(opened, faults, chances, chance), chance };
    })
    .filter((action) => action.chance >= threshold(action, prices))
    .sort((a, b) => b.chance - a.chance);
  const replaced = new Set(wanted.filter((a) => a.kind === 'replace').map((a) => a.id));
  return wanted.filter((a) => a.kind === 'replace' || !replaced.has(parts.find((p) => p.id === a.id)!.item));
}

/** At most three of the faults; where their chances hardly overlap, one or the other is meant. */
function whyOf(opened: Case, faults: readonly number[], chances: Float64Array, anyOf: number): string {
  const named = faults.slice(0, 3);
  const overlap = named.reduce((sum, f) => sum + chances[f]!, 0) - anyOf;
  return named.map((f) => opened.faults[f]!.name).join(overlap < 0.2 ? ' or ' : '; ');
}

/** The chance of need above which acting is cheaper than a comeback; between 0.1 and 0.5. */
function threshold(action: Action, prices: Prices): number {
  const price = action.kind === 'repair' ? 0 : prices.items[action.id]?.price;
  if (price === undefined || prices.labourPerHour === undefined || prices.comeback === undefined) return usualThreshold;
  const labour = (repairMinutes / 60) * prices.labourPerHour;
  return Math.min(Math.max((price + labour) / (price + 2 * labour + prices.comeback), 0.1), 0.5);
}

function chanceOfAny(opened: Case, belief: Belief, faults: ReadonlySet<number>): number {
  return chanceThat(opened, belief, (own) => own.some((f) => faults.has(f)));
}

function course(
  opened: Case,
  belief: Belief,
  prices: Prices,
  id: CourseId,
  actions: readonly Action[],
  barred: string | undefined,
): Course {
  const items = opened.subject.items;
  const parts = opened.subject.parts;
  const minutesOf = (action: Action): number =>
    action.kind === 'repair'
      ? repairMinutes
      : (prices.items[action.id]?.minutes ?? items.find((item) => item.id === action.id)!.minutes);
  const minutes = actions.length ? actions.reduce((sum, a) => sum + minutesOf(a), rebuildMinutes) : 0;
  const unknownPrices = actions
    .filter((a) => a.kind === 'replace' && prices.items[a.id]?.price === undefined)
    .map((a) => a.name);
  const own = ofUnit(opened);
  const mended = opened.faults.map((_, f) => !own[f] || mends(f));
  const risk = id === 'reject' ? exchangeRisk : chanceThat(opened, belief, (faults) => faults.some((f) => !mended[f]));
  const cost = costOf();
  const { comeback = 0, labourPerHour = 0 } = prices;
  const again = comeback + (comebackMinutes / 60) * labourPerHour;
  return { id, actions, minutes, cost, unknownPrices, risk, expected: (cost ?? 0) + risk * again, barred };

  function mends(fault: number): boolean {
    const { part, repair } = opened.faults[fault]!;
    const item = parts.find((p) => p.id === part)!.item;
    return actions.some((a) => (a.kind === 'replace' ? a.id === item : repair !== undefined && a.id === part));
  }
  function costOf(): number | undefined {
    if (id === 'reject') return prices.exchange === undefined ? undefined : prices.exchange - (prices.core ?? 0);
    if (id === 'return') return 0;
    if (unknownPrices.length || prices.labourPerHour === undefined) return undefined;
    const bought = actions.reduce((sum, a) => sum + (a.kind === 'replace' ? prices.items[a.id]!.price! : 0), 0);
    return bought + (minutes / 60) * prices.labourPerHour;
  }
}

/** Ranked without money: minutes, and the minutes of a comeback. A rejected unit can't be ranked so. */
const inMinutes = (c: Course): Course => ({
  ...c,
  expected: c.minutes + c.risk * (comebackMinutes + c.minutes),
  barred: c.id === 'reject' ? (c.barred ?? 'Needs the other courses’ prices to be compared.') : c.barred,
});

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function reasonFor(best: Course | undefined, inMoney: boolean): string {
  if (!best) return 'No course can be recommended yet: what was measured neither clears the unit nor names a part.';
  const names = best.actions.map((action) => action.why);
  const left = `${formatChance(best.risk)} chance that something stays wrong`;
  const ranked = inMoney ? 'least expected cost' : 'price unknown: least expected minutes';
  if (best.id === 'return') return `Nothing found; ${left} (${ranked}).`;
  if (best.id === 'reject') return `An exchange unit costs less than the work and its risk (${ranked}).`;
  return `${capital(names.join('; '))}; ${left} (${ranked}).`;
}
