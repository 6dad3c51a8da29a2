import { say } from '@heathstep/core';
import { isDeepStrictEqual } from 'node:util';
import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { Clock } from '../clock.js';
import {
  EntriesBody,
  type EntryBody,
  contentProblem,
  entriesOf,
  entryProblem,
  type EntryView,
  PresenceBody,
  type PresenceView,
  unexplainedTests,
  VisitBody,
  type VisitView,
} from '@heathstep/contracts';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { refuseClosed } from '../episodes/ending.js';
import { EpisodeReader } from '../episodes/reader.js';
import {
  badRequest,
  conflict,
  type FieldError,
  notFound,
  ProblemError,
  refusedNow,
} from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { EpisodeRow, Visit } from '../persistence/entities.js';

/** Someone who has not been heard of for this long has left. */
const PRESENT_MS = 25_000;

@Controller('api')
export class VisitsController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly clock: Clock,
  ) {}

  /** Opens a visit; while one is open, that one is returned. */
  @HttpCode(201)
  @Post('episodes/:id/visits')
  open(
    @Me() me: SignedIn,
    @Param('id', IdPipe) episodeId: string,
    @Body() body: VisitBody,
  ): Promise<VisitView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episode = await tx.findOne(EpisodeRow, {
        where: { id: episodeId },
        lock: { mode: 'pessimistic_write' },
      });
      if (episode === null) throw notFound();
      const visits = await this.reader.visits(tx, episodeId);
      const standing = visits.find((v) => v.signedAt === null || v.id === body.id);
      if (standing !== undefined) {
        await audit(tx, me, { action: 'read', subject: 'visit', personId: episode.personId });
        return standing;
      }
      refuseClosed(episode);
      await tx.insert(Visit, {
        id: body.id,
        clinicId: me.clinicId,
        episodeId,
        // What came from a table was no visit: nobody asked anything.
        kind: visits.every((v) => v.imported) ? 'first' : 'review',
        startedAt: this.clock.now(),
        signedAt: null,
        signedBy: null,
      });
      await audit(tx, me, { action: 'create', subject: 'visit', personId: episode.personId });
      return this.view(tx, episodeId, body.id);
    });
  }

  @Get('visits/:id')
  one(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<VisitView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { visit, episode } = await this.find(tx, id);
      await audit(tx, me, { action: 'read', subject: 'visit', personId: episode.personId });
      return this.view(tx, visit.episodeId, id);
    });
  }

  /**
   * Saves a batch of entries, all or none. Each names the version it was based on; one that is stale is a 409 with what
   * stands now. An entry id that is known already was saved before and counts as saved.
   */
  @Put('visits/:id/entries')
  save(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: EntriesBody,
  ): Promise<{ saved: EntryView[] }> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.check(tx, body.entries);
      const { visit, episode } = await this.find(tx, id, true);
      const amends = visit.signedAt !== null;
      const keys = body.entries.map((e) => e.key);
      const current = new Map((await this.newest(tx, id, keys)).map((e) => [e.key, e]));
      refuseTwice(body.entries);
      const known = await this.knownEntries(tx, id, body.entries);
      const fresh = body.entries.filter((e) => !known.has(e.id.toLowerCase()));
      if (fresh.length > 0 && amends) this.mayAmend(me, body.reason);
      const stale = fresh.filter((e) => (current.get(e.key)?.version ?? 0) !== e.baseVersion);
      if (stale.length > 0) {
        throw conflict(
          say('Someone else changed this since you opened it. What you typed is kept.'),
          stale.map((e) => current.get(e.key) ?? { key: e.key, version: 0, value: null }),
        );
      }
      if (fresh.length > 0)
        await tx.query(
          `INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at, reason)
           SELECT e.id, $5, $6, e.key, e.version, e.value::jsonb, $7, $8, $9
             FROM unnest($1::uuid[], $2::text[], $3::int[], $4::text[]) WITH ORDINALITY
               AS e (id, key, version, value, place) ORDER BY e.place`,
          [
            fresh.map((e) => e.id),
            fresh.map((e) => e.key),
            fresh.map((e) => e.baseVersion + 1),
            fresh.map((e) => (e.value === null ? null : JSON.stringify(e.value))),
            me.clinicId,
            id,
            me.userId,
            this.clock.now(),
            amends ? (body.reason ?? null) : null,
          ],
        );
      await this.followSide(tx, episode, fresh);
      if (fresh.length > 0)
        await audit(tx, me, {
          action: amends ? 'amend' : 'change',
          subject: 'visit',
          personId: episode.personId,
        });
      else await audit(tx, me, { action: 'read', subject: 'visit', personId: episode.personId });
      return { saved: await this.newest(tx, id, keys) };
    });
  }

  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('visits/:id/sign')
  sign(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<VisitView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { visit, episode } = await this.find(tx, id, true);
      if (visit.signedAt === null) {
        const { view } = await this.reader.read(tx, visit.episodeId);
        const missing = view.safety?.unanswered.length ?? this.content.bundle.safetyQuestions.length;
        if (missing > 0)
          throw refusedNow(
            say('{{words}} missing; a visit is signed once that is answered', {
              words:
                missing === 1
                  ? say('A safety answer is')
                  : say('{{missing}} safety answers are', { missing }),
            }),
          );
        const { entries } = await this.view(tx, visit.episodeId, id);
        const unsaid = view.safety === null ? [] : unexplainedTests(view.safety, entriesOf(entries));
        if (unsaid.length > 0)
          throw refusedNow(
            say('{{words}} left out without saying why; a visit is signed once that is said', {
              words: unsaid.length === 1 ? say('A test was') : say('{{n}} tests were', { n: unsaid.length }),
            }),
          );
        await tx.update(Visit, { id }, { signedAt: this.clock.now(), signedBy: me.userId });
        await audit(tx, me, { action: 'sign', subject: 'visit', personId: episode.personId });
      }
      return this.view(tx, visit.episodeId, id);
    });
  }

  /**
   * Says that someone is at a step of a visit, and returns who else is and what was saved since, the same person's other
   * pages included. Asked every few seconds by an open bench, so that the second person knows while the first is still writing.
   */
  @HttpCode(200)
  @Post('visits/:id/presence')
  presence(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: PresenceBody,
  ): Promise<PresenceView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { visit, episode } = await this.find(tx, id);
      const now = this.clock.now();
      await tx.query(
        `INSERT INTO visit_presence (visit_id, user_id, clinic_id, step, at) VALUES ($1, $2, $3, $4, $5)
           ON CONFLICT (visit_id, user_id) DO UPDATE SET step = excluded.step, at = excluded.at`,
        [id, me.userId, me.clinicId, body.step, now],
      );
      const others = await tx.query<{ name: string; step: string }[]>(
        `SELECT u.name, p.step FROM visit_presence p JOIN app_user u ON u.id = p.user_id
          WHERE p.visit_id = $1 AND p.user_id <> $2 AND p.at > $3 ORDER BY u.name`,
        [id, me.userId, new Date(now.getTime() - PRESENT_MS)],
      );
      const [row] = await tx.query<{ newest: number }[]>(
        'SELECT coalesce(max(seq), 0)::int AS newest FROM visit_entry WHERE visit_id = $1',
        [id],
      );
      const newest = row?.newest ?? 0;
      const changed = await tx.query<{ key: string }[]>(
        'SELECT DISTINCT key FROM visit_entry WHERE visit_id = $1 AND seq > $2',
        [id, body.since],
      );
      const entries = await this.newest(
        tx,
        id,
        changed.map((c) => c.key),
      );
      if (entries.length > 0)
        await audit(tx, me, { action: 'read', subject: 'visit', personId: episode.personId });
      return { others, entries, newest, signed: visit.signedAt !== null };
    });
  }

  /** The newest version of some entries of a visit. */
  private async newest(tx: Tx, visitId: string, keys: readonly string[]): Promise<EntryView[]> {
    const rows = await tx.query<(Omit<EntryView, 'at'> & { at: Date })[]>(
      `SELECT DISTINCT ON (e.key) e.key, e.version, e.value, e.at, u.name AS author
         FROM visit_entry e JOIN app_user u ON u.id = e.author_id
        WHERE e.visit_id = $1 AND e.key = ANY($2) ORDER BY e.key, e.version DESC`,
      [visitId, keys],
    );
    return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
  }

  /** A signed visit is amended by a clinician with a reason, and never changed without. */
  private mayAmend(me: SignedIn, reason: string | undefined): void {
    if (reason === undefined)
      throw new ProblemError(409, say('This visit is signed'), {
        detail: say('Amend it with a reason, or open a new visit'),
      });
    if (me.role === 'assistant')
      throw new ProblemError(403, say('Only clinicians and leads amend a signed visit'));
  }

  private async find(tx: Tx, id: string, forChange = false): Promise<{ visit: Visit; episode: EpisodeRow }> {
    const visit = await tx.findOne(Visit, {
      where: { id },
      ...(forChange ? { lock: { mode: 'pessimistic_write' as const } } : {}),
    });
    if (visit === null) throw notFound();
    return { visit, episode: await tx.findOneByOrFail(EpisodeRow, { id: visit.episodeId }) };
  }

  private async view(tx: Tx, episodeId: string, id: string): Promise<VisitView> {
    const visits = await this.reader.visits(tx, episodeId);
    const found = visits.find((v) => v.id === id);
    if (found === undefined) throw notFound();
    return found;
  }

  /** Ids of entries saved before. One that stands for anything else than it does here is a 409, wherever it stands. */
  private async knownEntries(tx: Tx, visitId: string, entries: readonly EntryBody[]): Promise<Set<string>> {
    const rows = await tx.query<
      { id: string; visit_id: string; key: string; version: number; value: unknown }[]
    >('SELECT id, visit_id, key, version, value FROM visit_entry WHERE id = ANY($1)', [
      entries.map((e) => e.id),
    ]);
    const other = entries.filter((e) =>
      rows.some(
        (r) =>
          r.id === e.id.toLowerCase() &&
          !(
            r.visit_id === visitId &&
            r.key === e.key &&
            r.version === e.baseVersion + 1 &&
            isDeepStrictEqual(r.value ?? null, JSON.parse(JSON.stringify(e.value ?? null)))
          ),
      ),
    );
    if (other.length > 0)
      throw new ProblemError(409, say('This id has something else already'), {
        detail: say('Nothing was kept'),
        errors: other.map((e) => ({
          pointer: `/entries/${entries.indexOf(e)}/id`,
          detail: say('stands for another entry'),
        })),
      });
    return new Set(rows.map((r) => r.id));
  }

  /** Each value has the shape of its kind, and names what the library, the clinic's own measures among it, has. */
  private async check(tx: Tx, entries: readonly EntryBody[]): Promise<void> {
    const named = { ...this.content.bundle, measures: await this.content.measuresFor(tx) };
    const errors = entries.flatMap((e, i): FieldError[] => {
      const problem = entryProblem(e.key, e.value) ?? contentProblem(named, e.key, e.value);
      return problem === null
        ? []
        : [{ pointer: `/entries/${i}/value`, detail: say('must be {{problem}}', { problem }) }];
    });
    if (errors.length > 0) throw badRequest(errors);
  }

  /** The story's side is the episode's side. */
  private async followSide(tx: Tx, episode: EpisodeRow, entries: readonly EntryBody[]): Promise<void> {
    const side = entries.find((e) => e.key === 'story.side')?.value;
    if (side === undefined || side === null || side === episode.affected) return;
    await tx.update(
      EpisodeRow,
      { id: episode.id },
      { affected: side as EpisodeRow['affected'], version: episode.version + 1 },
    );
  }
}

/** One id, and one key, once in what is sent together. */
function refuseTwice(entries: readonly EntryBody[]): void {
  const errors = entries.flatMap((e, i): FieldError[] => {
    const before = entries.slice(0, i);
    if (before.some((b) => b.id.toLowerCase() === e.id.toLowerCase()))
      return [{ pointer: `/entries/${i}/id`, detail: say('is there twice') }];
    return before.some((b) => b.key === e.key)
      ? [{ pointer: `/entries/${i}/key`, detail: say('is there twice') }]
      : [];
  });
  if (errors.length > 0) throw badRequest(errors);
}
