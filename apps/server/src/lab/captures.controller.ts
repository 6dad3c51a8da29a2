import {
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Post,
  Put,
  Query,
  Req,
  Res,
  StreamableFile,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { CAPTURE_LIMITS, CaptureQuery, type CaptureView, labMeasures } from '@heathstep/contracts';
import { localDay, say } from '@heathstep/core';
import { CAPTURE_PLANS, collector } from '@heathstep/core/lab';
import { IsNull } from 'typeorm';
import { Me, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { EpisodeReader } from '../episodes/reader.js';
import { namesOf } from '../episodes/rows.js';
import { Printer } from '../handout/render.js';
import { badRequest, conflict, notFound, ProblemError, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { EpisodeRow } from '../persistence/entities.js';
import { LabCapture } from '../persistence/labCapture.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { analysed } from './analysed.js';
import { labDocument } from './document.js';
import { printPicture, wavePicture } from './pictures.js';
import { readCapture } from './readCapture.js';

/** Captures of the lab: kept whole, so that what is worked out from them can be worked out again. */
@Controller('api')
export class CapturesController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
    private readonly reader: EpisodeReader,
    private readonly printer: Printer,
  ) {}

  /** The captures of an episode, newest first, without their readings. */
  @Get('episodes/:id/captures')
  list(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<CaptureView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episode = await tx.findOneBy(EpisodeRow, { id });
      if (episode === null) throw notFound();
      await audit(tx, me, { action: 'read', subject: 'captures', personId: episode.personId });
      return this.views(tx, id);
    });
  }

  /** Takes a capture as its packed recording; the id is the client's, so that a repeat keeps nothing twice. */
  @Put('episodes/:id/captures/:captureId')
  async add(
    @Me() me: SignedIn,
    @Param('id', IdPipe) episodeId: string,
    @Param('captureId', IdPipe) id: string,
    @Query() query: CaptureQuery,
    @Req() request: Request,
  ): Promise<CaptureView[]> {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body) || body.length === 0)
      throw new ProblemError(415, say('Send the capture itself'), { detail: say('A packed recording') });
    await this.db.inClinic(me.clinicId, (tx) => this.episode(tx, episodeId));
    const read = await readCapture(body, collector({ from: 0, seconds: 0 }));
    if (!read.ok)
      throw badRequest([
        {
          pointer: '/recording',
          detail: say('line {{line}}: {{reason}}', { line: read.problem.line, reason: read.problem.reason }),
        },
      ]);
    const { header, seconds } = read;
    if (CAPTURE_PLANS[header.kind][query.task] === undefined)
      throw badRequest([{ pointer: '/task', detail: say('This instrument tells nothing of it') }]);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { personId } = await this.episode(tx, episodeId);
      const row = {
        id,
        clinicId: me.clinicId,
        episodeId,
        kind: header.kind,
        task: query.task,
        side: query.side,
        wearing: query.wearing,
        source: query.from,
        note: query.note.trim(),
        massKg: query.mass === undefined ? null : Number(query.mass),
        factor: query.factor === undefined ? null : Number(query.factor),
        seconds,
        device: header.name,
        simulated: header.simulated,
        bytes: body,
        authorId: me.userId,
        at: this.clock.now(),
        discardedAt: null,
      };
      const standing = await tx.countBy(LabCapture, { episodeId, discardedAt: IsNull() });
      if (standing >= CAPTURE_LIMITS.standing)
        throw refusedNow(say('There are {{n}} already; discard one first', { n: CAPTURE_LIMITS.standing }));
      const isNew = await keepOnce(tx, LabCapture, row, ['episodeId', 'kind', 'task', 'side', 'wearing']);
      if (!isNew) await refuseOther(tx, id, body);
      await audit(tx, me, { action: isNew ? 'create' : 'read', subject: 'capture', personId });
      return this.views(tx, episodeId);
    });
  }

  /** The readings, as the file that is exported. */
  @Get('captures/:id/recording')
  async recording(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const bytes = await this.db.inClinic(me.clinicId, async (tx) => {
      const [found] = await tx.query<{ bytes: Buffer; person_id: string }[]>(
        `SELECT c.bytes, e.person_id FROM lab_capture c JOIN episode e ON e.id = c.episode_id WHERE c.id = $1`,
        [id],
      );
      if (found === undefined) throw notFound();
      await audit(tx, me, { action: 'read', subject: 'capture', personId: found.person_id });
      return found.bytes;
    });
    // The browser unpacks it on the way.
    response
      .set({
        'Content-Type': 'application/json',
        'Content-Encoding': 'gzip',
        'Cache-Control': 'private, no-store',
      })
      .send(bytes);
  }

  /** A capture as a page: its picture in plain words, and its numbers. */
  @Get('captures/:id/page.pdf')
  async page(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { row, record } = await this.db.inClinic(me.clinicId, async (tx) => {
      const row = await tx
        .createQueryBuilder(LabCapture, 'c')
        .addSelect('c.bytes')
        .where('c.id = :id', { id })
        .getOne();
      if (row === null) throw notFound();
      const record = await this.reader.shown(tx, row.episodeId);
      await audit(tx, me, { action: 'print', subject: 'capture', personId: record.row.personId });
      return { row, record };
    });
    const found = await analysed(row);
    if (found === null) throw refusedNow(say('The readings of this capture cannot be read'));
    const bytes = await this.printer.pdf(
      labDocument({
        capture: { ...row, at: row.at.toISOString() },
        day: localDay(row.at, record.clinic.timeZone),
        person: record.view.person.name,
        clinic: record.clinic.name,
        found,
        measures: labMeasures(record.measures, row.kind, row.task),
        print: found.mat === null ? null : await printPicture(found.mat),
        wave: found.motion === null ? null : wavePicture(found.motion),
        tongue: record.tongue,
      }),
    );
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/pdf',
      disposition: 'inline; filename="foot-lab.pdf"',
      length: bytes.length,
    });
  }

  /** Puts a capture aside; its readings stay in the record. */
  @Delete('captures/:id')
  discard(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<CaptureView[]> {
    return this.mark(me, id, this.clock.now());
  }

  /** Takes a capture that was put aside back. */
  @HttpCode(200)
  @Post('captures/:id/keep')
  keep(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<CaptureView[]> {
    return this.mark(me, id, null);
  }

  private mark(me: SignedIn, id: string, discardedAt: Date | null): Promise<CaptureView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const found = await tx.findOne(LabCapture, { where: { id }, select: { id: true, episodeId: true } });
      if (found === null) throw notFound();
      const { personId } = await this.episode(tx, found.episodeId);
      await tx.update(LabCapture, { id }, { discardedAt });
      await audit(tx, me, {
        action: discardedAt === null ? 'create' : 'remove',
        subject: 'capture',
        personId,
      });
      return this.views(tx, found.episodeId);
    });
  }

  private async episode(tx: Tx, id: string): Promise<EpisodeRow> {
    const row = await tx.findOneBy(EpisodeRow, { id });
    if (row === null) throw notFound();
    return row;
  }

  private async views(tx: Tx, episodeId: string): Promise<CaptureView[]> {
    const names = await namesOf(tx);
    const rows = await tx.find(LabCapture, {
      where: { episodeId, discardedAt: IsNull() },
      order: { at: 'DESC' },
    });
    return rows.map((r) => ({
      id: r.id,
      kind: r.kind,
      task: r.task,
      side: r.side,
      wearing: r.wearing,
      from: r.source,
      note: r.note,
      massKg: r.massKg,
      factor: r.factor,
      seconds: r.seconds,
      device: r.device,
      simulated: r.simulated,
      at: r.at.toISOString(),
      by: names.get(r.authorId) ?? '',
    }));
  }
}

/** The same id with other readings is another capture. */
async function refuseOther(tx: Tx, id: string, bytes: Buffer): Promise<void> {
  const [standing] = await tx.query<{ same: boolean }[]>(
    'SELECT bytes = $2 AS same FROM lab_capture WHERE id = $1',
    [id, bytes],
  );
  if (standing?.same !== true)
    throw conflict(say('This id has another capture already. Nothing was kept'), null);
}
