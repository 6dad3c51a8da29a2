import { Controller, Get, Header, Query, Res } from '@nestjs/common';
import {
  AUDIT_KINDS,
  type AuditLine,
  AuditQuery,
  type AuditSealsView,
  type AuditView,
} from '@heathstep/contracts';
import { stringify } from 'csv-stringify/sync';
import type { Response } from 'express';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { checkAudit } from './chain.js';

const LINES_AT_ONCE = 100;
const CSV_AT_ONCE = 2_000;

interface Row {
  readonly seq: string;
  readonly at: Date;
  readonly actor: string;
  readonly user_id: string | null;
  readonly user_name: string | null;
  readonly person_id: string | null;
  readonly person_name: string | null;
  readonly action: string;
  readonly subject: string;
  readonly shown: number | null;
}

const lineOf = (r: Row): AuditLine => ({
  seq: r.seq,
  at: r.at.toISOString(),
  who: r.user_id === null ? null : { id: r.user_id, name: r.user_name ?? '' },
  byProgram: r.actor === 'program',
  person: r.person_id === null ? null : { id: r.person_id, name: r.person_name ?? '' },
  action: r.action,
  subject: r.subject,
  shown: r.shown,
});

/** Lines from the newest on; those of one person also are the lists that showed them. */
const linesOf = (tx: Tx, asked: AuditQuery, most: number): Promise<Row[]> =>
  tx.query<Row[]>(
    `SELECT a.seq, a.at, a.actor, a.user_id, u.name AS user_name, a.person_id, p.name AS person_name, a.action, a.subject,
            jsonb_array_length(a.shown) AS shown
       FROM audit a LEFT JOIN app_user u ON u.id = a.user_id LEFT JOIN person p ON p.id = a.person_id
      WHERE ($1::bigint IS NULL OR a.seq < $1) AND ($2::uuid IS NULL OR a.user_id = $2)
        AND ($3::uuid IS NULL OR a.person_id = $3 OR a.shown ? $3::text
             OR a.person_id IN (SELECT m.gone_id FROM person_merge m WHERE m.person_id = $3 AND m.undone_at IS NULL))
        AND ($4::text[] IS NULL OR (a.action = ANY ($4)) <> $6)
      ORDER BY a.seq DESC LIMIT $5`,
    [
      asked.before ?? null,
      asked.user ?? null,
      asked.person ?? null,
      asked.kind === undefined
        ? null
        : asked.kind === 'changed'
          ? Object.values(AUDIT_KINDS).flat()
          : [...AUDIT_KINDS[asked.kind]],
      most,
      asked.kind === 'changed',
    ],
  );

/** Who saw, changed, printed and exported what; for the leads of a clinic. */
@Controller('api/audit')
@Roles('lead')
export class AuditController {
  constructor(private readonly db: Db) {}

  @Get()
  lines(@Me() me: SignedIn, @Query() asked: AuditQuery): Promise<AuditView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const rows = await linesOf(tx, asked, LINES_AT_ONCE + 1);
      const lines = rows.slice(0, LINES_AT_ONCE).map(lineOf);
      await audit(tx, me, { action: 'read', subject: 'audit', personId: asked.person ?? null });
      return { lines, before: rows.length > LINES_AT_ONCE ? (lines.at(-1)?.seq ?? null) : null };
    });
  }

  /** Reads the whole log anew against its seals. */
  @Get('seals')
  seals(@Me() me: SignedIn): Promise<AuditSealsView> {
    return this.db.inClinic(me.clinicId, (tx) => checkAudit(tx, me.clinicId));
  }

  /** The same lines as a table, all of them, written as they are read. */
  @Get('audit.csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="audit.csv"')
  async csv(@Me() me: SignedIn, @Query() asked: AuditQuery, @Res() response: Response): Promise<void> {
    await this.db.inClinic(me.clinicId, (tx) =>
      audit(tx, me, { action: 'export', subject: 'audit', personId: asked.person ?? null }),
    );
    response.write(stringify([['at', 'by', 'person', 'person_id', 'action', 'subject', 'people_shown']]));
    for (let before = asked.before; ;) {
      const rows = await this.db.inClinic(me.clinicId, (tx) =>
        linesOf(tx, { ...asked, ...(before === undefined ? {} : { before }) }, CSV_AT_ONCE),
      );
      response.write(
        stringify(
          rows.map((r) => [
            r.at.toISOString(),
            r.user_id === null
              ? 'home'
              : r.actor === 'program'
                ? `program (key of ${r.user_name ?? ''})`
                : r.user_name,
            r.person_name,
            r.person_id,
            r.action,
            r.subject,
            r.shown,
          ]),
          { escape_formulas: true },
        ),
      );
      before = rows.at(-1)?.seq;
      if (rows.length < CSV_AT_ONCE) break;
    }
    response.end();
  }
}
