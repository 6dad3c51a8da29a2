import { Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Drafted, PlanIf } from '@heathstep/contracts';
import {
  applyStep,
  ASSUMED_MASS_KG,
  type Brings,
  type ComposedExercise,
  type ComposeInput,
  composePlan,
  doseSentence,
  exerciseIn,
  type ExerciseStep,
  keepGivable,
  type LeftOut,
  type Planned,
  planProblems,
  type Prescription,
  sentenceText,
  shareOfDay,
  spoken,
  type Stage,
  stageOf,
  tooEarlyEach,
  weekLimits,
  type WeekLimits,
  whatMoreBrings,
  type StageKey,
  say,
} from '@heathstep/core';
import type { SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { type Assessed, Assessment } from '../episodes/assessment.js';
import { refuseClosed } from '../episodes/ending.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { badRequest, fieldErrors, refusedNow } from '../http/problem.js';
import type { Tx } from '../persistence/db.js';
import { EpisodeRow, PlanRow, StageSpanRow } from '../persistence/entities.js';

const lookupIn = (record: EpisodeRecord) => (key: string) => record.measures.find((m) => m.key === key);

export interface DraftWish {
  readonly id: string;
  /** Stage to plan for. */
  readonly stage: StageKey | null;
  /** Fill the stage's slots anew, or copy what the patient has. */
  readonly from: 'stage' | 'current';
  /** Steps of the dose to take in the copy. */
  readonly steps: readonly ExerciseStep[];
}

/** Makes drafts of plans, and checks every one before it is written. */
@Injectable()
export class PlanDrafts {
  constructor(
    private readonly content: Content,
    private readonly assessment: Assessment,
    private readonly clock: Clock,
  ) {}

  /** Makes the draft of the next plan, in place of an older draft. */
  async write(tx: Tx, me: SignedIn, record: EpisodeRecord, wish: DraftWish): Promise<PlanRow> {
    this.requirePrescribing(record);
    const { row } = record;
    const stage = stageOf(record.protocol, wish.stage);
    if (stage === null)
      throw badRequest([{ pointer: '/stage', detail: say('must be a stage of the protocol') }]);
    const { items, left } = this.fill(record, stage, wish);
    this.check(record, items);
    await tx.delete(PlanRow, { episodeId: row.id, status: 'draft' });
    const number = Math.max(0, ...record.plans.filter((p) => p.status === 'given').map((p) => p.number)) + 1;
    await tx.insert(PlanRow, {
      id: wish.id,
      clinicId: row.clinicId,
      episodeId: row.id,
      number,
      stage: stage.key,
      status: 'draft',
      version: 1,
      items: [...items],
      leftOut: [...left],
      madeOf: stage,
      contentVersion: this.content.bundle.version,
      createdBy: me.userId,
      createdAt: this.clock.now(),
      givenBy: null,
      givenAt: null,
    });
    return tx.findOneByOrFail(PlanRow, { id: wish.id });
  }

  /** What a little more time, or a piece of equipment, would bring into a plan of a stage. */
  brings(record: EpisodeRecord, stage: StageKey): readonly Brings[] {
    const found = stageOf(record.protocol, stage);
    return found === null ? [] : whatMoreBrings(this.input(record, found), lookupIn(record));
  }

  /** What a stage would be filled with for a person now; nothing is written. */
  filled(record: EpisodeRecord, stage: Stage): readonly ComposedExercise[] {
    return composePlan(this.input(record, stage), lookupIn(record)).exercises;
  }

  /** What a draft's stage filled under other choices would have otherwise than the draft. */
  otherwise(record: EpisodeRecord, plan: PlanRow, schools: Readonly<Record<string, string>>): PlanIf {
    const stage = stageOf(record.protocol, plan.stage);
    if (stage === null) return { come: [], gone: [], otherwise: [] };
    const now = plan.items as ComposedExercise[];
    const row = { ...record.row, schools: { ...record.row.schools, ...schools } };
    const then = this.filled({ ...record, row }, stage);
    const { come, gone, otherwise } = differences(now, then);
    const nameOf = ({ exercise }: ComposedExercise) => record.library.exercise(exercise)?.name ?? exercise;
    return { come: come.map(nameOf), gone: gone.map(nameOf), otherwise: otherwise.map((o) => nameOf(o.is)) };
  }

  /** What the plan drafted by a decision would have otherwise than the plan the patient has; null where it drafts none. */
  decided(record: EpisodeRecord, key: StageKey | null, steps: readonly ExerciseStep[]): Drafted | null {
    const { view, library } = record;
    const stage = stageOf(record.protocol, key);
    if (view.plan === null || stage === null || view.notPrescribed.length > 0) return null;
    const { items } = this.fill(record, stage, {
      id: '',
      stage: key,
      from: fromOf(record, key, steps),
      steps,
    });
    const { come, gone, otherwise } = differences(view.plan.items, items);
    const told = (item: ComposedExercise) => {
      const found = library.exercise(item.exercise);
      if (found === undefined) return { name: item.exercise, dose: '' };
      const exercise = exerciseIn(spoken(), found);
      return { name: exercise.name, dose: sentenceText(doseSentence(item, exercise)) };
    };
    return {
      come: come.map(told),
      gone: gone.map((g) => ({ name: told(g).name })),
      otherwise: otherwise.map(({ was, is }) => ({ ...told(is), before: told(was).dose })),
    };
  }

  /** Everything the planner goes by. */
  private input(record: EpisodeRecord, stage: Stage): ComposeInput {
    const { row, view, library } = record;
    const assessed = this.assessment.assess(record, null);
    const given = view.elsewhere.flatMap((c) => c.plan?.exercises ?? []);
    return {
      stage,
      exercises: library.offered,
      facts: assessed.facts,
      schools: row.schools,
      equipment: row.equipment,
      minutesPerDay: shareOfDay(row.minutesPerDay, given).here,
      weightsKg: row.weightsKg,
      tagsOff: view.tagsOff,
      supervised: view.supervised,
      drivers: assessed.drivers,
      now: assessed.now,
      elsewhere: given.map((e) => e.key),
      load: this.limits(record, stage, assessed),
    };
  }

  /** What a coming week may hold, by what was done in the last. */
  private limits(record: EpisodeRecord, stage: Stage, assessed: Assessed): WeekLimits {
    const { view, library } = record;
    const defined = (items: readonly Prescription[]): Planned[] =>
      items.flatMap((item) => {
        const exercise = library.exercise(item.exercise);
        return exercise === undefined ? [] : [{ item, exercise }];
      });
    return weekLimits(stage, {
      ...this.assessment.done(record, assessed),
      today: view.today,
      tissues: this.content.tissuesOf(record.protocol),
      affected: record.row.affected,
      bodyMassKg: view.bodyMassKg ?? ASSUMED_MASS_KG,
      planned: defined(view.plan?.items ?? []),
      elsewhere: defined(view.elsewhere.flatMap((c) => c.plan?.exercises.map((e) => e.item) ?? [])),
    });
  }

  private fill(
    record: EpisodeRecord,
    stage: Stage,
    wish: DraftWish,
  ): { readonly items: readonly ComposedExercise[]; readonly left: readonly LeftOut[] } {
    const { view, library } = record;
    const composed = composePlan(this.input(record, stage), lookupIn(record));
    if (wish.from === 'stage' || view.plan === null)
      return { items: composed.exercises, left: composed.left };
    const { kept, left } = keepGivable(
      this.stepped(record, stage, view.plan.items, wish.steps),
      (key) => library.exercise(key),
      view,
    );
    // What is in the plan is not told as left out of it.
    const more = composed.left.filter((l) => [...kept, ...left].every((k) => k.exercise !== l.exercise));
    return { items: kept, left: [...left, ...more] };
  }

  /** The plan the patient has, with the steps of its dose taken. */
  private stepped(
    record: EpisodeRecord,
    stage: Stage,
    items: readonly ComposedExercise[],
    steps: readonly ExerciseStep[],
  ): ComposedExercise[] {
    const { ladders } = this.content.bundle;
    const on = {
      exercises: record.library.offered,
      isOrdered: (ladder: string) => ladders.some((l) => l.key === ladder && l.set !== true),
      affected: record.row.affected,
      tagsOff: record.view.tagsOff,
      early: tooEarlyEach(record.library.offered, this.assessment.assess(record, null), lookupIn(record)),
      sideRule: (slot: string) => stage.slots.find((s) => s.key === slot)?.sideRule,
    };
    return items.map((item) => {
      const step = steps.find((s) => s.exercise === item.exercise)?.step;
      if (step === undefined) return item;
      const taken = items.filter((i) => i !== item).map((i) => i.exercise);
      const next = applyStep(item, step, { ...on, taken });
      // What could not be taken is not said to have been.
      return isDeepStrictEqual({ ...next, why: item.why }, item) ? item : { ...next, why: [step.because] };
    });
  }

  requirePrescribing(record: EpisodeRecord): void {
    refuseClosed(record.row);
    const reasons = record.view.notPrescribed;
    if (reasons.length > 0)
      throw refusedNow(
        say('Nothing can be prescribed yet'),
        reasons.map((detail) => ({ pointer: '/safety', detail })),
      );
  }

  /** Refuses items that cannot be given, each by its field. */
  check(record: EpisodeRecord, items: readonly Prescription[]): void {
    const problems = planProblems(items, (key) => record.library.exercise(key), record.view);
    if (problems.length > 0) throw badRequest(fieldErrors(problems));
  }
}

/** A plan is filled from its stage where that is another, and goes on from what the patient has where it is the same. */
export const fromOf = (
  record: EpisodeRecord,
  stage: StageKey | null,
  steps: readonly ExerciseStep[],
): DraftWish['from'] => (steps.length > 0 || stage === record.row.stage ? 'current' : 'stage');

/** What one plan has otherwise than another, exercise by exercise. */
function differences(now: readonly ComposedExercise[], then: readonly ComposedExercise[]) {
  const doseOf = ({ why: _why, ...dose }: ComposedExercise) => dose;
  const sameIn = (list: readonly ComposedExercise[], item: ComposedExercise) =>
    list.find((i) => i.exercise === item.exercise);
  return {
    come: then.filter((t) => sameIn(now, t) === undefined),
    gone: now.filter((n) => sameIn(then, n) === undefined),
    otherwise: then.flatMap((is) => {
      const was = sameIn(now, is);
      return was === undefined || isDeepStrictEqual(doseOf(was), doseOf(is)) ? [] : [{ was, is }];
    }),
  };
}

export async function moveToStage(
  tx: Tx,
  episode: EpisodeRow,
  { stage, reason, at }: { stage: StageKey; reason: string; at: Date },
): Promise<void> {
  await tx.update(EpisodeRow, { id: episode.id }, { stage, stageSince: at, version: () => 'version + 1' });
  await tx.insert(StageSpanRow, {
    id: randomUUID(),
    clinicId: episode.clinicId,
    episodeId: episode.id,
    stage,
    since: at,
    reason,
  });
}
