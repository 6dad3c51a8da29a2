import { say } from '@heathstep/core';
import type { NextFunction, Request, Response } from 'express';
import { plain, unkeepable } from '@heathstep/contracts';

const MOST_TOLD = 20;

/**
 * Refuses what could never be kept before anything else looks at it: half characters and NUL, by their pointer, and nesting
 * without end. An address with either is no address of ours.
 */
export function plainBodies(request: Request, response: Response, next: NextFunction): void {
  const refuse = (status: number, title: string, errors?: readonly object[]) =>
    response
      .status(status)
      .type('application/problem+json')
      .send(
        JSON.stringify({ type: 'about:blank', status, title, ...(errors === undefined ? {} : { errors }) }),
      );
  let address: string;
  try {
    address = decodeURIComponent(request.originalUrl);
  } catch {
    refuse(400, say('This address cannot be read'));
    return;
  }
  if (plain(address) !== address) {
    refuse(400, say('This address cannot be read'));
    return;
  }
  const found = Buffer.isBuffer(request.body) ? [] : unkeepable(request.body);
  if (found.length > 0) refuse(400, say('Some of this cannot be taken'), found.slice(0, MOST_TOLD));
  else next();
}
