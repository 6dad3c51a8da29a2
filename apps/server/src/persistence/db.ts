import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { AuditAction } from '@heathstep/contracts';
import { DataSource, type EntityManager, IsNull } from 'typeorm';
import { timeNow } from '../clock.js';
import { Audit } from './entities.js';

/** A transaction bound to one clinic by row-level security. */
export type Tx = EntityManager;

/** Who acts: a signed-in member of the clinic, a patient through a home link, or a program by a key that a member made. */
export interface Actor {
  readonly clinicId: string;
  readonly userId: string | null;
  readonly kind: 'user' | 'home' | 'program';
}

@Injectable()
export class Db {
  constructor(private readonly source: DataSource) {}

  /** Runs work in a transaction that sees and writes this clinic's rows only. */
  inClinic<T>(clinicId: string, work: (tx: Tx) => Promise<T>): Promise<T> {
    return this.source.transaction(async (tx) => {
      await tx.query(`SELECT enter_clinic($1)`, [clinicId]);
      return work(tx);
    });
  }

  /** One of the look-ups allowed before a clinic is known. */
  async lookUp<Row>(sql: string, parameters: readonly unknown[]): Promise<Row | null> {
    const rows = await this.source.query<Row[]>(sql, [...parameters]);
    return rows[0] ?? null;
  }

  async ping(): Promise<boolean> {
    try {
      await this.source.query('SELECT 1');
      return true;
    } catch {
      return false;
    }
  }
}

/** Records that someone read or changed a person's record; nothing of its content. */
export async function audit(
  tx: Tx,
  actor: Actor,
  {
    action,
    subject,
    personId,
    shown = null,
  }: { action: AuditAction; subject: string; personId: string | null; shown?: readonly string[] | null },
): Promise<void> {
  await tx.insert(Audit, {
    id: randomUUID(),
    clinicId: actor.clinicId,
    at: timeNow(),
    actor: actor.kind,
    userId: actor.userId,
    personId,
    action,
    subject,
    shown,
  });
}

/** How long a list that shows the same people again to the same person is not told anew. [convention] */
const TOLD_FOR_MS = 10 * 60_000;

/** Records whom a list showed; the same list asked again within minutes, as an open page does, is one look. */
export async function auditList(
  tx: Tx,
  actor: Actor,
  { action, subject, shown }: { action: AuditAction; subject: string; shown: readonly string[] },
): Promise<void> {
  const [last] = await tx.find(Audit, {
    where: { userId: actor.userId ?? IsNull(), action, subject },
    order: { at: 'DESC' },
    take: 1,
  });
  const same = last !== undefined && JSON.stringify(last.shown) === JSON.stringify(shown);
  if (same && timeNow().getTime() - last.at.getTime() < TOLD_FOR_MS) return;
  await audit(tx, actor, { action, subject, personId: null, shown });
}

/** Lets one of a clinic at a time through, to the end of its transaction: a name looked for stays free until it is taken. */
export const oneAtATime = (tx: Tx, { clinicId }: Actor, what: string): Promise<unknown> =>
  tx.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [`${clinicId} ${what}`]);
