import { randomUUID } from 'node:crypto';
import type { AccountLinkView } from '@heathstep/contracts';
import { IsNull } from 'typeorm';
import { hashToken, sessionToken } from '../auth/secrets.js';
import type { Tx } from '../persistence/db.js';
import { AccountLink } from '../persistence/entities.js';

/** How long a link to choose a password stands, in days. [convention] */
const LINK_DAYS = 7;

/** A new link for someone of the clinic; an older one that was not used is gone. */
export async function newLink(
  tx: Tx,
  of: { readonly clinicId: string; readonly userId: string; readonly createdBy: string | null },
  now: Date,
): Promise<AccountLinkView> {
  const token = sessionToken();
  const expiresAt = new Date(now.getTime() + LINK_DAYS * 86_400_000);
  await tx.delete(AccountLink, { userId: of.userId, usedAt: IsNull() });
  await tx.insert(AccountLink, {
    id: randomUUID(),
    ...of,
    tokenHash: hashToken(token),
    createdAt: now,
    expiresAt,
    usedAt: null,
  });
  return { path: `/join#${token}`, until: expiresAt.toISOString() };
}
