import { type Side, SIDES } from '../quantity/side.js';

/** Something to be learned before it is loaded, and the measures that show it. */
export interface SkillDefinition {
  readonly key: string;
  readonly label: string;
  /** What counts as learned, in a few words. */
  readonly brief: string;
  /** Learned when each of these measures reaches `learned`, partly when together they reach `partly`. */
  readonly shownBy?: {
    readonly measures: readonly string[];
    readonly learned: number;
    readonly partly: number;
  };
}

export const SKILL_LEVELS = ['none', 'partial', 'learned'] as const;
export type SkillLevel = (typeof SKILL_LEVELS)[number];

/** Levels of skills per side, by skill. */
export type SkillLevels = Record<string, { left?: string; right?: string }>;

/** The level that measures show of a skill on a side; null where one of them was not taken. */
export function shownLevel(
  skill: SkillDefinition,
  valueOf: (measure: string, side: Side) => number | null,
  side: Side,
): SkillLevel | null {
  const { shownBy } = skill;
  if (shownBy === undefined) return null;
  const values = shownBy.measures.map((m) => valueOf(m, side));
  if (values.some((v) => v === null)) return null;
  const numbers = values.map((v) => v ?? 0);
  if (numbers.every((v) => v >= shownBy.learned)) return 'learned';
  return numbers.reduce((a, b) => a + b, 0) >= shownBy.partly ? 'partial' : 'none';
}

/** Levels that measures show of all skills; only what was taken. */
export function shownLevels(
  skills: readonly SkillDefinition[],
  valueOf: (measure: string, side: Side) => number | null,
): SkillLevels {
  const levels: SkillLevels = {};
  for (const skill of skills)
    for (const side of SIDES) {
      const level = shownLevel(skill, valueOf, side);
      if (level !== null) levels[skill.key] = { ...levels[skill.key], [side]: level };
    }
  return levels;
}
