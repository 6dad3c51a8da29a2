import { createHash, randomBytes, randomInt } from 'node:crypto';

/** 256 random bits for a session cookie, URL-safe. */
export const sessionToken = (): string => randomBytes(32).toString('base64url');

/** 128 random bits for a home link, URL-safe. */
export const linkToken = (): string => randomBytes(16).toString('base64url');

/** Six digits, leading zeros kept. */
export const linkCode = (): string => String(randomInt(0, 1_000_000)).padStart(6, '0');

/** Random tokens are stored hashed; they are long enough to need no salt. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');
