import { TAGS } from '../exercise/definition.js';
import type { SafetyAnswer, SafetyQuestion, SafetyRule } from './definition.js';
import { evaluateSafety, type Closure } from './safety.js';

const evidence = { statement: '', source: 'test', kind: 'convention', version: 1 } as const;
const question = (key: string, scope: 'person' | 'side' = 'person'): SafetyQuestion => ({
  key,
  text: key,
  kind: 'acute',
  scope,
  group: 'g',
  how: 'ask',
});
const questions = [
  question('ulcer', 'side'),
  question('thinners'),
  question('swollen', 'side'),
  question('warm', 'side'),
  question('weight'),
  question('cancer'),
];
const rule = (key: string, change: Partial<SafetyRule>): SafetyRule => ({
  key,
  title: key,
  level: 'caution',
  scope: 'person',
  trigger: key,
  off: [],
  action: 'act',
  evidence,
  ...change,
});
const rules = [
  rule('ulcer', { level: 'urgent', scope: 'side', off: 'everything' }),
  rule('thinners', { off: ['scraping'] }),
  rule('clot', {
    level: 'emergency',
    scope: 'side',
    off: 'everything',
    trigger: { atLeast: 2, of: ['swollen', 'warm'] },
  }),
  rule('illness', { level: 'refer', off: ['impact'], trigger: { any: ['weight', 'cancer'] } }),
  rule('child', { trigger: { ageUnder: 16 }, off: ['heavy-load'] }),
];
const none: Record<string, SafetyAnswer> = Object.fromEntries(questions.map((q) => [q.key, 'no']));
const evaluate = (
  answers: Record<string, SafetyAnswer>,
  change: { closures?: Closure[]; ageYears?: number; affected?: 'left' | 'right' | 'both' } = {},
) =>
  evaluateSafety({
    questions,
    rules,
    answers,
    affected: change.affected ?? 'left',
    ageYears: change.ageYears ?? 40,
    closures: change.closures ?? [],
  });

describe('safety', () => {
  it('opens nothing when every answer is no', () => {
    expect(evaluate(none)).toMatchObject({
      unanswered: [],
      triggered: [],
      blockedBecause: [],
      tagsOff: { left: [], right: [] },
    });
  });

  it('blocks while a single answer is missing, and never reads it as no', () => {
    const { thinners: _left, ...rest } = none;
    const state = evaluate(rest);
    expect(state.unanswered).toEqual(['thinners']);
    expect(state.blockedBecause).toEqual(['1 safety answer is missing']);
  });

  it('switches off exactly the tags named, for the person on both sides', () => {
    expect(evaluate({ ...none, thinners: 'yes' })).toMatchObject({
      tagsOff: { left: ['scraping'], right: ['scraping'] },
      blockedBecause: [],
    });
  });

  it('blocks everything on the one side a side rule is about', () => {
    const state = evaluate({ ...none, ulcer: 'left' });
    expect(state.tagsOff.left).toEqual([...TAGS]);
    expect(state.tagsOff.right).toEqual([]);
    expect(state.blockedBecause).toEqual(['ulcer, left: act']);
    expect(evaluate({ ...none, ulcer: 'right' }).blockedBecause).toEqual([]);
    expect(evaluate({ ...none, ulcer: 'both' }).triggered).toHaveLength(2);
  });

  it('needs the signs on the same side', () => {
    expect(evaluate({ ...none, swollen: 'left', warm: 'right' }).triggered).toEqual([]);
    expect(evaluate({ ...none, swollen: 'left', warm: 'both' }).triggered).toMatchObject([{ side: 'left' }]);
  });

  it('reads the age', () => {
    expect(evaluate(none, { ageYears: 15 }).tagsOff.left).toEqual(['heavy-load']);
    expect(evaluate(none, { ageYears: 16 }).triggered).toEqual([]);
  });

  it('lets refer and caution be overridden, emergency and urgent only be closed', () => {
    const override = (key: string, side: 'left' | 'none', kind: Closure['kind']): Closure => ({
      rule: key,
      side,
      kind,
      text: 'because',
    });
    expect(
      evaluate({ ...none, weight: 'yes' }, { closures: [override('illness', 'none', 'overridden')] }),
    ).toMatchObject({ tagsOff: { left: [] }, triggered: [{ status: 'overridden' }] });
    expect(
      evaluate({ ...none, ulcer: 'left' }, { closures: [override('ulcer', 'left', 'overridden')] }).stops,
    ).toHaveLength(1);
    expect(
      evaluate({ ...none, ulcer: 'left' }, { closures: [override('ulcer', 'left', 'closed')] }),
    ).toMatchObject({ stops: [], blockedBecause: [] });
  });

  it('puts the most serious first', () => {
    const state = evaluate({ ...none, thinners: 'yes', swollen: 'left', warm: 'left', weight: 'yes' });
    expect(state.triggered.map((t) => t.rule.level)).toEqual(['emergency', 'refer', 'caution']);
  });
});
