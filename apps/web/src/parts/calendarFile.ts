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

/** An event that has its times: each time of one that repeats is an event. */
export interface TimedEvent {
  /** The same for the same time of the same event, whenever the calendar is read. */
  readonly uid: string;
  readonly summary: string;
  readonly start: Date;
  readonly end: Date;
}

/** Times of one event between two moments: none of an event of whole days, each time of one that repeats. */
function timesOf(component: ICAL.Component, until: Date, since: Date, timeZone: string): TimedEvent[] {
  const event = new ICAL.Event(component);
  if (event.startDate.isDate || !isTaken(component)) return [];
  const found: TimedEvent[] = [];
  const take = (uid: string, from: ICAL.Time, to: ICAL.Time) => {
    const [start, end] = [momentOf(from, timeZone), momentOf(to, timeZone)];
    // A name is whatever someone wrote there.
    const summary = String(component.getFirstPropertyValue('summary') ?? '');
    if (end > since && start < until) found.push({ uid, summary, start, end });
  };
  const uid = String(component.getFirstPropertyValue('uid') ?? '');
  if (!event.isRecurring()) {
    take(uid, event.startDate, event.endDate);
    return found;
  }
  const times = event.iterator();
  for (let n = 0; n < MOST_OCCURRENCES; n += 1) {
    // The iterator gives nothing any more at the end, whatever its type says.
    const next = times.next() as ICAL.Time | null | undefined;
    if (next == null || momentOf(next, timeZone) >= until) break;
    const { startDate, endDate } = event.getOccurrenceDetails(next);
    take(`${uid} ${next.toString()}`, startDate, endDate);
  }
  return found;
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
 * Reads a calendar file (RFC 5545) with its own zones known meanwhile.
 *
 * @throws NoCalendar where the text is no calendar, or what is read of it cannot be
 */
function read<T>(text: string, what: (calendar: ICAL.Component) => T): T {
  let calendar: ICAL.Component;
  try {
    calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
    if (calendar.name !== 'vcalendar') throw new NoCalendar();
  } catch {
    throw new NoCalendar(say('This is no calendar file. An .ics file, as calendars export it, can be read.'));
  }
  const zones = calendar.getAllSubcomponents('vtimezone').map((c) => new ICAL.Timezone(c));
  for (const zone of zones) ICAL.TimezoneService.register(zone, zone.tzid);
  try {
    return what(calendar);
  } catch {
    throw new NoCalendar(say('Some of this calendar cannot be read; nothing is taken from it.'));
  } finally {
    for (const zone of zones) ICAL.TimezoneService.remove(zone.tzid);
  }
}

const eventsOf = (calendar: ICAL.Component, { from, days, timeZone }: Span): TimedEvent[] => {
  const since = momentAt(from, 0, timeZone);
  const until = momentAt(addDays(from, days), 0, timeZone);
  return calendar
    .getAllSubcomponents('vevent')
    .flatMap((c) => timesOf(c, until, since, timeZone))
    .sort((a, b) => a.start.getTime() - b.start.getTime());
};

/**
 * The events of a calendar file in some days that have times, the first first; whole days, free and cancelled ones are none.
 *
 * @throws NoCalendar where the text is no calendar
 */
export const eventsIn = (text: string, span: Span): readonly TimedEvent[] =>
  read(text, (calendar) => eventsOf(calendar, span));

/**
 * The times that a calendar file takes in some days: its events, repeated ones as often as they come, and its free / busy
 * lines. Nothing but the times is read.
 *
 * @throws NoCalendar where the text is no calendar
 */
export function busyIn(text: string, span: Span): readonly Busy[] {
  const since = momentAt(span.from, 0, span.timeZone);
  const until = momentAt(addDays(span.from, span.days), 0, span.timeZone);
  return read(text, (calendar) =>
    [
      ...eventsOf(calendar, span).map((e) => ({ start: e.start.toISOString(), end: e.end.toISOString() })),
      ...calendar
        .getAllSubcomponents('vfreebusy')
        .flatMap((c) => freeBusyOf(c, span.timeZone))
        .filter((b) => new Date(b.end) > since && new Date(b.start) < until),
    ].sort((a, b) => (a.start < b.start ? -1 : 1)),
  );
}
