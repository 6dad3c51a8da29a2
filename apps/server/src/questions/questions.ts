import type { QuestionView } from '@heathstep/contracts';
import { localDay } from '@heathstep/core';
import type { Tx } from '../persistence/db.js';

interface Row {
  readonly id: string;
  readonly episode_id: string;
  readonly text: string;
  readonly at: Date;
  readonly answer: string | null;
  readonly answered_at: Date | null;
  readonly by: string | null;
}

const SELECT = `SELECT q.id, q.episode_id, q.text, q.at, q.answer, q.answered_at, u.name AS by
  FROM home_question q LEFT JOIN app_user u ON u.clinic_id = q.clinic_id AND u.id = q.answered_by`;

const viewOf = (row: Row, timeZone: string): QuestionView => ({
  id: row.id,
  day: localDay(row.at, timeZone),
  text: row.text,
  answer:
    row.answer === null || row.answered_at === null
      ? null
      : { text: row.answer, day: localDay(row.answered_at, timeZone), by: row.by ?? '' },
});

/** The newest questions of an episode, the newest first. */
export async function questionsOf(
  tx: Tx,
  episodeId: string,
  { timeZone, most }: { readonly timeZone: string; readonly most: number },
): Promise<QuestionView[]> {
  const rows = await tx.query<Row[]>(`${SELECT} WHERE q.episode_id = $1 ORDER BY q.at DESC, q.id LIMIT $2`, [
    episodeId,
    most,
  ]);
  return rows.map((row) => viewOf(row, timeZone));
}

/** The oldest question of an episode that waits for an answer, and how many wait. */
export interface OpenQuestion extends QuestionView {
  readonly count: number;
}

export async function openQuestions(tx: Tx, timeZone: string): Promise<ReadonlyMap<string, OpenQuestion>> {
  const rows = await tx.query<Row[]>(`${SELECT} WHERE q.answered_at IS NULL ORDER BY q.at DESC, q.id`);
  const open = new Map<string, OpenQuestion>();
  // The newest first, so that the oldest stands in the end.
  for (const row of rows)
    open.set(row.episode_id, {
      ...viewOf(row, timeZone),
      count: (open.get(row.episode_id)?.count ?? 0) + 1,
    });
  return open;
}
