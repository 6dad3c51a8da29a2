import { Body, Controller, Get, HttpCode, Param, Post, Res, StreamableFile } from '@nestjs/common';
import type { Response } from 'express';
import { randomUUID } from 'node:crypto';
import { EraseBody, type ErasureView, type KeptUntilView } from '@heathstep/contracts';
import { keptUntil, say } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { namesOf } from '../episodes/rows.js';
import { Printer } from '../handout/render.js';
import { badRequest, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { Clinic, Erasure, Person } from '../persistence/entities.js';
import { certificateOf } from './certificate.js';

const viewOf = async (tx: Tx, rows: readonly Erasure[]): Promise<ErasureView[]> => {
  const names = await namesOf(tx);
  return rows.map((e) => ({
    id: e.id,
    at: e.at.toISOString(),
    by: names.get(e.authorId) ?? '',
    reason: e.reason,
    rows: e.rows,
  }));
};

/** When something was last recorded of a person. */
const LAST_CONTACT = `
  SELECT max(at) AS last FROM (
    SELECT started_at AS at FROM episode WHERE person_id = $1
    UNION ALL SELECT ended_at FROM episode WHERE person_id = $1
    UNION ALL SELECT v.started_at FROM visit v JOIN episode e ON e.id = v.episode_id WHERE e.person_id = $1
    UNION ALL SELECT d.at FROM decision d JOIN episode e ON e.id = d.episode_id WHERE e.person_id = $1
    UNION ALL SELECT l.at FROM letter l JOIN episode e ON e.id = l.episode_id WHERE e.person_id = $1
    UNION ALL SELECT h.at FROM home_entry h JOIN episode e ON e.id = h.episode_id WHERE e.person_id = $1
  ) AS times`;

/** Takes records away for good, and says that it was done. */
@Controller('api')
export class ErasureController {
  constructor(
    private readonly db: Db,
    private readonly printer: Printer,
    private readonly clock: Clock,
  ) {}

  /** Everything of a person, at once; what remains is a line without a name and the log of who looked. */
  @Roles('lead')
  @HttpCode(200)
  @Post('people/:id/erase')
  erase(
    @Me() me: SignedIn,
    @Param('id', IdPipe) personId: string,
    @Body() body: EraseBody,
  ): Promise<ErasureView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const person = await tx.findOneBy(Person, { id: personId });
      if (person === null) throw notFound();
      if (body.name.trim() !== person.name)
        throw badRequest([{ pointer: '/name', detail: say('Type the name as it stands') }]);
      const term = await this.term(tx, person);
      if (!term.over && body.early !== true)
        throw badRequest([
          {
            pointer: '/early',
            detail: say('The usual term is over on {{until}}: say that it was decided to erase before', {
              until: term.until,
            }),
          },
        ]);
      const [{ rows }] = await tx.query<[{ rows: number }]>('SELECT erase_person($1) AS rows', [personId]);
      const erasure = {
        id: randomUUID(),
        clinicId: me.clinicId,
        personId,
        reason: body.reason.trim(),
        rows,
        authorId: me.userId,
        at: this.clock.now(),
      };
      await tx.insert(Erasure, erasure);
      await audit(tx, me, { action: 'erase', subject: 'record', personId });
      const [view] = await viewOf(tx, [erasure]);
      if (view === undefined) throw notFound();
      return view;
    });
  }

  /** When the record may be erased by the usual term. */
  @Roles('lead')
  @Get('people/:id/erasure')
  until(@Me() me: SignedIn, @Param('id', IdPipe) personId: string): Promise<KeptUntilView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const person = await tx.findOneBy(Person, { id: personId });
      if (person === null) throw notFound();
      return this.term(tx, person);
    });
  }

  private async term(tx: Tx, { id, birthDate, createdAt }: Person): Promise<KeptUntilView> {
    const [{ last }] = await tx.query<[{ last: Date | null }]>(LAST_CONTACT, [id]);
    const lastContact = (last ?? createdAt).toISOString().slice(0, 10);
    const until = keptUntil(lastContact, birthDate);
    return { lastContact, until, over: this.clock.now().toISOString().slice(0, 10) >= until };
  }

  /** What was erased, the newest first. */
  @Roles('lead')
  @Get('clinic/erasures')
  list(@Me() me: SignedIn): Promise<ErasureView[]> {
    return this.db.inClinic(me.clinicId, async (tx) =>
      viewOf(tx, await tx.find(Erasure, { order: { at: 'DESC' } })),
    );
  }

  /** That a record was erased, as a paper for who asked for it. */
  @Roles('lead')
  @Get('clinic/erasures/:id/certificate.pdf')
  async certificate(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const document = await this.db.inClinic(me.clinicId, async (tx) => {
      const [view] = await viewOf(tx, await tx.findBy(Erasure, { id }));
      if (view === undefined) throw notFound();
      await audit(tx, me, { action: 'print', subject: 'record', personId: null });
      return certificateOf(view, await tx.findOneByOrFail(Clinic, { id: me.clinicId }));
    });
    const bytes = await this.printer.pdf(document);
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/pdf',
      disposition: 'inline; filename="certificate.pdf"',
      length: bytes.length,
    });
  }
}
