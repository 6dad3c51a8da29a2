import {
  addDays,
  type JudgedSession,
  judgeSessions,
  type Morning,
  type PainSchool,
  type SessionFact,
} from '@heathstep/core';
import type { HomeEntryView, MorningPayload, SessionPayload, StopPayload } from '@heathstep/contracts';

export interface HomeFacts {
  readonly sessions: readonly JudgedSession[];
  readonly mornings: readonly Morning[];
  readonly facts: readonly SessionFact[];
}

const worst = (a: number, b: number): number => Math.max(a, b);

/** Home entries (newest version of each) as judged sessions and as facts for criteria; several sessions of a day count as one, the worst scores. */
export function homeFacts(
  entries: readonly HomeEntryView[],
  school: PainSchool,
  stageSince: string,
): HomeFacts {
  const mornings = entries
    .filter((e) => e.kind === 'morning')
    .map((e) => ({
      day: e.day,
      pain: (e.payload as MorningPayload).firstStep,
      dayWorst: (e.payload as MorningPayload).dayWorst ?? null,
    }));
  const stops = entries
    .filter((e) => e.kind === 'stop')
    .map((e) => ({ day: e.day, grade: (e.payload as StopPayload).grade }));
  const byDay = new Map<string, SessionPayload>();
  for (const e of entries.filter((x) => x.kind === 'session')) {
    const now = e.payload as SessionPayload;
    const had = byDay.get(e.day);
    byDay.set(
      e.day,
      had === undefined
        ? now
        : {
            before: worst(had.before, now.before),
            during: worst(had.during, now.during),
            after: worst(had.after, now.after),
            hourAbove: had.hourAbove === true || now.hourAbove === true,
            exercises: [...had.exercises, ...now.exercises],
          },
    );
  }
  const grade = (day: string) =>
    (['emergency', 'review', 'pause'] as const).find((g) =>
      stops.some((s) => s.day === day && s.grade === g),
    ) ?? null;
  const stopDays = [...new Set(stops.filter((s) => s.grade !== 'pause').map((s) => s.day))].filter(
    (d) => !byDay.has(d),
  );
  const logged = [
    ...[...byDay.entries()].map(([day, s]) => ({
      day,
      before: s.before,
      during: s.during,
      after: s.after,
      hourAbove: s.hourAbove === true,
      stopSign: grade(day),
    })),
    ...stopDays.map((day) => ({
      day,
      before: 0,
      during: 0,
      after: 0,
      hourAbove: false,
      stopSign: grade(day),
    })),
  ];
  const judged = judgeSessions(logged, mornings, school, stageSince);
  const morningOn = new Map(mornings.map((m) => [m.day, m]));
  const sessionOn = new Map(judged.map((s) => [s.day, s]));
  const days = [...new Set([...mornings.map((m) => m.day), ...judged.map((s) => s.day)])].sort();
  const facts = days.map((day): SessionFact => {
    const s = sessionOn.get(day);
    return {
      at: day,
      done: byDay.has(day),
      state: s?.state,
      firstStep: morningOn.get(day)?.pain ?? null,
      before: s?.before ?? null,
      during: s?.during ?? null,
      after: s?.after ?? null,
      nextMorning: morningOn.get(addDays(day, 1))?.pain ?? null,
      day: morningOn.get(addDays(day, 1))?.dayWorst ?? null,
    };
  });
  return {
    sessions: judged,
    mornings: mornings.map(({ day, pain }) => ({ day, pain })).sort((a, b) => (a.day < b.day ? -1 : 1)),
    facts,
  };
}
