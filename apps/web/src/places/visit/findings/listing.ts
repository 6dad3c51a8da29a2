import {
  BODY_PARTS,
  type BodyPart,
  type FindingDefinition,
  type NextBest,
  type Reasoning,
  say,
} from '@heathstep/core';
import type { Step } from '../progress.js';
import type { Idea } from './ideas.js';

export const PART_NAMES: Readonly<Record<BodyPart, string>> = {
  heel: say('Heel'),
  achilles: say('Achilles tendon'),
  ankle: say('Ankle'),
  midfoot: say('Midfoot and arch'),
  forefoot: say('Forefoot'),
  'big-toe': say('Big toe'),
  toes: say('Small toes'),
  shin: say('Shin'),
  calf: say('Calf'),
  'whole-foot': say('Whole foot'),
  leg: say('Leg, hip and back'),
  person: say('The person'),
};

export type View =
  | { readonly by: 'telling' }
  | { readonly by: 'idea'; readonly id: string }
  | { readonly by: 'part'; readonly part: BodyPart }
  | { readonly by: 'answered' };

export const TELLING_AT_ONCE = 8;

/** The step in which something is told, seen or measured; what nothing there sets is answered in Feel. */
export const answeredIn = (f: Pick<FindingDefinition, 'from' | 'sign'>): Step =>
  f.sign === null || f.from === 'test' ? 'feel' : f.from;

/** Findings to ask next, each once, most telling first. */
export const tellingKeys = (next: readonly NextBest[]): string[] => [...new Set(next.map((n) => n.finding))];

/**
 * A list that does not jump while it is worked through: what was shown stays where it is, answered or not,
 * and new findings come in below as others are answered.
 */
export function steadyList(
  shown: readonly string[],
  telling: readonly string[],
  isOpen: (key: string) => boolean,
): string[] {
  const open = shown.filter(isOpen).length;
  const fresh = telling.filter((key) => !shown.includes(key)).slice(0, Math.max(0, TELLING_AT_ONCE - open));
  return fresh.length === 0 ? [...shown] : [...shown, ...fresh];
}

const strength = (f: FindingDefinition, condition: string): number => {
  const ratio = f.ratios[condition];
  return ratio === undefined
    ? 0
    : Math.max(Math.log(ratio.present), -Math.log(ratio.absent), -Math.log(ratio.present));
};

/** Everything that speaks of one idea, strongest first. */
export const findingsOfIdea = (findings: readonly FindingDefinition[], idea: Idea): FindingDefinition[] =>
  findings
    .filter((f) => Object.hasOwn(f.ratios, idea.condition.key))
    .sort((a, b) => strength(b, idea.condition.key) - strength(a, idea.condition.key));

export const findingsOfPart = (findings: readonly FindingDefinition[], part: BodyPart): FindingDefinition[] =>
  findings.filter((f) => f.part === part);

/** Whether a finding is known, or was left out on purpose, on any side it has. */
export function isSettled(reasoning: Reasoning, finding: FindingDefinition): boolean {
  const sides =
    finding.sides === 'person' || reasoning.sides.length === 0 ? (['none'] as const) : reasoning.sides;
  return sides.every((side) => {
    const at = reasoning.known.at(finding.key, side);
    return at.state !== 'unknown' || at.notTested;
  });
}

export const partsWith = (findings: readonly FindingDefinition[]): BodyPart[] =>
  BODY_PARTS.filter((part) => findings.some((f) => f.part === part));

/** How long a test takes, as it is told beside it: about 18 s, about 2 min. */
export const aboutMinutes = (minutes: number): string =>
  say('about {{time}}', {
    time: minutes < 1 ? `${Math.round(minutes * 60)} s` : say('{{minutes}} min', { minutes }),
  });
