import type { Language } from './bundle.js';

/** One file of a language: its head in one of them, texts in all. */
export interface LanguagePart {
  readonly code: string;
  readonly head?: Pick<Language, 'name' | 'locale' | 'smallWithin' | 'clinicians'>;
  readonly texts: Readonly<Record<string, string>>;
}

/** The files of each language put together. A language without a head is left out; the check of its texts finds that. */
export function mergeLanguages(parts: readonly LanguagePart[]): readonly Language[] {
  return [...new Set(parts.map((p) => p.code))].flatMap((code) => {
    const own = parts.filter((p) => p.code === code);
    const head = own.find((p) => p.head !== undefined)?.head;
    return head === undefined
      ? []
      : [{ code, ...head, texts: Object.assign({}, ...own.map((p) => p.texts)) as Language['texts'] }];
  });
}
