import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { MergeBody, type MergeView } from '@heathstep/contracts';
import { say } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { namesOf } from '../episodes/rows.js';
import { badRequest, conflict, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, oneAtATime, type Tx } from '../persistence/db.js';
import { Person, PersonMerge } from '../persistence/entities.js';

/** Two records of one person: brought together by a lead, and apart again where it was a mistake. */
@Controller('api')
@Roles('lead')
export class MergeController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  @Get('people/:id/merges')
  of(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<MergeView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.person(tx, id);
      return this.list(tx, id);
    });
  }

  /** Everything of the other comes to this one; the other is no record of its own any more. */
  @HttpCode(201)
  @Post('people/:id/merge')
  merge(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: MergeBody): Promise<MergeView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'merge');
      const kept = await this.person(tx, id);
      const standing = await tx.findOneBy(PersonMerge, { id: body.id });
      if (standing !== null) {
        if (standing.personId === id && standing.goneId === body.gone) return this.list(tx, id);
        throw conflict(say('This id has something else already. Nothing was kept'), null);
      }
      if (body.gone === id) throw badRequest([{ pointer: '/gone', detail: say('This is the same record') }]);
      const gone = await this.person(tx, body.gone);
      const apart = kept.birthDate !== null && gone.birthDate !== null && kept.birthDate !== gone.birthDate;
      if (apart && body.differs !== true)
        throw badRequest([
          {
            pointer: '/differs',
            detail: say('The dates of birth differ: say that it is one person all the same'),
          },
        ]);
      await tx.query('SELECT merge_people($1, $2, $3, $4, $5)', [
        body.id,
        id,
        body.gone,
        me.userId,
        this.clock.now(),
      ]);
      await audit(tx, me, { action: 'merge', subject: 'record', personId: id });
      await audit(tx, me, { action: 'merge', subject: 'record', personId: body.gone });
      return this.list(tx, id);
    });
  }

  /** What came along goes back to a record of its own; what was recorded since stays with the one that was kept. */
  @HttpCode(200)
  @Post('merges/:id/undo')
  undo(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<MergeView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const done = await tx.findOneBy(PersonMerge, { id });
      if (done === null) throw notFound();
      if (done.undoneAt === null) {
        await tx.query('SELECT unmerge_people($1, $2)', [id, this.clock.now()]);
        await audit(tx, me, { action: 'unmerge', subject: 'record', personId: done.personId });
        await audit(tx, me, { action: 'unmerge', subject: 'record', personId: done.goneId });
      }
      return this.list(tx, done.personId);
    });
  }

  private async person(tx: Tx, id: string): Promise<Person> {
    const person = await tx.findOneBy(Person, { id });
    if (person === null) throw notFound();
    return person;
  }

  private async list(tx: Tx, personId: string): Promise<MergeView[]> {
    const rows = await tx.find(PersonMerge, { where: { personId }, order: { at: 'DESC' } });
    const names = await namesOf(tx);
    return rows.map((m) => ({
      id: m.id,
      goneName: m.gone.name,
      goneBirthDate: m.gone.birth_date,
      at: m.at.toISOString(),
      by: names.get(m.authorId) ?? '',
      undoneAt: m.undoneAt?.toISOString() ?? null,
    }));
  }
}
