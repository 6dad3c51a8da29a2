import {
  BODY_MASS,
  dayOf,
  localTime,
  type AcuityResult,
  type Affected,
  areLike,
  type Column,
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
  type StartingStage,
  startingStage,
  treatedSides,
  type SkillDefinition,
  say,
} from '@heathstep/core';
import type { LookPanel, Pathway } from '@heathstep/content';
import {
  asEntries,
  type Entries,
  type EntryKey,
  type EntryValue,
  standsFor,
  STORY_NEEDS,
  type EpisodeView,
  type CourseView,
  daysSinceOnset,
  entriesOf,
  entryAt,
  entryValue,
  type EntryView,
  isConcluded,
  measuredFacts,
  entriesOfKind,
  LASTING,
  newestEntries,
  rankOnEntries,
  reasonOnEntries,
  safetyAt,
  unexplainedTests,
  skillFacts,
  stateFacts,
  storyFacts,
  takenOf,
  VisitReadings,
  type VisitView,
} from '@heathstep/contracts';
import type { EntryStore } from '../../api/entryStore.js';
import type { ClinicContent } from '../../api/queries.js';
import { askedText, needsStage, panelDone, type Progress, type Step, stepText } from './progress.js';

export type { Column };

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
  /** What an entry holds: of this visit, or filled in from the one before where it lasts. */
  readonly get: <K extends EntryKey>(key: K) => EntryValue<K> | null;
  readonly set: <K extends EntryKey>(key: K, value: EntryValue<K> | null) => void;
  /** Measures wanted at this visit, in the order of taking them, the added ones last. */
  readonly measures: readonly MeasureDefinition[];
  readonly readings: VisitReadings;
  readonly value: (measure: MeasureDefinition, side: Column) => number | null;
  /** The newest earlier value taken in the same way; null when there is none to compare with. */
  readonly before: (measure: MeasureDefinition, side: Column) => number | null;
  /** True when there is an earlier value, but taken otherwise. */
  readonly unlike: (measure: MeasureDefinition, side: Column) => boolean;
  readonly safety: SafetyState;
  /** Tests left out without saying why, by question. */
  readonly unexplained: readonly string[];
  readonly facts: Facts;
  /** What it is, what keeps it going, what to ask next; worked out when first asked for. */
  readonly reasoning: () => Reasoning;
  /** The ranking, supposing an answer to one finding. */
  readonly suppose: (finding: string, side: Column, state: FindingState) => readonly RankedCondition[];
  readonly daysSinceOnset: number | null;
  readonly acuity: AcuityResult;
  readonly irritability: IrritabilityResult;
  /** Some answer says that the foot takes no weight. */
  readonly cannotTakeWeight: boolean;
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
    readonly told: string;
  }[];
}

export const columnsOf = (m: MeasureDefinition): readonly Column[] =>
  m.sides === 'single' ? ['none'] : ['left', 'right'];

const UNKNOWN: Pathway = {
  key: '',
  name: '',
  gloss: '',
  also: [],
  place: { one: say('foot'), both: say('both feet') },
  storyAsks: null,
  skills: [],
  protocol: null,
  firstVisit: [],
  parts: [],
  look: ['pain'],
};

/** What stands in the store, as a visit's entries. */
function storeEntries(store: EntryStore): EntryView[] {
  return store.all().map(([key, value]) => ({ key, version: 0, value, at: '', author: '' }));
}

function carriedGetter(store: EntryStore, earlier: readonly Entries[]): LiveVisit['get'] {
  return (key) => {
    const own = store.get(key);
    if (own !== null || standsFor(key) !== 'person') return own;
    for (const entries of earlier) {
      const found = entries.get(key);
      if (found !== undefined) return found;
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
        return guard?.state === 'unusual' ? [{ measure, side, told: guard.told }] : [];
      });
    }),
  );
}

/** Works something out at the first asking and keeps it. */
function once<T>(work: () => T): () => T {
  let kept: { readonly value: T } | null = null;
  return () => (kept ??= { value: work() }).value;
}

/** The safety step in a word: an open stop first, whatever else is missing. */
function safetyProgress(
  safety: SafetyState,
  unexplained: readonly string[],
  reported: EpisodeView['openStops'],
): string {
  const open = safety.triggered.filter((t) => t.status === 'open').length;
  const [stop] = safety.stops;
  if (stop !== undefined) return stop.rule.level === 'emergency' ? say('emergency open') : say('urgent open');
  if (reported.length > 0) return say('reported at home');
  if (safety.unanswered.length > 0)
    return say('{{n}} of {{n2}}', {
      n: safety.asked.length - safety.unanswered.length,
      n2: safety.asked.length,
    });
  if (unexplained.length > 0) return say('say why {{n}} were not tested', { n: unexplained.length });
  if (safety.blocking.length > 0) return say('blocked');
  const left = safety.notTested.length > 0 ? say('{{n}} not tested', { n: safety.notTested.length }) : '';
  const unlike = safety.clashes.length > 0 ? say('{{n}} unlike the story', { n: safety.clashes.length }) : '';
  return (
    [open > 0 ? say('{{open}} to mind', { open }) : '', left, unlike].filter((t) => t !== '').join(', ') ||
    say('nothing open')
  );
}

/** Whether any answer says that the person cannot take weight. */
function saysNoWeight(content: ClinicContent, entries: Entries): boolean {
  return content.safetyQuestions.some((q) => {
    const answer = q.means === 'cannot-take-weight' ? entries.get(`safety.${q.key}`) : undefined;
    return answer !== undefined && answer !== 'no' && answer !== 'not-tested';
  });
}

/** Whether a treated side was unable to do what the protocol's lowest stage asks for. */
function isUnable({ unableAt }: ProtocolDefinition, entries: Entries, affected: Affected): boolean {
  return (
    unableAt !== null &&
    treatedSides(affected).some((side) => entryAt(entries, unableAt.measure, side)?.status === 'unable')
  );
}

interface WantedMeasures {
  /** Those to take, the added and already entered ones last. */
  readonly wanted: readonly MeasureDefinition[];
  /** With those worked out from them. */
  readonly shown: readonly MeasureDefinition[];
}

function wantedMeasures(
  { measures }: ClinicContent,
  entries: Entries,
  set: readonly string[],
  added: readonly string[],
): WantedMeasures {
  const entered = measures
    .filter((m) => columnsOf(m).some((side) => entryAt(entries, m.key, side) !== null))
    .map((m) => m.key);
  const keys = [...new Set([...set, ...added, ...entered])].filter((k) => k !== BODY_MASS);
  const wanted = keys.flatMap((k) => measures.find((m) => m.key === k) ?? []);
  const computed = measures.filter((m) => m.computed?.from.some((k) => keys.includes(k)) === true);
  return { wanted, shown: [...wanted, ...computed] };
}

type Before = (m: MeasureDefinition, side: Column) => { value: number | null; unlike: boolean };

/** The newest earlier value taken in the same way, and whether there are only others. Earlier entries come newest first. */
function comparing(content: ClinicContent, now: Entries, earlier: readonly Entries[]): Before {
  const past = earlier.map((map, i) => new VisitReadings(content.measures, map, earlier.slice(i + 1)));
  return (m, side) => {
    const taken = takenOf(entryAt(now, m.key, side));
    let unlike = false;
    for (const [i, map] of earlier.entries()) {
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
}

/** Every region taken off again is no answer, and does not bring back what stood at the last visit. */
const untold = (value: unknown) => value === null || (Array.isArray(value) && value.length === 0);

interface ProgressOn {
  readonly get: LiveVisit['get'];
  readonly entries: Entries;
  readonly wanted: readonly MeasureDefinition[];
  readonly panels: readonly LookPanel[];
  readonly safety: SafetyState;
  readonly unexplained: readonly string[];
  readonly episode: EpisodeView;
  readonly protocol: ProtocolDefinition;
}

const isDone = (m: MeasureDefinition, entries: Entries): boolean =>
  columnsOf(m).every((side) => entryAt(entries, m.key, side) !== null);

/** How far each step is. */
function progressOf({
  get,
  entries,
  wanted,
  panels,
  safety,
  unexplained,
  episode,
  protocol,
}: ProgressOn): LiveVisit['progress'] {
  const partsOf = (step: MeasureStep) => {
    const own = wanted.filter((m) => m.step === step && m.computed === null);
    return { done: own.filter((m) => isDone(m, entries)).length, of: own.length };
  };
  const stepProgress = (step: 'look' | 'measure' | 'load' | 'feel'): Progress => {
    const rows = partsOf(step);
    const drawn = step === 'look' ? panels : [];
    const marked = drawn.filter((p) => panelDone(p, entries)).length;
    const of = rows.of + drawn.length;
    const skipped = get(`skip.${step}`);
    if (step === 'feel' && of === 0 && skipped === null)
      return askedText(entriesOfKind(entries, 'finding').length);
    return stepText(rows.done + marked, of, skipped);
  };
  const told = STORY_NEEDS.filter((key) => !untold(get(key))).length;
  const storyRows = partsOf('story');
  const concluded =
    isConcluded(entries) &&
    (episode.stage !== null || !needsStage(protocol) || get('conclude.stage') !== null);
  return {
    story: stepText(told + storyRows.done, STORY_NEEDS.length + storyRows.of, get('skip.story')),
    safety: {
      done: safety.unanswered.length === 0 && unexplained.length === 0 && episode.openStops.length === 0,
      share:
        safety.asked.length === 0
          ? 1
          : 1 -
            Math.max(safety.unanswered.length, Math.min(1, unexplained.length + episode.openStops.length)) /
              safety.asked.length,
      text: safetyProgress(safety, unexplained, episode.openStops),
    },
    look: stepProgress('look'),
    measure: stepProgress('measure'),
    load: stepProgress('load'),
    feel: stepProgress('feel'),
    conclude: {
      done: concluded,
      share: concluded ? 1 : 0,
      text: concluded ? say('ready to sign') : say('open'),
    },
  };
}

/** What is written now with what was written before: the visit's own entries, those filled in, those of earlier visits. */
function recordOfVisit(course: CourseView, content: ClinicContent, visit: VisitView, store: EntryStore) {
  const { episode } = course;
  const earlier = episode.visits.filter((v) => v.startedAt < visit.startedAt);
  const earlierMaps = earlier.map((v) => entriesOf(v.entries)).reverse();
  const get = carriedGetter(store, earlierMaps);
  const entries = storeEntries(store);
  const own = entriesOf(entries);
  const current = asEntries([
    ...LASTING.map((key) => [key, get(key)] as const).filter(([, v]) => v !== null),
    ...own,
  ]);
  return {
    earlier,
    earlierMaps,
    get,
    own,
    current,
    known: newestEntries([...earlier.map((v) => entriesOf(v.entries)), current]),
    readings: new VisitReadings(content.measures, own, earlierMaps),
    visits: [...earlier, { ...visit, entries }],
    affected: get('story.side') ?? episode.affected,
  };
}

/** What criteria and the starting stage are judged on. */
function factsOf(
  course: CourseView,
  content: ClinicContent,
  visits: readonly VisitView[],
  affected: Affected,
): Facts {
  const { episode } = course;
  const local = (iso: string) => localTime(new Date(iso), episode.timeZone);
  return {
    measures: measuredFacts(visits, local, content.measures),
    sessions: course.mornings.map((m) => ({ at: m.day, done: false, firstStep: m.pain })),
    skills: skillFacts(visits, content.skills),
    ...stateFacts(visits, episode.today, (iso) => dayOf(local(iso))),
    stageSince: local(episode.stages[episode.stages.length - 1]?.since ?? episode.startedAt),
    affected,
    ageYears: episode.person.ageYears,
    sex: episode.person.sex,
  };
}

export function liveVisit(
  course: CourseView,
  content: ClinicContent,
  visit: VisitView,
  store: EntryStore,
): LiveVisit {
  const { episode, protocol } = course;
  const { ageYears } = episode.person;
  const pathway = content.pathways.find((c) => c.key === episode.condition) ?? UNKNOWN;
  const record = recordOfVisit(course, content, visit, store);
  const { affected, get, own, readings, visits } = record;
  const facts = factsOf(course, content, visits, affected);
  const safety = safetyAt(content, visits, visits[visits.length - 1] ?? visit, {
    affected,
    complaint: episode.condition,
    ageYears,
    closures: episode.closures,
  });
  const unexplained = unexplainedTests(safety, own);
  const irritability = judgeIrritability(storyFacts(record.current));
  const dayOn = (iso: string) => dayOf(localTime(new Date(iso), episode.timeZone));
  const days = daysSinceOnset(visits, dayOn(visit.startedAt), dayOn);
  const acuity = judgeAcuity(days);
  const on = {
    affected,
    ageYears,
    daysSinceOnset: days,
    tagsOff: (side: Column) =>
      side === 'none' ? [...safety.tagsOff.left, ...safety.tagsOff.right] : safety.tagsOff[side],
  };
  const stage = protocol.stages.find((s) => s.key === episode.stage);
  const set = stage === undefined ? pathway.firstVisit : stage.remeasure;
  const { wanted, shown } = wantedMeasures(content, own, set, get('visit.measures') ?? []);
  const missingMeasures = wanted.filter((m) => m.computed === null && !isDone(m, own));
  const before = comparing(content, own, record.earlierMaps);
  const panels: readonly LookPanel[] = stage === undefined ? pathway.look : [];
  const unable = isUnable(protocol, own, affected);
  const cannotTakeWeight = saysNoWeight(content, record.current);
  return {
    course,
    content,
    pathway,
    protocol,
    visit,
    previous: record.earlier[record.earlier.length - 1] ?? null,
    store,
    visitQuery: visit.signedAt === null ? '' : `?of=${visit.id}`,
    conditionName: pathway.name,
    affected,
    ageYears,
    get,
    set: (key, v) => store.set(key, v),
    measures: shown,
    readings,
    value: (m, side) => readings.value(m.key, side),
    before: (m, side) => before(m, side).value,
    unlike: (m, side) => {
      const b = before(m, side);
      return b.value === null && b.unlike;
    },
    safety,
    unexplained,
    facts,
    reasoning: once(() => reasonOnEntries(content, record.known, { ...on, stops: openSigns(safety) })),
    suppose: (finding, side, state) =>
      rankOnEntries(content, record.known, { ...on, suppose: new Map([[`${finding}.${side}`, state]]) }),
    daysSinceOnset: days,
    acuity,
    irritability,
    cannotTakeWeight,
    start: startingStage(
      protocol,
      facts,
      { irritability, acuity, cannotTakeWeight, unable },
      { now: `${episode.today}T12:00:00`, lookup: (key) => content.measures.find((m) => m.key === key) },
    ),
    panels,
    skills: content.skills.filter((k) =>
      (stage === undefined || stage.skills.length === 0 ? pathway.skills : stage.skills).includes(k.key),
    ),
    progress: progressOf({ get, entries: own, wanted, panels, safety, unexplained, episode, protocol }),
    missingMeasures,
    missingForCriteria:
      stage === undefined ? [] : missingMeasures.filter((m) => stage.remeasure.includes(m.key)),
    toConfirm: askedAbout(wanted, readings),
  };
}

/** The treated side as a patient says it: the left heel, both heels. */
export function sidesText(affected: Affected, place: Pathway['place']): string {
  if (affected === 'both') return place.both;
  return affected === 'none'
    ? say('neither {{one}}', { one: place.one })
    : say('the {{affected}} {{one}}', { affected: say(affected), one: place.one });
}

/** The worst treated side of a score told within the story. */
export const storyScore = (live: LiveVisit, measure: string): number | null => {
  const scores = treatedSides(live.affected).flatMap((side) => {
    const entry = live.get(`measure.${measure}.${side}`);
    const [trial] = entry?.trials ?? [];
    return trial == null ? [] : [trial];
  });
  return scores.length === 0 ? null : Math.max(...scores);
};
