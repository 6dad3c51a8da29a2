import ical, {
  ICalAlarmType,
  ICalCalendarMethod,
  ICalEventRepeatingFreq,
  ICalEventStatus,
  ICalWeekday,
} from 'ical-generator';
import {
  addDays,
  exerciseIn,
  localDay,
  type Sitting,
  SITTING_TIMES,
  sittingsOf,
  sittingTime,
  weekdayOf,
} from '@heathstep/core';
import type { PlanView } from '@heathstep/contracts';
import { type EpisodeRecord, patientPlanOf } from '../episodes/record.js';

const DAYS = [
  ICalWeekday.MO,
  ICalWeekday.TU,
  ICalWeekday.WE,
  ICalWeekday.TH,
  ICalWeekday.FR,
  ICalWeekday.SA,
  ICalWeekday.SU,
];

/** A reminder this long before, in seconds. */
const ALARM_SECONDS = 10 * 60;

/** A year from the start: long enough for any stage, and an end that a calendar can show. */
const LONGEST_DAYS = 366;

const sittings = (record: EpisodeRecord, plan: PlanView): readonly Sitting[] =>
  sittingsOf(
    patientPlanOf(record, plan).exercises.flatMap((e) => {
      const definition = record.library.exercise(e.key);
      return definition === undefined
        ? []
        : [{ item: e.item, definition: exerciseIn(record.tongue, definition) }];
    }),
  );

/** The first day from one on that falls on a weekday of a list, 0 Monday. */
function firstOn(days: readonly number[], from: string): string {
  const found = [0, 1, 2, 3, 4, 5, 6]
    .map((n) => addDays(from, n))
    .find((day) => days.includes(weekdayOf(day)));
  return found ?? from;
}

/** How long a sitting is in a calendar: whole minutes, and long enough to be seen. */
const minutesOf = (s: Sitting): number => Math.max(5, Math.ceil(s.seconds / 60));

/** When of the day each sitting begins, in minutes from midnight: at its time, or when those before it on any of its days are done. */
function startsOf(all: readonly Sitting[], usual: string): ReadonlyMap<Sitting, number> {
  const wanted = (s: Sitting) => {
    const [hours = 0, minutes = 0] = sittingTime(s, usual).split(':').map(Number);
    return hours * 60 + minutes;
  };
  const starts = new Map<Sitting, number>();
  for (const sitting of [...all].sort((x, y) => wanted(x) - wanted(y))) {
    const before = [...starts].filter(([s]) => s.days.some((d) => sitting.days.includes(d)));
    starts.set(sitting, Math.max(wanted(sitting), ...before.map(([s, at]) => at + minutesOf(s))));
  }
  return starts;
}

const idOf = (episodeId: string, key: string): string => `${episodeId}-${key}@heathstep`;

/**
 * The plan a patient has as a calendar: each sitting a weekly event with an alarm, the next review a day of its own. Times are
 * floating, so that six in the evening stays six in the evening when the clocks change or the person travels. Ids stay the
 * same from version to version; a sitting that is no longer in the plan is sent as cancelled.
 *
 * @returns iCalendar text (RFC 5545); null while nothing may be given
 */
export function planCalendar(record: EpisodeRecord, now: Date): string | null {
  const { view, clinic, tongue: t } = record;
  if (view.plan === null || view.heldBack.length > 0) return null;
  const calendar = ical({
    name: t.say('{{clinic}}, exercises', { clinic: clinic.name }),
    prodId: { company: 'heathstep', product: 'plan', language: (view.person.language ?? 'en').toUpperCase() },
    method: ICalCalendarMethod.PUBLISH,
  });
  const given = record.plans.filter((p) => p.status === 'given');
  const current = sittings(record, view.plan);
  const from = view.today;
  const usual = view.exerciseTime ?? SITTING_TIMES.usual;
  const until = new Date(`${addDays(from, LONGEST_DAYS)}T23:59:59Z`);
  const starts = startsOf(current, usual);
  for (const s of current) {
    const midnight = new Date(`${firstOn(s.days, from)}T00:00:00Z`).getTime();
    const start = new Date(midnight + (starts.get(s) ?? 0) * 60_000);
    const event = calendar.createEvent({
      id: idOf(view.id, s.key),
      sequence: view.plan.number,
      stamp: now,
      floating: true,
      start,
      end: new Date(start.getTime() + minutesOf(s) * 60_000),
      summary: t.say('Exercises: {{list}}', { list: s.exercises.join(', ') }),
      description: `${s.when === null ? '' : `${s.when}. `}${t.say('Version {{number}} of your plan.', { number: view.plan.number })}`,
      repeating: { freq: ICalEventRepeatingFreq.WEEKLY, byDay: s.days.flatMap((d) => DAYS[d] ?? []), until },
    });
    event.createAlarm({
      type: ICalAlarmType.display,
      trigger: ALARM_SECONDS,
      description: t.say('Exercises'),
    });
  }
  const kept = new Set(current.map((s) => s.key));
  const gone = new Map(
    given
      .flatMap((p) => sittings(record, p))
      .filter((s) => !kept.has(s.key))
      .map((s) => [s.key, s]),
  );
  for (const s of gone.values()) {
    const start = new Date(`${firstOn(s.days, from)}T${SITTING_TIMES.usual}:00Z`);
    calendar.createEvent({
      id: idOf(view.id, s.key),
      sequence: view.plan.number,
      stamp: now,
      floating: true,
      start,
      end: new Date(start.getTime() + 5 * 60_000),
      summary: t.say('No longer in your plan'),
      status: ICalEventStatus.CANCELLED,
    });
  }
  const { givenAt } = view.plan;
  const givenOn = givenAt === null ? from : localDay(new Date(givenAt), clinic.timeZone);
  const review = addDays(givenOn, view.plan.madeOf.reviewEveryDays);
  calendar.createEvent({
    id: idOf(view.id, 'review'),
    sequence: view.plan.number,
    stamp: now,
    allDay: true,
    start: new Date(`${review < from ? from : review}T00:00:00Z`),
    summary: t.say('Time for a review at {{clinic}}', { clinic: clinic.name }),
    description: t.say('Call {{phone}} for a time.', { phone: clinic.phone }),
  });
  return calendar.toString();
}
