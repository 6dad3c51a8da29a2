import ICAL from 'ical.js';
import { addDays, type Busy, type DayText, momentAt, say } from '@heathstep/core';

/** A calendar that is none, in words for who chose the file. */
export class NoCalendar extends Error {}

/** More occurrences of one event than this are not looked at: a file cannot keep the page busy for ever. */
const MOST_OCCURRENCES = 5000;

interface Span {
  readonly from: DayText;
  readonly days: number;
  /** IANA name of the zone that times without one are read in. */
  readonly timeZone: string;
}

const two = (n: number): string => String(n).padStart(2, '0');

/** The moment of a time of a calendar; one without a zone is a time of the clinic's. */
function momentOf(time: ICAL.Time, timeZone: string): Date {
  if (time.zone !== ICAL.Timezone.localTimezone) return time.toJSDate();
  const day = `${time.year}-${two(time.month)}-${two(time.day)}`;
  return momentAt(day, time.hour * 60 + time.minute, timeZone);
}

const isTaken = (event: ICAL.Component): boolean =>
  event.getFirstPropertyValue('transp') !== 'TRANSPARENT' &&
  event.getFirstPropertyValue('status') !== 'CANCELLED';

/** What one event takes between two moments: none of an event of whole days, each time of one that repeats. */
function takenBy(component: ICAL.Component, until: Date, since: Date, timeZone: string): Busy[] {
  const event = new ICAL.Event(component);
  if (event.startDate.isDate || !isTaken(component)) return [];
  const busy: Busy[] = [];
  const take = (start: ICAL.Time, end: ICAL.Time) => {
    const [from, to] = [momentOf(start, timeZone), momentOf(end, timeZone)];
    if (to > since && from < until) busy.push({ start: from.toISOString(), end: to.toISOString() });
  };
  if (!event.isRecurring()) {
    take(event.startDate, event.endDate);
    return busy;
  }
  const times = event.iterator();
  for (let n = 0; n < MOST_OCCURRENCES; n += 1) {
    // The iterator gives nothing any more at the end, whatever its type says.
    const next = times.next() as ICAL.Time | null | undefined;
    if (next == null || momentOf(next, timeZone) >= until) break;
    const { startDate, endDate } = event.getOccurrenceDetails(next);
    take(startDate, endDate);
  }
  return busy;
}

const freeBusyOf = (component: ICAL.Component, timeZone: string): Busy[] =>
  component.getAllProperties('freebusy').flatMap((p) =>
    p.getParameter('fbtype') === 'FREE'
      ? []
      : p.getValues().flatMap((value): Busy[] => {
          if (!(value instanceof ICAL.Period)) return [];
          const start = momentOf(value.start, timeZone).toISOString();
          return [{ start, end: momentOf(value.getEnd(), timeZone).toISOString() }];
        }),
  );

/**
 * The times that a calendar file (RFC 5545) takes in some days: its events, repeated ones as often as they come, and its
 * free / busy lines. Whole days, free and cancelled ones take none. Nothing but the times is read.
 *
 * @throws NoCalendar where the text is no calendar
 */
export function busyIn(text: string, { from, days, timeZone }: Span): readonly Busy[] {
  let calendar: ICAL.Component;
  try {
    calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
    if (calendar.name !== 'vcalendar') throw new NoCalendar();
  } catch {
    throw new NoCalendar(say('This is no calendar file. An .ics file, as calendars export it, can be read.'));
  }
  const since = momentAt(from, 0, timeZone);
  const until = momentAt(addDays(from, days), 0, timeZone);
  const zones = calendar.getAllSubcomponents('vtimezone').map((c) => new ICAL.Timezone(c));
  for (const zone of zones) ICAL.TimezoneService.register(zone, zone.tzid);
  try {
    return [
      ...calendar.getAllSubcomponents('vevent').flatMap((c) => takenBy(c, until, since, timeZone)),
      ...calendar
        .getAllSubcomponents('vfreebusy')
        .flatMap((c) => freeBusyOf(c, timeZone))
        .filter((b) => new Date(b.end) > since && new Date(b.start) < until),
    ].sort((a, b) => (a.start < b.start ? -1 : 1));
  } catch {
    throw new NoCalendar(say('Some of this calendar cannot be read; nothing is taken from it.'));
  } finally {
    for (const zone of zones) ICAL.TimezoneService.remove(zone.tzid);
  }
}
