import { Body, Controller, HttpCode, Param, Post, Put } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { GivePlanBody, PlanBody, PlanDraftBody, type PlanView, reportedText } from '@heathstep/contracts';
import {
  ageProblem,
  type ComposedExercise,
  composePlan,
  prescriptionProblems,
  type Prescription,
  switchedOff,
} from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { Assessment } from '../episodes/assessment.js';
import { type EpisodeRecord, EpisodeReader, planView } from '../episodes/reader.js';
import {
  badRequest,
  conflict,
  fieldErrors,
  type FieldError,
  notFound,
  ProblemError,
  refusedNow,
} from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { EpisodeRow, PlanRow, StageSpanRow } from '../persistence/entities.js';

@Controller('api')
export class PlansController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly assessment: Assessment,
  ) {}

  /** Makes the draft of the next plan, in place of an older draft: the stage filled anew, or a copy of what the patient has. */
  @HttpCode(201)
  @Post('episodes/:id/plans')
  draft(
    @Me() me: SignedIn,
    @Param('id', IdPipe) episodeId: string,
    @Body() body: PlanDraftBody,
  ): Promise<PlanView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.read(tx, episodeId);
      const standing = record.plans.find((p) => p.id === body.id);
      if (standing !== undefined) return standing;
      const row = await this.writeDraft(tx, me, record, body.id, body.stage ?? record.row.stage, body.from);
      await audit(tx, me, 'create', 'plan', record.row.personId);
      return planView(row);
    });
  }

  @Put('plans/:id')
  edit(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: PlanBody): Promise<PlanView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const plan = await tx.findOneBy(PlanRow, { id });
      if (plan === null) throw notFound();
      if (plan.status === 'given')
        throw new ProblemError(409, 'This plan is given and does not change', {
          detail: 'Make the next version',
        });
      const record = await this.reader.read(tx, plan.episodeId);
      this.checkItems(record, body.items);
      const result = await tx.update(
        PlanRow,
        { id, version: body.version, status: 'draft' },
        { items: body.items, version: body.version + 1 },
      );
      const now = await tx.findOneByOrFail(PlanRow, { id });
      if (result.affected !== 1)
        throw conflict('Someone changed this plan while you were editing', planView(now));
      await audit(tx, me, 'change', 'plan', record.row.personId);
      return planView(now);
    });
  }

  /** Freezes the draft as the version the patient has. Nothing is given past an open stop or a missing safety answer. */
  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('plans/:id/give')
  give(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: GivePlanBody): Promise<PlanView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const plan = await tx.findOne(PlanRow, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (plan === null) throw notFound();
      if (plan.status === 'given') return planView(plan, await this.reader.names(tx));
      if (plan.version !== body.version)
        throw conflict('Someone changed this plan while you were looking at it', planView(plan));
      const record = await this.reader.read(tx, plan.episodeId);
      this.requirePrescribing(record);
      this.checkItems(record, plan.items as Prescription[]);
      if (plan.items.length === 0) throw refusedNow('A plan needs at least one exercise');
      const now = new Date();
      await tx.update(
        PlanRow,
        { id },
        { status: 'given', givenBy: me.userId, givenAt: now, version: plan.version + 1 },
      );
      if (record.row.stage !== plan.stage) await moveToStage(tx, record.row, plan.stage, 'plan given', now);
      await audit(tx, me, 'give', 'plan', record.row.personId);
      return planView(await tx.findOneByOrFail(PlanRow, { id }), await this.reader.names(tx));
    });
  }

  async writeDraft(
    tx: Tx,
    me: SignedIn,
    record: EpisodeRecord,
    id: string,
    stageKey: string | null,
    from: 'stage' | 'current',
  ): Promise<PlanRow> {
    this.requirePrescribing(record);
    const { row, view } = record;
    const stage = this.content.stage(row.protocol, stageKey ?? '');
    if (stage === undefined)
      throw badRequest([{ pointer: '/stage', detail: 'must be a stage of the protocol' }]);
    const assessed = this.assessment.assess(record, null);
    const composed = composePlan(
      {
        stage,
        exercises: record.library.exercises,
        facts: assessed.facts,
        schools: row.schools,
        equipment: row.equipment,
        minutesPerDay: row.minutesPerDay,
        tagsOff: view.tagsOff,
        supervised: view.safety?.supervised ?? { left: [], right: [] },
        drivers: assessed.drivers,
        now: assessed.now,
      },
      this.content.lookup,
    );
    const items =
      from === 'current' && view.plan !== null ? this.allowed(record, view.plan.items) : composed.exercises;
    await tx.delete(PlanRow, { episodeId: row.id, status: 'draft' });
    const number = Math.max(0, ...record.plans.filter((p) => p.status === 'given').map((p) => p.number)) + 1;
    await tx.insert(PlanRow, {
      id,
      clinicId: row.clinicId,
      episodeId: row.id,
      number,
      stage: stage.key,
      status: 'draft',
      version: 1,
      items: [...items],
      leftOut: [...composed.left],
      contentVersion: this.content.bundle.version,
      createdBy: me.userId,
      createdAt: new Date(),
      givenBy: null,
      givenAt: null,
    });
    return tx.findOneByOrFail(PlanRow, { id });
  }

  private requirePrescribing(record: EpisodeRecord): void {
    const { safety, openStops, person } = record.view;
    const age = ageProblem(this.content.protocol(record.row.protocol), person.ageYears);
    const reasons = [
      ...(age === null ? [] : [age]),
      ...(safety === null ? ['The safety questions have not been asked'] : safety.blockedBecause),
      ...openStops.map(reportedText),
    ];
    if (reasons.length > 0)
      throw refusedNow(
        'Nothing can be prescribed yet',
        reasons.map((detail) => ({ pointer: '/safety', detail })),
      );
  }

  /** What of a plan the safety answers still permit. */
  private allowed(record: EpisodeRecord, items: readonly ComposedExercise[]): ComposedExercise[] {
    const off = record.view.tagsOff;
    return items.filter((item) => {
      const exercise = record.library.exercise(item.exercise);
      return exercise !== undefined && switchedOff(exercise, item.sides, off) === null;
    });
  }

  private checkItems(record: EpisodeRecord, items: readonly Prescription[]): void {
    const off = record.view.tagsOff;
    const errors = items.flatMap((item, i): FieldError[] => {
      const exercise = record.library.exercise(item.exercise);
      if (exercise === undefined)
        return [{ pointer: `/items/${i}/exercise`, detail: 'must be an exercise of the library' }];
      const blocked = switchedOff(exercise, item.sides, off);
      if (blocked !== null) return [{ pointer: `/items/${i}/exercise`, detail: blocked }];
      if (exercise.laterality === 'together' ? item.sides !== 'together' : item.sides === 'together') {
        return [{ pointer: `/items/${i}/sides`, detail: 'this exercise is not done that way' }];
      }
      return fieldErrors(prescriptionProblems(item, exercise), `/items/${i}`);
    });
    const keys = items.map((i) => i.exercise);
    const twice = keys.findIndex((k, i) => keys.indexOf(k) !== i);
    if (twice !== -1) errors.push({ pointer: `/items/${twice}/exercise`, detail: 'is in the plan already' });
    if (errors.length > 0) throw badRequest(errors);
  }
}

export async function moveToStage(
  tx: Tx,
  episode: EpisodeRow,
  stage: string,
  reason: string,
  at: Date,
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
