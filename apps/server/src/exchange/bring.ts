import { createHash, randomUUID } from 'node:crypto';
import { say } from '@heathstep/core';
import type { SignedIn } from '../auth/auth.js';
import { conflict, refusedNow } from '../http/problem.js';
import type { Tx } from '../persistence/db.js';
import { AppUser, KeptResource, Person } from '../persistence/entities.js';
import type { ReadBundle } from './fhir/read.js';
import { OWN_CONTENT_TABLES, type OwnContent } from './fhir/sources.js';
import { ELSEWHERE } from '../clinic/elsewhere.js';
import { insertRows, type Row, writeRows } from './tables.js';

const ALL_IDS = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

/** Another id for a clinic that takes a record which another clinic of this installation still has: always the same one. */
export function renamedId(clinicId: string, id: string): string {
  const hex = createHash('sha256').update(`${clinicId} ${id}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-b${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** The same record under ids of its own, wherever it names them. */
export function renamed(read: ReadBundle, clinicId: string): ReadBundle {
  const known = new Set([
    ...Object.values(read.rows).flatMap((rows) => rows.map((r) => r.id)),
    ...read.authors.map((a) => a.id),
  ]);
  const again = <T>(value: T): T =>
    JSON.parse(
      JSON.stringify(value).replace(ALL_IDS, (id) => (known.has(id) ? renamedId(clinicId, id) : id)),
    ) as T;
  return {
    ...read,
    rows: again(read.rows),
    authors: again(read.authors),
    ownContent: again(read.ownContent),
  };
}

/** Those who wrote in the record and are not of this clinic stand in it by their name, as someone who left. */
async function bringAuthors(tx: Tx, me: SignedIn, read: ReadBundle, now: Date): Promise<void> {
  const here = await tx.query<{ id: string }[]>('SELECT id FROM app_user WHERE id = ANY($1)', [
    read.authors.map((a) => a.id),
  ]);
  const known = new Set(here.map((h) => h.id));
  for (const { id, name, registration } of read.authors) {
    if (known.has(id)) continue;
    await tx.insert(AppUser, {
      id,
      clinicId: me.clinicId,
      email: `${id}${ELSEWHERE}`,
      name,
      role: 'assistant',
      passwordHash: null,
      registration,
      leftAt: now,
    });
  }
}

/** What a clinic has made itself is taken as it is; where this one has another of the same name, nothing is. */
async function bringContent(tx: Tx, clinicId: string, content: OwnContent): Promise<void> {
  for (const table of OWN_CONTENT_TABLES) {
    const body = table === 'clinic_measure' ? 'filled' : 'definition';
    const fresh: Row[] = [];
    for (const row of content[table]) {
      const [here] = await tx.query<{ same: boolean }[]>(
        `SELECT ${body} = $3::jsonb AS same FROM ${table} WHERE key = $1 AND version = $2`,
        [row['key'], row['version'], JSON.stringify(row[body])],
      );
      if (here === undefined) fresh.push(row);
      else if (!here.same)
        throw refusedNow(
          say('This clinic has something else under the name {{key}}', { key: String(row['key']) }),
        );
    }
    await insertRows(tx, clinicId, table, fresh);
  }
}

/** Writes what a bundle brings as a person of the clinic; resolves to their id. */
export async function bring(tx: Tx, me: SignedIn, read: ReadBundle, now: Date): Promise<string> {
  const [person] = read.rows.person;
  const personId = person?.id ?? randomUUID();
  if ((await tx.countBy(Person, { id: personId })) > 0)
    throw conflict(say('This person is here already'), { personId });
  await bringAuthors(tx, me, read, now);
  await bringContent(tx, me.clinicId, read.ownContent);
  if (read.foreign === null) await writeRows(tx, me.clinicId, read.rows);
  else
    await tx.insert(Person, {
      ...read.foreign,
      id: personId,
      clinicId: me.clinicId,
      occupation: '',
      version: 1,
      createdAt: now,
    });
  for (const resource of read.others)
    await tx.insert(KeptResource, {
      id: randomUUID(),
      clinicId: me.clinicId,
      personId,
      type: resource.resourceType,
      resource: resource as object,
      authorId: me.userId,
      at: now,
    });
  return personId;
}
