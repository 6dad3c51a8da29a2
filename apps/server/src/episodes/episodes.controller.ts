import { Body, Controller, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import {
  ClosureBody,
  EpisodeBody,
  EpisodePatch,
  type EpisodeView,
  reportedText,
  screenedVisit,
  STOP_ENDS,
  TaughtBody,
} from '@heathstep/contracts';
import {
  canOverride,
  type ClosingWay,
  limitsStand,
  relapseStage,
  type ProtocolDefinition,
  signText,
  say,
} from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { checkSchools } from '../plans/schools.js';
import { keepProtocol } from '../content/protocols.js';
import { badRequest, conflict, notFound, ProblemError, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { Not } from 'typeorm';
import { audit, Db, type Tx } from '../persistence/db.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { ClosureRow, EpisodeRow, Person, PlanRow, TaughtExercise } from '../persistence/entities.js';
import { endHome, ending, reopening } from './ending.js';
import { moveToStage } from '../plans/planDrafts.js';
import { EpisodeReader } from './reader.js';
import type { EpisodeRecord } from './record.js';

/** What an episode on a pathway says of it. */
interface OnPathway extends Pick<EpisodeRow, 'condition' | 'protocolVersion' | 'schools'> {
  readonly protocol: ProtocolDefinition;
}

const DEFAULT_MINUTES = 20;
const DEFAULT_EQUIPMENT = ['towel', 'belt', 'step'];

@Controller('api')
export class EpisodesController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly clock: Clock,
  ) {}

  @HttpCode(201)
  @Post('people/:id/episodes')
  begin(
    @Me() me: SignedIn,
    @Param('id', IdPipe) personId: string,
    @Body() body: EpisodeBody,
  ): Promise<EpisodeView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { protocol: begun, ...pathway } = await this.pathwayRow(tx, body.condition);
      await keepProtocol(tx, me.clinicId, begun, this.clock.now());
      if ((await tx.findOneBy(Person, { id: personId })) === null) throw notFound();
      const row = {
        id: body.id,
        clinicId: me.clinicId,
        personId,
        ...pathway,
        protocol: begun.key,
        affected: body.affected,
        ...(await this.atHome(tx, personId)),
        stage: null,
        stageSince: null,
        startedAt: this.clock.now(),
        status: 'open' as const,
        version: 1,
      };
      const isNew = await keepOnce(tx, EpisodeRow, row as EpisodeRow, ['personId', 'condition', 'affected']);
      await audit(tx, me, { action: isNew ? 'create' : 'read', subject: 'episode', personId });
      const record = await this.reader.read(tx, body.id);
      return record.view;
    });
  }

  @Get('episodes/:id')
  one(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<EpisodeView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      await audit(tx, me, { action: 'read', subject: 'episode', personId: record.row.personId });
      return record.view;
    });
  }

  @Patch('episodes/:id')
  change(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: EpisodePatch,
  ): Promise<EpisodeView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const {
        version,
        condition,
        status,
        outcome: _outcome,
        note: _note,
        reopened: _reopened,
        ...changes
      } = body;
      const now = this.clock.now();
      const end = ending(body, me, now);
      const before = await this.reader.read(tx, id);
      if (status === 'closed') this.mayClose(me, before);
      const cameBack = reopening(before, body, { me, now });
      const other = condition === undefined ? null : await this.onPathway(tx, me, before, condition);
      const protocol = other?.protocol ?? before.protocol;
      checkSchools(protocol, changes.schools);
      if (other !== null) await keepProtocol(tx, me.clinicId, protocol, now);
      const known = Object.fromEntries(Object.entries(changes).filter(([, v]) => v !== undefined));
      const result = await tx.update(
        EpisodeRow,
        { id, version },
        {
          ...(other === null ? {} : { ...other, protocol: protocol.key }),
          ...known,
          ...end,
          version: version + 1,
        },
      );
      if (result.affected === 1) await sharedAtHome(tx, before.row, changes);
      const record = await this.reader.read(tx, id);
      if (result.affected !== 1)
        throw conflict(say('Someone changed this while you were editing'), record.view);
      if (status === 'closed') await endHome(tx, record.row.personId, now);
      if (cameBack) await beginAgain(tx, record, now);
      await audit(tx, me, {
        action: status === undefined ? 'change' : status === 'closed' ? 'discharge' : 'reopen',
        subject: 'episode',
        personId: record.row.personId,
      });
      return (await this.reader.read(tx, id)).view;
    });
  }

  /** Closes a triggered rule or a stop reported at home, or overrides a rule of the lower levels. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post('episodes/:id/closures')
  close(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: ClosureBody,
  ): Promise<EpisodeView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      // One at a time: two who close the same sign at once close it once.
      await tx.findOne(EpisodeRow, { where: { id }, lock: { mode: 'pessimistic_write' } });
      const record = await this.reader.read(tx, id);
      const standing = await tx.findOneBy(ClosureRow, { id: body.id });
      const visitId =
        standing !== null
          ? standing.visitId
          : body.subject.startsWith('rule:')
            ? this.closableRule(record.view, body)
            : this.closableStop(record.view, body);
      const row = {
        id: body.id,
        clinicId: me.clinicId,
        episodeId: id,
        visitId,
        subject: body.subject,
        side: body.side,
        kind: body.kind,
        assessedOn: body.assessedOn ?? null,
        assessedBy: body.assessedBy ?? null,
        done: body.done ?? null,
        text: body.text,
        authorId: me.userId,
        at: this.clock.now(),
      };
      const isNew = await keepOnce(tx, ClosureRow, row, [
        'episodeId',
        'subject',
        'side',
        'kind',
        'assessedOn',
        'assessedBy',
        'done',
        'text',
      ]);
      const { personId } = record.row;
      const action = body.kind === 'closed' ? 'close' : 'override';
      await audit(tx, me, { action: isNew ? action : 'read', subject: body.subject, personId });
      return (await this.reader.read(tx, id)).view;
    });
  }

  /** What was seen when an exercise was taught in the room; its fixes become the patient's cues. */
  @HttpCode(201)
  @Post('episodes/:id/taught')
  taught(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: TaughtBody,
  ): Promise<EpisodeView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { library, row } = await this.reader.read(tx, id);
      const exercise = library.exercise(body.exercise);
      if (exercise === undefined)
        throw badRequest([{ pointer: '/exercise', detail: say('must be an exercise of the library') }]);
      const stranger = body.faults.findIndex((f) => exercise.faults.every((known) => known.fault !== f));
      if (stranger !== -1)
        throw badRequest([
          { pointer: `/faults/${stranger}`, detail: say('must be a fault of this exercise') },
        ]);
      const taught = {
        id: body.id,
        clinicId: me.clinicId,
        episodeId: id,
        exercise: body.exercise,
        side: body.side,
        reps: body.reps,
        faults: body.faults,
        authorId: me.userId,
        at: this.clock.now(),
      };
      await keepOnce(tx, TaughtExercise, taught, ['episodeId', 'exercise', 'side', 'reps', 'faults']);
      await audit(tx, me, { action: 'teach', subject: `exercise:${body.exercise}`, personId: row.personId });
      return (await this.reader.read(tx, id)).view;
    });
  }

  /** What a person has at home is the same for each of their complaints: as known from another, else what most have. */
  private async atHome(
    tx: Tx,
    personId: string,
  ): Promise<Pick<EpisodeRow, 'equipment' | 'weightsKg' | 'minutesPerDay' | 'exerciseTime'>> {
    const other = await tx.findOne(EpisodeRow, {
      where: { personId, status: 'open' },
      order: { startedAt: 'DESC' },
    });
    return {
      equipment: other?.equipment ?? DEFAULT_EQUIPMENT,
      weightsKg: other?.weightsKg ?? [],
      minutesPerDay: other?.minutesPerDay ?? DEFAULT_MINUTES,
      exerciseTime: other?.exerciseTime ?? null,
    };
  }

  /** What an episode on a pathway says of it: its protocol as it stands now, with the defaults of its schools. */
  private async pathwayRow(tx: Tx, key: string): Promise<OnPathway> {
    const pathway = this.content.bundle.pathways.find((p) => p.key === key);
    if (pathway === undefined)
      throw badRequest([{ pointer: '/condition', detail: say('must be a pathway of the library') }]);
    const protocol = await this.content.current(tx, pathway.protocol);
    return {
      condition: pathway.key,
      protocol,
      protocolVersion: protocol.version,
      schools: Object.fromEntries(protocol.schools.map((s) => [s.key, s.default])),
    };
  }

  /** A complaint is not closed over an open sign: that would take the sign away from the person's other complaints too. */
  private mayClose(me: SignedIn, { view }: EpisodeRecord): void {
    if (me.role === 'assistant')
      throw new ProblemError(403, say('Only clinicians and leads close a complaint'));
    const open = [...view.openStops.map(reportedText), ...(view.safety?.stops ?? []).map(signText)];
    if (open.length > 0)
      throw refusedNow(
        say('A sign is open; close it with its result first'),
        open.map((detail) => ({ pointer: '/status', detail })),
      );
  }

  /** Goes on with another pathway, by a clinician and while no plan rests on the one before. */
  private onPathway(tx: Tx, me: SignedIn, record: EpisodeRecord, key: string): Promise<OnPathway> {
    if (me.role === 'assistant')
      throw new ProblemError(403, say('Only clinicians and leads say what it is treated as'));
    if (record.row.stage !== null || record.plans.length > 0)
      throw refusedNow(
        say('A plan stands already; what it is treated as can be changed only before the first plan'),
      );
    return this.pathwayRow(tx, key);
  }

  private closableRule(view: EpisodeView, body: ClosureBody): string {
    const triggered = view.safety?.triggered.find(
      (t) => t.rule.key === body.subject.slice(5) && t.side === body.side,
    );
    const visit = screenedVisit(view.visits);
    if (triggered === undefined || visit === null) throw refusedNow(say('This sign is not open'));
    if (body.kind === 'overridden' && !canOverride(triggered.rule)) {
      throw refusedNow(
        triggered.rule.until === 'limits'
          ? say('Enter what the surgeon or clinic allows, or close it with the date, who and the result')
          : say('{{level}} is never overridden; close it with the date, who assessed and the result', {
              level: say(triggered.rule.level),
            }),
      );
    }
    if (body.kind === 'closed') {
      const limits = limitsStand(view.safety?.triggered ?? [], triggered.side);
      requireAssessment(body, view.today, triggered.rule.closes ?? [], limits);
    }
    return visit.id;
  }

  private closableStop(view: EpisodeView, body: ClosureBody): null {
    if (view.openStops.every((s) => `stop:${s.id}` !== body.subject))
      throw refusedNow(say('This stop is not open'));
    if (body.kind === 'overridden')
      throw refusedNow(say('A stop reported at home is closed with a result, never overridden'));
    requireAssessment(body, view.today, STOP_ENDS, true);
    return null;
  }
}

/** What came back begins again where its protocol says; a draft of before goes. */
async function beginAgain(tx: Tx, { row, protocol }: EpisodeRecord, at: Date): Promise<void> {
  await tx.delete(PlanRow, { episodeId: row.id, status: 'draft' });
  const stage = relapseStage(protocol, row.stage);
  if (stage !== null) await moveToStage(tx, row, { stage: stage.key, reason: 'came back', at });
}

/** A sign is closed by what was done: with the date, who, and a way that is enough for it. */
function requireAssessment(
  body: ClosureBody,
  today: string,
  ways: readonly ClosingWay[],
  limitsEntered: boolean,
): void {
  const way = ways.find((w) => w.key === body.done);
  const errors = [
    ...(body.assessedOn === undefined
      ? [{ pointer: '/assessedOn', detail: say('Type the date it was assessed') }]
      : body.assessedOn > today
        ? [{ pointer: '/assessedOn', detail: say('This day is still to come') }]
        : []),
    ...(body.assessedBy === undefined
      ? [{ pointer: '/assessedBy', detail: say('Say who assessed it') }]
      : []),
    ...(ways.length > 0 && way === undefined
      ? [{ pointer: '/done', detail: say('Choose what was done') }]
      : []),
    ...(way?.clears === false
      ? [
          {
            pointer: '/done',
            detail: say('"{{label}}" does not close it: {{list}}', {
              label: way.label,
              list: ways
                .filter((w) => w.clears)
                .map((w) => w.label)
                .join('; '),
            }),
          },
        ]
      : []),
    ...(way?.needsLimits === true && !limitsEntered
      ? [{ pointer: '/done', detail: say('Enter first what the surgeon or clinic allows of this side') }]
      : []),
  ];
  if (errors.length > 0) throw badRequest(errors);
}

/** Equipment, weights, minutes and the time of day are the person's: told for one complaint they hold for the other open ones. */
async function sharedAtHome(
  tx: Tx,
  row: EpisodeRow,
  told: Pick<EpisodePatch, 'equipment' | 'weightsKg' | 'minutesPerDay' | 'exerciseTime'>,
): Promise<void> {
  const { equipment, weightsKg, minutesPerDay, exerciseTime } = told;
  const known = Object.fromEntries(
    Object.entries({ equipment, weightsKg, minutesPerDay, exerciseTime }).filter(([, v]) => v !== undefined),
  );
  if (Object.keys(known).length === 0) return;
  await tx.update(EpisodeRow, { personId: row.personId, status: 'open', id: Not(row.id) }, known);
}
