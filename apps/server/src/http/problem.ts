import { say } from '@heathstep/core';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { randomUUID } from 'node:crypto';
import type { Issue } from '@heathstep/core';
import { type Away, databaseAway } from './databaseAway.js';

export interface FieldError {
  readonly pointer: string;
  readonly detail: string;
}

/** A failure the caller can do something about, sent as problem details. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly more: {
      readonly detail?: string;
      readonly errors?: readonly FieldError[];
      readonly current?: unknown;
    } = {},
  ) {
    super(title);
  }
}

export const notFound = (): ProblemError => new ProblemError(404, say('There is no such record'));
export const badRequest = (errors: readonly FieldError[]): ProblemError =>
  new ProblemError(400, say('Some of this cannot be taken'), { errors });
export const conflict = (detail: string, current: unknown): ProblemError =>
  new ProblemError(409, say('This was changed in the meantime'), { detail, current });
export const refusedNow = (detail: string, errors: readonly FieldError[] = []): ProblemError =>
  new ProblemError(422, say('This cannot be done now'), { detail, errors });

/** Core issues as field errors below a pointer. */
export const fieldErrors = (issues: readonly Issue[], base = ''): FieldError[] =>
  issues.map((i) => ({
    pointer: `${base}/${i.path.replaceAll('.', '/')}`,
    detail: say('must be {{bound}}', { bound: i.bound }),
  }));

const TITLES: Readonly<Record<number, string>> = {
  400: 'Some of this cannot be taken',
  401: 'Sign in first',
  403: 'This is not open to you',
  404: 'There is no such record',
  413: 'This is too large',
  415: 'Send JSON',
  429: 'Too many tries, wait a minute',
};

function send(response: Response, status: number, body: object): void {
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', status, ...body }));
}

/** The one place where failures become responses. What is not known is a 500 with an id and nothing of the patient. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) return;
    if (error instanceof ProblemError) {
      send(response, error.status, { title: error.title, ...error.more });
      return;
    }
    if (isUniqueViolation(error)) {
      send(response, 409, {
        title: say('This was changed in the meantime'),
        detail: say('Someone did the same at the same moment. Look at what stands now'),
      });
      return;
    }
    const away = databaseAway(error);
    if (away !== null) {
      this.logger.warn(`database away, ${away}`);
      response.setHeader('retry-after', RETRY_AFTER_S);
      send(response, 503, {
        title: say('The records cannot be reached at present'),
        detail: say(AWAY[away]),
      });
      return;
    }
    const status = error instanceof HttpException ? error.getStatus() : statusOf(error);
    if (status !== null && status < 500) {
      send(response, status, { title: say(TITLES[status] ?? 'This cannot be done') });
      return;
    }
    const id = randomUUID();
    const kind =
      error instanceof Error ? `${error.name} ${(error as { code?: string }).code ?? ''}` : 'unknown';
    this.logger.error(`${id} ${kind} ${placeOf(error)}`);
    send(response, 500, {
      title: say('Something went wrong here'),
      detail: say('Nothing was saved by this step. Reference {{id}}', { id }),
    });
  }
}

const RETRY_AFTER_S = '3';

const AWAY: Readonly<Record<Away, string>> = {
  'not-kept': 'Nothing was kept by this step. Try again in a moment',
  'no-room':
    'There is no room where the records are kept, so nothing was kept by this step. Tell who looks after the server, then try again',
  uncertain: 'Whether this step was kept is not certain. Look at what stands, then try again in a moment',
};

/** PostgreSQL's word for two who wrote the same at once. */
const UNIQUE_VIOLATION = '23505';

const isUniqueViolation = (error: unknown): boolean =>
  (error as { code?: unknown } | null)?.code === UNIQUE_VIOLATION;

/** Body parser errors carry their own status. */
function statusOf(error: unknown): number | null {
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' ? status : null;
}

/** Where in our code it happened; a message could hold what was typed, so it is left out. */
function placeOf(error: unknown): string {
  const line =
    error instanceof Error ? error.stack?.split('\n').find((l) => l.includes('/server/')) : undefined;
  return line?.trim().replace(/.*\/server\//, 'server/') ?? '';
}
