/** What is known of a step that the database did not finish. */
export type Away = 'not-kept' | 'no-room' | 'uncertain';

/**
 * PostgreSQL's codes, and the system's, for a step that was never taken or was taken back: waited too long for a lock
 * or a statement, two that waited for each other, no room or no right time to connect.
 */
const NOT_KEPT = new Set(['40001', '40P01', '53300', '55P03', '57014', '57P03', 'ECONNREFUSED']);

/** The disk or the memory of the database is full, or cannot be written; the step was taken back. */
const NO_ROOM = new Set(['53000', '53100', '53200', '58030', 'ENOSPC']);

/** The connection was lost, perhaps after the last word was given: administrator, crash, network. */
const UNCERTAIN = new Set([
  '08000',
  '08003',
  '08006',
  '25P03',
  '57P01',
  '57P02',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
]);

/** The driver gives these no code; its own words (pg 8). */
const NOT_CONNECTED =
  /timeout exceeded when trying to connect|timeout expired|connection terminated due to connection timeout/i;
const NOT_ANSWERED =
  /query read timeout|connection terminated|client has encountered a connection error|connection error and is not queryable/i;

/** Whether a failure is the database being away or slow and not a fault of ours, and what became of the step; null if not. */
export function databaseAway(error: unknown): Away | null {
  if (!(error instanceof Error)) return null;
  const code = (error as { code?: unknown }).code;
  if (typeof code === 'string') {
    if (NOT_KEPT.has(code)) return 'not-kept';
    if (NO_ROOM.has(code)) return 'no-room';
    if (UNCERTAIN.has(code)) return 'uncertain';
  }
  if (NOT_CONNECTED.test(error.message)) return 'not-kept';
  return NOT_ANSWERED.test(error.message) ? 'uncertain' : null;
}
