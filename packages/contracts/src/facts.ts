import {
  type Facts,
  shownLevels,
  type Side,
  type SkillDefinition,
  type SkillLevels,
  type StoryFacts,
} from '@heathstep/core';
import { asEntries, type Entries } from './entries/values.js';
import { readKey } from './entries/registry.js';
import type { EntryView, VisitView } from './views.js';

export const entriesOf = (entries: readonly EntryView[]): Entries =>
  asEntries(entries.filter((e) => e.value !== null).map((e) => [e.key, e.value]));

/** Newest level of each skill per side, as entered or as measures show it. Visits come oldest first. */
export function skillFacts(
  visits: readonly VisitView[],
  skills: readonly SkillDefinition[],
): Facts['skills'] {
  const levels: SkillLevels = {};
  for (const visit of visits) {
    for (const entry of visit.entries) {
      const read = readKey(entry.key);
      if (read?.kind === 'skill' && typeof entry.value === 'string')
        levels[read.name] = { ...levels[read.name], [read.side]: entry.value };
    }
    const entries = entriesOf(visit.entries);
    const read = (key: string, side: Side): number | null => {
      const entry = entries.get(`measure.${key}.${side}`);
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
  return {
    worstPain: entries.get('story.worst'),
    provokedWithinFiveMinutes: entries.get('story.provoked'),
    settlesMinutes: entries.get('story.settles'),
    nightPain: entries.get('story.night'),
  };
}
