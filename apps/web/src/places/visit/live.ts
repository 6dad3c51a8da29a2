import {
  BODY_MASS,
  dayOf,
  localTime,
  type AcuityResult,
  type Affected,
  areLike,
  type Facts,
  type FindingState,
  guardReading,
  type IrritabilityResult,
  judgeAcuity,
  judgeIrritability,
  type MeasureDefinition,
  type MeasureStep,
  openSigns,
  type ProtocolDefinition,
  type RankedCondition,
  type Reasoning,
  type SafetyState,
  type Side,
  type StartingStage,
  startingStage,
  treatedSides,
  type SkillDefinition,
} from '@heathstep/core';
import type { LookPanel, Pathway } from '@heathstep/content';
import {
  type EpisodeView,
  type CourseView,
  daysSinceOnset,
  entriesOf,
  entryAt,
  entryValue,
  type EntryView,
  isConcluded,
  measuredFacts,
  type MeasureEntry,
  newestEntries,
  rankOnEntries,
  reasonOnEntries,
  safetyAt,
  skillFacts,
  storyFacts,
  takenOf,
  VisitReadings,
  type VisitView,
} from '@heathstep/contracts';
import type { EntryStore } from '../../api/entryStore.js';
import type { ClinicContent } from '../../api/queries.js';
import { needsStage, panelDone, type Progress, type Step, stepText } from './progress.js';

/** What a story tells about the person rather than about today; it stands until it is changed. */
const CARRIED = new Set([
  'story.onset',
  'story.since',
  'story.days',
  'story.load-change',
  'story.character',
  'story.worse-when',
  `measure.${BODY_MASS}.none`,
  'story.activities',
  'story.goal',
  'story.regions',
  'story.side',
]);

export type Column = Side | 'none';

/** Everything a visit's page shows, computed from what stands in its fields this moment. */
export interface LiveVisit {
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly pathway: Pathway;
  readonly protocol: ProtocolDefinition;
  readonly visit: VisitView;
  readonly previous: VisitView | null;
  readonly store: EntryStore;
  /** Keeps a chosen visit in the links between its steps; empty for the open one. */
  readonly visitQuery: string;
  readonly conditionName: string;
  readonly affected: Affected;
  readonly ageYears: number | null;
  readonly get: <T>(key: string) => T | null;
  readonly set: (key: string, value: unknown) => void;
  /** Measures wanted at this visit, in the order of taking them, the added ones last. */
  readonly measures: readonly MeasureDefinition[];
  readonly readings: VisitReadings;
  readonly value: (measure: MeasureDefinition, side: Column) => number | null;
  /** The newest earlier value taken in the same way; null when there is none to compare with. */
  readonly before: (measure: MeasureDefinition, side: Column) => number | null;
  /** True when there is an earlier value, but taken otherwise. */
  readonly unlike: (measure: MeasureDefinition, side: Column) => boolean;
  readonly safety: SafetyState;
  readonly facts: Facts;
  /** What it is, what keeps it going, what to ask next; worked out when first asked for. */
  readonly reasoning: () => Reasoning;
  /** The ranking, supposing an answer to one finding. */
  readonly suppose: (finding: string, side: Column, state: FindingState) => readonly RankedCondition[];
  readonly daysSinceOnset: number | null;
  readonly acuity: AcuityResult;
  readonly irritability: IrritabilityResult;
  readonly start: StartingStage;
  readonly panels: readonly LookPanel[];
  /** Skills looked at: at a first visit those of the pathway, later those of the stage. */
  readonly skills: readonly SkillDefinition[];
  readonly progress: Readonly<Record<Step, Progress>>;
  readonly missingMeasures: readonly MeasureDefinition[];
  /** Measures the plan's criteria need that are not taken yet. */
  readonly missingForCriteria: readonly MeasureDefinition[];
  /** Readings the typing guard asked about and nobody confirmed. */
  readonly toConfirm: readonly {
    readonly measure: MeasureDefinition;
    readonly side: Column;
    readonly ask: string;
  }[];
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

export const columnsOf = (m: MeasureDefinition): readonly Column[] =>
  m.sides === 'single' ? ['none'] : ['left', 'right'];

const UNKNOWN: Pathway = {
  key: '',
  name: '',
  gloss: '',
  place: { one: 'foot', both: 'both feet' },
  storyAsks: null,
  skills: [],
  protocol: null,
  firstVisit: [],
  look: ['pain'],
};

/** What stands in the store, as a visit's entries. */
function storeEntries(store: EntryStore): EntryView[] {
  return store.keys().map((key) => ({ key, version: 0, value: store.get(key), at: '', author: '' }));
}

function carriedGetter(store: EntryStore, earlier: readonly VisitView[]): <T>(key: string) => T | null {
  const newestFirst = [...earlier].reverse();
  return <T>(key: string): T | null => {
    const own = store.get(key);
    if (own !== null || !CARRIED.has(key)) return own as T | null;
    for (const v of newestFirst) {
      const found = v.entries.find((e) => e.key === key)?.value;
      if (found !== undefined && found !== null) return found as T;
    }
    return null;
  };
}

/** Readings that lie outside the usual and were not confirmed. */
function askedAbout(measures: readonly MeasureDefinition[], readings: VisitReadings): LiveVisit['toConfirm'] {
  return measures.flatMap((measure) =>
    columnsOf(measure).flatMap((side) => {
      const entry = entryAt(readings.entries, measure.key, side);
      if (entry === null || entry.confirmed === true) return [];
      return entry.trials.flatMap((t) => {
        const guard = t === null ? null : guardReading(measure, String(t));
        return guard?.state === 'unusual' ? [{ measure, side, ask: guard.ask }] : [];
      });
    }),
  );
}

const DAY_MS = 86_400_000;

const daysBetween = (from: string, to: string): number =>
  Math.max(0, Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS));

/** Works something out at the first asking and keeps it. */
function once<T>(work: () => T): () => T {
  let kept: { readonly value: T } | null = null;
  return () => (kept ??= { value: work() }).value;
}

/** The safety step in a word: an open stop first, whatever else is missing. */
function safetyProgress(safety: SafetyState, reported: EpisodeView['openStops']): string {
  const open = safety.triggered.filter((t) => t.status === 'open').length;
  const [stop] = safety.stops;
  if (stop !== undefined) return stop.rule.level === 'emergency' ? 'emergency open' : 'urgent open';
  if (reported.length > 0) return 'reported at home';
  if (safety.unanswered.length > 0)
    return `${safety.asked.length - safety.unanswered.length} of ${safety.asked.length}`;
  if (safety.blocking.length > 0) return 'blocked';
  const left = safety.notTested.length > 0 ? `${safety.notTested.length} not tested` : '';
  return [open > 0 ? `${open} to mind` : '', left].filter((t) => t !== '').join(', ') || 'nothing open';
}

export function liveVisit(
  course: CourseView,
  content: ClinicContent,
  visit: VisitView,
  store: EntryStore,
): LiveVisit {
  const { episode } = course;
  const pathway = content.pathways.find((c) => c.key === episode.condition) ?? UNKNOWN;
  const { protocol } = course;
  const earlier = episode.visits.filter((v) => v.startedAt < visit.startedAt);
  const previous = earlier[earlier.length - 1] ?? null;
  const get = carriedGetter(store, earlier);
  const affected = get<Affected>('story.side') ?? episode.affected;
  const entries = storeEntries(store);
  const current = new Map([
    ...[...CARRIED].map((key) => [key, get(key)] as const).filter(([, v]) => v !== null),
    ...entriesOf(entries),
  ]);
  const earlierMaps = earlier.map((v) => entriesOf(v.entries)).reverse();
  const readings = new VisitReadings(content.measures, entriesOf(entries), earlierMaps);
  const visits = [...earlier, { ...visit, entries }];
  const lookup = (key: string) => content.measures.find((m) => m.key === key);
  const local = (iso: string) => localTime(new Date(iso), episode.timeZone);
  const facts: Facts = {
    measures: measuredFacts(visits, local, content.measures),
    sessions: course.mornings.map((m) => ({ at: m.day, done: false, firstStep: m.pain })),
    skills: skillFacts(visits, content.skills),
    stageSince: local(episode.stages[episode.stages.length - 1]?.since ?? episode.startedAt),
    affected,
    ageYears: episode.person.ageYears,
    sex: episode.person.sex,
  };
  const story = storyFacts(current);
  const safety = safetyAt(
    content,
    visits,
    { ...visit, entries },
    {
      affected,
      ageYears: episode.person.ageYears,
      closures: episode.closures,
    },
  );
  const irritability = judgeIrritability(story);
  const cannotTakeWeight = content.safetyQuestions.some((q) => {
    const answer = q.means === 'cannot-take-weight' ? current.get(`safety.${q.key}`) : undefined;
    return answer !== undefined && answer !== 'no' && answer !== 'not-tested';
  });
  const { unableAt } = protocol;
  const unable =
    unableAt !== null &&
    treatedSides(affected).some(
      (side) => entryAt(readings.entries, unableAt.measure, side)?.status === 'unable',
    );
  const told = earlier.find((v) => v.entries.some((e) => e.key === 'story.since' && e.value !== null));
  const toldNow = store.get('story.since') !== null || store.get('story.days') !== null || told === undefined;
  const days = daysSinceOnset(
    current,
    toldNow ? 0 : daysBetween(dayOf(local(told.startedAt)), dayOf(local(visit.startedAt))),
  );
  const acuity = judgeAcuity(days);
  const known = newestEntries([...earlier.map((v) => entriesOf(v.entries)), current]);
  const on = {
    affected,
    ageYears: episode.person.ageYears,
    daysSinceOnset: days,
    tagsOff: (side: Column) =>
      side === 'none' ? [...safety.tagsOff.left, ...safety.tagsOff.right] : safety.tagsOff[side],
  };
  const reasoning = once(() => reasonOnEntries(content, known, { ...on, stops: openSigns(safety) }));
  const stage = protocol.stages.find((s) => s.key === episode.stage);
  const first = stage === undefined;
  const set = first ? pathway.firstVisit : stage.remeasure;
  const added = get<string[]>('visit.measures') ?? [];
  const entered = content.measures
    .filter((m) => columnsOf(m).some((side) => entryAt(readings.entries, m.key, side) !== null))
    .map((m) => m.key);
  const keys = [...new Set([...set, ...added, ...entered])].filter((k) => k !== BODY_MASS);
  const wanted = keys.flatMap((k) => lookup(k) ?? []);
  const computed = content.measures.filter((m) => m.computed?.from.some((k) => keys.includes(k)) === true);
  const measures = [...wanted, ...computed];
  const past = earlierMaps.map(
    (map, i) => new VisitReadings(content.measures, map, earlierMaps.slice(i + 1)),
  );
  const before = (m: MeasureDefinition, side: Column): { value: number | null; unlike: boolean } => {
    if (earlierMaps.length === 0) return { value: null, unlike: false };
    const taken = takenOf(entryAt(readings.entries, m.key, side));
    let unlike = false;
    for (const [i, map] of earlierMaps.entries()) {
      const found =
        m.computed === null
          ? entryValue(m, entryAt(map, m.key, side))
          : (past[i]?.value(m.key, side) ?? null);
      if (found === null) continue;
      if (areLike(m, taken, takenOf(entryAt(map, m.key, side)))) return { value: found, unlike };
      unlike = true;
    }
    return { value: null, unlike };
  };
  const done = (m: MeasureDefinition): boolean =>
    columnsOf(m).every((side) => entryAt(readings.entries, m.key, side) !== null);
  const missingMeasures = wanted.filter((m) => m.computed === null && !done(m));
  const panels: readonly LookPanel[] = first ? pathway.look : [];
  // Every region taken off again is no answer, and does not bring back what stood at the last visit.
  const untold = (value: unknown) => value === null || (Array.isArray(value) && value.length === 0);
  const storyMissing = STORY_NEEDS.filter(([key]) => untold(get(key)));
  const concluded =
    isConcluded(readings.entries) &&
    (episode.stage !== null || !needsStage(protocol) || get('conclude.stage') !== null);
  const partsOf = (step: MeasureStep) => {
    const own = wanted.filter((m) => m.step === step && m.computed === null);
    return { done: own.filter(done).length, of: own.length };
  };
  const stepProgress = (step: 'look' | 'measure' | 'load' | 'feel'): Progress => {
    const rows = partsOf(step);
    const drawn = step === 'look' ? panels : [];
    const marked = drawn.filter((p) => panelDone(p, readings.entries)).length;
    return stepText(rows.done + marked, rows.of + drawn.length, get<string>(`skip.${step}`));
  };
  const storyRows = partsOf('story');
  return {
    course,
    content,
    pathway,
    protocol,
    visit,
    previous,
    store,
    visitQuery: visit.signedAt === null ? '' : `?of=${visit.id}`,
    conditionName: pathway.name,
    affected,
    ageYears: episode.person.ageYears,
    get,
    set: (key, v) => store.set(key, v),
    measures,
    readings,
    value: (m, side) => readings.value(m.key, side),
    before: (m, side) => before(m, side).value,
    unlike: (m, side) => {
      const b = before(m, side);
      return b.value === null && b.unlike;
    },
    safety,
    facts,
    reasoning,
    suppose: (finding, side, state) =>
      rankOnEntries(content, known, { ...on, suppose: new Map([[`${finding}.${side}`, state]]) }),
    daysSinceOnset: days,
    acuity,
    irritability,
    start: startingStage(
      protocol,
      facts,
      { irritability, acuity, cannotTakeWeight, unable },
      `${episode.today}T12:00:00`,
      lookup,
    ),
    panels,
    skills: content.skills.filter((k) =>
      (stage === undefined || stage.skills.length === 0 ? pathway.skills : stage.skills).includes(k.key),
    ),
    progress: {
      story: stepText(
        STORY_NEEDS.length - storyMissing.length + storyRows.done,
        STORY_NEEDS.length + storyRows.of,
        get<string>('skip.story'),
      ),
      safety: {
        done: safety.unanswered.length === 0 && course.episode.openStops.length === 0,
        text: safetyProgress(safety, course.episode.openStops),
      },
      look: stepProgress('look'),
      measure: stepProgress('measure'),
      load: stepProgress('load'),
      feel: stepProgress('feel'),
      conclude: { done: concluded, text: concluded ? 'ready to sign' : 'open' },
    },
    missingMeasures,
    missingForCriteria:
      stage === undefined ? [] : missingMeasures.filter((m) => stage.remeasure.includes(m.key)),
    toConfirm: askedAbout(wanted, readings),
  };
}

/** The treated side as a patient says it: the left heel, both heels. */
export function sidesText(affected: Affected, place: Pathway['place']): string {
  if (affected === 'both') return place.both;
  return affected === 'none' ? `neither ${place.one}` : `the ${affected} ${place.one}`;
}

/** The worst treated side of a score told within the story. */
export const storyScore = (live: LiveVisit, measure: string): number | null => {
  const scores = treatedSides(live.affected).flatMap((side) => {
    const entry = live.get<MeasureEntry>(`measure.${measure}.${side}`);
    const [trial] = entry?.trials ?? [];
    return trial == null ? [] : [trial];
  });
  return scores.length === 0 ? null : Math.max(...scores);
};
