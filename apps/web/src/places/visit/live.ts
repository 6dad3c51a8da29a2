import {
  type Affected,
  combineTrials,
  type Driver,
  type Facts,
  findDrivers,
  type HeelPainIdea,
  type IrritabilityResult,
  judgeHeelPain,
  judgeIrritability,
  type MeasureDefinition,
  type ProtocolDefinition,
  type SafetyState,
  type Side,
  type StartingStage,
  startingStage,
  treatedSides,
} from '@heathstep/core';
import {
  type CourseView,
  entriesOf,
  measuredFacts,
  type MeasureEntry,
  safetyOf,
  skillFacts,
  storyFacts,
  type VisitView,
} from '@heathstep/contracts';
import type { EntryStore } from '../../api/entryStore.js';
import type { ClinicContent } from '../../api/queries.js';

/** The measures of a heel pain visit, in the order of taking them. */
const FIRST_VISIT = [
  'first-step-pain',
  'lunge-knee-bent',
  'lunge-knee-straight',
  'big-toe-extension',
  'single-leg-heel-raise',
  'foot-shortening-hold',
  'foot-posture-index',
];

export const SKILLS: readonly { readonly key: string; readonly label: string; readonly brief: string }[] = [
  { key: 'foot-shortening', label: 'Foot shortening', brief: '10 s, ten times, no clawing' },
  { key: 'big-toe-control', label: 'Big toe control', brief: 'big toe alone, small toes alone' },
];

/** What a story tells about the person rather than about today; it stands until it is changed. */
const CARRIED = new Set([
  'story.onset',
  'story.since',
  'story.load-change',
  'story.character',
  'story.worse-when',
  'story.body-mass',
  'story.activities',
  'story.goal',
  'story.regions',
  'story.side',
]);

interface Progress {
  readonly done: boolean;
  readonly text: string;
}

/** Everything a visit's page shows, computed from what stands in its fields this moment. */
export interface LiveVisit {
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly protocol: ProtocolDefinition;
  readonly visit: VisitView;
  readonly previous: VisitView | null;
  readonly store: EntryStore;
  readonly conditionName: string;
  readonly affected: Affected;
  readonly get: <T>(key: string) => T | null;
  readonly set: (key: string, value: unknown) => void;
  readonly measures: readonly MeasureDefinition[];
  readonly value: (measure: MeasureDefinition, side: Side) => number | null;
  readonly before: (measure: MeasureDefinition, side: Side) => number | null;
  readonly safety: SafetyState;
  readonly facts: Facts;
  readonly idea: HeelPainIdea;
  readonly irritability: IrritabilityResult;
  readonly start: StartingStage;
  readonly drivers: readonly Driver[];
  readonly progress: Readonly<Record<'story' | 'safety' | 'measure' | 'conclude', Progress>>;
  readonly missingMeasures: readonly MeasureDefinition[];
}

const STORY_NEEDS: readonly (readonly [string, string])[] = [
  ['story.regions', 'where it hurts'],
  ['story.onset', 'how it began'],
  ['story.worst', 'worst pain'],
  ['story.now', 'pain now'],
  ['story.provoked', 'how soon it is provoked'],
  ['story.settles', 'how long it lasts'],
  ['story.night', 'night pain'],
  ['story.character', 'burning or numbness'],
];

const measureValue = (measure: MeasureDefinition, entry: MeasureEntry | null | undefined): number | null =>
  entry == null || entry.status !== 'taken' ? null : combineTrials(measure, entry.trials).value;

export function liveVisit(
  course: CourseView,
  content: ClinicContent,
  visit: VisitView,
  store: EntryStore,
): LiveVisit {
  const { episode } = course;
  const protocol = content.protocols.find((p) => p.key === episode.protocol) as ProtocolDefinition;
  const earlier = episode.visits.filter((v) => v.startedAt < visit.startedAt);
  const previous = earlier[earlier.length - 1] ?? null;
  const carriedFrom = [...earlier].reverse();
  const get = <T>(key: string): T | null => {
    const own = store.get(key);
    if (own !== null || !CARRIED.has(key)) return own as T | null;
    for (const v of carriedFrom) {
      const found = v.entries.find((e) => e.key === key)?.value;
      if (found !== undefined && found !== null) return found as T;
    }
    return null;
  };
  const affected = get<Affected>('story.side') ?? episode.affected;
  const entries = store.keys().map((key) => ({ key, version: 0, value: store.get(key), at: '', author: '' }));
  const current = new Map([
    ...[...CARRIED].map((key) => [key, get(key)] as const).filter(([, v]) => v !== null),
    ...entriesOf(entries),
  ]);
  const visits = [...earlier, { ...visit, entries }];
  const lookup = (key: string) => content.measures.find((m) => m.key === key);
  const facts: Facts = {
    measures: measuredFacts(visits, (iso) => iso, lookup),
    sessions: course.mornings.map((m) => ({ at: m.day, done: false, firstStep: m.pain })),
    skills: skillFacts(visits),
    stageSince: episode.stages[episode.stages.length - 1]?.since ?? episode.startedAt,
    affected,
  };
  const story = storyFacts(current, affected);
  const closures = episode.closures.map((c) => ({ rule: c.rule, side: c.side, kind: c.kind, text: c.text }));
  const safety = safetyOf(content, entriesOf(entries), affected, episode.person.ageYears, closures);
  const irritability = judgeIrritability(story);
  const cannotTakeWeight =
    current.get('safety.cannot-4-steps') !== undefined && current.get('safety.cannot-4-steps') !== 'no';
  const wanted = measuresFor(protocol, episode.stage, content);
  const value = (m: MeasureDefinition, side: Side) =>
    measureValue(m, store.get(`measure.${m.key}.${side}`) as MeasureEntry | null);
  const before = (m: MeasureDefinition, side: Side) => {
    for (const v of carriedFrom) {
      const found = measureValue(
        m,
        v.entries.find((e) => e.key === `measure.${m.key}.${side}`)?.value as MeasureEntry | undefined,
      );
      if (found !== null) return found;
    }
    return null;
  };
  const answered = (m: MeasureDefinition, side: Side) => store.get(`measure.${m.key}.${side}`) !== null;
  const missingMeasures = wanted.filter((m) => !(answered(m, 'left') && answered(m, 'right')));
  const storyMissing = STORY_NEEDS.filter(([key]) => get(key) === null);
  const questions = content.safetyQuestions.length;
  const concluded =
    get('conclude.condition') !== null && (episode.stage !== null || get('conclude.stage') !== null);
  return {
    course,
    content,
    protocol,
    visit,
    previous,
    store,
    conditionName: content.conditions.find((c) => c.key === episode.condition)?.name ?? '',
    affected,
    get,
    set: (key, v) => store.set(key, v),
    measures: wanted,
    value,
    before,
    safety,
    facts,
    idea: judgeHeelPain(story),
    irritability,
    start: startingStage(
      protocol,
      facts,
      irritability,
      cannotTakeWeight,
      `${episode.today}T12:00:00`,
      lookup,
    ),
    drivers: findDrivers(facts.measures, affected),
    progress: {
      story: {
        done: storyMissing.length === 0,
        text:
          storyMissing.length === 0
            ? 'told'
            : `${STORY_NEEDS.length - storyMissing.length} of ${STORY_NEEDS.length}`,
      },
      safety: {
        done: safety.unanswered.length === 0,
        text:
          safety.unanswered.length > 0
            ? `${questions - safety.unanswered.length} of ${questions}`
            : safety.blockedBecause.length > 0
              ? 'blocked'
              : safety.triggered.some((t) => t.status === 'open')
                ? `${safety.triggered.filter((t) => t.status === 'open').length} to mind`
                : 'nothing open',
      },
      measure: {
        done: missingMeasures.length === 0,
        text: `${wanted.length - missingMeasures.length} of ${wanted.length}`,
      },
      conclude: { done: concluded, text: concluded ? 'ready to sign' : 'open' },
    },
    missingMeasures,
  };
}

/** At a first visit the whole set; at a review what the stage re-measures, its leading measure first. */
function measuresFor(
  protocol: ProtocolDefinition,
  stageKey: string | null,
  content: ClinicContent,
): MeasureDefinition[] {
  const stage = protocol.stages.find((s) => s.key === stageKey);
  const wanted = stage === undefined ? FIRST_VISIT : [...stage.remeasure];
  return wanted.flatMap((key) => content.measures.find((m) => m.key === key) ?? []);
}

export const sidesText = (affected: Affected): string =>
  affected === 'both' ? 'both heels' : affected === 'none' ? 'neither heel' : `the ${affected} heel`;

export const firstStepOf = (live: LiveVisit): number | null => {
  const scores = treatedSides(live.affected).flatMap((side) => {
    const entry = live.get<MeasureEntry>(`measure.first-step-pain.${side}`);
    const [trial] = entry?.trials ?? [];
    return trial == null ? [] : [trial];
  });
  return scores.length === 0 ? null : Math.max(...scores);
};
