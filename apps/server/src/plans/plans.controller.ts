import { say } from '@heathstep/core';
import { isDeepStrictEqual } from 'node:util';
import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  GivePlanBody,
  PlanBody,
  PlanDraftBody,
  type PlanIf,
  PlanIfBody,
  type PlanView,
} from '@heathstep/contracts';
import type { Brings, Prescription } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { EpisodeReader } from '../episodes/reader.js';
import { planView } from '../episodes/record.js';
import { badRequest, conflict, notFound, ProblemError, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db } from '../persistence/db.js';
import { EpisodeRow, PlanRow } from '../persistence/entities.js';
import { checkSchools } from './schools.js';
import { moveToStage, PlanDrafts } from './planDrafts.js';

@Controller('api')
export class PlansController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly drafts: PlanDrafts,
    private readonly clock: Clock,
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
      // One at a time: the next draft takes the place of the one before it.
      await tx.findOne(EpisodeRow, { where: { id: episodeId }, lock: { mode: 'pessimistic_write' } });
      const record = await this.reader.read(tx, episodeId);
      const standing = record.plans.find((p) => p.id === body.id);
      if (standing !== undefined) return standing;
      const row = await this.drafts.write(tx, me, record, {
        id: body.id,
        stage: body.stage ?? record.row.stage,
        from: body.from,
        steps: [],
      });
      await audit(tx, me, { action: 'create', subject: 'plan', personId: record.row.personId });
      return planView(row, record.protocol);
    });
  }

  /** What one more minute, exercise or piece of equipment would bring into this plan's stage. */
  @Get('plans/:id/brings')
  brings(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<readonly Brings[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const plan = await tx.findOneBy(PlanRow, { id });
      if (plan === null) throw notFound();
      const record = await this.reader.read(tx, plan.episodeId);
      return this.drafts.brings(record, plan.stage);
    });
  }

  /** What other choices of the protocol's schools would make of this draft; nothing is written. */
  @HttpCode(200)
  @Post('plans/:id/if')
  otherwise(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: PlanIfBody): Promise<PlanIf> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const plan = await tx.findOneBy(PlanRow, { id });
      if (plan === null) throw notFound();
      const record = await this.reader.read(tx, plan.episodeId);
      checkSchools(record.protocol, body.schools);
      return this.drafts.otherwise(record, plan, body.schools);
    });
  }

  @Put('plans/:id')
  edit(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: PlanBody): Promise<PlanView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const plan = await tx.findOneBy(PlanRow, { id });
      if (plan === null) throw notFound();
      if (plan.status === 'given')
        throw new ProblemError(409, say('This plan is given and does not change'), {
          detail: say('Make the next version'),
        });
      const record = await this.reader.read(tx, plan.episodeId);
      this.drafts.check(record, body.items);
      if (me.role === 'assistant') refuseNewBeyond(body.items, plan.items as Prescription[]);
      const result = await tx.update(
        PlanRow,
        { id, version: body.version, status: 'draft' },
        { items: body.items, version: body.version + 1 },
      );
      const now = await tx.findOneByOrFail(PlanRow, { id });
      if (result.affected !== 1)
        throw conflict(
          say('Someone changed this plan while you were editing'),
          planView(now, record.protocol),
        );
      await audit(tx, me, { action: 'change', subject: 'plan', personId: record.row.personId });
      return planView(now, record.protocol);
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
      const record = await this.reader.read(tx, plan.episodeId);
      const view = (row: PlanRow, names?: ReadonlyMap<string, string>) =>
        planView(row, record.protocol, names);
      if (plan.status === 'given') return view(plan, await this.reader.names(tx));
      if (plan.version !== body.version)
        throw conflict(say('Someone changed this plan while you were looking at it'), view(plan));
      this.drafts.requirePrescribing(record);
      this.drafts.check(record, plan.items as Prescription[]);
      if (plan.items.length === 0) throw refusedNow(say('A plan needs at least one exercise'));
      const now = this.clock.now();
      await tx.update(
        PlanRow,
        { id },
        { status: 'given', givenBy: me.userId, givenAt: now, version: plan.version + 1 },
      );
      if (record.row.stage !== plan.stage)
        await moveToStage(tx, record.row, { stage: plan.stage, reason: 'plan given', at: now });
      await audit(tx, me, { action: 'give', subject: 'plan', personId: record.row.personId });
      return view(await tx.findOneByOrFail(PlanRow, { id }), await this.reader.names(tx));
    });
  }
}

/** A dose beyond the usual range is a clinician's to answer for; what one gave stays as an assistant edits the rest. */
function refuseNewBeyond(items: readonly Prescription[], before: readonly Prescription[]): void {
  const errors = items.flatMap((item, i) =>
    item.beyond === undefined || before.some((b) => isDeepStrictEqual(plain(b), plain(item)))
      ? []
      : [{ pointer: `/items/${i}/beyond`, detail: say('A clinician gives a dose beyond the usual range') }],
  );
  if (errors.length > 0) throw badRequest(errors);
}

/** A value as it comes back from the database. */
const plain = (value: object): unknown => JSON.parse(JSON.stringify(value));
