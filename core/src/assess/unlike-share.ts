import { usualUnlikeShare } from '../machines/index.ts';

/** A unit that a shop has decided on. */
export interface DecidedUnit {
  /** How likely it was unlike its kind, by all that was read of it. */
  readonly chance: number;
  /** How common such units were taken to be before anything was read of it. */
  readonly share: number;
}

/** The usual share weighs as much as so many decided units [our estimate]. */
const usualWeight = 20;
const closeEnough = 1e-6;

/**
 * How common units unlike their kind are in a shop, between 0 and 1, from the units it has decided on: the share of a
 * mixture by expectation maximisation (Dempster, Laird and Rubin 1977), begun with a beta prior about the usual share.
 * Never less than usual: the next delivery may come from elsewhere.
 */
export function unlikeShareOf(decided: readonly DecidedUnit[]): number {
  const next = (share: number): number => {
    const expected = decided.reduce((sum, unit) => sum + chanceWith(share, unit), 0);
    return (usualUnlikeShare * usualWeight + expected) / (usualWeight + decided.length);
  };
  let [last, share] = [0, usualUnlikeShare];
  while (Math.abs(share - last) >= closeEnough) [last, share] = [share, next(share)];
  return Math.max(share, usualUnlikeShare);
}

/** What would have been believed of the unit if such units were so common (Bayes' rule). */
function chanceWith(share: number, { chance, share: before }: DecidedUnit): number {
  const unlike = (chance / before) * share;
  const alike = ((1 - chance) / (1 - before)) * (1 - share);
  return unlike / (unlike + alike);
}
