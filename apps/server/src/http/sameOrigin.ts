import { say } from '@heathstep/core';
import type { NextFunction, Request, Response } from 'express';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Refuses changes that another site's page asks a signed-in browser for: the browser says where a request comes from
 * (Sec-Fetch-Site, Origin; the one it is known by outside is its own), and bodies must be JSON or bare bytes, which no plain form can send. Session cookies are SameSite besides.
 */
export const sameOrigin =
  (publicUrl: string | null) =>
  (request: Request, response: Response, next: NextFunction): void => {
    if (SAFE.has(request.method)) {
      next();
      return;
    }
    const site = request.get('sec-fetch-site');
    const origin = request.get('origin');
    const foreignSite = site !== undefined && site !== 'same-origin' && site !== 'none';
    const foreignOrigin =
      origin !== undefined &&
      origin !== publicUrl &&
      origin !== `${request.protocol}://${request.get('host') ?? ''}`;
    const length = request.get('content-length');
    const hasBody =
      (length !== undefined && length !== '0') || request.get('transfer-encoding') !== undefined;
    const notJson = hasBody && request.is(['application/json', 'application/octet-stream']) === false;
    if (foreignSite || foreignOrigin) problem(response, 403, say('This request came from another site'));
    else if (notJson) problem(response, 415, 'Send JSON');
    else next();
  };

function problem(response: Response, status: number, title: string): void {
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', status, title }));
}
