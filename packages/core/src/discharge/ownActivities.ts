interface Activity {
  readonly text: string;
  readonly ability: number | null;
}

/** Activities of two visits together, those asked then first; null where one was not asked or not scored. */
export function ownActivities(
  then: readonly Activity[],
  now: readonly Activity[],
): readonly { readonly text: string; readonly then: number | null; readonly now: number | null }[] {
  const texts = [...new Set([...then, ...now].map((a) => a.text))];
  const of = (list: readonly Activity[], text: string) => list.find((a) => a.text === text)?.ability ?? null;
  return texts.map((text) => ({ text, then: of(then, text), now: of(now, text) }));
}
