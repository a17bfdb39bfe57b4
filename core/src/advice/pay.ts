import type { Check } from '../checks/index.ts';
import type { Preparation } from './preparation.ts';
import type { Gain } from './worth.ts';

/** What a check would bring, and what it costs. */
export interface Priced {
  readonly check: Pick<Check, 'assembly' | 'minutes'>;
  readonly gain: Pick<Gain, 'error'>;
  readonly preparation: Preparation;
}

/**
 * Whether so much less error is worth so many minutes, where a wrong verdict costs as much as so many. Bits order the
 * checks, but go on paying for what would change no verdict.
 */
export const pays = (error: number, minutes: number, wrongVerdictMinutes: number): boolean =>
  error * wrongVerdictMinutes >= minutes;

/** Those that pay together for the preparation that they share, or by themselves where nothing comes before them. */
export const payingTogether = <P extends Priced>(priced: readonly P[], wrongVerdictMinutes: number): P[] =>
  [...new Set(priced.map(({ preparation }) => preparation.for))].flatMap((shared) => {
    const there = priced.filter(({ preparation }) => preparation.for === shared);
    return payFor(there[0]!.preparation.minutes, there, wrongVerdictMinutes) ? there : [];
  });

/**
 * Whether checks that share a preparation pay for it, charged once: the quickest gains first and as many as make it most.
 * What two of them would both tell counts twice.
 */
export function payFor(preparationMinutes: number, there: readonly Priced[], wrongVerdictMinutes: number): boolean {
  const perMinute = ({ check, gain }: Priced): number => gain.error / check.minutes;
  let [error, minutes] = [0, preparationMinutes];
  return [...there]
    .sort((a, b) => perMinute(b) - perMinute(a))
    .some(({ check, gain }) => {
      error += gain.error;
      minutes += check.minutes;
      return pays(error, minutes, wrongVerdictMinutes);
    });
}
