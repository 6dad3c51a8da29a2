import { say } from '@heathstep/core';
import { pageLanguage } from '../parts/language.js';
import type { Problem } from '@heathstep/contracts';

/** A refused or failed request. Status 0 means the server was not reached. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem & { readonly current?: unknown },
  ) {
    super(problem.detail ?? problem.title);
    this.name = 'ApiError';
  }

  /** Worth trying again without the user doing anything. */
  get passing(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504;
  }

  /** What is wrong with one field, by its pointer such as `/name`. */
  at(pointer: string): string | null {
    return this.problem.errors?.find((e) => e.pointer === pointer)?.detail ?? null;
  }
}

const unreachable = (): ApiError =>
  new ApiError(0, { type: 'about:blank', title: say('The server cannot be reached'), status: 0 });

const WAIT_MS = 15_000;
const UPLOAD_WAIT_MS = 60_000;

export const request = <T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<T> =>
  ask<T>(path, WAIT_MS, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });

/** Sends a file as it is, with its name; it may be a whole record, so it may take longer. */
export const sendFile = <T>(
  path: string,
  file: Blob,
  {
    method = 'POST',
    type = 'application/json',
    name = '',
  }: { method?: 'POST' | 'PUT'; type?: string; name?: string } = {},
): Promise<T> =>
  ask<T>(path, UPLOAD_WAIT_MS, {
    method,
    headers: { 'content-type': type, ...(name === '' ? {} : { 'x-file-name': encodeURIComponent(name) }) },
    body: file,
  });

/** Sends bytes as they are; larger than a record, so it may take longer. */
export const upload = <T>(path: string, bytes: Blob): Promise<T> =>
  ask<T>(path, UPLOAD_WAIT_MS, {
    method: 'PUT',
    headers: { 'content-type': 'application/octet-stream' },
    body: bytes,
  });

async function ask<T>(path: string, waitMs: number, init: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      ...init,
      headers: { ...init.headers, 'accept-language': pageLanguage?.code ?? 'en' },
      credentials: 'same-origin',
      signal: AbortSignal.timeout(waitMs),
    });
  } catch {
    throw unreachable();
  }
  if (response.status === 204) return undefined as T;
  const text = await response.text();
  let value: unknown = null;
  try {
    value = JSON.parse(text);
  } catch {
    if (response.ok) throw unreachable();
  }
  if (!response.ok) {
    const problem = (value ?? {
      type: 'about:blank',
      title: say('The server could not answer'),
      status: response.status,
    }) as Problem;
    throw new ApiError(response.status, problem);
  }
  return value as T;
}
