import {
  type FindingDefinition,
  type MeasureDefinition,
  outsideAllowed,
  type SafetyQuestion,
  type SkillDefinition,
  say,
} from '@heathstep/core';
import { type ReadKey, readKey } from './registry.js';
import type { ConcludedIdea, MeasureEntry } from './values.js';

/** What entries may name. The measures are the shipped ones with the clinic's own. */
export interface NamedContent {
  readonly safetyQuestions: readonly SafetyQuestion[];
  readonly findings: readonly FindingDefinition[];
  readonly skills: readonly SkillDefinition[];
  readonly conditions: readonly { readonly key: string }[];
  readonly measures: readonly MeasureDefinition[];
}

const SIDED: readonly unknown[] = ['left', 'right', 'both'];

function questionProblem(content: NamedContent, { name }: ReadKey, value: unknown): string | null {
  const question = content.safetyQuestions.find((q) => q.key === name);
  if (question === undefined) return say('an answer to a known question');
  if (question.scope === 'person' && SIDED.includes(value))
    return say('yes, no or not tested: it is asked of the person');
  return question.how === 'ask' && value === 'not-tested'
    ? say('an answer: this is asked, not tested')
    : null;
}

function findingProblem(content: NamedContent, { name, side }: ReadKey): string | null {
  const finding = content.findings.find((f) => f.key === name);
  if (finding === undefined) return say('an answer to a known finding');
  return (finding.sides === 'person') === (side === 'none') ? null : say('on a side that this finding has');
}

function readingProblem(content: NamedContent, { name, side }: ReadKey, value: unknown): string | null {
  if (value === null) return null;
  const measure = content.measures.find((m) => m.key === name);
  if (measure === undefined) return say('a reading of a known measure');
  if (measure.computed !== null) return say('left out: this measure is worked out from others');
  if ((measure.sides === 'single') !== (side === 'none'))
    return measure.sides === 'single'
      ? say('a reading without a side')
      : say('a reading of the left or the right side');
  const { trials, again } = value as MeasureEntry;
  const bad = [...trials, ...(again?.trials ?? [])].flatMap((t) =>
    t === null ? [] : outsideAllowed(measure, t, 'trial'),
  );
  return bad[0]?.bound ?? null;
}

/**
 * What is named must be in the library: a question, a skill, a finding on a side it has, a possible reading of a measure,
 * a concluded condition. For values that entryProblem has passed; null when all is known.
 */
export function contentProblem(content: NamedContent, key: string, value: unknown): string | null {
  if (key === 'conclude.ideas') {
    const ideas = (value ?? []) as readonly ConcludedIdea[];
    const known = ideas.every((i) => content.conditions.some((c) => c.key === i.condition));
    return known ? null : say('conditions of the library');
  }
  const read = readKey(key);
  switch (read?.kind) {
    case 'safety':
      return questionProblem(content, read, value);
    case 'untested':
      return content.safetyQuestions.some((q) => q.key === read.name && q.how === 'test')
        ? null
        : say('why a known test was left out');
    case 'skill':
      return content.skills.some((s) => s.key === read.name) ? null : say('a known skill');
    case 'finding':
      return findingProblem(content, read);
    case 'measure':
      return readingProblem(content, read, value);
    default:
      return null;
  }
}
