import { FEWEST_PEOPLE, MATTERS, type Quartiles } from '@heathstep/contracts';
import type { Tx } from '../persistence/db.js';

/** A version of a protocol, as rows name it. */
export interface OfProtocol {
  readonly protocol: string;
  readonly version: number;
}

/** First to last of each person: its distribution, and how many changed by as much as matters for the better. */
interface Change extends OfProtocol {
  readonly n: number;
  readonly q: number[];
  readonly better: number;
}

/** All counted by the database, each in one query; what is too few is left out by who reads it. */
export interface Counts {
  readonly people: readonly (OfProtocol & { readonly n: number })[];
  readonly stages: readonly (OfProtocol & {
    readonly stage: string;
    readonly n: number;
    readonly q: number[];
  })[];
  readonly pain: readonly Change[];
  readonly function: readonly Change[];
  readonly flares: readonly (OfProtocol & { readonly flares: number; readonly days: number })[];
  readonly cameBack: readonly (OfProtocol & { readonly n: number })[];
  readonly decisions: readonly (OfProtocol & {
    readonly agreed: boolean;
    readonly n: number;
    readonly followed: number;
    readonly worse: number;
  })[];
  readonly ended: readonly (OfProtocol & { readonly outcome: string; readonly n: number })[];
  readonly logged: readonly (OfProtocol & {
    readonly n: number;
    readonly logged: number;
    readonly days: number;
  })[];
}

const OF = 'e.protocol, e.protocol_version AS version';
const QUARTILES = (value: string): string =>
  `percentile_cont(ARRAY[0.25, 0.5, 0.75]) WITHIN GROUP (ORDER BY ${value}) AS q`;
/** Begun: a first plan was given, so that there was something to come of it. */
const BEGUN = 'JOIN (SELECT DISTINCT episode_id FROM stage_span) begun ON begun.episode_id = e.id';

const PEOPLE = `SELECT ${OF}, count(*)::int AS n FROM episode e ${BEGUN} GROUP BY 1, 2`;

const STAGES = `WITH span AS (
    SELECT episode_id, stage,
           date_part('epoch', lead(since) OVER (PARTITION BY episode_id ORDER BY since) - since) / 604800.0 AS weeks
      FROM stage_span)
  SELECT ${OF}, span.stage, count(*)::int AS n, ${QUARTILES('span.weeks')}
    FROM span JOIN episode e ON e.id = span.episode_id WHERE span.weeks IS NOT NULL GROUP BY 1, 2, 3`;

/**
 * The newest version of what was told at each signed visit, then first and last of a person: two passes without sorting. What
 * orders and what is ordered go into one whole number, hundredths of the value last; 9999 of them is no value.
 *
 * @param value SQL of the value, 0 to 10, or null
 * @param better SQL sign of the better way
 */
const changeOf = (key: string, value: string, better: '-' | '+'): string => `WITH newest AS (
    SELECT visit_id, max(version * 10000::bigint + coalesce((${value} * 100)::bigint, 9999)) % 10000 AS value
      FROM visit_entry WHERE key = '${key}' GROUP BY visit_id),
  told AS (
    SELECT v.episode_id, date_part('epoch', v.started_at)::bigint * 10000 + newest.value AS at
      FROM newest JOIN visit v ON v.id = newest.visit_id WHERE v.signed_at IS NOT NULL AND newest.value < 9999),
  ends AS (
    SELECT episode_id, (max(at) % 10000 - min(at) % 10000) / 100.0::float8 AS change
      FROM told GROUP BY episode_id HAVING count(*) > 1)
  SELECT ${OF}, count(*)::int AS n, ${QUARTILES('ends.change')},
         count(*) FILTER (WHERE ${better}ends.change >= ${MATTERS})::int AS better
    FROM ends JOIN episode e ON e.id = ends.episode_id GROUP BY 1, 2`;

const PAIN = changeOf(
  'story.worst',
  `CASE jsonb_typeof(value) WHEN 'number' THEN value::text::float8 END`,
  '-',
);

/** Own activities: the mean of those that were scored. */
const FUNCTION = changeOf(
  'story.activities',
  `CASE jsonb_typeof(value) WHEN 'array'
     THEN (SELECT avg((a ->> 'ability')::float8) FROM jsonb_array_elements(value) a) END`,
  '+',
);

/** Flares that came to a decision, and the days at home they fell on, from the first plan to the end or today. */
const FLARES = `WITH home AS (
    SELECT episode_id, min(given_at) AS given FROM plan WHERE given_at IS NOT NULL GROUP BY episode_id),
  flare AS (
    SELECT episode_id, count(*) AS n FROM decision WHERE suggestion ->> 'rule' IN ('2', '3') GROUP BY episode_id)
  SELECT ${OF}, coalesce(sum(flare.n), 0)::int AS flares,
         sum(greatest(1, ceil(date_part('epoch', coalesce(e.ended_at, $1) - home.given) / 86400)))::int AS days
    FROM home JOIN episode e ON e.id = home.episode_id LEFT JOIN flare ON flare.episode_id = e.id GROUP BY 1, 2`;

const CAME_BACK = `SELECT ${OF}, count(*)::int AS n FROM episode e WHERE e.came_back_at IS NOT NULL GROUP BY 1, 2`;

const DECISIONS = `WITH made AS (
    SELECT episode_id, agreed, lead(decision) OVER (PARTITION BY episode_id ORDER BY at) AS next FROM decision)
  SELECT ${OF}, made.agreed, count(*)::int AS n, count(made.next)::int AS followed,
         count(*) FILTER (WHERE made.next IN ('ease-back', 'refer'))::int AS worse
    FROM made JOIN episode e ON e.id = made.episode_id GROUP BY 1, 2, 3`;

const ENDED = `SELECT ${OF}, e.outcome, count(*)::int AS n FROM episode e ${BEGUN}
  WHERE e.outcome IS NOT NULL GROUP BY 1, 2, 3`;

/** Days of the last four weeks with something logged: a bit for each day back, so that a day counts once. */
const LOGGED = `WITH given AS (
    SELECT episode_id, least($1::date - min(given_at)::date, 27) AS back FROM plan
     WHERE given_at IS NOT NULL GROUP BY episode_id),
  days AS (
    SELECT episode_id, bit_or(1 << ($1::date - day)) AS bits FROM home_entry
     WHERE day BETWEEN $1::date - 27 AND $1::date GROUP BY episode_id)
  SELECT ${OF}, count(*)::int AS n, sum(given.back + 1)::int AS days,
         coalesce(sum(bit_count((days.bits & ((1 << (given.back + 1)) - 1))::bit(32))), 0)::int AS logged
    FROM given JOIN episode e ON e.id = given.episode_id AND e.status = 'open'
    LEFT JOIN days ON days.episode_id = given.episode_id GROUP BY 1, 2`;

/** Memory for sorting, so that a large clinic is counted without the disk. */
const MEMORY = `SET LOCAL work_mem = '64MB'`;

type First = Pick<Counts, 'people' | 'stages' | 'pain' | 'ended' | 'cameBack'>;

/** What visits and stages tell. */
export async function countVisits(tx: Tx): Promise<First> {
  await tx.query(MEMORY);
  return {
    people: await tx.query(PEOPLE),
    stages: await tx.query(STAGES),
    pain: await tx.query(PAIN),
    ended: await tx.query(ENDED),
    cameBack: await tx.query(CAME_BACK),
  };
}

/** What decisions, logs and own activities tell; the two are counted side by side. */
export async function countHome(tx: Tx, today: string, now: Date): Promise<Omit<Counts, keyof First>> {
  await tx.query(MEMORY);
  return {
    function: await tx.query(FUNCTION),
    decisions: await tx.query(DECISIONS),
    flares: await tx.query(FLARES, [now]),
    logged: await tx.query(LOGGED, [today]),
  };
}

/** A spread of enough people; null of fewer. */
export function spreadOf(n: number, [low, middle, high]: readonly number[]): Quartiles | null {
  if (n < FEWEST_PEOPLE || low === undefined || middle === undefined || high === undefined) return null;
  return { low, middle, high };
}
