import type { Check } from '../checks/index.ts';
import type { SetUp } from './set-up.ts';
import type { Gain } from './worth.ts';

/** What a check would bring, and what it costs. */
export interface Priced {
  readonly check: Pick<Check, 'assembly' | 'minutes'>;
  readonly gain: Pick<Gain, 'error'>;
  readonly setUp: SetUp;
}

/**
 * Whether so much less error is worth so many minutes, where a wrong verdict costs as much as so many. Bits order the
 * checks, but go on paying for what would change no verdict.
 */
export const pays = (error: number, minutes: number, wrongVerdictMinutes: number): boolean =>
  error * wrongVerdictMinutes >= minutes;

/** Those that pay together for the set-up that they share, or by themselves where nothing comes before them. */
export const payingTogether = <P extends Priced>(priced: readonly P[], wrongVerdictMinutes: number): P[] =>
  [...new Set(priced.map(({ setUp }) => setUp.for))].flatMap((shared) => {
    const there = priced.filter(({ setUp }) => setUp.for === shared);
    return payFor(there[0]!.setUp.minutes, there, wrongVerdictMinutes) ? there : [];
  });

/**
 * Whether checks that share a set-up pay for it, charged once: the quickest gains first and as many as make it most.
 * What two of them would both tell counts twice.
 */
export function payFor(setUpMinutes: number, there: readonly Priced[], wrongVerdictMinutes: number): boolean {
  const perMinute = ({ check, gain }: Priced): number => gain.error / check.minutes;
  let [error, minutes] = [0, setUpMinutes];
  return [...there]
    .sort((a, b) => perMinute(b) - perMinute(a))
    .some(({ check, gain }) => {
      error += gain.error;
      minutes += check.minutes;
      return pays(error, minutes, wrongVerdictMinutes);
    });
}
