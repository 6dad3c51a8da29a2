import type { NextFunction, Request, Response } from 'express';
import { AsyncLocalStorage } from 'node:async_hooks';
import { clinicianTongueOf, type LanguageView } from '@heathstep/contracts';
import { ENGLISH, speakBy, type Tongue } from '@heathstep/core';

interface Speaking {
  /** Null for English, which everything is written in. */
  readonly code: string | null;
  readonly tongue: Tongue;
}

const speaking = new AsyncLocalStorage<Speaking>();

/** The code of the language this request is answered in; null for English. What is kept of an answer is kept by it. */
export const languageNow = (): string | null => speaking.getStore()?.code ?? null;

/**
 * Answers a request in the language its page asks for by `Accept-Language`, where the content says what clinicians read in
 * it, else in English. What patients read is said by the tongue of the person, whoever asks.
 */
export function answersIn(
  languages: readonly LanguageView[],
): (request: Request, response: Response, next: NextFunction) => void {
  speakBy(() => speaking.getStore()?.tongue ?? ENGLISH);
  const spoken = new Map(
    languages.filter((l) => l.clinicians === true).map((l) => [l.code, clinicianTongueOf(l)]),
  );
  return (request, response, next) => {
    response.vary('Accept-Language');
    const code = request.acceptsLanguages('en', ...spoken.keys());
    const tongue = code === false ? undefined : spoken.get(code);
    if (tongue === undefined || code === false) next();
    else speaking.run({ code, tongue }, next);
  };
}
