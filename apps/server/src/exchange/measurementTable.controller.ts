import { Controller, Get, HttpCode, Param, Post, Put, Query, Req } from '@nestjs/common';
import type { Request } from 'express';
import { randomUUID } from 'node:crypto';
import {
  entryProblem,
  type MeasurementImportView,
  MeasurementTableQuery,
  type MeasurementTableView,
} from '@heathstep/contracts';
import {
  guessMeasurementColumns,
  localDay,
  type MeasuredPerson,
  type MeasurementColumns,
  type MeasurementLine,
  momentOf,
  readMeasurements,
  say,
} from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { namesOf } from '../episodes/rows.js';
import { fileName } from '../http/fileName.js';
import { badRequest, notFound, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, oneAtATime, type Tx } from '../persistence/db.js';
import { Clinic, MeasurementImport, Visit } from '../persistence/entities.js';
import { readTable } from './readTable.js';

/** How many lines are shown before a table is taken. */
const LINES_SHOWN = 30;

const columnsOf = ({ order: _order, ...query }: MeasurementTableQuery): MeasurementColumns =>
  Object.fromEntries(
    Object.entries(query as Record<string, string | undefined>).flatMap(([field, at]) =>
      at === undefined ? [] : [[field, Number(at)]],
    ),
  );

type NewLine = Extract<MeasurementLine, { readonly kind: 'new' | 'same' }>;

const isNew = (line: MeasurementLine): line is NewLine => line.kind === 'new';

/** What was measured before the first visit here, from a table: looked at line by line, taken, and taken back whole. */
@Controller('api/exchange/measurements')
@Roles('lead', 'clinician')
export class MeasurementTableController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** Which column is likely what. */
  @HttpCode(200)
  @Post('columns')
  columns(@Req() request: Request): { heads: string[]; columns: MeasurementColumns } {
    const { heads } = readTable(request.body);
    return { heads, columns: guessMeasurementColumns(heads) };
  }

  /** What a table would bring; nothing of it is taken. */
  @HttpCode(200)
  @Post('look')
  look(
    @Me() me: SignedIn,
    @Query() query: MeasurementTableQuery,
    @Req() request: Request,
  ): Promise<MeasurementTableView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { heads, lines } = await this.read(tx, me, query, request.body);
      const counts = { new: 0, same: 0, wrong: 0 };
      for (const { kind } of lines) counts[kind] += 1;
      const wrongFirst = [...lines].sort((a, b) => Number(b.kind === 'wrong') - Number(a.kind === 'wrong'));
      return { heads, counts, lines: wrongFirst.slice(0, LINES_SHOWN) };
    });
  }

  /** Takes what is new, as a signed visit of its day for each complaint. Lines that are wrong are left out. */
  @HttpCode(201)
  @Put(':table')
  take(
    @Me() me: SignedIn,
    @Param('table', IdPipe) id: string,
    @Query() query: MeasurementTableQuery,
    @Req() request: Request,
  ): Promise<MeasurementImportView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'measurements');
      const standing = await tx.findOneBy(MeasurementImport, { id });
      if (standing !== null) return this.viewOf(tx, standing);
      const { lines } = await this.read(tx, me, query, request.body);
      const fresh = lines.filter(isNew);
      if (fresh.length === 0) throw refusedNow(say('There is nothing new to take'));
      const made = {
        id,
        clinicId: me.clinicId,
        file: fileName(request),
        lines: fresh.length,
        authorId: me.userId,
        at: this.clock.now(),
        undoneAt: null,
      };
      await tx.insert(MeasurementImport, made);
      const people = await this.writeVisits(tx, me, id, fresh);
      await audit(tx, me, { action: 'import', subject: 'measurements', personId: null, shown: people });
      return this.viewOf(tx, made);
    });
  }

  /** Tables that were taken, the newest first. */
  @Get('imports')
  imports(@Me() me: SignedIn): Promise<MeasurementImportView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const made = await tx.find(MeasurementImport, { order: { at: 'DESC' }, take: 20 });
      return Promise.all(made.map((m) => this.viewOf(tx, m)));
    });
  }

  /** Takes all of a table out again, where nothing of it was amended or pictured since. */
  @HttpCode(200)
  @Post('imports/:id/undo')
  undo(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<MeasurementImportView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const made = await tx.findOneBy(MeasurementImport, { id });
      if (made === null) throw notFound();
      if (made.undoneAt !== null) return this.viewOf(tx, made);
      const [used] = await tx.query<{ name: string }[]>(
        `SELECT p.name FROM visit v JOIN episode e ON e.id = v.episode_id JOIN person p ON p.id = e.person_id
          WHERE v.import_id = $1 AND (EXISTS (SELECT 1 FROM visit_entry n WHERE n.visit_id = v.id AND n.version > 1)
            OR EXISTS (SELECT 1 FROM photo f WHERE f.visit_id = v.id)
            OR EXISTS (SELECT 1 FROM closure c WHERE c.visit_id = v.id)) LIMIT 1`,
        [id],
      );
      if (used !== undefined)
        throw refusedNow(
          say('Something of it was changed since, of {{name}}: the table stays', { name: used.name }),
        );
      const people = await peopleOf(tx, id);
      await tx.query('SELECT take_measurements_back($1)', [id]);
      await tx.update(MeasurementImport, { id }, { undoneAt: this.clock.now() });
      await audit(tx, me, { action: 'take-back', subject: 'measurements', personId: null, shown: people });
      return this.viewOf(tx, { ...made, undoneAt: this.clock.now() });
    });
  }

  /** A visit for each complaint and day, signed when all of it stands. Resolves to whose they are. */
  private async writeVisits(
    tx: Tx,
    me: SignedIn,
    importId: string,
    lines: readonly NewLine[],
  ): Promise<string[]> {
    const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
    const now = this.clock.now();
    const byVisit = new Map<string, NewLine[]>();
    for (const line of lines) {
      const key = `${line.episodeId} ${line.day}`;
      byVisit.set(key, [...(byVisit.get(key) ?? []), line]);
    }
    for (const own of byVisit.values()) {
      const [first] = own;
      if (first === undefined) continue;
      const visitId = randomUUID();
      await tx.insert(Visit, {
        id: visitId,
        clinicId: me.clinicId,
        episodeId: first.episodeId,
        kind: 'review',
        startedAt: momentOf(`${first.day}T12:00:00`, timeZone),
        signedAt: null,
        signedBy: null,
        importId,
      });
      const entries = own.map((l) => ({
        id: randomUUID(),
        key: `measure.${l.measure}.${l.side}`,
        value: { trials: l.trials, status: 'taken', pain: null },
      }));
      for (const [i, { key, value }] of entries.entries()) {
        const wants = entryProblem(key, value);
        if (wants !== null)
          throw badRequest([
            { pointer: '/file', detail: say('Line {{line}} cannot be taken', { line: own[i]?.line ?? 0 }) },
          ]);
      }
      await tx.query(
        `INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at)
         SELECT e.id, $1, $2, e.key, 1, e.value, $3, $4 FROM jsonb_to_recordset($5::jsonb) AS e (id uuid, key text, value jsonb)`,
        [me.clinicId, visitId, me.userId, now, JSON.stringify(entries)],
      );
      await tx.update(Visit, { id: visitId }, { signedAt: now, signedBy: me.userId });
    }
    return peopleOf(tx, importId);
  }

  private async read(
    tx: Tx,
    me: SignedIn,
    query: MeasurementTableQuery,
    body: unknown,
  ): Promise<{ heads: readonly string[]; lines: readonly MeasurementLine[] }> {
    const { heads, rows } = readTable(body);
    const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
    const lines = readMeasurements(rows, columnsOf(query), {
      order: query.order,
      today: localDay(this.clock.now(), timeZone),
      people: await this.people(tx, timeZone),
      measures: await this.content.measuresFor(tx),
    });
    return { heads, lines };
  }

  /** Everyone with what they are seen for, and what tables brought of it already. */
  private async people(tx: Tx, timeZone: string): Promise<MeasuredPerson[]> {
    const names = new Map(this.content.bundle.pathways.map((p) => [p.key, p.name]));
    const rows = await tx.query<
      {
        id: string;
        name: string;
        birthDate: string | null;
        complaints: {
          id: string;
          condition: string;
          open: boolean;
          firstVisit: string | null;
          have: string[];
        }[];
      }[]
    >(
      `SELECT p.id, p.name, to_char(p.birth_date, 'YYYY-MM-DD') AS "birthDate", coalesce((
         SELECT jsonb_agg(jsonb_build_object('id', e.id, 'condition', e.condition, 'open', e.status = 'open',
           'firstVisit', (SELECT to_char(min(v.started_at AT TIME ZONE $1), 'YYYY-MM-DD') FROM visit v
                           WHERE v.episode_id = e.id AND v.import_id IS NULL),
           'have', coalesce((SELECT jsonb_agg(n.key || ' ' || to_char(v.started_at AT TIME ZONE $1, 'YYYY-MM-DD'))
                     FROM visit v JOIN visit_entry n ON n.visit_id = v.id
                    WHERE v.episode_id = e.id AND v.import_id IS NOT NULL), '[]')) ORDER BY e.started_at)
           FROM episode e WHERE e.person_id = p.id), '[]') AS complaints
         FROM person p`,
      [timeZone],
    );
    return rows.map((p) => ({
      ...p,
      complaints: p.complaints.map((c) => ({
        ...c,
        name: say(names.get(c.condition) ?? c.condition),
        have: new Set(c.have.map((h) => h.replace(/^measure\.(.+)\.(left|right|none) /, '$1 $2 '))),
      })),
    }));
  }

  private async viewOf(tx: Tx, made: MeasurementImport): Promise<MeasurementImportView> {
    return {
      id: made.id,
      at: made.at.toISOString(),
      by: (await namesOf(tx)).get(made.authorId) ?? '',
      file: made.file,
      lines: made.lines,
      undoneAt: made.undoneAt?.toISOString() ?? null,
    };
  }
}

const peopleOf = async (tx: Tx, importId: string): Promise<string[]> =>
  (
    await tx.query<{ id: string }[]>(
      `SELECT DISTINCT e.person_id AS id FROM visit v JOIN episode e ON e.id = v.episode_id WHERE v.import_id = $1`,
      [importId],
    )
  ).map((r) => r.id);
