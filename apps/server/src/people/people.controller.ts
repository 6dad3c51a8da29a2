import { Body, Controller, Get, HttpCode, Param, Patch, Post, Query } from '@nestjs/common';
import {
  type EpisodeSummary,
  PEOPLE_AT_ONCE,
  PersonBody,
  PersonPatch,
  type PersonRow,
} from '@heathstep/contracts';
import { type ProtocolDefinition, relapseStage, type StageKey, stageOf, say, sayIf } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { badRequest, conflict, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { endedOf } from '../episodes/ending.js';
import { namesOf } from '../episodes/rows.js';
import { peopleFound } from './finding.js';
import { audit, auditList, Db, type Tx } from '../persistence/db.js';
import { keepOnce } from '../persistence/keepOnce.js';
import { EpisodeRow, Person } from '../persistence/entities.js';

function row(person: Person, episodes: readonly EpisodeSummary[] = []): PersonRow {
  return {
    id: person.id,
    name: person.name,
    birthDate: person.birthDate,
    occupation: person.occupation,
    sex: person.sex,
    language: person.language,
    version: person.version,
    episodes,
  };
}

/** What the protocol says of a complaint that comes back. */
const againOf = (protocol: ProtocolDefinition, left: StageKey | null): EpisodeSummary['again'] => ({
  stageName: sayIf(relapseStage(protocol, left)?.name ?? null),
  text: say(protocol.relapse),
});

function refuseFutureBirth(birthDate: string | null | undefined, now: Date): void {
  if (typeof birthDate !== 'string') return;
  if (birthDate > now.toISOString().slice(0, 10) || birthDate < '1900-01-01') {
    throw badRequest([{ pointer: '/birthDate', detail: say('A date of birth between 1900 and today') }]);
  }
}

@Controller('api/people')
export class PeopleController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  private refuseUnknownLanguage(code: string | null | undefined): void {
    if (code == null || this.content.languageOf(code) !== null) return;
    throw badRequest([{ pointer: '/language', detail: say('must be one of the languages') }]);
  }

  /** Complaints by person, the newest first. */
  private async episodesOf(tx: Tx, ids: readonly string[]): Promise<Map<string, EpisodeSummary[]>> {
    const of = new Map<string, EpisodeSummary[]>();
    if (ids.length === 0) return of;
    const protocols = await this.content.protocolsFor(tx);
    const names = await namesOf(tx);
    const episodes = await tx
      .createQueryBuilder(EpisodeRow, 'e')
      .where('e.personId IN (:...ids)', { ids })
      .orderBy('e.startedAt', 'DESC')
      .getMany();
    for (const e of episodes)
      of.set(e.personId, [
        ...(of.get(e.personId) ?? []),
        {
          id: e.id,
          condition: e.condition,
          affected: e.affected,
          stage: e.stage,
          stageName: sayIf(stageOf(protocols.on(e), e.stage)?.name ?? e.stage),
          startedAt: e.startedAt.toISOString(),
          status: e.status === 'closed' ? 'closed' : 'open',
          ended: endedOf(e, names),
          again: e.status === 'closed' ? againOf(protocols.on(e), e.stage) : null,
          version: e.version,
        },
      ]);
    return of;
  }

  /** People by name, found by words of it in any order or by the date of birth; the next ones after those already had. */
  @Get()
  list(@Me() me: SignedIn, @Query('q') q?: string, @Query('after') after?: string): Promise<PersonRow[]> {
    const wanted = typeof q === 'string' ? q.slice(0, 80) : '';
    const skipped = /^\d{1,6}$/.test(String(after)) ? Number(after) : 0;
    return this.db.inClinic(me.clinicId, async (tx) => {
      const all = await tx
        .createQueryBuilder(Person, 'p')
        .orderBy('lower(p.name)', 'ASC')
        .addOrderBy('p.id')
        .getMany();
      const people = peopleFound(all, wanted).slice(skipped, skipped + PEOPLE_AT_ONCE);
      const episodes = await this.episodesOf(
        tx,
        people.map((p) => p.id),
      );
      await auditList(tx, me, { action: 'list', subject: 'people', shown: people.map((p) => p.id) });
      return people.map((p) => row(p, episodes.get(p.id)));
    });
  }

  /** Adds a person; the id is the client's, so a repeat returns what the first one made. */
  @HttpCode(201)
  @Post()
  add(@Me() me: SignedIn, @Body() body: PersonBody): Promise<PersonRow> {
    refuseFutureBirth(body.birthDate, this.clock.now());
    this.refuseUnknownLanguage(body.language);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const person = {
        ...body,
        sex: body.sex ?? null,
        language: body.language ?? null,
        name: body.name.trim(),
        clinicId: me.clinicId,
        version: 1,
        createdAt: this.clock.now(),
      };
      const isNew = await keepOnce(tx, Person, person, [
        'name',
        'birthDate',
        'occupation',
        'sex',
        'language',
      ]);
      await audit(tx, me, { action: isNew ? 'create' : 'read', subject: 'person', personId: body.id });
      return row(person);
    });
  }

  @Get(':id')
  one(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<PersonRow> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const person = await tx.findOneBy(Person, { id });
      if (person === null) throw notFound();
      await audit(tx, me, { action: 'read', subject: 'person', personId: id });
      return row(person, (await this.episodesOf(tx, [id])).get(id));
    });
  }

  @Patch(':id')
  change(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: PersonPatch): Promise<PersonRow> {
    refuseFutureBirth(body.birthDate, this.clock.now());
    this.refuseUnknownLanguage(body.language);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { version, ...changes } = body;
      const known = Object.fromEntries(Object.entries(changes).filter(([, v]) => v !== undefined));
      const result = await tx.update(Person, { id, version }, { ...known, version: version + 1 });
      const person = await tx.findOneBy(Person, { id });
      if (person === null) throw notFound();
      const episodes = (await this.episodesOf(tx, [id])).get(id);
      if (result.affected !== 1)
        throw conflict(say('Someone changed this person while you were editing'), row(person, episodes));
      await audit(tx, me, { action: 'change', subject: 'person', personId: id });
      return row(person, episodes);
    });
  }
}
