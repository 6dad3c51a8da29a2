import { Body, Controller, Get, Header, HttpCode, Param, Post, Res, StreamableFile } from '@nestjs/common';
import type { Response } from 'express';
import { QueryFailedError } from 'typeorm';
import type { BroughtView, KeptView } from '@heathstep/contracts';
import { localDay, say, searchable } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { namesOf } from '../episodes/rows.js';
import { badRequest, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { KeptResource, Person } from '../persistence/entities.js';
import { bring, renamed, renamedId } from './bring.js';
import { rowProblems } from './fhir/check.js';
import { Gathering } from './fhir/gather.js';
import { readBundle, type ReadBundle } from './fhir/read.js';
import { writeBundle } from './fhir/write.js';

/** A record of another clinic of this installation has the same ids. */
const isThereAlready = (error: unknown): boolean =>
  error instanceof QueryFailedError &&
  (error.driverError as { code?: string; constraint?: string }).code === '23505' &&
  String((error.driverError as { constraint?: string }).constraint).endsWith('_pkey');

/** A row that the database does not take as it is: something is missing, of another kind, or names what is not there. */
const isNoRow = (error: unknown): boolean =>
  error instanceof QueryFailedError &&
  /^(22|23)/.test(String((error.driverError as { code?: string }).code)) &&
  (error.driverError as { code?: string }).code !== '23505';

/** A person's record out of the clinic and into it, as FHIR R4. */
@Controller('api')
export class ExchangeController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly gathering: Gathering,
    private readonly clock: Clock,
  ) {}

  /** The whole record as a file. */
  @Roles('lead', 'clinician')
  @Get('people/:id/fhir')
  async give(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const bundle = await this.db.inClinic(me.clinicId, async (tx) => {
      const sources = await this.gathering.of(tx, me.clinicId, id);
      await audit(tx, me, { action: 'export', subject: 'record', personId: id });
      return writeBundle(sources, this.clock.now());
    });
    const bytes = Buffer.from(JSON.stringify(bundle));
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/fhir+json',
      disposition: `attachment; filename="record-${localDay(this.clock.now(), 'UTC')}.json"`,
      length: bytes.length,
    });
  }

  /** What a file would bring; nothing of it is taken. */
  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('exchange/fhir/look')
  look(@Me() me: SignedIn, @Body() body: unknown): Promise<BroughtView> {
    const read = this.read(body);
    return this.db.inClinic(me.clinicId, (tx) => brought(tx, me.clinicId, read));
  }

  /** Takes a file as a person of the clinic. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post('exchange/fhir')
  async take(@Me() me: SignedIn, @Body() body: unknown): Promise<{ readonly personId: string }> {
    const read = this.read(body);
    const taken = (from: ReadBundle) =>
      this.db.inClinic(me.clinicId, async (tx) => {
        const personId = await bring(tx, me, from, this.clock.now());
        await audit(tx, me, { action: 'import', subject: 'record', personId });
        return { personId };
      });
    try {
      return await taken(read);
    } catch (error) {
      if (isNoRow(error))
        throw badRequest([{ pointer: '/entry', detail: say('a row of the record cannot stand here') }]);
      if (!isThereAlready(error)) throw error;
      return taken(renamed(read, me.clinicId));
    }
  }

  /** What came with a person from elsewhere and is kept as it came. */
  @Get('people/:id/kept')
  @Header('cache-control', 'no-store')
  kept(@Me() me: SignedIn, @Param('id', IdPipe) personId: string): Promise<KeptView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      if ((await tx.countBy(Person, { id: personId })) === 0) throw notFound();
      const rows = await tx.find(KeptResource, { where: { personId }, order: { type: 'ASC', id: 'ASC' } });
      const names = await namesOf(tx);
      if (rows.length > 0) await audit(tx, me, { action: 'read', subject: 'record', personId });
      return rows.map((r) => ({
        id: r.id,
        type: r.type,
        at: r.at.toISOString(),
        by: names.get(r.authorId) ?? '',
        resource: r.resource,
      }));
    });
  }

  private read(body: unknown): ReadBundle {
    const result = readBundle(body);
    if (!result.ok) throw badRequest(result.problems);
    const problems = rowProblems(result.read, this.content.bundle);
    if (problems.length > 0) throw badRequest(problems.slice(0, 20));
    return result.read;
  }
}

async function brought(tx: Tx, clinicId: string, read: ReadBundle): Promise<BroughtView> {
  const { rows, foreign, others } = read;
  const [person] = rows.person;
  const ids = person === undefined ? [] : [person.id, renamedId(clinicId, person.id)];
  const name = foreign?.name ?? String(person?.['name']);
  const birthDate =
    foreign === null ? ((person?.['birth_date'] ?? null) as string | null) : foreign.birthDate;
  const all = await tx.find(Person);
  const kept: Record<string, number> = {};
  for (const { resourceType } of others) kept[resourceType] = (kept[resourceType] ?? 0) + 1;
  return {
    name,
    birthDate,
    ours: foreign === null,
    counts: {
      complaints: rows.episode.length,
      visits: rows.visit.length,
      entries: rows.visit_entry.length,
      plans: rows.plan.length,
      decisions: rows.decision.length,
      home: rows.home_entry.length,
      pictures: rows.photo.length + rows.lab_capture.length,
    },
    kept,
    here: all.find((p) => ids.includes(p.id))?.id ?? null,
    alike: all
      .filter((p) => searchable(p.name) === searchable(name))
      .map((p) => ({ id: p.id, name: p.name, birthDate: p.birthDate })),
  };
}
