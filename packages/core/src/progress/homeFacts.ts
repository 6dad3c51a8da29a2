import type { HomeQuestion, HomeRole, HomeScores } from '../protocol/homeQuestions.js';
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

/** The worse of two entries of a day, answer by answer. */
function worse(a: HomeScores, b: HomeScores): HomeScores {
  const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])];
  return Object.fromEntries(
    keys.map((key) => {
      const [x, y] = [a[key] ?? null, b[key] ?? null];
      if (x === null || y === null) return [key, x ?? y];
      return [
        key,
        typeof x === 'number' && typeof y === 'number' ? Math.max(x, y) : x === true || y === true,
      ];
    }),
  );
}

function byDay(entries: readonly LoggedScores[]): Map<DayText, HomeScores> {
  const days = new Map<DayText, HomeScores>();
  for (const { day, scores } of entries) {
    const had = days.get(day);
    days.set(day, had === undefined ? scores : worse(had, scores));
  }
  return days;
}

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
  const keyOf = (role: HomeRole) => questions.find((q) => q.role === role)?.key ?? '';
  const scored = (scores: HomeScores | undefined, role: HomeRole) => numberOf(scores?.[keyOf(role)]);
  const mornings = byDay(log.mornings);
  const done = byDay(log.sessions);
  const stopOn = (day: DayText) =>
    GRADES.find((grade) => log.stops.some((s) => s.day === day && s.grade === grade)) ?? null;
  const stopDays = log.stops.filter((s) => s.grade !== 'pause').map((s) => s.day);
  const painful: Morning[] = [...mornings].flatMap(([day, scores]) => {
    const pain = scored(scores, 'morning');
    return pain === null ? [] : [{ day, pain }];
  });
  const logged = [...new Set([...done.keys(), ...stopDays])].map((day) => {
    const scores = done.get(day);
    return {
      day,
      before: scored(scores, 'before') ?? 0,
      during: scored(scores, 'during') ?? 0,
      after: scored(scores, 'after') ?? 0,
      hourAbove: scores?.[keyOf('hour-above')] === true,
      stopSign: stopOn(day),
    };
  });
  const sessions = judgeSessions(logged, painful, school, stageSince);
  const days = [...new Set([...mornings.keys(), ...sessions.map((s) => s.day)])].sort();
  const sessionOn = new Map(sessions.map((s) => [s.day, s]));
  const facts = days.map((day): SessionFact => {
    const session = sessionOn.get(day);
    const next = mornings.get(addDays(day, 1));
    return {
      at: day,
      done: done.has(day),
      state: session?.state,
      firstStep: scored(mornings.get(day), 'morning'),
      before: session?.before ?? null,
      during: session?.during ?? null,
      after: session?.after ?? null,
      nextMorning: scored(next, 'morning'),
      day: scored(next, 'day-worst'),
      answers: worse(mornings.get(day) ?? {}, done.get(day) ?? {}),
    };
  });
  return { sessions, mornings: [...painful].sort((a, b) => (a.day < b.day ? -1 : 1)), facts };
}
