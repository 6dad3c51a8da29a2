import {
  type Affected,
  type Closure,
  combineTrials,
  evaluateSafety,
  type Facts,
  type MeasuredFact,
  type MeasureDefinition,
  type SafetyAnswer,
  type SafetyQuestion,
  type SafetyRule,
  type SafetyState,
  type Side,
  type StoryFacts,
} from '@heathstep/core';
import type { MeasureEntry } from './entryRules.js';
import type { EntryView, VisitView } from './views.js';

/** Current values of a visit's entries by key. */
export type Entries = ReadonlyMap<string, unknown>;

export const entriesOf = (entries: readonly EntryView[]): Entries =>
  new Map(entries.filter((e) => e.value !== null).map((e) => [e.key, e.value]));

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

/** What the story's entries tell the rules. */
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

/** The safety state of one visit's answers. */
export function safetyOf(
  content: {
    readonly safetyQuestions: readonly SafetyQuestion[];
    readonly safetyRules: readonly SafetyRule[];
  },
  entries: Entries,
  affected: Affected,
  ageYears: number | null,
  closures: readonly Closure[],
): SafetyState {
  const answers = Object.fromEntries(
    [...entries.entries()]
      .filter(([key]) => key.startsWith('safety.'))
      .map(([key, value]) => [key.slice('safety.'.length), value as SafetyAnswer]),
  );
  return evaluateSafety({
    questions: content.safetyQuestions,
    rules: content.safetyRules,
    answers,
    affected,
    ageYears,
    closures,
  });
}
