import { format, parseISO } from 'date-fns';

/** `Wednesday 25 November` from a day or a moment. */
export const longDay = (iso: string): string => format(parseISO(iso), 'EEEE d MMMM');

/** `25 Nov`. */
export const shortDay = (iso: string): string => format(parseISO(iso), 'd MMM');

/** `25 Nov 2026`. */
export const fullDay = (iso: string): string => format(parseISO(iso), 'd MMM yyyy');
