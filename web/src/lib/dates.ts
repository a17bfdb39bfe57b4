import { format, parseISO } from 'date-fns';

/** A day as written on a tag: `Tue 24 Nov`. */
export const dayOf = (iso: string): string => format(parseISO(iso), 'EEE d MMM');
/** Time of day on the tape. */
export const timeOf = (iso: string): string => format(parseISO(iso), 'HH:mm');
export const dayAndTimeOf = (iso: string): string => format(parseISO(iso), 'd MMM yyyy, HH:mm');
