import { type ConsentKind, type ConsentView, standingConsent } from '@heathstep/contracts';
import { namesOf } from '../episodes/rows.js';
import type { Tx } from '../persistence/db.js';
import { Consent } from '../persistence/entities.js';

/** What was told of consent, the newest first. */
export async function consentsOf(tx: Tx, personId: string): Promise<ConsentView[]> {
  const rows = await tx.find(Consent, { where: { personId }, order: { at: 'DESC', id: 'DESC' } });
  const names = await namesOf(tx);
  return rows.map(({ id, kind, given, way, on, note, authorId, at }) => ({
    id,
    kind,
    given,
    way,
    on,
    note,
    at: at.toISOString(),
    by: names.get(authorId) ?? '',
  }));
}

/** Whether someone said no to something and has not said yes since. */
export const saidNo = async (tx: Tx, personId: string, kind: ConsentKind): Promise<boolean> =>
  standingConsent(await consentsOf(tx, personId), kind)?.given === false;
