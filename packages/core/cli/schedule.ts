import {
  dayOf,
  issue,
  type Issue,
  ok,
  type Prescription,
  prescriptionProblems,
  refused,
  type Result,
  schedule,
  type WeekItem,
} from '@heathstep/core';
import type { ContentBundle } from '@heathstep/content';

interface ScheduleIn {
  /** As the function plan gives its exercises. */
  readonly plan: readonly {
    readonly key: string;
    readonly sides: Prescription['sides'];
    readonly dose: Omit<Prescription, 'exercise' | 'slot' | 'sides'>;
  }[];
  readonly from: string;
  readonly days: number;
  readonly timeZone: string;
  readonly usualTime?: string;
  readonly busy?: readonly { readonly start: string; readonly end: string }[];
}

function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

const isDay = (text: string): boolean =>
  text.length === 10 && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().slice(0, 10) === text;

function busyProblems(busy: ScheduleIn['busy']): Issue[] {
  return (busy ?? []).flatMap(({ start, end }, i) => {
    const [from, to] = [Date.parse(start), Date.parse(end)];
    return [
      ...(Number.isNaN(from) ? [issue(`busy.${i}.start`, start, 'a time')] : []),
      ...(Number.isNaN(to) || to <= from ? [issue(`busy.${i}.end`, end, 'a time after its start')] : []),
    ];
  });
}

/** A plan as sittings of days in someone's zone, around what is taken, by the same rules as the application. */
export function scheduleOn(raw: unknown, content: ContentBundle): Result<unknown> {
  const input = raw as ScheduleIn;
  const found = input.plan.map((p) => content.exercises.find((e) => e.key === p.key));
  const items = input.plan.flatMap(({ key, sides, dose }, i): WeekItem[] => {
    const definition = found[i];
    return definition === undefined
      ? []
      : [{ definition, item: { ...dose, exercise: key, slot: '', sides } }];
  });
  const problems = [
    ...input.plan.flatMap((p, i) =>
      found[i] === undefined ? [issue(`plan.${i}.key`, p.key, 'an exercise key')] : [],
    ),
    ...items.flatMap(({ item, definition }) =>
      prescriptionProblems(item, definition).map((p) => ({
        ...p,
        path: `plan.${input.plan.findIndex((x) => x.key === item.exercise)}.dose.${p.path}`,
      })),
    ),
    ...(isDay(input.from) ? [] : [issue('from', input.from, 'a day')]),
    ...(isZone(input.timeZone) ? [] : [issue('timeZone', input.timeZone, 'a time zone')]),
    ...busyProblems(input.busy),
  ];
  if (problems.length > 0) return refused(...problems);
  const made = schedule({ ...input, from: dayOf(input.from), items, busy: input.busy ?? [] });
  // Doses given here name no part of the day.
  return ok({ ...made, items: made.items.map(({ part: _, ...item }) => item) });
}
