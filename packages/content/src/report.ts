import type { ContentBundle, ContentCounts } from './bundle.js';
import type { LoadResult } from './load.js';

export interface ContentReport {
  readonly counts: ContentCounts;
  readonly problems: readonly string[];
  readonly keys: Readonly<Record<keyof ContentCounts, readonly string[]>>;
}

const NOTHING = {
  measures: [],
  exercises: [],
  ladders: [],
  findings: [],
  conditions: [],
  drivers: [],
  protocols: [],
  safetyRules: [],
};

function keysOf(content: ContentBundle): ContentReport['keys'] {
  const keys = (items: readonly { readonly key: string }[]) => items.map((i) => i.key);
  return {
    measures: keys(content.measures),
    exercises: keys(content.exercises),
    ladders: keys(content.ladders),
    findings: keys(content.findings),
    conditions: keys(content.conditions),
    drivers: keys(content.drivers),
    protocols: keys(content.protocols),
    safetyRules: keys(content.safetyRules),
  };
}

/** Counts and keys by kind, and every problem. */
export function contentReport(loaded: LoadResult): ContentReport {
  const keys = loaded.ok ? keysOf(loaded.content) : NOTHING;
  const counts = Object.fromEntries(
    Object.entries(keys).map(([kind, list]) => [kind, list.length]),
  ) as unknown as ContentCounts;
  return { counts, problems: loaded.ok ? [] : loaded.problems.map(String), keys };
}
