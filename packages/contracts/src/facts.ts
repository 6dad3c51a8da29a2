import type { Facts, Side, StoryFacts } from '@heathstep/core';
import type { MeasureEntry } from './entryRules.js';
import type { EntryView, VisitView } from './views.js';

const LEARNED_HOLDS = 10;
const FULL_CONTROL = 2;

/** Current values of a visit's entries by key. */
export type Entries = ReadonlyMap<string, unknown>;

export const entriesOf = (entries: readonly EntryView[]): Entries =>
  new Map(entries.filter((e) => e.value !== null).map((e) => [e.key, e.value]));

/** Skills that a visit's measures show: ten holds of the short foot, each toe control in full. */
function measuredSkills(visit: VisitView, skills: Record<string, { left?: string; right?: string }>): void {
  const read = (key: string): number | null => {
    const entry = visit.entries.find((e) => e.key === key)?.value as MeasureEntry | null | undefined;
    const taken = entry?.status === 'taken' ? entry.trials.filter((t) => t !== null) : [];
    return taken.at(-1) ?? null;
  };
  for (const side of ['left', 'right'] as const) {
    const count = read(`measure.foot-shortening-count.${side}`);
    if (count !== null)
      skills['foot-shortening'] = {
        ...skills['foot-shortening'],
        [side]: count >= LEARNED_HOLDS ? 'learned' : count > 0 ? 'partial' : 'none',
      };
    const big = read(`measure.toe-control-big-toe.${side}`);
    const small = read(`measure.toe-control-small-toes.${side}`);
    if (big !== null && small !== null)
      skills['big-toe-control'] = {
        ...skills['big-toe-control'],
        [side]: Math.min(big, small) === FULL_CONTROL ? 'learned' : big + small > 0 ? 'partial' : 'none',
      };
  }
}

/** Newest level of each skill per side. Visits come oldest first. */
export function skillFacts(visits: readonly VisitView[]): Facts['skills'] {
  const skills: Record<string, { left?: string; right?: string }> = {};
  for (const visit of visits) {
    for (const entry of visit.entries) {
      const [kind, skill, side] = entry.key.split('.');
      if (kind === 'skill' && skill !== undefined && typeof entry.value === 'string') {
        skills[skill] = { ...skills[skill], [side as Side]: entry.value };
      }
    }
    measuredSkills(visit, skills);
  }
  return skills;
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
