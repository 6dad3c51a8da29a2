import { dayOf, localDay, localTime } from '@heathstep/core';
import { format, parseISO } from 'date-fns';

/** The zone in which moments are shown: the clinic's, wherever the browser stands. The browser's own until it is known. */
let zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

export function showTimesIn(timeZone: string): void {
  zone = timeZone;
}

/** The clinic's day of a moment; a bare day is itself. */
export const dayHere = (iso: string): string =>
  iso.length <= 10 ? dayOf(iso) : localDay(new Date(iso), zone);

const shownAs = (pattern: string) => (iso: string) => format(parseISO(dayHere(iso)), pattern);

/** `Wednesday 25 November` from a day or a moment. */
export const longDay = shownAs('EEEE d MMMM');

/** `Wednesday`. */
export const weekdayName = shownAs('EEEE');

/** `25 Nov`. */
export const shortDay = shownAs('d MMM');

/** `25 Nov 2026`. */
export const fullDay = shownAs('d MMM yyyy');

/** Day and time where the clinic is. */
export const momentText = (iso: string): string =>
  format(parseISO(localTime(new Date(iso), zone)), 'd MMM, HH:mm');
