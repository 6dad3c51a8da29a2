import {
  addDays,
  type Affected,
  combineTrials,
  type Closure,
  evaluateSafety,
  type Facts,
  type JudgedSession,
  judgeSessions,
  type MeasuredFact,
  type MeasureDefinition,
  type Morning,
  type PainSchool,
  type SafetyAnswer,
  type SafetyState,
  type SessionFact,
  type Side,
  type StoryFacts,
} from '@heathstep/core';
import type { EntryView, HomeEntryView, MeasureEntry, MorningPayload, SessionPayload, StopPayload, VisitView } from '@heathstep/contracts';
import type { ContentBundle } from '@heathstep/content';

type Entries = ReadonlyMap<string, unknown>;

export const entriesOf = (entries: readonly EntryView[]): Entries => new Map(entries.filter((e) => e.value !== null).map((e) => [e.key, e.value]));

/** Values measured at visits, each under its visit's local time. Not done says nothing; unable or stopped is a null value. */
export function measuredFacts(
  visits: readonly VisitView[],
  localTimeOf: (iso: string) => string,
  lookup: (key: string) => MeasureDefinition | undefined,
): MeasuredFact[] {
  return visits.flatMap((visit) =>
    visit.entries.flatMap((entry): MeasuredFact[] => {
      const [kind, key, side] = entry.key.split('.');
      if (kind !== 'measure' || key === undefined || entry.value === null) return [];
      const measure = lookup(key);
      const value = entry.value as MeasureEntry;
      if (measure === undefined || value.status === 'not-done') return [];
      const taken = value.status === 'taken' ? combineTrials(measure, value.trials).value : null;
      if (value.status === 'taken' && taken === null) return [];
      return [{ measure: key, side: side as Side | 'none', value: taken, at: localTimeOf(visit.startedAt) }];
    }),
  );
}

/** Newest level of each skill per side. Visits come oldest first. */
export function skillFacts(visits: readonly VisitView[]): Facts['skills'] {
  const skills: Record<string, { left?: string; right?: string }> = {};
  for (const visit of visits) {
    for (const entry of visit.entries) {
      const [kind, skill, side] = entry.key.split('.');
      if (kind === 'skill' && skill !== undefined && typeof entry.value === 'string') {
        skills[skill] = { ...skills[skill], [side as Side]: entry.value };
      }
    }
  }
  return skills;
}

export function storyFacts(entries: Entries, affected: Affected): StoryFacts {
  const get = <T>(key: string): T | undefined => entries.get(key) as T | undefined;
  const firstSteps = (['left', 'right'] as const)
    .filter((side) => affected === 'both' || affected === side)
    .flatMap((side) => get<MeasureEntry>(`measure.first-step-pain.${side}`)?.trials ?? [])
    .filter((t): t is number => t !== null);
  const regions = get<string[]>('story.regions')?.map((r) => r.split(':')[1] ?? '');
  return {
    worstPain: get('story.worst'),
    nowPain: get('story.now'),
    firstStepPain: firstSteps.length > 0 ? Math.max(...firstSteps) : undefined,
    provokedWithinFiveMinutes: get('story.provoked'),
    settlesMinutes: get('story.settles'),
    nightPain: get('story.night'),
    regions,
    onset: get('story.onset'),
    loadChange: get('story.load-change'),
    character: get('story.character'),
    worseWhen: get('story.worse-when'),
  };
}

export function safetyOf(
  content: ContentBundle,
  entries: Entries,
  affected: Affected,
  ageYears: number | null,
  closures: readonly Closure[],
): SafetyState {
  const answers = Object.fromEntries(
    [...entries.entries()].filter(([key]) => key.startsWith('safety.')).map(([key, value]) => [key.slice('safety.'.length), value as SafetyAnswer]),
  );
  return evaluateSafety({ questions: content.safetyQuestions, rules: content.safetyRules, answers, affected, ageYears, closures });
}

export interface HomeFacts {
  readonly sessions: readonly JudgedSession[];
  readonly mornings: readonly Morning[];
  readonly facts: readonly SessionFact[];
}

const worst = (a: number, b: number): number => Math.max(a, b);

/** Home entries (newest version of each) as judged sessions and as facts for criteria; several sessions of a day count as one, the worst scores. */
export function homeFacts(entries: readonly HomeEntryView[], school: PainSchool, stageSince: string): HomeFacts {
  const mornings = entries
    .filter((e) => e.kind === 'morning')
    .map((e) => ({ day: e.day, pain: (e.payload as MorningPayload).firstStep, dayWorst: (e.payload as MorningPayload).dayWorst ?? null }));
  const stops = entries.filter((e) => e.kind === 'stop').map((e) => ({ day: e.day, grade: (e.payload as StopPayload).grade }));
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
  const grade = (day: string) => (['emergency', 'review', 'pause'] as const).find((g) => stops.some((s) => s.day === day && s.grade === g)) ?? null;
  const stopDays = [...new Set(stops.filter((s) => s.grade !== 'pause').map((s) => s.day))].filter((d) => !byDay.has(d));
  const logged = [
    ...[...byDay.entries()].map(([day, s]) => ({ day, before: s.before, during: s.during, after: s.after, hourAbove: s.hourAbove === true, stopSign: grade(day) })),
    ...stopDays.map((day) => ({ day, before: 0, during: 0, after: 0, hourAbove: false, stopSign: grade(day) })),
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
  return { sessions: judged, mornings: mornings.map(({ day, pain }) => ({ day, pain })).sort((a, b) => (a.day < b.day ? -1 : 1)), facts };
}
