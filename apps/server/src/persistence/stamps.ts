import type { Tx } from './db.js';

/**
 * How many rows `t` has, and the sum of the numbers of the transactions that wrote them: another as soon as a row is added,
 * changed or taken away, in whatever order transactions end.
 */
const STAMP = `count(*) || ':' || coalesce(sum(t.xmin::text::bigint), 0)`;

/** One stamp of each of some tables, as a statement. */
export const stampsOf = (tables: readonly string[]): string =>
  tables.map((table) => `SELECT '${table}' || ${STAMP} AS stamp FROM ${table} t`).join(' UNION ALL ');

/** What a clinic's rows of some tables are, as one short text: the same text, the same rows. */
export async function stampOf(tx: Tx, tables: readonly string[]): Promise<string> {
  const rows = await tx.query<{ stamp: string }[]>(stampsOf(tables));
  return rows.map((r) => r.stamp).join(' ');
}
