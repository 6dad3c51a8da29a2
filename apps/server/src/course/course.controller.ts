import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { type CourseView, type DecidedOn, DecisionBody, type DecisionView } from '@heathstep/contracts';
import { type ReviewResult, type Stage, type StageKey, ranOn, tooEarlyEach, say } from '@heathstep/core';
import { painSchoolOn } from '../clinic/defaults.js';
import { Clock } from '../clock.js';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { type Assessed, Assessment } from '../episodes/assessment.js';
import { refuseClosed } from '../episodes/ending.js';
import { EpisodeReader } from '../episodes/reader.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { AsTable, tableOf } from '../http/asTable.js';
import { badRequest, conflict, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { DecisionRow, EpisodeRow } from '../persistence/entities.js';
import { fromOf, moveToStage, PlanDrafts } from '../plans/planDrafts.js';

/** The stage a decision goes to; undefined where it stays. */
function stageAfter({ protocol, row }: EpisodeRecord, decision: ReviewResult['decision']): Stage | undefined {
  const at = protocol.stages.findIndex((s) => s.key === row.stage);
  if (decision === 'progress') return protocol.stages[at + 1];
  return decision === 'ease-back' && at > 0 ? protocol.stages[at - 1] : undefined;
}

/** Whether a decision was made on what stands: the stage, the plan the patient has, and what the rules say. */
const stillStands = (on: DecidedOn, record: EpisodeRecord, review: ReviewResult): boolean =>
  on.stage === record.row.stage &&
  on.planId === (record.view.plan?.id ?? null) &&
  on.suggested === review.decision;

@Controller('api/episodes/:id')
export class CourseController {
  /** Of the same record, decisions and names included, the same is shown. */
  private readonly shown = new WeakMap<EpisodeRecord, CourseView>();

  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly assessment: Assessment,
    private readonly drafts: PlanDrafts,
    private readonly clock: Clock,
  ) {}

  @Get('course')
  course(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<CourseView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      await audit(tx, me, { action: 'read', subject: 'course', personId: record.row.personId });
      const view = this.shown.get(record) ?? (await this.view(tx, record));
      this.shown.set(record, view);
      return view;
    });
  }

  /** What was done day by day and how it was taken, as a table. */
  @Get('log.csv')
  @AsTable('log')
  table(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      await audit(tx, me, { action: 'export', subject: 'course', personId: record.row.personId });
      const { sessions, mornings, recorded } = await this.view(tx, record);
      const byDay = new Map(sessions.map((s) => [s.day, s]));
      const pain = new Map(mornings.map((m) => [m.day, m.pain]));
      const days = [...new Set([...byDay.keys(), ...pain.keys(), ...recorded.map((r) => r.day)])].toSorted();
      return tableOf(
        ['day', 'morning pain', 'taken', 'minutes under tension', 'landings', 'minutes of running'],
        days.map((day) => {
          const s = byDay.get(day);
          return [
            day,
            pain.get(day),
            s?.state,
            s?.tensionMinutes.toFixed(1),
            s?.contacts,
            ranOn(day, s?.runMinutes ?? 0, recorded).toFixed(1),
          ];
        }),
      );
    });
  }

  /** Records the decision beside what the rules suggested, and carries it out: the stage moves, the next plan is drafted. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post('decisions')
  decide(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: DecisionBody,
  ): Promise<CourseView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await tx.findOne(EpisodeRow, { where: { id }, lock: { mode: 'pessimistic_write' } });
      const record = await this.reader.read(tx, id);
      refuseClosed(record.row);
      const standing = await tx.findOneBy(DecisionRow, { id: body.id });
      if (standing !== null && !isRepeat(standing, id, body))
        throw conflict(
          say('This id has another decision already. Nothing was kept'),
          await this.view(tx, record),
        );
      if (standing === null) {
        const assessed = this.assessment.assess(record, await this.lastDecisionAt(tx, id));
        const { review } = assessed;
        if (review === null) throw refusedNow(say('There is no plan to decide about yet'));
        if (!stillStands(body.on, record, review))
          throw conflict(
            say('It is not as you saw it any more: look at what stands now, and decide on that'),
            await this.view(tx, record),
          );
        await this.record(tx, me, record, review, body);
        await this.carryOut(tx, me, record, assessed, body.decision);
        await audit(tx, me, { action: 'decide', subject: body.decision, personId: record.row.personId });
      }
      return this.view(tx, await this.reader.read(tx, id));
    });
  }

  private async record(
    tx: Tx,
    me: SignedIn,
    record: EpisodeRecord,
    review: ReviewResult,
    body: DecisionBody,
  ): Promise<void> {
    const agreed = body.decision === review.decision;
    const reason = body.reason?.trim() ?? '';
    if (!agreed && reason.length < 3)
      throw badRequest([{ pointer: '/reason', detail: say('Say why you decide otherwise') }]);
    if (body.decision === 'progress' && this.assessment.stopsOpen(record).length > 0) {
      throw refusedNow(say('A stop is open; close it with its result before going on'));
    }
    await tx.insert(DecisionRow, {
      id: body.id,
      clinicId: me.clinicId,
      episodeId: record.row.id,
      suggested: review.decision,
      suggestion: review,
      decision: body.decision,
      agreed,
      reason,
      contentVersion: this.content.bundle.version,
      authorId: me.userId,
      at: this.clock.now(),
    });
  }

  private async carryOut(
    tx: Tx,
    me: SignedIn,
    record: EpisodeRecord,
    assessed: Assessed,
    decision: DecisionBody['decision'],
  ): Promise<void> {
    const next = stageAfter(record, decision);
    if (decision === 'progress' && next === undefined) throw refusedNow(say('This is the last stage'));
    if (next !== undefined) {
      await moveToStage(tx, record.row, {
        stage: next.key,
        reason: decision === 'progress' ? 'criteria met' : 'eased back',
        at: this.clock.now(),
      });
      await this.draft(tx, me, record, next.key, []);
    } else if (decision === 'adjust-dose' || decision === 'ease-back') {
      // There is no stage before the first: the dose is cut, and the run of reds is not forgotten.
      await this.draft(tx, me, record, record.row.stage, assessed.doseSteps);
    }
  }

  /** Drafts the next plan; a person who cannot be prescribed to now gets none, and the plan page says why. */
  private async draft(
    tx: Tx,
    me: SignedIn,
    record: EpisodeRecord,
    stage: StageKey | null,
    steps: Assessed['doseSteps'],
  ): Promise<void> {
    const moved = await this.reader.read(tx, record.row.id);
    if (moved.view.notPrescribed.length > 0) return;
    await this.drafts.write(tx, me, moved, {
      id: randomUUID(),
      stage,
      from: fromOf(record, stage, steps),
      steps,
    });
  }

  /** What the plan drafted by the suggestion would have otherwise. */
  private drafted(record: EpisodeRecord, assessed: Assessed): CourseView['drafted'] {
    const decision = assessed.review?.decision;
    const next = decision === undefined ? undefined : stageAfter(record, decision);
    if (next !== undefined) return this.drafts.decided(record, next.key, []);
    return decision === 'adjust-dose' || decision === 'ease-back'
      ? this.drafts.decided(record, record.row.stage, assessed.doseSteps)
      : null;
  }

  private async lastDecisionAt(tx: Tx, episodeId: string): Promise<Date | null> {
    const last = (await tx.find(DecisionRow, { where: { episodeId }, order: { at: 'DESC' }, take: 1 }))[0];
    return last?.at ?? null;
  }

  private async view(tx: Tx, record: EpisodeRecord): Promise<CourseView> {
    const assessed = this.assessment.assess(record, await this.lastDecisionAt(tx, record.row.id));
    const names = await this.reader.names(tx);
    const decisions = await tx.find(DecisionRow, {
      where: { episodeId: record.row.id },
      order: { at: 'DESC' },
    });
    return {
      episode: record.view,
      protocol: record.protocol,
      measures: assessed.facts.measures,
      sessions: this.assessment.sessionsView(assessed),
      done: this.assessment.doneWeeks(record, assessed),
      mornings: assessed.home.mornings,
      painSchool: painSchoolOn(
        record.clinic,
        assessed.stage?.painSchool,
        record.view.safety?.acts.school ?? null,
      ),
      recorded: this.assessment.recordedView(record, assessed),
      criteria: assessed.review?.criteria?.parts ?? [],
      review: assessed.review,
      nextReview: this.assessment.nextReview(record, assessed),
      upkeep: this.assessment.upkeep(record, assessed),
      drafted: this.drafted(record, assessed),
      decisions: decisions.map((d): DecisionView => ({
        id: d.id,
        at: d.at.toISOString(),
        by: names.get(d.authorId) ?? '',
        suggested: d.suggested,
        decision: d.decision,
        agreed: d.agreed,
        reason: d.reason,
        because: (d.suggestion as ReviewResult).because,
      })),
      plans: record.plans,
      drivers: assessed.drivers.map(({ key, label, because }) => ({ key, label, because })),
      tooEarly: tooEarlyEach(record.library.offered, assessed, (key) =>
        record.measures.find((m) => m.key === key),
      ),
      ...this.assessment.done(record, assessed),
    };
  }
}

/** The same decision sent once more. */
const isRepeat = (standing: DecisionRow, episodeId: string, body: DecisionBody): boolean =>
  standing.episodeId === episodeId &&
  standing.decision === body.decision &&
  standing.reason === (body.reason?.trim() ?? '');
