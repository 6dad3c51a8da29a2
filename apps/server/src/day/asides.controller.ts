import { Body, Controller, Delete, HttpCode, Param, Post } from '@nestjs/common';
import { AsideBody, LONGEST_ASIDE_DAYS } from '@heathstep/contracts';
import { daysBetween, localDay, say } from '@heathstep/core';
import { IsNull } from 'typeorm';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { badRequest, conflict, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db } from '../persistence/db.js';
import { Clinic, EpisodeRow, Person, SetAside } from '../persistence/entities.js';

/** Rows of the day that are set aside until later. */
@Controller('api/day/asides')
export class AsidesController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post()
  set(@Me() me: SignedIn, @Body() body: AsideBody): Promise<{ readonly id: string }> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      const days = daysBetween(localDay(this.clock.now(), clinic.timeZone), body.until);
      if (days < 1 || days > LONGEST_ASIDE_DAYS)
        throw badRequest([
          {
            pointer: '/until',
            detail: say('A day from tomorrow to {{days}} days ahead', { days: LONGEST_ASIDE_DAYS }),
          },
        ]);
      const { personId, episodeId } = body;
      const there =
        episodeId === null
          ? await tx.existsBy(Person, { id: personId })
          : await tx.existsBy(EpisodeRow, { id: episodeId, personId });
      if (!there) throw notFound();
      const reason = body.reason.trim();
      if (reason.length < 3)
        throw badRequest([{ pointer: '/reason', detail: say('Say why, in a few words') }]);
      const standing = await tx.findOneBy(SetAside, { id: body.id });
      if (standing !== null) {
        if (standing.personId === personId && standing.kind === body.kind && standing.reason === reason)
          return { id: body.id };
        throw conflict(say('This id has something else already'), null);
      }
      await tx.insert(SetAside, {
        ...body,
        reason,
        clinicId: me.clinicId,
        endedAt: null,
        authorId: me.userId,
        at: this.clock.now(),
      });
      await audit(tx, me, { action: 'set-aside', subject: body.kind, personId });
      return { id: body.id };
    });
  }

  /** Takes a row back before its day. */
  @Roles('lead', 'clinician')
  @HttpCode(204)
  @Delete(':id')
  end(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const standing = await tx.findOneBy(SetAside, { id });
      if (standing === null) throw notFound();
      // Set aside twice, it is taken back once: none from before hides the row again.
      const { personId, episodeId } = standing;
      await tx.update(
        SetAside,
        { personId, episodeId: episodeId ?? IsNull(), endedAt: IsNull() },
        { endedAt: this.clock.now() },
      );
      await audit(tx, me, { action: 'take-back', subject: standing.kind, personId: standing.personId });
    });
  }
}
