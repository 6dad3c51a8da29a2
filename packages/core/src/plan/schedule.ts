import { say } from '../quantity/tongue.js';
import { addDays, type DayText, localTime } from '../quantity/day.js';
import { weekdayOf } from './due.js';
import type { DayPart } from './prescription.js';
import { sittingsOf, type Sitting, type WeekConflict, weekConflicts, type WeekItem } from './week.js';

/** Where in the day a sitting is put at first, local time: what has its own part of the day comes first. [convention] */
export const SITTING_TIMES = { set: '07:00', usual: '18:00' } as const;

interface Hours {
  /** Minutes from midnight. */
  readonly from: number;
  readonly to: number;
}

/** A sitting at its usual time may move within these hours. [convention] */
const WAKING: Hours = { from: 7 * 60, to: 22 * 60 };

/** Where in its part of the day a sitting is put at first, and the hours it may move within. [convention] */
const PARTS: Readonly<Record<DayPart, Hours & { readonly time: string }>> = {
  morning: { time: '07:30', from: 6 * 60, to: 11 * 60 },
  midday: { time: '12:30', from: 11 * 60, to: 15 * 60 },
  evening: { time: '19:30', from: 17 * 60, to: 22 * 60 },
};

/** When of the day a sitting is, `HH:MM`, before anything is in its way; `usual` is the person's own time. */
export const sittingTime = ({ when, part }: Pick<Sitting, 'when' | 'part'>, usual: string): string =>
  when !== null ? SITTING_TIMES.set : part !== null ? PARTS[part].time : usual;
const STEP_MINUTES = 15;
const LEAST_MINUTES = 5;

/** A time that is taken, ISO 8601 with zone. */
export interface Busy {
  readonly start: string;
  readonly end: string;
}

export interface ScheduleInput {
  readonly items: readonly WeekItem[];
  readonly from: DayText;
  /** How many days from there on. */
  readonly days: number;
  /** IANA name of the zone the person lives in. */
  readonly timeZone: string;
  readonly busy: readonly Busy[];
  /** When the person exercises, `HH:MM`; the usual time of everyone where it is not said. */
  readonly usualTime?: string | undefined;
}

export interface ScheduledSitting {
  readonly day: DayText;
  /** ISO 8601 with the zone's offset at that time. */
  readonly start: string;
  readonly end: string;
  /** When of the day, as the patient reads it; null for the usual time. */
  readonly when: string | null;
  /** The part of the day it was given for; null for the usual time. */
  readonly part: DayPart | null;
  readonly exercises: readonly string[];
  readonly minutes: number;
  /** Whether it stands at another time than usual, because that one was taken. */
  readonly moved: boolean;
}

export interface ScheduleConflict {
  readonly kind: 'busy' | WeekConflict['kind'];
  readonly days: readonly DayText[];
  readonly exercises: readonly string[];
  readonly because: string;
}

export interface Schedule {
  readonly items: readonly ScheduledSitting[];
  readonly conflicts: readonly ScheduleConflict[];
}

const MINUTE_MS = 60_000;

const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));

const asIfUtc = (local: string): number => Date.parse(`${local}Z`);

/** The moment of a local time; where the clock is put forward over it, as much later as the clock is. */
export function momentAt(day: DayText, minutes: number, timeZone: string): Date {
  const wanted = Date.parse(`${day}T00:00:00Z`) + minutes * MINUTE_MS;
  const offsetAt = (ms: number) => asIfUtc(localTime(new Date(ms), timeZone)) - ms;
  const first = wanted - offsetAt(wanted);
  const offset = offsetAt(first);
  return new Date(wanted - offset);
}

/** `2026-03-29T18:00:00+02:00`. */
function written(moment: Date, timeZone: string): string {
  const local = localTime(moment, timeZone);
  const offset = Math.round((asIfUtc(local) - moment.getTime()) / MINUTE_MS);
  const two = (n: number) => String(Math.trunc(n)).padStart(2, '0');
  const size = Math.abs(offset);
  return `${local}${offset < 0 ? '-' : '+'}${two(size / 60)}:${two(size % 60)}`;
}

interface Span {
  readonly from: number;
  readonly to: number;
}

/** Starts to try, in minutes: its own one, then ever further from it, the later first. */
function startsFor(sitting: Sitting, minutes: number, usual: number): readonly number[] {
  if (sitting.when !== null) return [usual];
  const { from, to } = sitting.part === null ? WAKING : PARTS[sitting.part];
  const steps = Array.from({ length: (to - from) / STEP_MINUTES }, (_, i) => i * STEP_MINUTES);
  return [...new Set(steps.flatMap((s) => [usual + s, usual - s]))].filter(
    (start) => start === usual || (start >= from && start + minutes <= to),
  );
}

interface PlaceOn {
  readonly taken: readonly Span[];
  readonly timeZone: string;
  /** When it is before anything is in its way, minutes from midnight. */
  readonly usual: number;
}

/** A place for a sitting on a day that nothing else has; null where there is none. */
function placeOf(sitting: Sitting, day: DayText, { taken, timeZone, usual }: PlaceOn): Span | null {
  const minutes = Math.max(LEAST_MINUTES, Math.ceil(sitting.seconds / 60));
  for (const start of startsFor(sitting, minutes, usual)) {
    const from = momentAt(day, start, timeZone).getTime();
    const span = { from, to: from + minutes * MINUTE_MS };
    if (taken.every((t) => t.to <= span.from || t.from >= span.to)) return span;
  }
  return null;
}

const CROWDED: Readonly<Record<WeekConflict['kind'], string>> = {
  'no-rest-between': 'impact on days running: 48 hours belong between them',
  'heavy-and-run': 'heavy calf work and a run on one day',
};

/**
 * A plan as sittings of days, each where the person is free: at its usual time, or as near to it as there is room within
 * waking hours. What has its own part of the day does not move. The same input gives the same days. Says what does not fit
 * and what the week does against the rules of load.
 */
export function schedule(input: ScheduleInput): Schedule {
  const { items, from, days, timeZone, busy } = input;
  const own = (s: Sitting) => minutesOf(sittingTime(s, input.usualTime ?? SITTING_TIMES.usual));
  const taken: Span[] = busy.map((b) => ({ from: Date.parse(b.start), to: Date.parse(b.end) }));
  const list = Array.from({ length: days }, (_, i) => addDays(from, i));
  const free = (s: Sitting) => (s.when !== null ? 0 : s.part !== null ? 1 : 2);
  const sittings = [...sittingsOf(items)].sort((a, b) => free(a) - free(b));
  const placed: ScheduledSitting[] = [];
  const conflicts: ScheduleConflict[] = [];
  for (const day of list)
    for (const sitting of sittings.filter((s) => s.days.includes(weekdayOf(day)))) {
      const span = placeOf(sitting, day, { taken, timeZone, usual: own(sitting) });
      if (span === null) {
        const because =
          sitting.when !== null
            ? say('{{when}}: that time is taken', { when: sitting.when })
            : sitting.part !== null
              ? say('{{part}}: no free time', { part: say(sitting.part) })
              : say('no free time within waking hours');
        conflicts.push({ kind: 'busy', days: [day], exercises: sitting.exercises, because });
        continue;
      }
      taken.push(span);
      const usual = momentAt(day, own(sitting), timeZone);
      placed.push({
        day,
        start: written(new Date(span.from), timeZone),
        end: written(new Date(span.to), timeZone),
        when: sitting.when,
        part: sitting.part,
        exercises: sitting.exercises,
        minutes: sitting.seconds / 60,
        moved: span.from !== usual.getTime(),
      });
    }
  const crowded = weekConflicts(items).map((c) => ({
    kind: c.kind,
    days: list.filter((day) => c.days.includes(weekdayOf(day))),
    exercises: c.exercises,
    because: say(CROWDED[c.kind]),
  }));
  return { items: placed, conflicts: [...conflicts, ...crowded.filter((c) => c.days.length > 0)] };
}

const timeText = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** What the times that are taken do to a plan: sittings that move for them, and those there is no room for. */
export interface Displaced {
  readonly moved: readonly ScheduledSitting[];
  readonly full: readonly ScheduleConflict[];
}

/** What moves or falls out for what is taken alone, and not for another sitting of the same day. */
export function displaced(input: ScheduleInput): Displaced {
  const keyOf = (i: ScheduledSitting) => `${i.day} ${i.exercises.join()}`;
  const free = new Map(schedule({ ...input, busy: [] }).items.map((i) => [keyOf(i), i.start]));
  const { items, conflicts } = schedule(input);
  return {
    moved: items.filter((i) => free.get(keyOf(i)) !== i.start),
    full: conflicts.filter((c) => c.kind === 'busy'),
  };
}

/**
 * The time of day, `HH:MM`, at which fewest sittings are displaced, the nearest to the usual one of several; null where none
 * does better than the usual one.
 */
export function betterTime(input: ScheduleInput): string | null {
  const usual = minutesOf(input.usualTime ?? SITTING_TIMES.usual);
  const misses = (minutes: number): number => {
    const { moved, full } = displaced({ ...input, usualTime: timeText(minutes) });
    return moved.length + full.length;
  };
  const now = misses(usual);
  let best = { minutes: usual, misses: now };
  const steps = Array.from({ length: (WAKING.to - WAKING.from) / STEP_MINUTES }, (_, i) => i * STEP_MINUTES);
  for (const minutes of steps.flatMap((s) => [usual + s, usual - s])) {
    if (best.misses === 0) break;
    if (minutes < WAKING.from || minutes >= WAKING.to) continue;
    const tried = { minutes, misses: misses(minutes) };
    if (tried.misses < best.misses) best = tried;
  }
  return best.misses < now ? timeText(best.minutes) : null;
}
