import { Controller, Delete, Get, HttpCode, Param, Post, Req } from '@nestjs/common';
import type { Request } from 'express';
import type { OutingsView, OutingView } from '@heathstep/contracts';
import { addDays, localDay, riseOfRun, RUN_DAYS, say, type DoneRun } from '@heathstep/core';
import { IsNull } from 'typeorm';
import { Me, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { madeId } from '../exchange/fhir/course.js';
import { fileName } from '../http/fileName.js';
import { Assessment } from '../episodes/assessment.js';
import { EpisodeReader } from '../episodes/reader.js';
import { namesOf } from '../episodes/rows.js';
import { badRequest, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { Clinic, OutingRow, Person } from '../persistence/entities.js';
import { readTrack } from './readTrack.js';

/** Runs and walks of a person from the files of their watch: what they amount to counts as done, the way itself is not kept. */
@Controller('api')
export class OutingsController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly assessment: Assessment,
    private readonly clock: Clock,
  ) {}

  @Get('people/:id/outings')
  of(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<OutingsView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.person(tx, id);
      await audit(tx, me, { action: 'read', subject: 'outings', personId: id });
      return { taken: null, here: 0, outings: await this.list(tx, id) };
    });
  }

  /** Takes what of a file is not here yet; one that was taken back comes again. */
  @HttpCode(201)
  @Post('people/:id/outings')
  take(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Req() request: Request): Promise<OutingsView> {
    const found = readTrack(request.body);
    const now = this.clock.now();
    if (found.some((f) => f.startedAt > now.getTime() + 86_400_000))
      throw badRequest([
        {
          pointer: '/file',
          detail: say('This was recorded in a time to come: the clock of the watch is wrong'),
        },
      ]);
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.person(tx, id);
      const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      let taken = 0;
      for (const { startedAt, seconds, metres, runSeconds, climbMetres } of found) {
        const start = new Date(startedAt);
        const row: OutingRow = {
          id: madeId('outing', me.clinicId, id, start.toISOString()),
          clinicId: me.clinicId,
          personId: id,
          day: localDay(start, timeZone),
          startedAt: start,
          seconds,
          metres,
          runSeconds,
          climbMetres,
          file: fileName(request),
          authorId: me.userId,
          at: now,
          removedAt: null,
        };
        const standing = await tx.findOneBy(OutingRow, { personId: id, startedAt: start });
        if (standing === null) await tx.insert(OutingRow, row);
        else if (standing.removedAt !== null)
          await tx.update(OutingRow, { id: standing.id }, { ...row, id: standing.id });
        else continue;
        taken += 1;
      }
      await audit(tx, me, { action: taken > 0 ? 'create' : 'read', subject: 'outings', personId: id });
      return { taken, here: found.length - taken, outings: await this.list(tx, id) };
    });
  }

  /** Takes one back; that it was taken stays in the record. */
  @Delete('outings/:id')
  remove(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<OutingsView> {
    return this.set(me, id, this.clock.now());
  }

  @HttpCode(200)
  @Post('outings/:id/back')
  back(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<OutingsView> {
    return this.set(me, id, null);
  }

  private set(me: SignedIn, id: string, removedAt: Date | null): Promise<OutingsView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const row = await tx.findOneBy(OutingRow, { id });
      if (row === null) throw notFound();
      await tx.update(OutingRow, { id }, { removedAt });
      await audit(tx, me, {
        action: removedAt === null ? 'change' : 'remove',
        subject: 'outings',
        personId: row.personId,
      });
      return { taken: null, here: 0, outings: await this.list(tx, row.personId) };
    });
  }

  private async person(tx: Tx, id: string): Promise<void> {
    if ((await tx.countBy(Person, { id })) === 0) throw notFound();
  }

  /** The newest first, each against what was run before it. */
  private async list(tx: Tx, personId: string): Promise<OutingView[]> {
    const rows = await tx.find(OutingRow, {
      where: { personId, removedAt: IsNull() },
      order: { startedAt: 'DESC' },
    });
    const names = await namesOf(tx);
    const logged = rows.length === 0 ? [] : await this.logged(tx, personId);
    const runs: readonly DoneRun[] = [
      ...logged,
      ...rows.map((r) => ({ day: r.day, minutes: r.runSeconds / 60 })),
    ];
    return rows.map((r) => ({
      id: r.id,
      day: r.day,
      startedAt: r.startedAt.toISOString(),
      minutes: r.seconds / 60,
      runMinutes: r.runSeconds / 60,
      metres: r.metres,
      climbMetres: r.climbMetres,
      file: r.file,
      by: names.get(r.authorId) ?? '',
      rise: riseOfRun(
        { day: r.day, minutes: r.runSeconds / 60 },
        runs.filter((d) => d.day > addDays(r.day, -RUN_DAYS)),
      ),
    }));
  }

  /** Runs that were logged at home for any complaint. */
  private async logged(tx: Tx, personId: string): Promise<DoneRun[]> {
    const ids = await tx.query<{ id: string }[]>('SELECT id FROM episode WHERE person_id = $1', [personId]);
    const runs: DoneRun[] = [];
    for (const { id } of ids) runs.push(...this.assessment.runsLogged(await this.reader.shown(tx, id)));
    return runs;
  }
}
