import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ConsentBody, type ConsentsView } from '@heathstep/contracts';
import { localDay, say } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { badRequest, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { Clinic, Consent, Person } from '../persistence/entities.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { consentsOf } from './consents.js';

/** What someone agrees to and what not, as it was told; nothing told is changed, the newest stands. */
@Controller('api/people/:id/consents')
export class ConsentController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  @Get()
  of(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<ConsentsView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.person(tx, id);
      await audit(tx, me, { action: 'read', subject: 'consent', personId: id });
      return { told: await consentsOf(tx, id) };
    });
  }

  @HttpCode(201)
  @Post()
  tell(
    @Me() me: SignedIn,
    @Param('id', IdPipe) personId: string,
    @Body() body: ConsentBody,
  ): Promise<ConsentsView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.person(tx, personId);
      const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      if (body.on > localDay(this.clock.now(), timeZone))
        throw badRequest([{ pointer: '/on', detail: say('This day is still to come') }]);
      if (body.on < '1950-01-01') throw badRequest([{ pointer: '/on', detail: say('There is no such day') }]);
      const { id, kind, given, way, on } = body;
      const row: Consent = {
        id,
        clinicId: me.clinicId,
        personId,
        kind,
        given,
        way,
        on,
        note: body.note.trim(),
        authorId: me.userId,
        at: this.clock.now(),
      };
      const isNew = await keepOnce(tx, Consent, row, ['personId', 'kind', 'given', 'way', 'on', 'note']);
      await audit(tx, me, { action: isNew ? 'create' : 'read', subject: 'consent', personId });
      return { told: await consentsOf(tx, personId) };
    });
  }

  private async person(tx: Tx, id: string): Promise<void> {
    if ((await tx.countBy(Person, { id })) === 0) throw notFound();
  }
}
