import type { Subject } from '../machines/index.ts';
import { payFor, type Priced } from './pay.ts';

/** States on one side of where a unit stands. */
interface Side {
  /** Where to go there first. */
  readonly next: string;
  /** Minutes to the last of its states whose checks pay. */
  readonly minutes: number;
}

/**
 * The state of assembly to go to next: where checks pay for the way there, or in passing on it. With such states on both
 * sides, the side comes first whose last is nearer: less is gone to and fro. Undefined where none pays its way.
 */
export function nextState(
  { assemblies, wrongVerdictMinutes }: Pick<Subject, 'assemblies' | 'wrongVerdictMinutes'>,
  here: string,
  priced: readonly Priced[],
): string | undefined {
  const at = assemblies.findIndex(({ id }) => id === here);
  const sides = [assemblies.slice(0, at).reverse(), assemblies.slice(at + 1)].flatMap((states): Side[] => {
    const worth = states.flatMap(({ id }) => {
      const there = priced.filter(({ preparation }) => preparation.kind === 'way' && preparation.for === id);
      const [first] = there;
      if (!first) return [];
      const { minutes } = first.preparation;
      const paysFor = (way: number) => payFor(way, there, wrongVerdictMinutes);
      return { id, minutes, pays: paysFor(minutes), inPassing: paysFor(0) };
    });
    const last = worth.findLastIndex(({ pays }) => pays);
    const next = worth.slice(0, last + 1).find(({ inPassing }) => inPassing);
    return next ? [{ next: next.id, minutes: worth[last]!.minutes }] : [];
  });
  return sides.sort((a, b) => a.minutes - b.minutes)[0]?.next;
}
