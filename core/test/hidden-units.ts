import { type Session, type TapeReading } from '../src/assess/index.ts';
import { isOpen, isRun, preparationOf, wayMinutes, whereAfter, type Whereabouts } from '../src/advice/index.ts';
import { type Belief, type Case, unlikeChance } from '../src/belief/index.ts';
import type { Check, Equipment } from '../src/checks/index.ts';
import type { Multimeter } from '../src/instruments/index.ts';
import { type Fault, stateFor } from '../src/machines/index.ts';
import type { Hidden, HiddenUnit } from '../src/practice/index.ts';
import { showing, unseen } from './spreads.ts';

/** Made-up units with hidden faults on the static bench, and what becomes of them: by every check, or by the advice. */

/** A share of healthy units and of those with one fault; the rest has two. */
const healthy = 0.3;
const single = 0.55;
/** One check is taken so often where two readings of it disagree. */
const mostTaken = 3;
/** So many readings and the advice should have come to an end. */
const mostReadings = 160;

/** From slight to bad. A fault with grades needs its range among the study's own figures. */
export function severitiesOf({ species, severity: { grades } }: Fault, ranges = showing): readonly [number, number] {
  const range = grades.length === 1 ? ([grades[0]!, grades[0]!] as const) : ranges[species];
  if (!range) throw new Error(`the study doesn’t say how bad “${species}” may be`);
  return range;
}

/**
 * Nothing, one fault or two on different parts, as they are met: damage in chains more often; severities strewn over all
 * grades.
 */
export function hide(
  random: () => number,
  { faults, subject }: Case,
  never: readonly string[] = unseen,
  ranges = showing,
): Hidden[] {
  const can = faults.filter(({ species }) => !never.includes(species));
  const pick = <T>(from: readonly T[], weightOf: (one: T) => number): T => {
    let left = random() * from.reduce((sum, one) => sum + weightOf(one), 0);
    return from.find((one) => (left -= weightOf(one)) <= 0) ?? from[0]!;
  };
  const withSeverity = (fault: Fault): Hidden => {
    const [low, high] = severitiesOf(fault, ranges);
    return { fault, severity: low * (high / low) ** random() };
  };
  const roll = random();
  if (roll < healthy) return [];
  if (roll < healthy + single) return [withSeverity(pick(can, ({ weight }) => weight))];
  const pairs = can.flatMap((a, i) => can.slice(i + 1).flatMap((b) => (a.part === b.part ? [] : [[a, b] as const])));
  return pick(pairs, ([a, b]) => a.weight * b.weight * subject.chain(a, b)).map(withSeverity);
}

/** What a study keeps of one unit. */
export interface Told {
  readonly hidden: readonly string[];
  readonly severities: readonly number[];
  readonly minutes: number;
  readonly readings: number;
  /** Sets as one text: what is truly wrong, what is likeliest believed, and how surely. */
  readonly parts: { readonly truth: string; readonly told: string; readonly chance: number };
  readonly items: { readonly truth: string; readonly told: string; readonly chance: number };
  /** How likely it is taken to be unlike its kind. */
  readonly unlike: number;
}

export type Policy = 'every check' | 'the advice';
/** At rest alone, or on the stand too where the light is green: before it is opened, and before it would go back unrun. */
export type Reach = 'at rest' | 'and on the stand';

/**
 * Takes a unit through the bench by a policy. A reading that fits nothing is taken once more, as the program asks, and a
 * third time where the two disagree.
 */
export function bench(
  session: Session,
  unit: HiddenUnit,
  meter: Multimeter,
  policy: Policy,
  reach: Reach = 'at rest',
  never: readonly string[] = unseen,
  /** What this shop has not; a stand is in its reach. */
  without: readonly Exclude<Equipment, 'stand'>[] = [],
): Told {
  const { opened } = session;
  const tape: TapeReading[] = [];
  let here: Whereabouts = { assembly: 'closed' };
  let minutes = 0;
  const take = (check: Check): void => {
    minutes += check.minutes + preparationOf(opened.subject, here, check).minutes;
    here = whereAfter(opened.subject, here, check);
    tape.push({ id: String(tape.length), check: check.id, outcome: unit.read(check), meter: meter.id, celsius: 20 });
  };
  const taken = (id: string): number => tape.filter(({ check }) => check === id).length;
  const stand = reach === 'at rest' ? undefined : opened.subject.assemblies.find((state) => state.whenThere)?.id;
  const wayFromClosed = (check: Check): number => wayMinutes(opened.subject, 'closed', check.assembly);
  const lacks: readonly Equipment[] = [...(stand ? [] : (['stand'] as const)), ...without];
  // Nobody solders twice: all that is done closed comes first, then the run, then what is done opened.
  const inOrder = opened.checks
    .filter(
      (check) =>
        !lacks.some((lacking) => lacking === check.needs) &&
        (check.assembly === stand || isOpen(opened, check, 'closed')),
    )
    .sort((a, b) => wayFromClosed(a) - wayFromClosed(b));
  const situation = () => ({ readings: tape, assembly: here.assembly, meter: meter.id, celsius: 20, lacks });
  let ran = !stand;
  /** What the policy does next; nothing when it is through. */
  const next = (): Check | 'run' | undefined => {
    // Nobody puts it together again, or takes it apart, for a reading that is to be taken once more.
    const doubted = session
      .judge(situation())
      .filter(({ check, repeat, counting }) => repeat && taken(check) < (counting === 'undecided' ? mostTaken : 2))
      .map(({ check }) => opened.checks.find(({ id }) => id === check)!)
      .find((check) => stateFor(opened.subject.assemblies, here.assembly, check) === here.assembly);
    if (doubted) return doubted;
    if (policy === 'every check') {
      // Nothing is fed against a red light.
      const isRed = session.gate(situation())?.green === false;
      const mayTake = (check: Check) => here.assembly === stand || !isRed || !isRun(opened, check);
      const left = inOrder.filter((check) => taken(check.id) === 0 && mayTake(check));
      const [first] = here.assembly === stand ? left.filter((check) => check.assembly === stand) : [];
      const atRest = left.filter((check) => check.assembly !== stand);
      const closed = ran ? undefined : atRest.find((check) => wayFromClosed(check) === 0);
      return first ?? closed ?? (ran ? atRest[0] : 'run');
    }
    const advice = session.advice(situation());
    if (!ran && advice.runFirst) return 'run';
    return advice.stop ? undefined : opened.checks.find(({ id }) => id === advice.next[0]?.check);
  };
  /** Does what the light still asks for, and clamps it on the stand if it is green then. */
  const run = (): void => {
    ran = true;
    const gate = session.gate(situation());
    opened.checks.filter(({ id }) => gate?.reasons.some(({ check }) => check === id)).forEach(take);
    if (!session.gate(situation())?.green) return;
    minutes += wayMinutes(opened.subject, here.assembly, stand!);
    here = { assembly: stand! };
  };
  for (;;) {
    const wanted = next();
    if (wanted && wanted !== 'run') take(wanted);
    // Where regulators fail too, which nothing shows at rest, no unit goes back that never ran.
    else if (wanted || (!ran && !never.includes('regulator'))) run();
    else break;
    if (tape.length > mostReadings) throw new Error(`no end after ${tape.length} readings`);
  }
  return {
    hidden: unit.hidden.map(({ fault }) => fault.id),
    severities: unit.hidden.map(({ severity }) => severity),
    minutes,
    readings: tape.length,
    ...judged(opened, session.beliefAfter({ readings: tape }), unit.hidden, never),
    unlike: unlikeChance(opened, session.beliefAfter({ readings: tape })),
  };
}

function judged(
  opened: Case,
  belief: Belief,
  hidden: readonly Hidden[],
  never: readonly string[],
): Pick<Told, 'parts' | 'items'> {
  const itemOf = new Map(opened.subject.parts.map(({ id, item }) => [id, item]));
  const setOf = (faults: readonly Fault[], name: (part: string) => string): string =>
    [...new Set(faults.filter(({ species }) => !never.includes(species)).map(({ part }) => name(part)))]
      .sort()
      .join(' + ') || 'nothing';
  const likeliest = (name: (part: string) => string): { told: string; chance: number } => {
    const chances = new Map<string, number>();
    for (const { particles, weights } of belief.rows)
      particles.forEach((p, at) => {
        const set = setOf(
          opened.particles[p]!.faults.map((f) => opened.faults[f]!),
          name,
        );
        chances.set(set, (chances.get(set) ?? 0) + weights[at]!);
      });
    const [told, chance] = [...chances].reduce((best, one) => (one[1] > best[1] ? one : best));
    return { told, chance };
  };
  const truly = hidden.map(({ fault }) => fault);
  const part = (id: string): string => id;
  const item = (id: string): string => itemOf.get(id)!;
  return {
    parts: { truth: setOf(truly, part), ...likeliest(part) },
    items: { truth: setOf(truly, item), ...likeliest(item) },
  };
}
