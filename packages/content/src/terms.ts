/** What clinicians call things of one kind, by key. */
export interface TermsPart {
  readonly of: 'measure' | 'finding' | 'condition' | 'exercise' | 'driver';
  readonly terms: Readonly<Record<string, readonly string[]>>;
}

/** Items with what clinicians call them beside their plain name. */
export const withTerms = <T extends { readonly key: string }>(
  items: readonly T[],
  of: TermsPart['of'],
  parts: readonly TermsPart[],
): T[] =>
  items.map((item) => {
    const also = parts.filter((p) => p.of === of).flatMap((p) => p.terms[item.key] ?? []);
    return also.length === 0 ? item : { ...item, also };
  });

/** Terms of what is not there. */
export function strayTerms(
  parts: readonly TermsPart[],
  there: Readonly<Record<TermsPart['of'], readonly { readonly key: string }[]>>,
): string[] {
  return parts.flatMap(({ of, terms }) => {
    const keys = new Set(there[of].map((t) => t.key));
    return Object.keys(terms)
      .filter((key) => !keys.has(key))
      .map((key) => `terms of a ${of} ${key}, which is not there`);
  });
}
