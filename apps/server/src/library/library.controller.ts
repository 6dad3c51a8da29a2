import { isDeepStrictEqual } from 'node:util';
import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { Clock } from '../clock.js';
import { checkExerciseFile, type ExerciseFile, writeExercise } from '@heathstep/content';
import {
  BandBody,
  type ExerciseVersionView,
  FavouriteBody,
  NoteBody,
  OwnExerciseBody,
  ownExerciseKey,
  ReviewBody,
} from '@heathstep/contracts';
import { calibration, type ExerciseDefinition, localDay, say } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { badRequest, conflict, notFound, refusedNow } from '../http/problem.js';
import { audit, Db, oneAtATime, type Tx } from '../persistence/db.js';
import { keepOnce } from '../persistence/keepOnce.js';
import {
  BandCalibration,
  Clinic,
  ClinicExercise,
  ContentReview,
  ExerciseFavourite,
  ExerciseNote,
} from '../persistence/entities.js';

/** What a column of versions can hold. */
const LARGEST_VERSION = 2 ** 31 - 1;

/** A value as it comes back from the database. */
const plain = (value: object): unknown => JSON.parse(JSON.stringify(value));

@Controller('api/library')
export class LibraryController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** Adds an exercise of the clinic's own, or a new version of one. Plans that have it go on with the newest. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post('exercises')
  save(@Me() me: SignedIn, @Body() body: OwnExerciseBody): Promise<ExerciseDefinition> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'exercises');
      const key = ownExerciseKey(body.id);
      const library = await this.content.libraryFor(tx);
      const own = { key, rung: 1, version: body.version + 1 };
      const checked = checkExerciseFile(body.file, own, {
        ...this.content.bundle,
        exercises: library.exercises.filter((e) => e.key !== key),
      });
      if (!checked.ok)
        throw badRequest(checked.problems.map((p) => ({ pointer: `/file${p.pointer}`, detail: p.detail })));
      const { exercise, figure } = checked;
      const taken = library.exercises.find(
        (e) => e.key !== key && e.name.trim().toLowerCase() === exercise.name.trim().toLowerCase(),
      );
      if (taken !== undefined)
        throw badRequest([
          { pointer: '/file/exercise/name', detail: say('There is an exercise of this name already') },
        ]);
      const [last] = await tx.find(ClinicExercise, { where: { key }, order: { version: 'DESC' }, take: 1 });
      if (last?.retired === body.retired && isDeepStrictEqual(last.file, plain(body.file)))
        return last.definition as ExerciseDefinition;
      if ((last?.version ?? 0) !== body.version)
        throw conflict(say('Someone else changed this exercise since you opened it'), last?.file);
      await tx.insert(ClinicExercise, {
        clinicId: me.clinicId,
        key,
        version: own.version,
        filledId: body.id,
        file: body.file,
        definition: exercise,
        figure,
        retired: body.retired,
        authorId: me.userId,
        at: this.clock.now(),
      });
      await audit(tx, me, {
        action: body.version === 0 ? 'create' : 'change',
        subject: `exercise:${key}`,
        personId: null,
      });
      return exercise;
    });
  }

  /** Any exercise with its figure as a file: to keep, to give to another clinic, or to adapt. */
  @Get('exercises/:key/file')
  file(@Me() me: SignedIn, @Param('key') key: string): Promise<ExerciseFile> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const library = await this.content.libraryFor(tx);
      const exercise = library.exercise(key);
      const figure = library.figure(key);
      if (exercise === undefined || figure === undefined) throw notFound();
      return { format: 'heathstep exercise', version: 1, exercise: writeExercise(exercise), figure };
    });
  }

  /** Every version of an exercise of the clinic's own, the newest first. */
  @Get('exercises/:key/versions')
  versions(@Me() me: SignedIn, @Param('key') key: string): Promise<ExerciseVersionView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const rows = await tx.query<(Omit<ExerciseVersionView, 'at'> & { at: Date })[]>(
        `SELECT e.version, e.retired, e.definition->>'name' AS name, e.at, u.name AS by
           FROM clinic_exercise e JOIN app_user u ON u.id = e.author_id WHERE e.key = $1 ORDER BY e.version DESC`,
        [key],
      );
      return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
    });
  }

  /** An older version of an exercise of the clinic's own, as it was saved. */
  @Get('exercises/:key/versions/:version')
  version(
    @Me() me: SignedIn,
    @Param('key') key: string,
    @Param('version') version: string,
  ): Promise<ExerciseFile> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const number = Number(version);
      const row =
        Number.isInteger(number) && number > 0 && number <= LARGEST_VERSION
          ? await tx.findOneBy(ClinicExercise, { key, version: number })
          : null;
      if (row === null) throw notFound();
      return row.file as ExerciseFile;
    });
  }

  @HttpCode(204)
  @Put('favourites/:key')
  favourite(@Me() me: SignedIn, @Param('key') key: string, @Body() body: FavouriteBody): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.requireExercise(tx, key);
      const row = { clinicId: me.clinicId, userId: me.userId, exercise: key };
      if (body.on)
        await tx.createQueryBuilder().insert().into(ExerciseFavourite).values(row).orIgnore().execute();
      else await tx.delete(ExerciseFavourite, row);
    });
  }

  /** The clinic's own note on an exercise; older ones are kept. */
  @HttpCode(204)
  @Put('notes/:key')
  note(@Me() me: SignedIn, @Param('key') key: string, @Body() body: NoteBody): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.requireExercise(tx, key);
      const [last] = await tx.find(ExerciseNote, {
        where: { exercise: key },
        order: { version: 'DESC' },
        take: 1,
      });
      if ((last?.text ?? '') === body.text) return;
      if ((last?.version ?? 0) !== body.version)
        throw conflict(say('Someone else changed this note since you opened it'), last?.text ?? '');
      await tx.insert(ExerciseNote, {
        clinicId: me.clinicId,
        exercise: key,
        version: body.version + 1,
        text: body.text,
        authorId: me.userId,
        at: this.clock.now(),
      });
    });
  }

  /** Accepts the version of an exercise that stands now for this clinic. */
  @Roles('lead')
  @HttpCode(204)
  @Post('reviews')
  review(@Me() me: SignedIn, @Body() body: ReviewBody): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const key = body.item.startsWith('exercise:') ? body.item.slice('exercise:'.length) : '';
      const exercise = await this.requireExercise(tx, key);
      if (exercise.evidence.version !== body.version)
        throw refusedNow(say('There is a newer version; look at that one'), [
          { pointer: '/version', detail: say('is {{version}} now', { version: exercise.evidence.version }) },
        ]);
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      await tx
        .createQueryBuilder()
        .insert()
        .into(ContentReview)
        .values({
          clinicId: me.clinicId,
          item: body.item,
          version: body.version,
          reviewer: me.name,
          reviewedOn: localDay(this.clock.now(), clinic.timeZone),
        })
        .orIgnore()
        .execute();
      await audit(tx, me, { action: 'review', subject: body.item, personId: null });
    });
  }

  /** The pull of one of the clinic's bands at two to four stretches; the newest counts. */
  @Roles('lead', 'clinician')
  @HttpCode(204)
  @Post('bands')
  band(@Me() me: SignedIn, @Body() body: BandBody): Promise<void> {
    const checked = calibration(body.points);
    if (!checked.ok)
      throw badRequest(
        checked.issues.map((i) => ({
          pointer: i.path === 'points' ? '/points' : `/points/${i.path}`,
          detail: say('must be {{bound}}', { bound: i.bound }),
        })),
      );
    return this.db.inClinic(me.clinicId, async (tx) => {
      const row = {
        id: body.id,
        clinicId: me.clinicId,
        band: body.band,
        points: checked.value.map((p) => ({ ...p })),
        authorId: me.userId,
        at: this.clock.now(),
      };
      await keepOnce(tx, BandCalibration, row, ['band', 'points']);
      await audit(tx, me, { action: 'change', subject: `band:${body.band}`, personId: null });
    });
  }

  private async requireExercise(tx: Tx, key: string): Promise<ExerciseDefinition> {
    const exercise = (await this.content.libraryFor(tx)).exercise(key);
    if (exercise === undefined) throw notFound();
    return exercise;
  }
}
