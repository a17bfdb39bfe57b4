import { format, isSameDay, isSameYear, parseISO } from 'date-fns';

/** A day as written on a tag: `Tue 24 Nov`, of another year with that. */
export const dayOf = (iso: string, today = new Date()): string =>
  format(parseISO(iso), isSameYear(parseISO(iso), today) ? 'EEE d MMM' : 'EEE d MMM yyyy');
export const timeOf = (iso: string): string => format(parseISO(iso), 'HH:mm');
/** A moment as one says it: the time alone where it was today. */
export const whenOf = (iso: string, today = new Date()): string =>
  isSameDay(parseISO(iso), today) ? timeOf(iso) : `${dayOf(iso, today)}, ${timeOf(iso)}`;
/** For what is printed and kept. */
export const dateOf = (iso: string): string => format(parseISO(iso), 'd MMM yyyy');
export const dayAndTimeOf = (iso: string): string => `${dateOf(iso)}, ${timeOf(iso)}`;

/** Of moments one below the other, the day before the first of each; empty for the rest, and for those of `known`. */
export const daysBeside = (isos: readonly string[], known?: Date): readonly string[] =>
  isos.map((iso, i) => {
    const above = i ? parseISO(isos[i - 1]!) : known;
    return above && isSameDay(parseISO(iso), above) ? '' : dayOf(iso);
  });
