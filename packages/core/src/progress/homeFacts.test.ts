import { askedIn, answerProblem, homeQuestions, type HomeQuestion } from '../protocol/homeQuestions.js';
import { evaluateCriteria } from './criteria.js';
import { homeFacts, type HomeLog } from './homeFacts.js';

const question = (over: Partial<HomeQuestion>): HomeQuestion => ({
  key: 'stairs',
  at: 'morning',
  kind: 'score',
  ask: 'How did the stairs go?',
  name: 'pain on the stairs',
  role: 'morning',
  asked: 'always',
  ...over,
});
const gaveWay = question({ key: 'gave-way', kind: 'count', name: 'times it gave way', role: null });
const worst = question({ key: 'worst', role: 'day-worst', asked: 'by-criteria' });
const questions = homeQuestions({ home: [question({}), gaveWay, worst] });
const session = (before: number, during: number, after: number, hourAbove: boolean | null = null) => ({
  before,
  during,
  after,
  'hour-above': hourAbove,
});
const log = (over: Partial<HomeLog>): HomeLog => ({ mornings: [], sessions: [], stops: [], ...over });
const read = (over: Partial<HomeLog>) => homeFacts(log(over), questions, 'next-morning', '2026-03-01');

describe('what is asked at home', () => {
  it('is the protocol’s own and what the pain rule needs; something is asked every morning', () => {
    expect(questions.map((q) => q.key)).toEqual([
      'stairs',
      'gave-way',
      'worst',
      'before',
      'during',
      'after',
      'hour-above',
    ]);
    expect(homeQuestions({ home: [gaveWay] })[0]?.key).toBe('morning-pain');
  });

  it('is asked in a stage only where its criteria read it, when it says so', () => {
    const day = { all: [{ any: [{ pain: 'worst-of-day', max: 3, days: 3 }] }] } as const;
    expect(askedIn(questions, null).some((q) => q.key === 'worst')).toBe(false);
    expect(askedIn(questions, day).some((q) => q.key === 'worst')).toBe(true);
    const some = question({ key: 'some', role: null, asked: 'by-criteria' });
    expect(askedIn([some], { answer: 'some', op: '<=', value: 1, days: 2 })).toEqual([some]);
    expect(askedIn([some], { atLeast: 1, of: [{ minDays: 2 }] })).toEqual([]);
  });

  it.each([
    [question({}), 10, null],
    [question({}), 11, 'A whole number from 0 to 10'],
    [question({}), 4.5, 'A whole number from 0 to 10'],
    [question({}), '4', 'A whole number from 0 to 10'],
    [gaveWay, 99, null],
    [gaveWay, -1, 'A whole number from 0 to 99'],
    [question({ kind: 'yes-no' }), true, null],
    [question({ kind: 'yes-no' }), 1, 'yes, no, or not yet'],
    [question({}), null, null],
  ])('%j answered %j: %s', (q, answer, problem) => expect(answerProblem(q, answer)).toBe(problem));
});

describe('the home log as facts', () => {
  it('joins a session to the next morning by role, whatever the questions are called', () => {
    const { facts, sessions } = read({
      sessions: [{ day: '2026-03-02', scores: session(1, 2, 1) }],
      mornings: [
        { day: '2026-03-02', scores: { stairs: 3, 'gave-way': 0 } },
        { day: '2026-03-03', scores: { stairs: 4, worst: 6 } },
      ],
    });
    expect(facts[0]).toMatchObject({ firstStep: 3, nextMorning: 4, day: 6, done: true, before: 1 });
    expect(facts[0]?.answers).toMatchObject({ stairs: 3, 'gave-way': 0, during: 2 });
    expect(facts[1]).toMatchObject({ done: false, firstStep: 4 });
    expect(sessions).toHaveLength(1);
  });

  it('takes the worse of two sessions of a day, answer by answer', () => {
    const [only] = read({
      sessions: [
        { day: '2026-03-02', scores: session(1, 6, 1, true) },
        { day: '2026-03-02', scores: session(3, 2, 2, false) },
      ],
    }).sessions;
    expect(only).toMatchObject({ before: 3, during: 6, after: 2, hourAbove: true });
  });

  it('judges a day with a stop sign and no session, not one with a pause only', () => {
    const { sessions } = read({
      stops: [
        { day: '2026-03-02', grade: 'review' },
        { day: '2026-03-03', grade: 'pause' },
      ],
    });
    expect(sessions.map((s) => [s.day, s.state])).toEqual([['2026-03-02', 'stop']]);
  });

  it('lets a criterion read any question, by its name', () => {
    const mornings = [0, 1, 0].map((n, i) => ({
      day: `2026-03-0${i + 2}`,
      scores: { stairs: 1, 'gave-way': n },
    }));
    const facts = {
      measures: [],
      sessions: read({ mornings }).facts,
      skills: {},
      stageSince: '2026-03-01',
      affected: 'left' as const,
      questions: { 'gave-way': { name: 'times it gave way', kind: 'count' as const } },
    };
    const judge = (value: number, days: number) =>
      evaluateCriteria({ answer: 'gave-way', op: '<=', value, days }, facts, '2026-03-04', () => undefined);
    expect(judge(1, 3)).toMatchObject({
      state: 'met',
      parts: [{ text: 'times it gave way at most 1 for 3 days' }],
    });
    expect(judge(0, 3).state).toBe('not-met');
    expect(judge(0, 1).state).toBe('met');
    expect(judge(0, 4)).toMatchObject({ state: 'not-known' });
  });
});
