import { say, phrase } from '../quantity/tongue.js';
import type { Criterion } from '../progress/criteriaTypes.js';

/** What an answer is in the judgement of a day; null for what only criteria and the course read. */
export type HomeRole = 'morning' | 'day-worst' | 'before' | 'during' | 'after' | 'hour-above';

/** When it is asked: with the morning, before the exercises, after them, or an hour later. */
export type HomeMoment = 'morning' | 'before' | 'after' | 'later';

/** One thing the patient is asked at home. A score is 0 to 10, a count a whole number from 0 to 99. */
export interface HomeQuestion {
  readonly key: string;
  readonly at: HomeMoment;
  readonly kind: 'score' | 'yes-no' | 'count';
  /** As the patient reads it. */
  readonly ask: string;
  /** As it is called in criteria, log and course: `first-step pain`. */
  readonly name: string;
  readonly role: HomeRole | null;
  /** Asked on every such occasion, or only in stages whose criteria read it. */
  readonly asked: 'always' | 'by-criteria';
}

export type HomeAnswer = number | boolean | null;

/** Answers of one entry by question. */
export type HomeScores = Readonly<Record<string, HomeAnswer>>;

const asked = (
  key: string,
  role: HomeRole,
  words: { readonly at: HomeMoment; readonly ask: string; readonly name: string },
): HomeQuestion => ({
  key,
  kind: role === 'hour-above' ? 'yes-no' : 'score',
  role,
  ...words,
  asked: 'always',
});

/** What the pain rule needs of every session, whatever is treated. */
const SESSION_QUESTIONS: readonly HomeQuestion[] = [
  asked('before', 'before', {
    at: 'before',
    ask: phrase('Before you start: how much does it hurt now?'),
    name: phrase('pain before exercise'),
  }),
  asked('during', 'during', {
    at: 'after',
    ask: phrase('How much did it hurt at its highest, while you did it?'),
    name: phrase('pain during exercise'),
  }),
  asked('after', 'after', {
    at: 'after',
    ask: phrase('And how much now, after?'),
    name: phrase('pain after exercise'),
  }),
  asked('hour-above', 'hour-above', {
    at: 'later',
    ask: phrase('Is your pain still clearly above what it was before?'),
    name: phrase('pain an hour later'),
  }),
];

const MORNING_QUESTION = asked('morning-pain', 'morning', {
  at: 'morning',
  ask: phrase('How much did it hurt when you got up this morning?'),
  name: phrase('morning pain'),
});

const DAY_WORST_QUESTION: HomeQuestion = {
  ...asked('day-worst', 'day-worst', {
    at: 'morning',
    ask: phrase('And yesterday at its worst?'),
    name: phrase('worst pain of the day'),
  }),
  asked: 'by-criteria',
};

/** Everything asked under a protocol: its own questions and those of the pain rule. Something is asked every morning. */
export function homeQuestions(protocol: { readonly home: readonly HomeQuestion[] }): readonly HomeQuestion[] {
  const own = protocol.home;
  const mornings = own.some((q) => q.role === 'morning') ? [] : [MORNING_QUESTION];
  const days = own.some((q) => q.role === 'day-worst') ? [] : [DAY_WORST_QUESTION];
  return [...mornings, ...own, ...days, ...SESSION_QUESTIONS];
}

/** The questions of a protocol by key, as criteria name them. */
export const questionsByKey = (protocol: {
  readonly home: readonly HomeQuestion[];
}): Readonly<Record<string, HomeQuestion>> =>
  Object.fromEntries(homeQuestions(protocol).map((q) => [q.key, q]));

const reads = (criterion: Criterion, q: HomeQuestion): boolean => {
  if ('all' in criterion) return criterion.all.some((c) => reads(c, q));
  if ('any' in criterion) return criterion.any.some((c) => reads(c, q));
  if ('of' in criterion) return criterion.of.some((c) => reads(c, q));
  if ('answer' in criterion) return criterion.answer === q.key;
  if ('events' in criterion) return criterion.events === q.key || criterion.exposure.what === q.key;
  return (
    'pain' in criterion &&
    (criterion.pain === 'day' || criterion.pain === 'worst-of-day') &&
    q.role === 'day-worst'
  );
};

/** What is asked in a stage. */
export const askedIn = (
  questions: readonly HomeQuestion[],
  criteria: Criterion | null,
): readonly HomeQuestion[] =>
  questions.filter((q) => q.asked === 'always' || (criteria !== null && reads(criteria, q)));

/** Why an answer cannot be taken, in words; null when it can. */
export function answerProblem(q: HomeQuestion, answer: unknown): string | null {
  if (answer === null) return null;
  if (q.kind === 'yes-no') return typeof answer === 'boolean' ? null : say('yes, no, or not yet');
  const most = q.kind === 'score' ? 10 : 99;
  return Number.isInteger(answer) && (answer as number) >= 0 && (answer as number) <= most
    ? null
    : say('A whole number from 0 to {{most}}', { most });
}
