import type { SafetyAnswer, SafetyQuestion } from '@heathstep/core';
import { asEntries } from './entries/values.js';
import { safetyAt, unexplainedTests } from './safety.js';
import type { VisitView } from './views.js';

const question = (key: string, more: Partial<SafetyQuestion> = {}): SafetyQuestion => ({
  key,
  text: key,
  kind: 'acute',
  scope: 'side',
  group: 'g',
  how: 'ask',
  ...more,
});

const content = {
  measures: [],
  findings: [],
  safetyRules: [],
  bodyParts: [
    { key: 'back', name: 'Back of the leg', areas: ['calf', 'tendon'] },
    { key: 'under', name: 'Under the foot', areas: ['sole'] },
  ],
  pathways: [
    { key: 'sole-pain', parts: ['under'] },
    { key: 'tendon-pain', parts: ['back'] },
  ],
  safetyQuestions: [
    question('pop'),
    question('squeeze', { how: 'test', part: 'back', neededIf: { any: ['pop'] } }),
    question('press', { how: 'test', part: 'under' }),
    question('late', {
      clashes: [{ when: 'pop', words: 'something popped', ofOnset: true }],
    }),
  ],
};

const visit = (number: number, entries: Record<string, unknown>): VisitView =>
  ({
    id: `v${number}`,
    kind: number === 1 ? 'first' : 'review',
    number,
    startedAt: `2026-03-0${number}T09:00:00Z`,
    signedAt: null,
    entries: Object.entries(entries).map(([key, value]) => ({ key, value, version: 1, author: '', at: '' })),
  }) as unknown as VisitView;

const answers = (given: Record<string, SafetyAnswer>) =>
  Object.fromEntries(Object.entries(given).map(([k, v]) => [`safety.${k}`, v]));

const on = (complaint: string, ...visits: VisitView[]) => {
  const last = visits[visits.length - 1] as VisitView;
  return safetyAt(content, visits, last, { affected: 'left', complaint, ageYears: 40, closures: [] });
};

describe('tests of the safety screen', () => {
  it.each([
    ['the complaint concerns their part', 'tendon-pain', {}, true],
    ['the complaint is not among those known', 'something-else', {}, true],
    ['pain is drawn on their part, on either side', 'sole-pain', { 'story.regions': ['right:calf'] }, true],
    ['an answer makes them needed', 'sole-pain', answers({ pop: 'right' }), true],
    ['pain is drawn elsewhere', 'sole-pain', { 'story.regions': ['left:sole'] }, false],
    ['nothing is told', 'sole-pain', {}, false],
  ])('are asked, or spared, where %s', (_why, complaint, entries, asked) => {
    const state = on(complaint, visit(1, entries));
    expect(state.unanswered.includes('squeeze')).toBe(asked);
    expect(state.spared).toEqual(asked ? [] : ['squeeze']);
    expect(state.unanswered).toContain('press');
  });

  it('go by the pain that was drawn at a visit before', () => {
    const state = on('sole-pain', visit(1, { 'story.regions': ['left:tendon'] }), visit(2, {}));
    expect(state.unanswered).toContain('squeeze');
  });

  it('say why they were left out, those that are asked', () => {
    const entries = (more: Record<string, unknown> = {}) =>
      asEntries(
        Object.entries({ ...answers({ press: 'not-tested', squeeze: 'not-tested', pop: 'no' }), ...more }),
      );
    const asked = { asked: ['pop', 'press'] };
    expect(unexplainedTests(asked, entries())).toEqual(['press']);
    expect(unexplainedTests(asked, entries({ 'untested.press': 'too painful' }))).toEqual([]);
    expect(unexplainedTests(asked, entries({ 'untested.squeeze': 'declined' }))).toEqual(['press']);
  });

  it('hold what began it against the answers of a first visit only', () => {
    const told = answers({ pop: 'left', late: 'no' });
    expect(on('sole-pain', visit(1, told)).clashes.map((c) => c.question)).toEqual(['late']);
    expect(on('sole-pain', visit(1, told), visit(2, told)).clashes).toEqual([]);
  });
});
