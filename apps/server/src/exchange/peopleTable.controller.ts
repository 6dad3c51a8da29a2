import { Controller, Get, Header, HttpCode, Param, Post, Put, Query, Req } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { Request } from 'express';
import { randomUUID } from 'node:crypto';
import { type PeopleImportView, PeopleTableQuery, type PeopleTableView } from '@heathstep/contracts';
import { guessColumns, localDay, type PersonColumns, readPeople, say, type TableLine } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { namesOf } from '../episodes/rows.js';
import { fileName } from '../http/fileName.js';
import { notFound, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { Clinic, PeopleImport, Person } from '../persistence/entities.js';
import { readTable } from './readTable.js';

/** How many lines are shown before a table is taken. */
const LINES_SHOWN = 30;

const columnsOf = ({ name, family, birthDate, occupation, sex }: PeopleTableQuery): PersonColumns =>
  Object.fromEntries(
    Object.entries({ name, family, birthDate, occupation, sex }).flatMap(([field, at]) =>
      at === undefined ? [] : [[field, Number(at)]],
    ),
  );

/** People of a table into the clinic, and out of it as one. */
@Controller('api/exchange/people')
export class PeopleTableController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  /** Which column is likely what. */
  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('columns')
  columns(@Req() request: Request): { heads: string[]; columns: PersonColumns } {
    const { heads } = readTable(request.body);
    return { heads, columns: guessColumns(heads) };
  }

  /** What a table would bring; nothing of it is taken. */
  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('look')
  look(
    @Me() me: SignedIn,
    @Query() query: PeopleTableQuery,
    @Req() request: Request,
  ): Promise<PeopleTableView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { heads, lines } = await this.read(tx, me, query, request.body);
      const counts = { new: 0, same: 0, alike: 0, wrong: 0 };
      for (const { kind } of lines) counts[kind] += 1;
      const wrongFirst = [
        ...lines.filter((l) => l.kind === 'wrong'),
        ...lines.filter((l) => l.kind !== 'wrong'),
      ];
      return { heads, counts, lines: wrongFirst.slice(0, LINES_SHOWN) };
    });
  }

  /** Takes who is new. Lines that are wrong and people who are here already are left out. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Put(':table')
  take(
    @Me() me: SignedIn,
    @Param('table', IdPipe) id: string,
    @Query() query: PeopleTableQuery,
    @Req() request: Request,
  ): Promise<PeopleImportView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      // A repeat returns what the first one made.
      const before = await tx.findOneBy(PeopleImport, { id });
      if (before !== null) return this.viewOf(tx, before);
      const { lines } = await this.read(tx, me, query, request.body);
      const people = lines.flatMap((l) =>
        l.kind === 'new' || (l.kind === 'alike' && query.alike === 'take')
          ? [
              {
                ...l.person,
                id: randomUUID(),
                clinicId: me.clinicId,
                language: null,
                version: 1,
                createdAt: this.clock.now(),
              },
            ]
          : [],
      );
      if (people.length === 0) throw refusedNow(say('There is nobody to take'));
      for (let i = 0; i < people.length; i += 500) await tx.insert(Person, people.slice(i, i + 500));
      const made = {
        id,
        clinicId: me.clinicId,
        file: fileName(request),
        people: people.map((p) => p.id),
        authorId: me.userId,
        at: this.clock.now(),
        undoneAt: null,
      };
      await tx.insert(PeopleImport, made);
      await audit(tx, me, { action: 'import', subject: 'people', personId: null, shown: made.people });
      return this.viewOf(tx, made);
    });
  }

  /** Tables that were taken, the newest first. */
  @Roles('lead', 'clinician')
  @Get('imports')
  imports(@Me() me: SignedIn): Promise<PeopleImportView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const made = await tx.find(PeopleImport, { order: { at: 'DESC' }, take: 20 });
      return Promise.all(made.map((m) => this.viewOf(tx, m)));
    });
  }

  /** Takes everyone of a table out again, where nothing has been recorded of any of them since. */
  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('imports/:id/undo')
  undo(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<PeopleImportView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const made = await tx.findOneBy(PeopleImport, { id });
      if (made === null) throw notFound();
      if (made.undoneAt !== null) return this.viewOf(tx, made);
      const used = await tx.query<{ name: string }[]>(
        `SELECT p.name FROM person p WHERE p.id = ANY($1) AND (p.version > 1
            OR EXISTS (SELECT 1 FROM episode e WHERE e.person_id = p.id)
            OR EXISTS (SELECT 1 FROM appointment a WHERE a.person_id = p.id)
            OR EXISTS (SELECT 1 FROM kept_resource k WHERE k.person_id = p.id)) ORDER BY p.name`,
        [made.people],
      );
      const [first] = used;
      if (first !== undefined)
        throw refusedNow(
          say('Something was recorded since of {{name}} and in all of {{n}} of them: the table stays', {
            name: first.name,
            n: used.length,
          }),
        );
      await tx.query('SELECT erase_person(p.id) FROM person p WHERE p.id = ANY($1)', [made.people]);
      await tx.update(PeopleImport, { id }, { undoneAt: this.clock.now() });
      await audit(tx, me, { action: 'take-back', subject: 'people', personId: null, shown: made.people });
      return this.viewOf(tx, { ...made, undoneAt: this.clock.now() });
    });
  }

  /** Everyone of the clinic as a table, in the columns in which one is taken. */
  @Roles('lead', 'clinician')
  @Get('people.csv')
  @Header('content-type', 'text/csv; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="people.csv"')
  @Header('cache-control', 'no-store')
  csv(@Me() me: SignedIn): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const people = await tx.find(Person, { order: { name: 'ASC', id: 'ASC' } });
      await audit(tx, me, {
        action: 'export',
        subject: 'people',
        personId: null,
        shown: people.map((p) => p.id),
      });
      return stringify(
        [
          ['name', 'date of birth', 'sex', 'occupation'],
          ...people.map((p) => [p.name, p.birthDate, p.sex, p.occupation]),
        ],
        { escape_formulas: true },
      );
    });
  }

  private async read(
    tx: Tx,
    me: SignedIn,
    query: PeopleTableQuery,
    body: unknown,
  ): Promise<{ heads: readonly string[]; lines: readonly TableLine[] }> {
    const { heads, rows } = readTable(body);
    const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
    const known = await tx.find(Person, { select: { name: true, birthDate: true } });
    const today = localDay(this.clock.now(), timeZone);
    return { heads, lines: readPeople(rows, columnsOf(query), { order: query.order, today, known }) };
  }

  private async viewOf(tx: Tx, made: PeopleImport): Promise<PeopleImportView> {
    return {
      id: made.id,
      at: made.at.toISOString(),
      by: (await namesOf(tx)).get(made.authorId) ?? '',
      file: made.file,
      people: made.people.length,
      undoneAt: made.undoneAt?.toISOString() ?? null,
    };
  }
}
