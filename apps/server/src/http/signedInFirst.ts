import { say } from '@heathstep/core';
import type { NextFunction, Request, Response } from 'express';
import { cookie, HOME_COOKIE, SESSION_COOKIE } from '../auth/auth.js';
import { hashToken } from '../auth/secrets.js';
import type { Clock } from '../clock.js';
import type { Db } from '../persistence/db.js';

/** What is read of a body before anyone has said who they are, in bytes. */
const UNASKED_BYTES = 16_384;

const isLarge = (request: Request): boolean => {
  const length = Number(request.get('content-length') ?? 0);
  return length > UNASKED_BYTES || request.get('transfer-encoding') !== undefined;
};

/**
 * Nothing large is read into memory for someone who is not signed in: the answer is given on the head of the request alone,
 * and the connection is closed.
 */
export function signedInFirst(db: Db, clock: Clock) {
  const known = async (name: string, token: string | null): Promise<boolean> =>
    token !== null &&
    (await db.lookUp(`SELECT 1 FROM ${name}($1, $2)`, [hashToken(token), clock.now()])) !== null;
  return async (request: Request, response: Response, next: NextFunction): Promise<void> => {
    if (!isLarge(request)) {
      next();
      return;
    }
    const signedIn =
      (await known('find_session', cookie(request, SESSION_COOKIE))) ||
      (await known('find_home_session', cookie(request, HOME_COOKIE)));
    if (signedIn) {
      next();
      return;
    }
    response
      .status(401)
      .set('Connection', 'close')
      .type('application/problem+json')
      .send(JSON.stringify({ type: 'about:blank', status: 401, title: say('Sign in first') }));
  };
}
