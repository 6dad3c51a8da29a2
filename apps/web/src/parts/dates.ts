import { dayOf, localDay, localTime } from '@heathstep/core';
import { format, parseISO } from 'date-fns';
import { pageLanguage } from './language.js';

/** The zone in which moments are shown: the clinic's, wherever the browser stands. The browser's own until it is known. */
let zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

export function showTimesIn(timeZone: string): void {
  zone = timeZone;
}

/** The clinic's day of a moment; a bare day is itself. */
export const dayHere = (iso: string): string =>
  iso.length <= 10 ? dayOf(iso) : localDay(new Date(iso), zone);

/** By the pattern in English, by what belongs to it where the pages are in another language. */
const shownAs =
  (pattern: string, parts: Intl.DateTimeFormatOptions) =>
  (iso: string): string =>
    pageLanguage === null
      ? format(parseISO(dayHere(iso)), pattern)
      : dayIn(pageLanguage.locale, parts, dayHere(iso));

/** A day as a place writes it. */
export const dayIn = (locale: string, parts: Intl.DateTimeFormatOptions, day: string): string =>
  new Intl.DateTimeFormat(locale, { ...parts, timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`));

const LONG_DAY = { weekday: 'long', day: 'numeric', month: 'long' } as const;
const SHORT_DAY = { day: 'numeric', month: 'short' } as const;

/** `Wednesday 25 November` from a day or a moment. */
export const longDay = shownAs('EEEE d MMMM', LONG_DAY);

/** `Wednesday`. */
export const weekdayName = shownAs('EEEE', { weekday: 'long' });

/** `25 Nov`. */
export const shortDay = shownAs('d MMM', SHORT_DAY);

/** `25 Nov 2026`. */
export const fullDay = shownAs('d MMM yyyy', { ...SHORT_DAY, year: 'numeric' });

/** Day and time where the clinic is. */
export function momentText(iso: string): string {
  const here = localTime(new Date(iso), zone);
  return `${shortDay(here.slice(0, 10))}, ${here.slice(11, 16)}`;
}

/** A text with its ISO days as they are written here. */
export const withShortDays = (text: string): string => text.replace(/\b\d{4}-\d{2}-\d{2}\b/g, shortDay);
