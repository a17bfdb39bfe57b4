import { type Belief, priorBelief, type Scope } from './belief.ts';
import type { Case } from './case.ts';
import { faultOfCode } from './hypotheses.ts';
import { entriesOf, type Entry, rowFrom } from './row.ts';

/** What was done: items fitted new, parts mended in place. */
interface Done {
  readonly fitted: readonly string[];
  readonly mended: readonly string[];
}

/**
 * Share of the belief that begins anew after work: a new part may be bad, and what was taken apart may have been
 * damaged or put together wrongly [from memory].
 */
const anew = 0.1;

/** Chance that a part mended in place isn't mended: cleaning and freeing are tried first [from memory]. */
const stillThere = 0.15;

/**
 * What is believed before the first reading of a new round: every hypothesis of the last one loses the faults that
 * the work took away, and keeps the others. What was learnt of resistances, leads and temperature isn't carried over.
 * `last` and `next` are the same unit.
 */
export function beliefAfterWork(
  last: Case,
  belief: Belief,
  next: Case,
  { fitted, mended }: Done,
  scope: Scope = 'its kind',
): Belief {
  const parts = new Map(next.subject.parts.map(({ id, item }) => [id, item]));
  const replaced = next.faults.map(({ part }) => fitted.includes(parts.get(part)!));
  const repaired = next.faults.map(({ part, repair }) => mended.includes(part) && repair !== undefined);
  const without = withoutFaults(last, next);
  const weights = priorBelief(next, scope).rows.map(
    (row) => new Map(entriesOf(row).map(({ particle, weight }) => [particle, anew * weight])),
  );
  belief.rows.forEach((row, b) => {
    const add = (p: number, weight: number) => weights[b]!.set(p, (weights[b]!.get(p) ?? 0) + weight);
    for (const { particle, weight } of entriesOf(row)) {
      const kept = (1 - anew) * weight;
      const tried = last.particles[particle]!.faults.some((f) => repaired[f] && !replaced[f]);
      const still = without(particle, (f) => replaced[f]!);
      const gone = without(particle, (f) => replaced[f]! || repaired[f]!);
      if (tried) add(still, stillThere * kept);
      add(gone, (tried ? 1 - stillThere : 1) * kept);
    }
  });
  const rows = weights.map((all, b) => {
    const state = next.priorStates[b]!;
    const entries = [...all].map(([particle, weight]): Entry => ({ particle, weight, state }));
    return rowFrom(entries, state);
  });
  const beside = belief.beside.filter((set) => !set.some((f) => replaced[f]));
  return { rows, scope, evidence: [], beside, before: undefined, logLikelihood: 0 };
}

/** The particle that is left of one when some of its faults are gone. */
function withoutFaults(last: Case, next: Case): (p: number, gone: (fault: number) => boolean) => number {
  const at = new Map(next.particles.map(({ codes }, p) => [codes.join(' '), p]));
  /** Of more than two faults it may have to be added: from that of the first two on. */
  const placeOf = (codes: readonly number[]): number =>
    at.get(codes.join(' ')) ?? withCode(next, placeOf(codes.slice(0, -1)), codes.at(-1)!);
  return (p, gone) => placeOf(last.particles[p]!.codes.filter((code) => !gone(faultOfCode(code))));
}

/** The place of a particle with a further fault. */
function withCode(next: Case, p: number, code: number): number {
  const { particles } = next.withMore(p).find(({ fault }) => fault === faultOfCode(code))!;
  return particles.find((more) => next.particles[more]!.codes.includes(code))!;
}
