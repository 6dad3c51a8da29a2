import { say } from '../quantity/tongue.js';
import { atLeast, median } from '../quantity/statistics.js';
import type { DayText } from '../quantity/day.js';
import { issue, ok, refused, type Issue, type Result } from '../result/result.js';

export type PainSchool = 'comfort' | 'next-morning' | 'bone';

/** The strictest first. */
export const PAIN_SCHOOLS_BY_STRICTNESS: readonly PainSchool[] = ['bone', 'comfort', 'next-morning'];

/** The stricter of a stage's school and what a caution asks for. */
export const stricterSchool = (a: PainSchool, b: PainSchool | null): PainSchool =>
  PAIN_SCHOOLS_BY_STRICTNESS.find((s) => s === a || s === b) ?? a;

export type PainState = 'green' | 'amber' | 'red' | 'not-known' | 'stop';
export type StopSign = 'emergency' | 'review' | 'pause';

export interface PainInput {
  readonly school: PainSchool;
  /** Whole numbers 0 to 10, the worse side. */
  readonly before: number;
  readonly during: number;
  readonly after: number;
  /** An hour later still 2 or more above before. */
  readonly hourAbove: boolean;
  readonly nextMorning: number | null;
  /** Halves allowed. */
  readonly morningBaseline: number | null;
  readonly stopSign: StopSign | null;
}

export interface PainResult {
  readonly state: PainState;
  readonly because: readonly string[];
  /** 4 or more before starting (over 5 in the next-morning school): relief and range only today, and ask for review. */
  readonly restOnly: boolean;
}

const isScore = (v: number): boolean => Number.isInteger(v) && v >= 0 && v <= 10;

const SCORES = ['before', 'during', 'after', 'nextMorning'] as const;

function problemsOf(input: PainInput): Issue[] {
  const problems: Issue[] = [];
  for (const path of SCORES) {
    const v = input[path];
    if (v !== null && !isScore(v)) problems.push(issue(path, v, say('a whole number from 0 to 10')));
    // Only the next morning may be missing.
    if (v === null && path !== 'nextMorning')
      problems.push(issue(path, v, say('a whole number from 0 to 10')));
  }
  const base = input.morningBaseline;
  if (base !== null && !(Number.isInteger(base * 2) && base >= 0 && base <= 10)) {
    problems.push(issue('morningBaseline', base, say('null, or 0 to 10 in halves')));
  }
  return problems;
}

/** How far above the usual a morning is red and amber. Daily pain varies by about 1 in people who do not change. */
const MORNING_LIMITS: Readonly<Record<PainSchool, { readonly red: number; readonly amber: number }>> = {
  comfort: { red: 3, amber: 2 },
  'next-morning': { red: 3, amber: 2 },
  bone: { red: 2, amber: 1 },
};

/** Pain before starting from which only relief and range are done today. */
const REST_FROM: Readonly<Record<PainSchool, number>> = { comfort: 4, 'next-morning': 6, bone: 4 };

/** Whether pain before starting leaves only relief and range for today. */
export const restsToday = (school: PainSchool, before: number): boolean => before >= REST_FROM[school];

function morningReasons(input: PainInput, limit: number): string[] {
  const { nextMorning, morningBaseline } = input;
  if (nextMorning === null || morningBaseline === null) return [];
  return atLeast(nextMorning, morningBaseline + limit)
    ? [
        say('next morning {{nextMorning}}, {{limit}} or more above the usual {{morningBaseline}}', {
          nextMorning,
          limit,
          morningBaseline,
        }),
      ]
    : [];
}

function redReasons(input: PainInput, highest: number, rise: number): string[] {
  const reasons: string[] = [];
  if (input.school === 'comfort') {
    if (rise >= 2) reasons.push(say('pain rose by {{rise}}, 2 or more is red', { rise }));
    if (highest >= 4 && rise >= 1)
      reasons.push(say('pain rose to {{highest}}, 4 or more is red', { highest }));
  } else if (input.school === 'next-morning') {
    if (highest > 5) reasons.push(say('highest pain {{highest}}, above 5 is red', { highest }));
    if (input.hourAbove) reasons.push(say('an hour later still 2 or more above before'));
  } else if (highest >= 1 && rise >= 1) {
    reasons.push(say('bone pain rose to {{highest}}, any rise is red', { highest }));
  }
  return [...reasons, ...morningReasons(input, MORNING_LIMITS[input.school].red)];
}

function amberReasons(input: PainInput, highest: number, rise: number): string[] {
  const reasons: string[] = [];
  if (input.school === 'comfort') {
    if (highest >= 4) reasons.push(say('highest pain {{highest}}, 4 or more is amber', { highest }));
    if (rise === 1) reasons.push(say('pain rose by 1'));
    if (input.hourAbove) reasons.push(say('an hour later still 2 or more above before'));
  } else if (input.school === 'next-morning') {
    if (highest >= 4) reasons.push(say('highest pain {{highest}}, 4 or 5 is amber', { highest }));
    if (input.before > 5)
      reasons.push(say('pain {{before}} before starting, above 5 is amber', { before: input.before }));
  } else {
    if (highest >= 1) reasons.push(say('bone pain {{highest}}, 1 or more is amber', { highest }));
    if (input.hourAbove) reasons.push(say('an hour later still 2 or more above before'));
  }
  return [...reasons, ...morningReasons(input, MORNING_LIMITS[input.school].amber)];
}

function judge(input: PainInput): { state: PainState; because: string[] } {
  const highest = Math.max(input.during, input.after);
  const rise = highest - input.before;
  if (input.stopSign === 'emergency' || input.stopSign === 'review') {
    return {
      state: 'stop',
      because: [say('a stop sign was reported ({{stopSign}})', { stopSign: say(input.stopSign) })],
    };
  }
  const red = redReasons(input, highest, rise);
  if (red.length > 0) return { state: 'red', because: red };
  if (input.nextMorning === null) {
    return { state: 'not-known', because: [say('the next morning was not answered')] };
  }
  if (input.morningBaseline === null) {
    return { state: 'not-known', because: [say('fewer than 3 mornings to compare with')] };
  }
  const amber = amberReasons(input, highest, rise);
  if (amber.length > 0) return { state: 'amber', because: amber };
  return {
    state: 'green',
    because: [
      say('highest pain {{highest}}, next morning {{nextMorning}}, usual {{morningBaseline}}', {
        highest,
        nextMorning: input.nextMorning,
        morningBaseline: input.morningBaseline,
      }),
    ],
  };
}

/**
 * Judges one session. First match wins: stop sign, red, not known (a missing morning is never green), amber, green.
 */
export function judgePain(input: PainInput): Result<PainResult> {
  const problems = problemsOf(input);
  if (problems.length > 0) return refused(...problems);
  const restOnly = restsToday(input.school, input.before);
  const { state, because } = judge(input);
  return ok({
    state,
    because: restOnly
      ? [
          ...because,
          say('pain {{before}} before starting: relief and range only today, and ask for review', {
            before: input.before,
          }),
        ]
      : because,
    restOnly,
  });
}

/** What an ordinary ache in the middle of an exercise means: go on, go on with less, or end this exercise. */
export type AcheMeans = 'all-right' | 'less' | 'too-much';

/**
 * An ache while exercising by the rule the session will be judged by, with the morning still to come.
 * @param before pain before the start, 0 to 10
 * @param now pain now, 0 to 10
 */
export function acheMeans(school: PainSchool, before: number, now: number): AcheMeans {
  const { state } = judge({
    school,
    before,
    during: now,
    after: 0,
    hourAbove: false,
    stopSign: null,
    nextMorning: 0,
    morningBaseline: 0,
  });
  // In a bone no pain at all is worked through, also where it was there before.
  if (state === 'red' || (school === 'bone' && now > 0)) return 'too-much';
  return state === 'amber' ? 'less' : 'all-right';
}

/**
 * Usual morning pain for a session on `day`: the median of the last 7 answered mornings and the stage's first 7, taken
 * together, up to that day; a morning in both counts once. Null with fewer than 3 mornings.
 */
export const morningBaseline = (
  mornings: readonly MorningPain[],
  day: DayText,
  stageSince: DayText,
): number | null => morningBaselines(mornings, stageSince)(day);

interface MorningPain {
  readonly day: DayText;
  readonly pain: number;
}

/** The same for any day of a log, which is put in order once. */
export function morningBaselines(
  mornings: readonly MorningPain[],
  stageSince: DayText,
): (day: DayText) => number | null {
  // Of a morning told twice the last counts.
  const inOrder = [...new Map(mornings.map((m) => [m.day, m])).values()].sort((a, b) =>
    a.day < b.day ? -1 : 1,
  );
  const untilBy = (stands: (m: MorningPain) => boolean) => {
    let [from, to] = [0, inOrder.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      const m = inOrder[middle];
      if (m !== undefined && stands(m)) from = middle + 1;
      else to = middle;
    }
    return from;
  };
  const stage = untilBy((m) => m.day < stageSince);
  return (day) => {
    const known = untilBy((m) => m.day <= day);
    const lately = Math.max(0, known - 7);
    const first = inOrder.slice(stage, Math.max(stage, Math.min(stage + 7, known, lately)));
    const together = [...first, ...inOrder.slice(lately, known)].map((m) => m.pain);
    return together.length < 3 ? null : median(together);
  };
}
