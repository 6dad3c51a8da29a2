import { Body, Controller, Get, HttpCode, Param, Post, Put, Query, Req, Res } from '@nestjs/common';
import { Clock } from '../clock.js';
import type { Request, Response } from 'express';
import { PHOTO_LIMITS, type PhotoView, PlacementBody, type PlacementView } from '@heathstep/contracts';
import { photoValue, PHOTO_CONSTRUCTIONS, type Landmarks, say } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { EpisodeReader } from '../episodes/reader.js';
import { refusedNow, badRequest, conflict, notFound, ProblemError } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { saidNo } from '../people/consents.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { EpisodeRow, Photo, PhotoPlacement, Visit } from '../persistence/entities.js';
import { cleanPicture } from './cleanPicture.js';

@Controller('api')
export class PhotosController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly clock: Clock,
  ) {}

  /** The pictures of an episode, newest first, without their bytes. */
  @Get('episodes/:id/photos')
  list(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<PhotoView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episode = await tx.findOneBy(EpisodeRow, { id });
      if (episode === null) throw notFound();
      await audit(tx, me, { action: 'read', subject: 'photos', personId: episode.personId });
      return this.views(tx, 'v.episode_id = $1', id);
    });
  }

  private measure(key: string) {
    return this.content.bundle.measures.find((m) => m.key === key);
  }

  /** Takes a picture as its bytes; the id is the client's, so that a repeat stores nothing twice. */
  @Put('visits/:id/photos/:photoId')
  async add(
    @Me() me: SignedIn,
    @Param('id', IdPipe) visitId: string,
    @Param('photoId', IdPipe) id: string,
    @Query('measure') measure: string,
    @Query('side') side: string,
    @Req() request: Request,
  ): Promise<PhotoView> {
    const definition = this.measure(measure);
    if (definition === undefined || definition.photo === null)
      throw badRequest([
        { pointer: '/measure', detail: say('must be a measure that is taken from a picture') },
      ]);
    if (side !== 'left' && side !== 'right')
      throw badRequest([{ pointer: '/side', detail: say('must be left or right') }]);
    const onSide: 'left' | 'right' = side;
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body) || body.length === 0)
      throw new ProblemError(415, say('Send the picture itself'), { detail: say('A JPEG or PNG picture') });
    if (body.length > PHOTO_LIMITS.bytes) throw tooLarge();
    await this.db.inClinic(me.clinicId, (tx) => this.openVisit(tx, visitId));
    const picture = await cleanPicture(body);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { personId } = await this.openVisit(tx, visitId);
      if (await saidNo(tx, personId, 'pictures'))
        throw refusedNow(say('They do not agree to pictures; see their consent'));
      const row = {
        id,
        clinicId: me.clinicId,
        visitId,
        measure,
        side: onSide,
        ...picture,
        authorId: me.userId,
        at: this.clock.now(),
      };
      const isNew = await keepOnce(tx, Photo, row, ['visitId', 'measure', 'side']);
      if (!isNew) await refuseOtherPicture(tx, id, picture.bytes);
      await audit(tx, me, { action: isNew ? 'create' : 'read', subject: 'photo', personId });
      return this.one(tx, id);
    });
  }

  @Get('photos/:id')
  async picture(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const found = await this.db.inClinic(me.clinicId, async (tx) => {
      const [photo] = await tx.query<{ type: string; bytes: Buffer; person_id: string }[]>(
        `SELECT p.type, p.bytes, e.person_id FROM photo p JOIN visit v ON v.id = p.visit_id
           JOIN episode e ON e.id = v.episode_id WHERE p.id = $1`,
        [id],
      );
      if (photo === undefined) throw notFound();
      await audit(tx, me, { action: 'read', subject: 'photo', personId: photo.person_id });
      return photo;
    });
    response
      .set({
        'Content-Type': found.type,
        'Cache-Control': 'private, no-store',
        'Content-Disposition': 'inline',
      })
      .send(found.bytes);
  }

  /** Keeps a placement of the landmarks; its value is worked out here, by the same core as the page's. */
  @HttpCode(201)
  @Post('photos/:id/placements')
  place(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: PlacementBody,
  ): Promise<PhotoView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const photo = await tx.findOneBy(Photo, { id });
      if (photo === null) throw notFound();
      const construction = this.measure(photo.measure)?.photo ?? '';
      const landmarks = this.checked(construction, body.landmarks, photo);
      const result = photoValue(construction, landmarks, photo.side, body.rulerMm ?? null);
      if (result.value === null)
        throw badRequest([
          {
            pointer: '/landmarks',
            detail: say('still wanted: {{list}}', { list: result.missing.join(', ') }),
          },
        ]);
      const row = {
        id: body.id,
        clinicId: me.clinicId,
        photoId: id,
        landmarks,
        rulerMm: body.rulerMm ?? null,
        value: result.value,
        plusMinus: result.plusMinus,
        authorId: me.userId,
        at: this.clock.now(),
      };
      await keepOnce(tx, PhotoPlacement, row, ['photoId', 'landmarks', 'rulerMm']);
      return this.one(tx, id);
    });
  }

  /** The landmarks of the construction and no others, each within the picture. */
  private checked(
    construction: string,
    given: PlacementBody['landmarks'],
    photo: { width: number; height: number },
  ): Landmarks {
    const wanted = PHOTO_CONSTRUCTIONS.find((c) => c.key === construction)?.landmarks ?? [];
    const within = (v: unknown, max: number): boolean => typeof v === 'number' && v >= 0 && v <= max;
    const kept: Record<string, { x: number; y: number }> = {};
    for (const { key } of wanted) {
      const p = Object.hasOwn(given, key) ? given[key] : undefined;
      if (p === undefined) continue;
      if (!within(p.x, photo.width) || !within(p.y, photo.height))
        throw badRequest([{ pointer: `/landmarks/${key}`, detail: say('must lie within the picture') }]);
      kept[key] = { x: p.x, y: p.y };
    }
    return kept;
  }

  private async openVisit(tx: Tx, visitId: string): Promise<{ personId: string }> {
    const visit = await tx.findOneBy(Visit, { id: visitId });
    if (visit === null) throw notFound();
    if (visit.signedAt !== null)
      throw new ProblemError(409, say('This visit is signed'), {
        detail: say('Open a new visit to add a picture'),
      });
    const { personId } = await tx.findOneByOrFail(EpisodeRow, { id: visit.episodeId });
    return { personId };
  }

  private async one(tx: Tx, id: string): Promise<PhotoView> {
    const [view] = await this.views(tx, 'p.id = $1', id);
    if (view === undefined) throw notFound();
    return view;
  }

  private async views(tx: Tx, where: 'v.episode_id = $1' | 'p.id = $1', id: string): Promise<PhotoView[]> {
    const names = await this.reader.names(tx);
    const photos = await tx.query<PhotoRow[]>(
      `SELECT p.id, p.visit_id, p.measure, p.side, p.width, p.height, p.author_id, p.at
         FROM photo p JOIN visit v ON v.id = p.visit_id WHERE ${where} ORDER BY p.at DESC`,
      [id],
    );
    const placements = await tx.query<PlacementRow[]>(
      'SELECT * FROM photo_placement WHERE photo_id = ANY($1) ORDER BY at DESC',
      [photos.map((p) => p.id)],
    );
    return photos.map((p) => ({
      id: p.id,
      visitId: p.visit_id,
      measure: p.measure,
      side: p.side,
      width: p.width,
      height: p.height,
      at: p.at.toISOString(),
      by: names.get(p.author_id) ?? '',
      placements: placements
        .filter((x) => x.photo_id === p.id)
        .map((x): PlacementView => ({
          id: x.id,
          landmarks: x.landmarks,
          rulerMm: x.ruler_mm,
          value: x.value,
          plusMinus: x.plus_minus,
          at: x.at.toISOString(),
          by: names.get(x.author_id) ?? '',
        })),
    }));
  }
}

const tooLarge = (): ProblemError =>
  new ProblemError(413, say('This picture is too large'), {
    detail: say('At most {{bytes}} MB', { bytes: PHOTO_LIMITS.bytes / 1_000_000 }),
  });

interface PhotoRow {
  id: string;
  visit_id: string;
  measure: string;
  side: 'left' | 'right';
  width: number;
  height: number;
  author_id: string;
  at: Date;
}

interface PlacementRow {
  id: string;
  photo_id: string;
  landmarks: Landmarks;
  ruler_mm: number | null;
  value: number;
  plus_minus: number;
  author_id: string;
  at: Date;
}

/** The same id with other bytes is another picture. */
async function refuseOtherPicture(tx: Tx, id: string, bytes: Buffer): Promise<void> {
  const [standing] = await tx.query<{ same: boolean }[]>(
    'SELECT bytes = $2 AS same FROM photo WHERE id = $1',
    [id, bytes],
  );
  if (standing?.same !== true)
    throw conflict(say('This id has another picture already. Nothing was kept'), null);
}
