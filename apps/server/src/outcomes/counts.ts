import { FEWEST_PEOPLE, type Quartiles } from '@heathstep/contracts';
import type { Tx } from '../persistence/db.js';

/** A version of a protocol, as rows name it. */
export interface OfProtocol {
  readonly protocol: string;
  readonly version: number;
}

/** All counted by the database, each in one query; what is too few is left out by who reads it. */
export interface Counts {
  readonly people: readonly (OfProtocol & { readonly n: number })[];
  readonly stages: readonly (OfProtocol & {
    readonly stage: string;
    readonly n: number;
    readonly q: number[];
  })[];
  readonly pain: readonly (OfProtocol & { readonly n: number; readonly q: number[] })[];
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
           extract(epoch FROM lead(since) OVER (PARTITION BY episode_id ORDER BY since, id) - since) / 604800.0 AS weeks
      FROM stage_span)
  SELECT ${OF}, span.stage, count(*)::int AS n, ${QUARTILES('span.weeks')}
    FROM span JOIN episode e ON e.id = span.episode_id WHERE span.weeks IS NOT NULL GROUP BY 1, 2, 3`;

const PAIN = `WITH told AS (
    SELECT DISTINCT ON (x.visit_id) v.episode_id, v.started_at, x.value
      FROM visit_entry x JOIN visit v ON v.id = x.visit_id
     WHERE x.key = 'story.worst' AND v.signed_at IS NOT NULL ORDER BY x.visit_id, x.version DESC),
  ends AS (
    SELECT episode_id, (array_agg(value::text::numeric ORDER BY started_at))[1] AS first,
           (array_agg(value::text::numeric ORDER BY started_at DESC))[1] AS last
      FROM told WHERE jsonb_typeof(value) = 'number' GROUP BY episode_id HAVING count(*) > 1)
  SELECT ${OF}, count(*)::int AS n, ${QUARTILES('(ends.last - ends.first)::float8')}
    FROM ends JOIN episode e ON e.id = ends.episode_id GROUP BY 1, 2`;

const DECISIONS = `WITH made AS (
    SELECT episode_id, agreed, lead(decision) OVER (PARTITION BY episode_id ORDER BY at, id) AS next FROM decision)
  SELECT ${OF}, made.agreed, count(*)::int AS n, count(made.next)::int AS followed,
         count(*) FILTER (WHERE made.next IN ('ease-back', 'refer'))::int AS worse
    FROM made JOIN episode e ON e.id = made.episode_id GROUP BY 1, 2, 3`;

const ENDED = `SELECT ${OF}, e.outcome, count(*)::int AS n FROM episode e ${BEGUN}
  WHERE e.outcome IS NOT NULL GROUP BY 1, 2, 3`;

const LOGGED = `WITH given AS (
    SELECT clinic_id, episode_id, greatest(min(given_at)::date, $1::date - 27) AS since FROM plan
     WHERE given_at IS NOT NULL GROUP BY clinic_id, episode_id),
  days AS (
    SELECT g.episode_id, $1::date - g.since + 1 AS days,
           (SELECT count(DISTINCT h.day) FROM home_entry h
             WHERE h.clinic_id = g.clinic_id AND h.episode_id = g.episode_id AND h.day BETWEEN g.since AND $1::date) AS logged
      FROM given g JOIN episode o ON o.id = g.episode_id WHERE o.status = 'open')
  SELECT ${OF}, count(*)::int AS n, sum(days.logged)::int AS logged, sum(days.days)::int AS days
    FROM days JOIN episode e ON e.id = days.episode_id GROUP BY 1, 2`;

export async function countOutcomes(tx: Tx, today: string): Promise<Counts> {
  return {
    people: await tx.query(PEOPLE),
    stages: await tx.query(STAGES),
    pain: await tx.query(PAIN),
    decisions: await tx.query(DECISIONS),
    ended: await tx.query(ENDED),
    logged: await tx.query(LOGGED, [today]),
  };
}

/** A spread of enough people; null of fewer. */
export function spreadOf(n: number, [low, middle, high]: readonly number[]): Quartiles | null {
  if (n < FEWEST_PEOPLE || low === undefined || middle === undefined || high === undefined) return null;
  return { low, middle, high };
}
