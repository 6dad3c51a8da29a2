import { say } from '@heathstep/core';
import type { NextFunction, Request, Response } from 'express';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** Half a year, in seconds: how long a browser keeps to https once it was here. */
const HTTPS_SECONDS = 15_552_000;

/**
 * Answers to its own names only: this machine's, and the one it is known by outside. A page of another site that lets its name
 * point here is turned away. Where it is known by https, browsers are told to stay with it.
 */
export function ownAddress(publicUrl: string | null) {
  const known = publicUrl === null ? null : new URL(publicUrl);
  return (request: Request, response: Response, next: NextFunction): void => {
    const host = request.get('host') ?? '';
    const name = host.replace(/:\d+$/, '');
    if (!LOOPBACK.has(name) && host !== known?.host) {
      response
        .status(421)
        .type('application/problem+json')
        .send(
          JSON.stringify({
            type: 'about:blank',
            status: 421,
            title: say('This is not served under that name'),
          }),
        );
      return;
    }
    if (known?.protocol === 'https:') response.set('Strict-Transport-Security', `max-age=${HTTPS_SECONDS}`);
    next();
  };
}
