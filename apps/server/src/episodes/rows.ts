import type {
  AmendmentView,
  ConsentKind,
  EntryView,
  HomeEntryView,
  TaughtView,
  VisitView,
} from '@heathstep/contracts';
import type { EpisodeRecord } from './record.js';
import type { Tx } from '../persistence/db.js';
import {
  Clinic,
  type EpisodeRow,
  type HomeLink,
  Person,
  PlanRow,
  StageSpanRow,
} from '../persistence/entities.js';

/** A closure as it is stored, with its author's name. */
export interface ClosureText {
  readonly subject: string;
  readonly side: 'left' | 'right' | 'none';
  readonly kind: 'closed' | 'overridden';
  readonly text: string;
  /** How it was assessed. */
  readonly done: string | null;
  readonly visitId: string | null;
  readonly at: Date;
  readonly author: string;
}

/** Everything stored about some episodes, read in a fixed number of queries however many there are. */
export interface EpisodeRows {
  readonly clinic: Clinic;
  readonly names: ReadonlyMap<string, string>;
  readonly people: ReadonlyMap<string, Person>;
  readonly visits: ReadonlyMap<string, readonly VisitView[]>;
  readonly plans: ReadonlyMap<string, readonly PlanRow[]>;
  readonly home: ReadonlyMap<string, readonly HomeEntryView[]>;
  readonly spans: ReadonlyMap<string, readonly StageSpanRow[]>;
  readonly closures: ReadonlyMap<string, readonly ClosureText[]>;
  readonly taught: ReadonlyMap<string, readonly TaughtView[]>;
  /** Recorded runs and walks of each person. */
  readonly recorded: ReadonlyMap<string, EpisodeRecord['recorded']>;
  /** What each person said no to and has not said yes to since. */
  readonly refuses: ReadonlyMap<string, readonly ConsentKind[]>;
  /** The newest home link of each person. */
  readonly links: ReadonlyMap<string, Pick<HomeLink, 'createdAt' | 'expiresAt' | 'lockedAt' | 'revokedAt'>>;
}

function groupedBy<T>(rows: readonly T[], keyOf: (row: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group === undefined) groups.set(keyOf(row), [row]);
    else group.push(row);
  }
  return groups;
}

type OfEpisode<T> = T & { readonly episode_id: string };

const without = <T>({ episode_id: _episode, ...rest }: OfEpisode<T>): Omit<OfEpisode<T>, 'episode_id'> =>
  rest;

export async function namesOf(tx: Tx): Promise<Map<string, string>> {
  const users = await tx.query<{ id: string; name: string }[]>('SELECT id, name FROM app_user');
  return new Map(users.map((u) => [u.id, u.name]));
}

interface VisitRow {
  readonly id: string;
  readonly episode_id: string;
  readonly kind: 'first' | 'review';
  readonly started_at: Date;
  readonly signed_at: Date | null;
  readonly signed_by: string | null;
  readonly import_id: string | null;
  /** Of who signed. */
  readonly registration: string | null;
}

type OfVisit<T> = Omit<T, 'at'> & { readonly visit_id: string; readonly at: Date };

/** Visits of some episodes, oldest first, with the newest version of each entry and every amendment. */
export async function visitsOf(
  tx: Tx,
  ids: readonly string[],
  names: ReadonlyMap<string, string>,
): Promise<Map<string, VisitView[]>> {
  const visits = await tx.query<VisitRow[]>(
    `SELECT v.id, v.episode_id, v.kind, v.started_at, v.signed_at, v.signed_by, v.import_id, u.registration
       FROM visit v LEFT JOIN app_user u ON u.id = v.signed_by
      WHERE v.episode_id = ANY($1) ORDER BY v.started_at`,
    [ids],
  );
  const entries = await tx.query<OfVisit<EntryView>[]>(
    `SELECT DISTINCT ON (e.visit_id, e.key) e.visit_id, e.key, e.version, e.value, e.at, u.name AS author
       FROM visit_entry e JOIN visit v ON v.id = e.visit_id JOIN app_user u ON u.id = e.author_id
      WHERE v.episode_id = ANY($1) ORDER BY e.visit_id, e.key, e.version DESC`,
    [ids],
  );
  const amended = await tx.query<OfVisit<AmendmentView>[]>(
    `SELECT e.visit_id, e.key, e.value, b.value AS before, e.reason, e.at, u.name AS author
       FROM visit_entry e JOIN visit v ON v.id = e.visit_id JOIN app_user u ON u.id = e.author_id
       LEFT JOIN visit_entry b ON b.visit_id = e.visit_id AND b.key = e.key AND b.version = e.version - 1
      WHERE v.episode_id = ANY($1) AND e.reason IS NOT NULL ORDER BY e.seq`,
    [ids],
  );
  const entriesAt = groupedBy(entries, (e) => e.visit_id);
  const amendedAt = groupedBy(amended, (a) => a.visit_id);
  const plain = <T>({ visit_id: _visit, at, ...rest }: OfVisit<T>) => ({ ...rest, at: at.toISOString() });
  return new Map(
    [...groupedBy(visits, (v) => v.episode_id)].map(([episodeId, own]) => [
      episodeId,
      own.map((v, i) => ({
        id: v.id,
        episodeId,
        kind: v.kind,
        number: own.slice(0, i + 1).filter((o) => o.import_id === null).length,
        startedAt: v.started_at.toISOString(),
        imported: v.import_id !== null,
        signedAt: v.signed_at?.toISOString() ?? null,
        signedBy: v.signed_by === null ? null : (names.get(v.signed_by) ?? null),
        registration: v.registration,
        entries: (entriesAt.get(v.id) ?? []).map((e) => plain<EntryView>(e) as EntryView),
        amendments: (amendedAt.get(v.id) ?? []).map((a) => plain<AmendmentView>(a) as AmendmentView),
      })),
    ]),
  );
}

/** The newest version of each home entry of some episodes, by day; of one entry alone where it is named. */
export async function homeOf(
  tx: Tx,
  ids: readonly string[],
  only?: string,
): Promise<Map<string, HomeEntryView[]>> {
  const rows = await tx.query<(OfEpisode<Omit<HomeEntryView, 'at'>> & { at: Date })[]>(
    `SELECT DISTINCT ON (id) id, version, kind, to_char(day, 'YYYY-MM-DD') AS day, plan_id AS "planId", payload, at,
            episode_id FROM home_entry WHERE episode_id = ANY($1) ${only === undefined ? '' : 'AND id = $2'}
      ORDER BY id, version DESC`,
    only === undefined ? [ids] : [ids, only],
  );
  const listed = rows
    .map((r) => ({ ...r, at: r.at.toISOString() }))
    .sort((a, b) => (a.day === b.day ? (a.at < b.at ? -1 : 1) : a.day < b.day ? -1 : 1));
  return new Map(
    [...groupedBy(listed, (e) => e.episode_id)].map(([id, own]) => [
      id,
      own.map((e) => without(e) as HomeEntryView),
    ]),
  );
}

async function taughtOf(tx: Tx, ids: readonly string[]): Promise<Map<string, TaughtView[]>> {
  const rows = await tx.query<(OfEpisode<Omit<TaughtView, 'at'>> & { at: Date })[]>(
    `SELECT t.episode_id, t.id, t.exercise, t.side, t.reps, t.faults, t.at, u.name AS by
       FROM taught_exercise t JOIN app_user u ON u.id = t.author_id WHERE t.episode_id = ANY($1) ORDER BY t.at`,
    [ids],
  );
  return new Map(
    [...groupedBy(rows, (r) => r.episode_id)].map(([id, own]) => [
      id,
      own.map((r) => without({ ...r, at: r.at.toISOString() }) as unknown as TaughtView),
    ]),
  );
}

const closuresOf = (tx: Tx, ids: readonly string[]): Promise<OfEpisode<ClosureText>[]> =>
  tx.query<OfEpisode<ClosureText>[]>(
    `SELECT c.episode_id, c.subject, c.side, c.kind, c.text, c.done, c.visit_id AS "visitId", c.at, u.name AS author
       FROM closure c JOIN app_user u ON u.id = c.author_id WHERE c.episode_id = ANY($1) ORDER BY c.at DESC`,
    [ids],
  );

type LinkRow = Pick<HomeLink, 'createdAt' | 'expiresAt' | 'lockedAt' | 'revokedAt'> & {
  readonly person_id: string;
};

const linksOf = (tx: Tx, people: readonly string[]): Promise<LinkRow[]> =>
  tx.query<LinkRow[]>(
    `SELECT DISTINCT ON (e.person_id) e.person_id, l.created_at AS "createdAt", l.expires_at AS "expiresAt",
            l.locked_at AS "lockedAt", l.revoked_at AS "revokedAt"
       FROM home_link l JOIN episode e ON e.id = l.episode_id
      WHERE e.person_id = ANY($1) ORDER BY e.person_id, l.created_at DESC`,
    [people],
  );

async function refusesOf(tx: Tx, people: readonly string[]): Promise<Map<string, ConsentKind[]>> {
  const rows = await tx.query<{ personId: string; kind: ConsentKind; given: boolean }[]>(
    `SELECT DISTINCT ON (person_id, kind) person_id AS "personId", kind, given FROM consent
      WHERE person_id = ANY($1) ORDER BY person_id, kind, at DESC, id DESC`,
    [people],
  );
  return new Map(
    [...groupedBy(rows, (r) => r.personId)].map(([id, own]) => [
      id,
      own.filter((r) => !r.given).map((r) => r.kind),
    ]),
  );
}

async function recordedOf(
  tx: Tx,
  people: readonly string[],
): Promise<Map<string, EpisodeRecord['recorded']>> {
  const rows = await tx.query<{ id: string; personId: string; day: string; minutes: number }[]>(
    `SELECT id, person_id AS "personId", to_char(day, 'YYYY-MM-DD') AS day, run_seconds / 60 AS minutes
       FROM outing WHERE person_id = ANY($1) AND removed_at IS NULL ORDER BY started_at`,
    [people],
  );
  return new Map(
    [...groupedBy(rows, (r) => r.personId)].map(([id, own]) => [
      id,
      own.map(({ id: run, day, minutes }) => ({ id: run, day, minutes })),
    ]),
  );
}

const among = (column: string): string => `${column} = ANY(:ids)`;

/** Reads everything about some episodes of one clinic. */
export async function rowsOf(
  tx: Tx,
  episodes: readonly EpisodeRow[],
  clinicId: string,
): Promise<EpisodeRows> {
  const ids = episodes.map((e) => e.id);
  const personIds = [...new Set(episodes.map((e) => e.personId))];
  const names = await namesOf(tx);
  const people = await tx.createQueryBuilder(Person, 'p').where(among('p.id'), { ids: personIds }).getMany();
  const plans = await tx
    .createQueryBuilder(PlanRow, 'p')
    .where(among('p.episodeId'), { ids })
    .orderBy('p.number', 'ASC')
    .getMany();
  const spans = await tx
    .createQueryBuilder(StageSpanRow, 's')
    .where(among('s.episodeId'), { ids })
    .orderBy('s.since', 'ASC')
    .getMany();
  return {
    clinic: await tx.findOneByOrFail(Clinic, { id: clinicId }),
    names,
    people: new Map(people.map((p) => [p.id, p])),
    visits: await visitsOf(tx, ids, names),
    plans: groupedBy(plans, (p) => p.episodeId),
    home: await homeOf(tx, ids),
    spans: groupedBy(spans, (s) => s.episodeId),
    closures: groupedBy(await closuresOf(tx, ids), (c) => c.episode_id),
    taught: await taughtOf(tx, ids),
    recorded: await recordedOf(tx, personIds),
    refuses: await refusesOf(tx, personIds),
    links: new Map((await linksOf(tx, personIds)).map((l) => [l.person_id, l])),
  };
}
