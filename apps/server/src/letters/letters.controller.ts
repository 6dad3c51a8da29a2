import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  Post,
  Put,
  Res,
  StreamableFile,
} from '@nestjs/common';
import type { Response } from 'express';
import {
  type AuditAction,
  type LetterPageView,
  LetterBody,
  LetterSentBody,
  LetterStartBody,
  type LettersView,
  MOST_LETTER_DRAFTS,
} from '@heathstep/contracts';
import { localDay, say } from '@heathstep/core';
import { IsNull } from 'typeorm';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { letterDocument } from '../discharge/document.js';
import { EpisodeReader } from '../episodes/reader.js';
import { namesOf } from '../episodes/rows.js';
import { Printer } from '../handout/render.js';
import { badRequest, conflict, notFound, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { Clinic, EpisodeRow, LetterRow } from '../persistence/entities.js';
import { asRead, LetterPages, letterView, openFor } from './letterPage.js';

/** Letters of a complaint: begun from the clinic's text, changed, printed, noted as sent; one that went out stays as it was. */
@Controller('api')
@Roles('lead', 'clinician')
export class LettersController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly pages: LetterPages,
    private readonly printer: Printer,
    private readonly clock: Clock,
  ) {}

  @Get('episodes/:id/letters')
  of(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<LettersView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      await audit(tx, me, { action: 'read', subject: 'letters', personId: record.row.personId });
      const names = await namesOf(tx);
      const rows = await tx.find(LetterRow, {
        where: { episodeId: id, droppedAt: IsNull() },
        order: { startedAt: 'DESC' },
      });
      return { letters: rows.map((r) => letterView(r, names)), open: openFor(record) };
    });
  }

  @HttpCode(201)
  @Post('episodes/:id/letters')
  begin(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: LetterStartBody,
  ): Promise<LetterPageView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      const not = openFor(record)[body.kind];
      if (not !== null) throw refusedNow(not);
      const drafts = await tx.countBy(LetterRow, { episodeId: id, sentOn: IsNull(), droppedAt: IsNull() });
      if (drafts >= MOST_LETTER_DRAFTS)
        throw refusedNow(say('There are {{n}} drafts already; throw one away first', { n: drafts }));
      const now = this.clock.now();
      const row: LetterRow = {
        id: body.id,
        clinicId: me.clinicId,
        episodeId: id,
        kind: body.kind,
        text: await this.pages.begun(tx, me, record, body.kind),
        version: 1,
        startedAt: now,
        authorId: me.userId,
        at: now,
        droppedAt: null,
        sentOn: null,
        sentWay: null,
        sentBy: null,
        content: null,
      };
      const isNew = await keepOnce(tx, LetterRow, row, ['episodeId', 'kind']);
      await audit(tx, me, {
        action: isNew ? 'create' : 'read',
        subject: 'letter',
        personId: record.row.personId,
      });
      return this.pages.page(tx, me, await this.row(tx, body.id));
    });
  }

  @Get('letters/:id')
  @Header('cache-control', 'no-store')
  read(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<LetterPageView> {
    return this.on(me, id, 'read', (tx, row) => this.pages.page(tx, me, row));
  }

  @Put('letters/:id')
  write(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: LetterBody,
  ): Promise<LetterPageView> {
    return this.on(me, id, 'change', async (tx, row) => {
      const { version, to, opening, closing, shows } = body;
      await this.change(tx, me, row, version, { text: { to, opening, closing, shows } });
      return this.pages.page(tx, me, await this.row(tx, id));
    });
  }

  /** Notes that it went out: from then on it stays as it was read. Said twice, it is noted once. */
  @HttpCode(200)
  @Post('letters/:id/sent')
  sent(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: LetterSentBody,
  ): Promise<LetterPageView> {
    return this.on(me, id, 'send', async (tx, row) => {
      if (row.sentOn !== null) {
        if (row.sentOn === body.on && row.sentWay === body.way) return this.pages.page(tx, me, row);
        throw refusedNow(say('This letter went out on {{day}}', { day: row.sentOn }));
      }
      const page = await this.pages.page(tx, me, row);
      if (page.not !== null) throw refusedNow(page.not);
      if (page.mark !== body.mark)
        throw conflict(
          say('Something was recorded since this was shown. Read it again before it goes'),
          page,
        );
      if (page.refused && body.allTheSame !== true)
        throw badRequest([
          {
            pointer: '/allTheSame',
            detail: say('They do not agree to letters: say that it goes out all the same'),
          },
        ]);
      const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      if (body.on > localDay(this.clock.now(), timeZone))
        throw badRequest([{ pointer: '/on', detail: say('This day is still to come') }]);
      if (body.on < localDay(row.startedAt, timeZone))
        throw badRequest([{ pointer: '/on', detail: say('The letter was not begun yet on this day') }]);
      await this.change(tx, me, row, body.version, {
        sentOn: body.on,
        sentWay: body.way,
        sentBy: me.userId,
        content: asRead(page),
      });
      return this.pages.page(tx, me, await this.row(tx, id));
    });
  }

  /** Throws a draft away; it can be taken back. */
  @HttpCode(204)
  @Delete('letters/:id')
  drop(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<void> {
    return this.on(me, id, 'remove', async (tx, row) => {
      if (row.sentOn !== null) throw refusedNow(say('A letter that went out stays'));
      await tx.update(LetterRow, { id, droppedAt: IsNull() }, { droppedAt: this.clock.now() });
    });
  }

  @HttpCode(200)
  @Post('letters/:id/back')
  back(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<LetterPageView> {
    return this.on(me, id, 'change', async (tx, row) => {
      if (row.droppedAt !== null) await tx.update(LetterRow, { id }, { droppedAt: null });
      return this.pages.page(tx, me, await this.row(tx, id));
    });
  }

  @Get('letters/:id/letter.pdf')
  async pdf(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const page = await this.on(me, id, 'print', (tx, row) => this.pages.page(tx, me, row));
    const bytes = await this.printer.pdf(letterDocument(asRead(page)));
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/pdf',
      disposition: 'inline; filename="letter.pdf"',
      length: bytes.length,
    });
  }

  private on<T>(
    me: SignedIn,
    id: string,
    action: AuditAction,
    work: (tx: Tx, row: LetterRow) => Promise<T>,
  ): Promise<T> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const row = await this.row(tx, id);
      const { personId } = await tx.findOneByOrFail(EpisodeRow, { id: row.episodeId });
      await audit(tx, me, { action, subject: 'letter', personId });
      return work(tx, row);
    });
  }

  private async row(tx: Tx, id: string): Promise<LetterRow> {
    const row = await tx.findOneBy(LetterRow, { id });
    if (row === null) throw notFound();
    return row;
  }

  private async change(
    tx: Tx,
    me: SignedIn,
    row: LetterRow,
    version: number,
    change: Partial<LetterRow>,
  ): Promise<void> {
    if (row.sentOn !== null) throw refusedNow(say('A letter that went out stays as it is'));
    if (row.droppedAt !== null) throw refusedNow(say('This draft was thrown away; take it back first'));
    const { affected } = await tx.update(
      LetterRow,
      { id: row.id, version },
      { ...change, version: version + 1, authorId: me.userId, at: this.clock.now() },
    );
    if (affected === 0)
      throw conflict(
        say('Someone else changed this letter since you opened it'),
        await this.pages.page(tx, me, await this.row(tx, row.id)),
      );
  }
}
