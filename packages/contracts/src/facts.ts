import {
  type Facts,
  shownLevels,
  type Side,
  type SkillDefinition,
  type SkillLevels,
  type StoryFacts,
} from '@heathstep/core';
import type { MeasureEntry } from './entryRules.js';
import type { EntryView, VisitView } from './views.js';

/** Current values of a visit's entries by key. */
export type Entries = ReadonlyMap<string, unknown>;

export const entriesOf = (entries: readonly EntryView[]): Entries =>
  new Map(entries.filter((e) => e.value !== null).map((e) => [e.key, e.value]));

/** Newest level of each skill per side, as entered or as measures show it. Visits come oldest first. */
export function skillFacts(
  visits: readonly VisitView[],
  skills: readonly SkillDefinition[],
): Facts['skills'] {
  const levels: SkillLevels = {};
  for (const visit of visits) {
    for (const entry of visit.entries) {
      const [kind, skill, side] = entry.key.split('.');
      if (kind === 'skill' && skill !== undefined && typeof entry.value === 'string')
        levels[skill] = { ...levels[skill], [side as Side]: entry.value };
    }
    const read = (key: string, side: Side): number | null => {
      const entry = visit.entries.find((e) => e.key === `measure.${key}.${side}`)?.value as
        MeasureEntry | null | undefined;
      const taken = entry?.status === 'taken' ? entry.trials.filter((t) => t !== null) : [];
      return taken.at(-1) ?? null;
    };
    for (const [skill, shown] of Object.entries(shownLevels(skills, read)))
      levels[skill] = { ...levels[skill], ...shown };
  }
  return levels;
}

/** What the story's entries tell of how irritable it is. */
export function storyFacts(entries: Entries): StoryFacts {
  const get = <T>(key: string): T | undefined => entries.get(key) as T | undefined;
  return {
    worstPain: get('story.worst'),
    provokedWithinFiveMinutes: get('story.provoked'),
    settlesMinutes: get('story.settles'),
    nightPain: get('story.night'),
  };
}
