import { atLeast, median } from '../quantity/statistics.js';
import { addDays, type DayText } from '../quantity/day.js';
import { issue, ok, refused, type Issue, type Result } from '../result/result.js';

export type PainSchool = 'comfort' | 'next-morning';
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
  /** Comfort school, 4 or more before starting: relief and range only today, and ask for review. */
  readonly restOnly: boolean;
}

function problemsOf(input: PainInput): Issue[] {
  const scores = {
    before: input.before,
    during: input.during,
    after: input.after,
    nextMorning: input.nextMorning,
  };
  const problems = Object.entries(scores)
    .filter(([path, v]) => !(path === 'nextMorning' && v === null))
    .filter(([, v]) => !(Number.isInteger(v) && (v as number) >= 0 && (v as number) <= 10))
    .map(([path, v]) => issue(path, v, 'a whole number from 0 to 10'));
  const base = input.morningBaseline;
  if (base !== null && !(Number.isInteger(base * 2) && base >= 0 && base <= 10)) {
    problems.push(issue('morningBaseline', base, 'null, or 0 to 10 in halves'));
  }
  return problems;
}

function redReasons(input: PainInput, highest: number, rise: number): string[] {
  const { school, hourAbove, nextMorning, morningBaseline } = input;
  const reasons: string[] = [];
  if (school === 'comfort') {
    if (rise >= 2) reasons.push(`pain rose by ${rise}, 2 or more is red`);
    if (highest >= 4 && rise >= 1) reasons.push(`pain rose to ${highest}, 4 or more is red`);
  } else {
    if (highest > 5) reasons.push(`highest pain ${highest}, above 5 is red`);
    if (hourAbove) reasons.push('an hour later still 2 or more above before');
  }
  if (nextMorning !== null && morningBaseline !== null && atLeast(nextMorning, morningBaseline + 2)) {
    reasons.push(`next morning ${nextMorning}, 2 or more above the usual ${morningBaseline}`);
  }
  return reasons;
}

function amberReasons(input: PainInput, highest: number, rise: number): string[] {
  const reasons: string[] = [];
  if (input.school === 'comfort') {
    if (highest >= 3) reasons.push(`highest pain ${highest}, 3 or more is amber`);
    if (rise === 1) reasons.push('pain rose by 1');
  } else if (highest >= 4) {
    reasons.push(`highest pain ${highest}, 4 or 5 is amber`);
  }
  const { nextMorning, morningBaseline } = input;
  if (nextMorning !== null && morningBaseline !== null && atLeast(nextMorning, morningBaseline + 1)) {
    reasons.push(`next morning ${nextMorning}, 1 or more above the usual ${morningBaseline}`);
  }
  return reasons;
}

function judge(input: PainInput): { state: PainState; because: string[] } {
  const highest = Math.max(input.during, input.after);
  const rise = highest - input.before;
  if (input.stopSign === 'emergency' || input.stopSign === 'review') {
    return { state: 'stop', because: [`a stop sign was reported (${input.stopSign})`] };
  }
  const red = redReasons(input, highest, rise);
  if (red.length > 0) return { state: 'red', because: red };
  if (input.nextMorning === null) {
    return { state: 'not-known', because: ['the next morning was not answered'] };
  }
  if (input.morningBaseline === null) {
    return { state: 'not-known', because: ['fewer than 3 mornings to compare with'] };
  }
  const amber = amberReasons(input, highest, rise);
  if (amber.length > 0) return { state: 'amber', because: amber };
  return {
    state: 'green',
    because: [`highest pain ${highest}, next morning ${input.nextMorning}, usual ${input.morningBaseline}`],
  };
}

/**
 * Judges one session. First match wins: stop sign, red, not known (a missing morning is never green), amber, green.
 */
export function judgePain(input: PainInput): Result<PainResult> {
  const problems = problemsOf(input);
  if (problems.length > 0) return refused(...problems);
  const restOnly = input.school === 'comfort' && input.before >= 4;
  const { state, because } = judge(input);
  return ok({
    state,
    because: restOnly
      ? [...because, `pain ${input.before} before starting: relief and range only today, and ask for review`]
      : because,
    restOnly,
  });
}

/**
 * Usual morning pain for a session on `day`: the lower of the median of the last 7 mornings and the median of
 * the stage's first 7, both up to that day. Null with fewer than 3 mornings.
 */
export function morningBaseline(
  mornings: readonly { readonly day: DayText; readonly pain: number }[],
  day: DayText,
  stageSince: DayText,
): number | null {
  const known = mornings.filter((m) => m.day <= day).sort((a, b) => (a.day < b.day ? -1 : 1));
  const last = known.filter((m) => m.day > addDays(day, -7)).map((m) => m.pain);
  const first = known
    .filter((m) => m.day >= stageSince)
    .slice(0, 7)
    .map((m) => m.pain);
  const medians = [last, first].filter((list) => list.length >= 3).map((list) => median(list) as number);
  return medians.length === 0 ? null : Math.min(...medians);
}
