import type { Check } from '../checks/index.ts';
import type { Subject } from '../machines/index.ts';
import type { Gain } from './worth.ts';

/** What a check would bring, and what it costs. */
export interface Priced {
  readonly check: Pick<Check, 'assembly' | 'minutes'>;
  readonly gain: Pick<Gain, 'error'>;
  /** Minutes of taking apart or putting back before it can be done. */
  readonly setupMinutes: number;
}

/**
 * Checks pay as long as the error of what is told falls by this in the minutes that all checks of such a subject take, ways
 * included: counted by `study bench`. All of a starter takes half the minutes of an alternator, and what is left unknown is
 * worth half as many. Bits order the checks, but go on paying for what would change no verdict.
 */
export const leastErrorInAll = 0.125;

/** Minutes that all checks of a subject take, each way from state to state once. */
export const minutesOfAll = ({ checks, assemblies }: Pick<Subject, 'checks' | 'assemblies'>): number =>
  [...checks, ...assemblies].reduce((sum, { minutes }) => sum + minutes, 0);

/** Whether so much less error is worth so many minutes. */
export const pays = (error: number, minutes: number, minutesInAll: number): boolean =>
  error / leastErrorInAll >= minutes / minutesInAll;

/** Whether the checks of some state of assembly pay together. */
export const payTogether = (priced: readonly Priced[], minutesInAll: number): boolean =>
  [...new Set(priced.map(({ check }) => check.assembly))].some((assembly) => {
    const there = priced.filter(({ check }) => check.assembly === assembly);
    return payFor(there[0]!.setupMinutes, there, minutesInAll);
  });

/**
 * Whether checks of one state pay for the way there, charged once: the quickest gains first and as many as make it most.
 * What two of them would both tell counts twice.
 */
export function payFor(way: number, there: readonly Priced[], minutesInAll: number): boolean {
  const perMinute = ({ check, gain }: Priced): number => gain.error / check.minutes;
  let [error, minutes] = [0, way];
  return [...there]
    .sort((a, b) => perMinute(b) - perMinute(a))
    .some(({ check, gain }) => {
      error += gain.error;
      minutes += check.minutes;
      return pays(error, minutes, minutesInAll);
    });
}
