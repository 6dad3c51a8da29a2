import { Injectable } from '@nestjs/common';
import { readKey } from '@heathstep/contracts';
import { Content } from '../../content/content.controller.js';
import { notFound } from '../../http/problem.js';
import type { Tx } from '../../persistence/db.js';
import { Clinic, EpisodeRow } from '../../persistence/entities.js';
import { type PersonRows, readRows, type Row } from '../tables.js';
import type { Author, OwnContent, Sources } from './sources.js';

const AUTHOR_COLUMNS = [
  'author_id',
  'signed_by',
  'sent_by',
  'created_by',
  'given_by',
  'ended_by',
  'answered_by',
] as const;

/** Everyone of the clinic who is named in some rows. */
const authorIds = (rows: readonly Row[]): string[] => [
  ...new Set(
    rows.flatMap((r) => AUTHOR_COLUMNS.map((c) => r[c]).filter((id): id is string => typeof id === 'string')),
  ),
];

const exercisesIn = ({ plan, taught_exercise: taught }: PersonRows): string[] => [
  ...plan.flatMap((p) => ((p['items'] ?? []) as { exercise: string }[]).map((i) => i.exercise)),
  ...taught.map((t) => String(t['exercise'])),
];

const measuresIn = ({ visit_entry: entries }: PersonRows): string[] =>
  entries.flatMap((e) => {
    const key = readKey(String(e['key']));
    return key?.kind === 'measure' ? [key.name] : [];
  });

/** Gathers all that the record of a person is written from. */
@Injectable()
export class Gathering {
  constructor(private readonly content: Content) {}

  async of(tx: Tx, clinicId: string, personId: string): Promise<Sources> {
    const rows = await readRows(tx, personId);
    if (rows.person.length === 0) throw notFound();
    const own = await this.ownContent(tx, rows);
    const ids = authorIds([
      ...Object.values(rows as Record<string, readonly Row[]>).flat(),
      ...Object.values(own as unknown as Record<string, readonly Row[]>).flat(),
    ]);
    const authors = await tx.query<Author[]>(
      'SELECT id, name, registration FROM app_user WHERE id = ANY($1) ORDER BY id',
      [ids],
    );
    const clinic = await tx.findOneByOrFail(Clinic, { id: clinicId });
    const protocols = await this.content.protocolsFor(tx);
    const episodes = new Map(
      (await tx.findBy(EpisodeRow, { personId })).map((e) => [e.id, protocols.on(e)] as const),
    );
    return {
      rows,
      authors,
      ownContent: own,
      clinic,
      bundle: this.content.bundle,
      measures: await this.content.measuresFor(tx),
      library: await this.content.libraryFor(tx),
      protocolOf: (episode) => {
        const found = episodes.get(episode.id);
        if (found === undefined) throw notFound();
        return found;
      },
    };
  }

  private async ownContent(tx: Tx, rows: PersonRows): Promise<OwnContent> {
    const read = async (table: string, condition: string, parameter: unknown): Promise<Row[]> => {
      const found = await tx.query<{ row: Row }[]>(
        `SELECT to_jsonb(t) - 'clinic_id' AS row FROM ${table} t WHERE ${condition} ORDER BY key, version`,
        [parameter],
      );
      return found.map((f) => f.row);
    };
    return {
      clinic_exercise: await read('clinic_exercise', 'key = ANY($1)', exercisesIn(rows)),
      clinic_measure: await read('clinic_measure', 'key = ANY($1)', measuresIn(rows)),
      protocol_version: await read(
        'protocol_version',
        `key || ' ' || version = ANY($1)`,
        rows.episode.map((e) => `${String(e['protocol'])} ${String(e['protocol_version'])}`),
      ),
    };
  }
}
