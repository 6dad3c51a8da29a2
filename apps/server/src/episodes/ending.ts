import { say } from '@heathstep/core';
import type { Ended, EpisodePatch } from '@heathstep/contracts';
import { badRequest, ProblemError, refusedNow } from '../http/problem.js';
import type { SignedIn } from '../auth/auth.js';
import type { Tx } from '../persistence/db.js';
import { EpisodeRow } from '../persistence/entities.js';
import type { EpisodeRecord } from './record.js';

/** How a complaint ended, for those who read it; null while it is open, and where it was closed without saying. */
export function endedOf(row: EpisodeRow, names: ReadonlyMap<string, string>): Ended | null {
  if (row.status !== 'closed' || row.endedAt === null || row.outcome === null) return null;
  return {
    at: row.endedAt.toISOString(),
    by: names.get(row.endedBy ?? '') ?? '',
    outcome: row.outcome,
    note: row.endNote ?? '',
  };
}

export const CLOSED = say('This complaint is closed; open it again to go on');

/** Nothing new is begun, prescribed or decided for a complaint that is treated no more. */
export function refuseClosed(row: Pick<EpisodeRow, 'status'>): void {
  if (row.status === 'closed') throw refusedNow(CLOSED);
}

/** What a change of status says of the end; nothing where the status does not change. */
export function ending(
  { status, outcome, note, reopened }: Pick<EpisodePatch, 'status' | 'outcome' | 'note' | 'reopened'>,
  me: SignedIn,
  now: Date,
): Partial<EpisodeRow> {
  if (reopened !== undefined && status !== 'open')
    throw badRequest([
      { pointer: '/reopened', detail: say('Only what is opened again has a reason for it') },
    ]);
  if (status === 'closed') {
    if (outcome === undefined) throw badRequest([{ pointer: '/outcome', detail: say('Say how it ended') }]);
    return { status, endedAt: now, endedBy: me.userId, outcome, endNote: note?.trim() ?? '' };
  }
  if (outcome !== undefined || note !== undefined)
    throw badRequest([{ pointer: '/outcome', detail: say('Only what is closed has an end') }]);
  if (status === undefined) return {};
  const open = { status, endedAt: null, endedBy: null, outcome: null, endNote: null };
  return reopened === 'came-back' ? { ...open, cameBackAt: now } : open;
}

/** After so many days the plan of before is not taken up again unseen. [convention] */
const TOO_EARLY_DAYS = 28;

/**
 * Why a closed complaint is opened again has to be said: what came back begins again where its protocol says, with nothing
 * that was given before.
 */
export function reopening(
  { row }: Pick<EpisodeRecord, 'row'>,
  { status, reopened }: Pick<EpisodePatch, 'status' | 'reopened'>,
  { me, now }: { readonly me: SignedIn; readonly now: Date },
): boolean {
  if (status !== 'open' || row.status !== 'closed') {
    if (reopened !== undefined) throw refusedNow(say('Only what is closed is opened again'));
    return false;
  }
  if (me.role === 'assistant')
    throw new ProblemError(403, say('Only clinicians and leads open a complaint again'));
  if (reopened === undefined)
    throw badRequest([{ pointer: '/reopened', detail: say('Say why it is opened again') }]);
  const since = row.endedAt === null ? Infinity : (now.getTime() - row.endedAt.getTime()) / 86_400_000;
  if (reopened === 'closed-too-early' && since > TOO_EARLY_DAYS)
    throw badRequest([
      {
        pointer: '/reopened',
        detail: say('It was closed more than {{days}} days ago: it came back, and is asked anew', {
          days: TOO_EARLY_DAYS,
        }),
      },
    ]);
  return reopened === 'came-back';
}

/** A person has one link, whichever complaint it was made from. */
export const revokeLinks = (tx: Tx, personId: string, at: Date): Promise<unknown> =>
  tx.query(
    `UPDATE home_link SET revoked_at = $1 WHERE revoked_at IS NULL
        AND episode_id IN (SELECT id FROM episode WHERE person_id = $2)`,
    [at, personId],
  );

/** With the last open complaint the page at home ends too: what it shows is treated no more. */
export async function endHome(tx: Tx, personId: string, at: Date): Promise<void> {
  if ((await tx.countBy(EpisodeRow, { personId, status: 'open' })) === 0) await revokeLinks(tx, personId, at);
}
