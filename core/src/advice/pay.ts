import type { Check } from '../checks/index.ts';
import type { Gain } from './worth.ts';

/** What a check would bring, and what it costs. */
export interface Priced {
  readonly check: Pick<Check, 'assembly' | 'minutes'>;
  readonly gain: Pick<Gain, 'error'>;
  /** Minutes of taking apart or putting back before it can be done. */
  readonly setupMinutes: number;
}

/**
 * Whether so much less error is worth so many minutes, where a wrong verdict costs as much as so many. Bits order the
 * checks, but go on paying for what would change no verdict.
 */
export const pays = (error: number, minutes: number, wrongVerdictMinutes: number): boolean =>
  error * wrongVerdictMinutes >= minutes;

/** Whether the checks of some state of assembly pay together. */
export const payTogether = (priced: readonly Priced[], wrongVerdictMinutes: number): boolean =>
  [...new Set(priced.map(({ check }) => check.assembly))].some((assembly) => {
    const there = priced.filter(({ check }) => check.assembly === assembly);
    return payFor(there[0]!.setupMinutes, there, wrongVerdictMinutes);
  });

/**
 * Whether checks of one state pay for the way there, charged once: the quickest gains first and as many as make it most.
 * What two of them would both tell counts twice.
 */
export function payFor(way: number, there: readonly Priced[], wrongVerdictMinutes: number): boolean {
  const perMinute = ({ check, gain }: Priced): number => gain.error / check.minutes;
  let [error, minutes] = [0, way];
  return [...there]
    .sort((a, b) => perMinute(b) - perMinute(a))
    .some(({ check, gain }) => {
      error += gain.error;
      minutes += check.minutes;
      return pays(error, minutes, wrongVerdictMinutes);
    });
}
