import { useQuery } from '@tanstack/react-query';
import { createContext, type ReactNode, use, useEffect, useMemo } from 'react';
import { type LanguageView, tongueOf } from '@heathstep/contracts/language';
import { ENGLISH, type Tongue } from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { keep, stored } from '../../api/kept.js';
import { dayHere, dayIn, longDay, shortDay, weekdayName } from '../../parts/dates.js';

/** How a page speaks to its reader: texts, numbers and days. */
export interface Reader extends Tongue {
  /** Wednesday 25 November. */
  readonly longDay: (iso: string) => string;
  /** Wednesday. */
  readonly weekday: (iso: string) => string;
  /** 25 Nov. */
  readonly shortDay: (iso: string) => string;
}

const IN_ENGLISH: Reader = { ...ENGLISH, longDay, weekday: weekdayName, shortDay };

const Speaks = createContext<Reader>(IN_ENGLISH);

export const useReader = (): Reader => use(Speaks);

const KEPT = 'heathstep.home.language';

/** The language last read on this phone, so that it is there without a connection and before the link is opened. */
export const lastLanguage = (): string | null =>
  stored<LanguageView | null>(KEPT, null)?.code ?? browserLanguage();

/** What the browser asks for, where it is not English. */
function browserLanguage(): string | null {
  const code = navigator.language.slice(0, 2).toLowerCase();
  return code === 'en' ? null : code;
}

function readerOf(language: LanguageView): Reader {
  const days = (parts: Intl.DateTimeFormatOptions) => (iso: string) =>
    dayIn(language.locale, parts, dayHere(iso));
  return {
    ...tongueOf(language),
    longDay: days({ weekday: 'long', day: 'numeric', month: 'long' }),
    weekday: days({ weekday: 'long' }),
    shortDay: days({ day: 'numeric', month: 'short' }),
  };
}

/** Everything below speaks the language of a code; English where it is null, or not to be had. */
export function Speaking({ code, children }: { code: string | null; children: ReactNode }) {
  const kept = stored<LanguageView | null>(KEPT, null);
  const language = useQuery({
    queryKey: ['language', code],
    queryFn: () => request<LanguageView>('GET', `/api/languages/${code ?? ''}`),
    enabled: code !== null,
    staleTime: Infinity,
    retry: (count, error) => error instanceof ApiError && error.passing && count < 4,
    ...(kept !== null && kept.code === code ? { initialData: kept } : {}),
  });
  const known = code === null ? null : (language.data ?? null);
  useEffect(() => keep(KEPT, known, known === null && code === null), [known, code]);
  useEffect(() => {
    const before = document.documentElement.lang;
    document.documentElement.lang = known?.code ?? 'en';
    return () => {
      document.documentElement.lang = before;
    };
  }, [known]);
  const reader = useMemo(() => (known === null ? IN_ENGLISH : readerOf(known)), [known]);
  // English for a moment, and then another language, would be read twice.
  if (code !== null && language.isLoading) return null;
  return <Speaks value={reader}>{children}</Speaks>;
}
