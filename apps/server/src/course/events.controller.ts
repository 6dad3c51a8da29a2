import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { EventBody, type EventView, MOST_EVENTS } from '@heathstep/contracts';
import { localDay, say } from '@heathstep/core';
import { IsNull } from 'typeorm';
import { Me, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { namesOf } from '../episodes/rows.js';
import { badRequest, notFound, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { Clinic, CourseEvent, EpisodeRow } from '../persistence/entities.js';

/** What may have bent a course: said by whoever hears of it, shown on its charts. */
@Controller('api')
export class EventsController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  @Get('episodes/:id/events')
  of(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<EventView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { personId } = await this.episode(tx, id);
      await audit(tx, me, { action: 'read', subject: 'events', personId });
      return this.list(tx, id);
    });
  }

  @HttpCode(201)
  @Post('episodes/:id/events')
  add(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: EventBody): Promise<EventView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { personId } = await this.episode(tx, id);
      const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      if (body.day > localDay(this.clock.now(), timeZone))
        throw badRequest([{ pointer: '/day', detail: say('This day is still to come') }]);
      if (body.day < '2000-01-01')
        throw badRequest([{ pointer: '/day', detail: say('A day since the year 2000') }]);
      const standing = await tx.countBy(CourseEvent, { episodeId: id, removedAt: IsNull() });
      if (standing >= MOST_EVENTS)
        throw refusedNow(say('There are {{n}} already; take one back first', { n: MOST_EVENTS }));
      const row = {
        id: body.id,
        clinicId: me.clinicId,
        episodeId: id,
        kind: body.kind,
        day: body.day,
        note: body.note.trim(),
        authorId: me.userId,
        at: this.clock.now(),
        removedAt: null,
      };
      const isNew = await keepOnce(tx, CourseEvent, row, ['episodeId', 'kind', 'day', 'note']);
      await audit(tx, me, { action: isNew ? 'create' : 'read', subject: 'event', personId });
      return this.list(tx, id);
    });
  }

  /** Takes one back; that it was said stays in the record. */
  @Delete('events/:id')
  remove(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<EventView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const event = await tx.findOneBy(CourseEvent, { id });
      if (event === null) throw notFound();
      await tx.update(CourseEvent, { id, removedAt: IsNull() }, { removedAt: this.clock.now() });
      const { personId } = await this.episode(tx, event.episodeId);
      await audit(tx, me, { action: 'remove', subject: 'event', personId });
      return this.list(tx, event.episodeId);
    });
  }

  private async episode(tx: Tx, id: string): Promise<EpisodeRow> {
    const row = await tx.findOneBy(EpisodeRow, { id });
    if (row === null) throw notFound();
    return row;
  }

  private async list(tx: Tx, episodeId: string): Promise<EventView[]> {
    const rows = await tx.find(CourseEvent, {
      where: { episodeId, removedAt: IsNull() },
      order: { day: 'ASC', at: 'ASC' },
    });
    const names = await namesOf(tx);
    return rows.map(({ id, kind, day, note, authorId }) => ({
      id,
      kind,
      day,
      note,
      by: names.get(authorId) ?? '',
    }));
  }
}
