import { IsNull } from 'typeorm';
import { Secret, TOTP } from 'otpauth';
import type { Tx } from '../persistence/db.js';
import { AppUser, RecoveryCode } from '../persistence/staff.js';
import { hashToken } from './secrets.js';

/** RFC 6238 as authenticators have it: SHA-1, six digits, a new code every half minute. */
const PERIOD_S = 30;
const DIGITS = 6;
/** Codes before and after the one of now that are taken, for clocks that are not quite right. [convention] */
const WINDOW = 1;
const RECOVERY_CODES = 8;
const RECOVERY = /^[A-Z2-7]{16}$/;

const totpOf = (secret: string, account = ''): TOTP =>
  new TOTP({
    issuer: 'Heathstep',
    label: account,
    algorithm: 'SHA1',
    digits: DIGITS,
    period: PERIOD_S,
    secret: Secret.fromBase32(secret),
  });

/** 160 random bits in base 32. */
export const newSecret = (): string => new Secret({ size: 20 }).base32;

/** What an authenticator reads from a picture. */
export const uriOf = (secret: string, account: string): string => totpOf(secret, account).toString();

/** The step of time a code is of; null where it is of none near now, or of one that was used already. */
export function stepOf(secret: string, code: string, now: Date, last: number | null): number | null {
  const timestamp = now.getTime();
  const delta = totpOf(secret).validate({ token: code, timestamp, window: WINDOW });
  if (delta === null) return null;
  const step = Math.floor(timestamp / 1000 / PERIOD_S) + delta;
  return last !== null && step <= last ? null : step;
}

const plainCode = (typed: string): string => typed.toUpperCase().replaceAll(/[\s-]/g, '');

/** Whether what was typed is the code of now or one kept for a lost device; either is used up by it. */
export async function takeCode(tx: Tx, user: AppUser, typed: string, now: Date): Promise<boolean> {
  if (user.totpSecret === null) return false;
  const code = plainCode(typed);
  if (RECOVERY.test(code)) {
    const { affected } = await tx.update(
      RecoveryCode,
      { userId: user.id, codeHash: hashToken(code), usedAt: IsNull() },
      { usedAt: now },
    );
    return affected === 1;
  }
  const step = stepOf(user.totpSecret, code, now, user.totpLast);
  if (step === null) return false;
  // Two at once with the same code: one of them comes first.
  const { affected } = await tx
    .createQueryBuilder()
    .update(AppUser)
    .set({ totpLast: step })
    .where('id = :id AND (totp_last IS NULL OR totp_last < :step)', { id: user.id, step })
    .execute();
  return affected === 1;
}

/** New codes for a lost device, in place of all there were; told once. */
export async function newRecoveryCodes(tx: Tx, { clinicId, id }: AppUser): Promise<string[]> {
  const codes = Array.from({ length: RECOVERY_CODES }, () => new Secret({ size: 10 }).base32);
  await tx.delete(RecoveryCode, { userId: id });
  await tx.insert(
    RecoveryCode,
    codes.map((c) => ({ clinicId, userId: id, codeHash: hashToken(c), usedAt: null })),
  );
  return codes.map((c) => c.match(/.{4}/g)?.join('-') ?? c);
}

/** Takes the second step of someone away, with all that belongs to it. */
export async function endSecondStep(tx: Tx, userId: string): Promise<void> {
  await tx.update(AppUser, { id: userId }, { totpPending: null, totpSecret: null, totpLast: null });
  await tx.delete(RecoveryCode, { userId });
}
