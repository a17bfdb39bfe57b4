import { type Belief, priorBelief, type Scope } from './belief.ts';
import type { Case } from './case.ts';
import { faultOfCode } from './hypotheses.ts';
import { rowOf } from './row.ts';

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
  scope?: Scope,
): Belief {
  const parts = new Map(next.subject.parts.map(({ id, item }) => [id, item]));
  const replaced = next.faults.map(({ part }) => fitted.includes(parts.get(part)!));
  const repaired = next.faults.map(({ part, repair }) => mended.includes(part) && repair !== undefined);
  const beside = belief.beside.filter((set) => !set.some((f) => replaced[f]));
  for (const set of beside)
    next.particles.forEach(({ faults }, p) => {
      if (faults.length === set.length && set.every((f) => faults.includes(f))) next.withMore(p);
    });
  const without = withoutFaults(last, next);
  const weights = priorBelief(next, scope).rows.map((row) => {
    const all = new Float64Array(next.particles.length);
    row.particles.forEach((p, at) => (all[p] = anew * row.weights[at]!));
    return all;
  });
  belief.rows.forEach((row, b) =>
    row.particles.forEach((p, at) => {
      const kept = (1 - anew) * row.weights[at]!;
      const tried = last.particles[p]!.faults.some((f) => repaired[f] && !replaced[f]);
      if (tried) weights[b]![without(p, (f) => replaced[f]!)]! += stillThere * kept;
      weights[b]![without(p, (f) => replaced[f]! || repaired[f]!)]! += (tried ? 1 - stillThere : 1) * kept;
    }),
  );
  const rows = weights.map((all, b) => rowOf(all, next.priorStates[b]!));
  return { rows, evidence: [], beside, before: undefined, logLikelihood: 0 };
}

/** The particle that is left of one when some of its faults are gone. */
function withoutFaults(last: Case, next: Case): (p: number, gone: (fault: number) => boolean) => number {
  const at = new Map(next.particles.map(({ codes }, p) => [codes.join(' '), p]));
  return (p, gone) => {
    const left = last.particles[p]!.codes.filter((code) => !gone(faultOfCode(code)));
    return at.get(left.join(' '))!;
  };
}
