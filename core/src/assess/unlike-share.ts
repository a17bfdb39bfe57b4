import { usualUnlikeShare } from '../machines/index.ts';

/** A unit that a shop is done with. */
export interface FinishedUnit {
  /** How likely it was unlike its kind, by all that was read of it. */
  readonly chance: number;
  /** How common such units were taken to be before anything was read of it. */
  readonly share: number;
}

/** The usual share weighs as much as so many finished units [our estimate]. */
const usualWeight = 20;
const closeEnough = 1e-6;

/**
 * How common units unlike their kind are in a shop, between 0 and 1, from the units it is done with: the share of a
 * mixture by expectation maximisation (Dempster, Laird and Rubin 1977), begun with a beta prior about the usual share.
 * Never less than usual: the next delivery may come from elsewhere.
 */
export function unlikeShareOf(finished: readonly FinishedUnit[]): number {
  for (let share = usualUnlikeShare; ;) {
    const expected = finished.reduce((sum, unit) => sum + chanceWith(share, unit), 0);
    const next = (usualUnlikeShare * usualWeight + expected) / (usualWeight + finished.length);
    if (Math.abs(next - share) < closeEnough) return Math.max(next, usualUnlikeShare);
    share = next;
  }
}

/** What would have been believed of the unit if such units were so common (Bayes' rule). */
function chanceWith(share: number, { chance, share: before }: FinishedUnit): number {
  const unlike = (chance / before) * share;
  const alike = ((1 - chance) / (1 - before)) * (1 - share);
  return unlike / (unlike + alike);
}
