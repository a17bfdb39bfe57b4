import type { JudgedReading } from '@refectum/core/assess';
import type { TakenReading } from '../job.ts';

/**
 * Readings that ask to be taken again, oldest first: of those that stand, and not where the check was read once more and
 * that reading is still to be thought through.
 */
export function askAgain<Judged extends Pick<JudgedReading, 'id' | 'check' | 'repeat'>>(
  judged: readonly Judged[] = [],
  standing: readonly Pick<TakenReading, 'id' | 'check'>[],
): readonly Judged[] {
  const stands = new Set(standing.map(({ id }) => id));
  const known = new Set(judged.map(({ id }) => id));
  const underway = new Set(standing.filter(({ id }) => !known.has(id)).map(({ check }) => check));
  return judged.filter(({ id, check, repeat }) => repeat !== undefined && stands.has(id) && !underway.has(check));
}
