import { type EpisodeView, type HomeEntryView, lastFaults, type PlanView } from '@heathstep/contracts';
import {
  addDays,
  completeStage,
  localDay,
  type ComposedExercise,
  type LeftOut,
  lostStage,
  type MeasureDefinition,
  patientPlan,
  questionsByKey,
  type PatientPlan,
  type ProtocolDefinition,
  type RecordedRun,
  type Worked,
  type Stage,
  stageOf,
  type Tongue,
  type WrittenStage,
} from '@heathstep/core';
import type { Library } from '../content/library.js';
import type { Clinic, EpisodeRow, PlanRow } from '../persistence/entities.js';

/** The stage a plan was made of, as it was kept; null where it was not. */
const keptStage = (kept: unknown): Stage | null =>
  kept === null || kept === undefined ? null : completeStage(kept as WrittenStage, () => 'skill');

/** Everything that stands about one episode, read once. */
export interface EpisodeRecord {
  readonly row: EpisodeRow;
  readonly clinic: Clinic;
  readonly view: EpisodeView;
  /** What it is and what keeps it going, from everything the visits say. */
  readonly reasoning: Worked;
  readonly home: readonly HomeEntryView[];
  /** Ids of stop signs reported at home that were found harmless. */
  readonly harmless: ReadonlySet<string>;
  readonly plans: readonly PlanView[];
  /** Runs and walks of the person that were recorded, whatever complaint they are treated for. */
  readonly recorded: readonly (RecordedRun & { readonly id: string })[];
  /** Shipped measures and the clinic's own. */
  readonly measures: readonly MeasureDefinition[];
  /** Shipped exercises and the clinic's own. */
  readonly library: Library;
  /** In the version the episode is on. */
  readonly protocol: ProtocolDefinition;
  /** What the person reads in. */
  readonly tongue: Tongue;
  /** For dates on what the person reads. */
  readonly locale: string;
}

/** A plan as it is sent, with the stage it was made of. */
export function planView(
  row: PlanRow,
  protocol: Pick<ProtocolDefinition, 'stages'>,
  names: ReadonlyMap<string, string> = new Map(),
): PlanView {
  return {
    id: row.id,
    episodeId: row.episodeId,
    number: row.number,
    stage: row.stage,
    madeOf: keptStage(row.madeOf) ?? stageOf(protocol, row.stage) ?? lostStage(row.stage),
    status: row.status,
    version: row.version,
    items: row.items as ComposedExercise[],
    left: row.leftOut as LeftOut[],
    contentVersion: row.contentVersion,
    givenAt: row.givenAt?.toISOString() ?? null,
    givenBy: row.givenBy === null ? null : (names.get(row.givenBy) ?? null),
  };
}

/** Plans that were given, oldest first; of a complaint that came back only those given since. */
export const givenNow = (
  plans: readonly PlanView[],
  { cameBackAt }: Pick<EpisodeRow, 'cameBackAt'>,
): readonly PlanView[] =>
  plans.filter(
    (p) => p.status === 'given' && (cameBackAt === null || (p.givenAt ?? '') > cameBackAt.toISOString()),
  );

/** Until when a plan of upkeep usually goes on, as its reader says a month; null in any other stage. */
function upkeepUntil({ view, locale }: EpisodeRecord, plan: PlanView): string | null {
  const since = view.stages.findLast((s) => s.stage === plan.stage)?.since;
  if (plan.madeOf.criteria !== null || since === undefined) return null;
  const by = addDays(localDay(new Date(since), view.timeZone), plan.madeOf.usualWeeks.max * 7);
  return new Intl.DateTimeFormat(locale, { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${by}T12:00:00Z`),
  );
}

/** The plan the person has as everything that is given of it says it: handout, phone, calendar. */
export function patientPlanOf(record: EpisodeRecord, plan: PlanView): PatientPlan {
  const { view, library, tongue, measures, protocol } = record;
  const made = patientPlan({
    items: plan.items,
    exerciseOf: (key) => library.exercise(key),
    stage: plan.madeOf,
    saying: {
      lookup: (key) => measures.find((m) => m.key === key),
      questions: questionsByKey(protocol),
      affected: view.affected,
    },
    schools: view.schools,
    tagsOff: view.tagsOff,
    supervised: view.supervised,
    seenFaults: (exercise) => lastFaults(view.taught, exercise),
    tongue,
  });
  const month = upkeepUntil(record, plan);
  return month === null || made.purpose === ''
    ? made
    : {
        ...made,
        purpose: tongue.say('{{purpose}}, until about {{month}}', { purpose: made.purpose, month }),
      };
}
