import type { HomeAnswer, HomeQuestion, HomeRole, HomeScores } from '../protocol/homeQuestions.js';
import { addDays, type DayText } from '../quantity/day.js';
import type { SessionFact } from './criteriaTypes.js';
import type { PainSchool, StopSign } from './painRule.js';
import { type JudgedSession, judgeSessions, type Morning } from './sessions.js';

/** Answers of one entry of the home log. */
export interface LoggedScores {
  readonly day: DayText;
  readonly scores: HomeScores;
}

/** Everything logged at home, newest versions only. */
export interface HomeLog {
  readonly mornings: readonly LoggedScores[];
  readonly sessions: readonly LoggedScores[];
  readonly stops: readonly { readonly day: DayText; readonly grade: StopSign }[];
}

/** What the log says, judged. */
export interface HomeFacts {
  readonly sessions: readonly JudgedSession[];
  readonly mornings: readonly Morning[];
  readonly facts: readonly SessionFact[];
}

const GRADES: readonly StopSign[] = ['emergency', 'review', 'pause'];

const numberOf = (value: unknown): number | null => (typeof value === 'number' ? value : null);

/** The worse of two answers. */
function worseAnswer(x: HomeAnswer, y: HomeAnswer): HomeAnswer {
  if (x === null || y === null) return x ?? y;
  return typeof x === 'number' && typeof y === 'number' ? Math.max(x, y) : x === true || y === true;
}

/** The worse of two entries of a day, answer by answer. */
function worse(a: HomeScores, b: HomeScores): HomeScores {
  const both: Record<string, HomeAnswer> = {};
  for (const key of Object.keys(a)) both[key] = worseAnswer(a[key] ?? null, b[key] ?? null);
  for (const key of Object.keys(b)) both[key] ??= b[key] ?? null;
  return both;
}

function byDay(entries: readonly LoggedScores[]): Map<DayText, HomeScores> {
  const days = new Map<DayText, HomeScores>();
  for (const { day, scores } of entries) {
    const had = days.get(day);
    days.set(day, had === undefined ? scores : worse(had, scores));
  }
  return days;
}

/** A log read by day: what was answered, and the sessions judged. */
interface Judged extends Pick<HomeFacts, 'sessions' | 'mornings'> {
  readonly answered: ReadonlyMap<DayText, HomeScores>;
  readonly done: ReadonlyMap<DayText, HomeScores>;
}

function judged(
  log: HomeLog,
  questions: readonly HomeQuestion[],
  school: PainSchool,
  stageSince: DayText,
): Judged {
  const scored = scoredBy(questions);
  const answered = byDay(log.mornings);
  const done = byDay(log.sessions);
  const stopOn = (day: DayText) =>
    GRADES.find((grade) => log.stops.some((s) => s.day === day && s.grade === grade)) ?? null;
  const stopDays = log.stops.filter((s) => s.grade !== 'pause').map((s) => s.day);
  const mornings: Morning[] = [...answered].flatMap(([day, scores]) => {
    const pain = scored(scores, 'morning');
    return pain === null ? [] : [{ day, pain }];
  });
  const hourAbove = keyOf(questions, 'hour-above');
  const logged = [...new Set([...done.keys(), ...stopDays])].map((day) => {
    const scores = done.get(day);
    return {
      day,
      before: scored(scores, 'before') ?? 0,
      during: scored(scores, 'during') ?? 0,
      after: scored(scores, 'after') ?? 0,
      hourAbove: scores?.[hourAbove] === true,
      stopSign: stopOn(day),
    };
  });
  return {
    answered,
    done,
    sessions: judgeSessions(logged, mornings, school, stageSince),
    mornings: mornings.sort((a, b) => (a.day < b.day ? -1 : 1)),
  };
}

const keyOf = (questions: readonly HomeQuestion[], role: HomeRole): string =>
  questions.find((q) => q.role === role)?.key ?? '';

/** The answer that plays a role in the judgement of a day. */
function scoredBy(questions: readonly HomeQuestion[]) {
  const keys = new Map(questions.flatMap((q) => (q.role === null ? [] : [[q.role, q.key] as const])));
  return (scores: HomeScores | undefined, role: HomeRole): number | null =>
    numberOf(scores?.[keys.get(role) ?? '']);
}

/** The sessions of a log, judged; what `homeFacts` says of them, for who needs no more. */
export const homeSessions = (
  log: HomeLog,
  questions: readonly HomeQuestion[],
  school: PainSchool,
  stageSince: DayText,
): readonly JudgedSession[] => judged(log, questions, school, stageSince).sessions;

/**
 * Home entries as judged sessions and as facts for criteria. Several sessions of a day count as one, the worst scores; a
 * day with a stop sign and no session is judged too.
 *
 * @param stageSince day from which mornings make the usual
 */
export function homeFacts(
  log: HomeLog,
  questions: readonly HomeQuestion[],
  school: PainSchool,
  stageSince: DayText,
): HomeFacts {
  const scored = scoredBy(questions);
  const { answered, done, sessions, mornings } = judged(log, questions, school, stageSince);
  const days = [...new Set([...answered.keys(), ...sessions.map((s) => s.day)])].sort();
  const sessionOn = new Map(sessions.map((s) => [s.day, s]));
  const facts = days.map((day): SessionFact => {
    const session = sessionOn.get(day);
    const next = answered.get(addDays(day, 1));
    return {
      at: day,
      done: done.has(day),
      state: session?.state,
      firstStep: scored(answered.get(day), 'morning'),
      before: session?.before ?? null,
      during: session?.during ?? null,
      after: session?.after ?? null,
      nextMorning: scored(next, 'morning'),
      day: scored(next, 'day-worst'),
      answers: worse(answered.get(day) ?? {}, done.get(day) ?? {}),
    };
  });
  return { sessions, mornings, facts };
}
