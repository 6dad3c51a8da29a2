import type { HomeEntryView, HomeView, MorningPayload, SessionPayload } from '@heathstep/contracts';
import type { HomeAnswer, HomeMoment, HomeQuestion, HomeRole, HomeScores, Tongue } from '@heathstep/core';

/** What is asked at a moment, in order. */
export const askedAt = (view: Pick<HomeView, 'questions'>, moment: HomeMoment): readonly HomeQuestion[] =>
  view.questions.filter((q) => q.at === moment);

export const scoresOf = (entry: HomeEntryView): HomeScores =>
  (entry.payload as MorningPayload | SessionPayload).scores;

/** The question with a role; undefined where none is asked. */
export const questionFor = (view: Pick<HomeView, 'questions'>, role: HomeRole): HomeQuestion | undefined =>
  view.questions.find((q) => q.role === role);

/** The answer with a role; null when it is not answered. */
export const answerFor = (
  view: Pick<HomeView, 'questions'>,
  scores: HomeScores,
  role: HomeRole,
): HomeAnswer => scores[questionFor(view, role)?.key ?? ''] ?? null;

/** An answer in a word or a number. */
export const answerText = (answer: HomeAnswer, t: Tongue): string =>
  answer === null
    ? t.say('not answered')
    : typeof answer === 'boolean'
      ? t.say(answer ? 'yes' : 'no')
      : String(answer);

/** What was answered of an entry, in one line. */
export const logLine = (view: Pick<HomeView, 'questions'>, entry: HomeEntryView, t: Tongue): string =>
  view.questions
    .filter((q) => q.key in scoresOf(entry) && scoresOf(entry)[q.key] !== null)
    .map((q) => `${q.name} ${answerText(scoresOf(entry)[q.key] ?? null, t)}`)
    .join(', ');

export const firstUpper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
