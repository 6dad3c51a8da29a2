import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { checkProtocolFile, ownProtocolKey } from '@heathstep/content';
import {
  MovePeopleBody,
  type PersonOnProtocol,
  ProtocolDraftBody,
  ProtocolPublishBody,
  type ProtocolRow,
  type ProtocolView,
} from '@heathstep/contracts';
import { type ProtocolDefinition, type ProtocolFile, writeProtocol, say } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { badRequest, conflict, notFound, refusedNow } from '../http/problem.js';
import { MovingPeople } from './movingPeople.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { AppUser, ClinicProtocol } from '../persistence/entities.js';

/** Protocols of the library, and the clinic's own versions of them: drafted by clinicians, signed and published by leads. */
@Controller('api/library/protocols')
export class ProtocolsController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly moving: MovingPeople,
    private readonly clock: Clock,
  ) {}

  @Get()
  list(@Me() me: SignedIn): Promise<ProtocolRow[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const own = await tx.find(ClinicProtocol, { select: { replaces: true, version: true, status: true } });
      const people = await tx.query<{ protocol: string; count: number }[]>(
        "SELECT protocol, count(*)::int AS count FROM episode WHERE status = 'open' GROUP BY protocol",
      );
      return this.content.bundle.protocols.map((p): ProtocolRow => {
        const mine = own.filter((o) => o.replaces === p.key);
        const published = mine.filter((o) => o.status === 'published').map((o) => o.version);
        const on = people.filter((x) => x.protocol === p.key || x.protocol === ownProtocolKey(p.key));
        return {
          key: p.key,
          name: p.name,
          version: p.version,
          stages: p.stages.map((s) => s.name),
          own: published.length === 0 ? null : Math.max(...published),
          draft: mine.some((o) => o.status === 'draft'),
          people: on.reduce((sum, x) => sum + x.count, 0),
        };
      });
    });
  }

  @Get(':key')
  one(@Me() me: SignedIn, @Param('key') key: string): Promise<ProtocolView> {
    return this.db.inClinic(me.clinicId, (tx) => this.view(tx, key));
  }

  /** The protocol as it is used for who begins now, as a file: to keep, to give to another clinic, or to change. */
  @Get(':key/file')
  file(@Me() me: SignedIn, @Param('key') key: string): Promise<ProtocolFile> {
    this.shipped(key);
    return this.db.inClinic(me.clinicId, async (tx) => writeProtocol(await this.content.current(tx, key)));
  }

  /** Saves the draft of the clinic's own version, checked as strictly as a shipped one; nobody is treated by it yet. */
  @Roles('lead', 'clinician')
  @Put(':key/draft')
  save(
    @Me() me: SignedIn,
    @Param('key') key: string,
    @Body() body: ProtocolDraftBody,
  ): Promise<ProtocolView> {
    const shipped = this.shipped(key);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const rows = await this.rows(tx, key);
      const draft = rows.find((r) => r.status === 'draft');
      const version = draft?.version ?? Math.max(0, ...rows.map((r) => r.version)) + 1;
      const checked = checkProtocolFile(body.file, { replaces: key, version }, this.content.bundle);
      if (!checked.ok)
        throw badRequest(checked.problems.map((p) => ({ pointer: `/file${p.pointer}`, detail: p.detail })));
      if ((draft?.edition ?? 0) !== body.edition)
        throw conflict(say('Someone else changed this draft since you opened it'), draft?.file ?? null);
      const row = {
        clinicId: me.clinicId,
        replaces: key,
        version,
        status: 'draft' as const,
        edition: body.edition + 1,
        basedOn: draft?.basedOn ?? shipped.version,
        file: body.file,
        definition: { ...checked.protocol },
        authorId: me.userId,
        at: this.clock.now(),
        signedBy: null,
        signedAt: null,
      };
      if (draft === undefined) await tx.insert(ClinicProtocol, row);
      else await this.changeDraft(tx, { key, version, edition: body.edition }, row);
      await audit(tx, me, { action: 'change', subject: `protocol:${key}`, personId: null });
      return this.view(tx, key);
    });
  }

  @Roles('lead', 'clinician')
  @Delete(':key/draft')
  discard(@Me() me: SignedIn, @Param('key') key: string): Promise<ProtocolView> {
    this.shipped(key);
    return this.db.inClinic(me.clinicId, async (tx) => {
      await tx.delete(ClinicProtocol, { replaces: key, status: 'draft' });
      await audit(tx, me, { action: 'delete', subject: `protocol draft:${key}`, personId: null });
      return this.view(tx, key);
    });
  }

  /** Signs the draft: who begins from now on is treated by it; who is on an earlier version stays there. */
  @Roles('lead')
  @HttpCode(200)
  @Post(':key/publish')
  publish(
    @Me() me: SignedIn,
    @Param('key') key: string,
    @Body() body: ProtocolPublishBody,
  ): Promise<ProtocolView> {
    this.shipped(key);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const draft = (await this.rows(tx, key)).find((r) => r.status === 'draft');
      if (draft === undefined) throw refusedNow(say('There is no draft to publish'));
      // What it names may have changed since it was saved.
      const checked = checkProtocolFile(
        draft.file,
        { replaces: key, version: draft.version },
        this.content.bundle,
      );
      if (!checked.ok)
        throw badRequest(checked.problems.map((p) => ({ pointer: `/file${p.pointer}`, detail: p.detail })));
      await this.changeDraft(
        tx,
        { key, version: draft.version, edition: body.edition },
        {
          status: 'published',
          definition: { ...checked.protocol },
          signedBy: me.userId,
          signedAt: this.clock.now(),
        },
      );
      await audit(tx, me, { action: 'publish', subject: `protocol:${key}`, personId: null });
      return this.view(tx, key);
    });
  }

  /** Goes back to the shipped protocol for who begins from now on. */
  @Roles('lead')
  @HttpCode(200)
  @Post(':key/withdraw')
  withdraw(@Me() me: SignedIn, @Param('key') key: string): Promise<ProtocolView> {
    this.shipped(key);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const result = await tx.update(
        ClinicProtocol,
        { replaces: key, status: 'published' },
        { status: 'withdrawn' },
      );
      if (result.affected === 0) throw refusedNow(say('The shipped protocol is used already'));
      await audit(tx, me, { action: 'withdraw', subject: `protocol:${key}`, personId: null });
      return this.view(tx, key);
    });
  }

  /** Who is treated by it, in which version, and what moving them to the one used now would change. */
  @Get(':key/people')
  people(@Me() me: SignedIn, @Param('key') key: string): Promise<PersonOnProtocol[]> {
    this.shipped(key);
    return this.db.inClinic(me.clinicId, (tx) => this.moving.list(tx, key));
  }

  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post(':key/move')
  move(
    @Me() me: SignedIn,
    @Param('key') key: string,
    @Body() body: MovePeopleBody,
  ): Promise<PersonOnProtocol[]> {
    this.shipped(key);
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.moving.move(tx, me, key, body.episodes);
      return this.moving.list(tx, key);
    });
  }

  private shipped(key: string): ProtocolDefinition {
    const found = this.content.bundle.protocols.find((p) => p.key === key);
    if (found === undefined) throw notFound();
    return found;
  }

  private rows(tx: Tx, key: string): Promise<ClinicProtocol[]> {
    return tx.find(ClinicProtocol, { where: { replaces: key }, order: { version: 'DESC' } });
  }

  /** Changes the draft as it was read; someone else's change in between is a conflict. */
  private async changeDraft(
    tx: Tx,
    { key, version, edition }: { key: string; version: number; edition: number },
    change: Partial<Omit<ClinicProtocol, 'file' | 'definition'>> & { definition: object; file?: object },
  ): Promise<void> {
    const result = await tx.update(
      ClinicProtocol,
      { replaces: key, version, status: 'draft', edition },
      change,
    );
    if (result.affected !== 1)
      throw conflict(say('Someone else changed this draft since you opened it'), null);
  }

  private async view(tx: Tx, key: string): Promise<ProtocolView> {
    const shipped = this.shipped(key);
    const rows = await this.rows(tx, key);
    const names = new Map((await tx.find(AppUser)).map((u) => [u.id, u.name]));
    const nameOf = (id: string | null) => names.get(id ?? '') ?? '';
    const published = rows.find((r) => r.status === 'published');
    const draft = rows.find((r) => r.status === 'draft');
    return {
      shipped,
      published:
        published === undefined
          ? null
          : {
              version: published.version,
              basedOn: published.basedOn,
              definition: published.definition as ProtocolDefinition,
              by: nameOf(published.authorId),
              signedBy: nameOf(published.signedBy),
              signedAt: published.signedAt?.toISOString() ?? '',
            },
      draft:
        draft === undefined
          ? null
          : {
              edition: draft.edition,
              version: draft.version,
              basedOn: draft.basedOn,
              definition: draft.definition as ProtocolDefinition,
              by: nameOf(draft.authorId),
              at: draft.at.toISOString(),
            },
    };
  }
}
