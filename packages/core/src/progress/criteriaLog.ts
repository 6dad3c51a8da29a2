import { say } from '../quantity/tongue.js';
import { addDays, dayOf, type DayText } from '../quantity/day.js';
import type { Comparison } from '../measure/definition.js';
import { shown, TOLERANCE } from '../quantity/statistics.js';
import { leafText } from './criterionText.js';
import { adherencePercent } from './sessions.js';
import type { CriterionLeaf, CriterionPart, Facts, PainWhen, SessionFact } from './criteriaTypes.js';

type Leaf<K extends string> = Extract<CriterionLeaf, Record<K, unknown>>;

/** A criterion of the log in words; it names no measure. */
const said = (leaf: CriterionLeaf, facts: Facts): string => leafText(leaf, facts, () => undefined);

function scoreOf(session: SessionFact, when: PainWhen): number | null {
  const field = {
    'first-step': session.firstStep,
    before: session.before,
    during: session.during,
    after: session.after,
    'next-morning': session.nextMorning,
    day: session.day,
    'worst-of-day': session.day,
  }[when];
  return field ?? null;
}

interface DayScore {
  readonly day: DayText;
  readonly score: number;
}

/** "n days" are the last n logged days within the last 2n days, today included; the worst score of a day counts. */
function lastLoggedDays(scores: readonly DayScore[], n: number, today: DayText): DayScore[] {
  const from = addDays(today, -2 * n);
  const worst = new Map<DayText, number>();
  for (const { day, score } of scores) {
    if (day > from && day <= today) worst.set(day, Math.max(score, worst.get(day) ?? score));
  }
  return [...worst.entries()]
    .map(([day, score]) => ({ day, score }))
    .sort((a, b) => (a.day < b.day ? -1 : 1))
    .slice(-n);
}

/** Pain at most `max` on each of the last n logged days. */
export function painLeaf(leaf: Leaf<'pain'>, facts: Facts, today: DayText): CriterionPart {
  const text = said(leaf, facts);
  const scores = facts.sessions.flatMap((s) => {
    const score = scoreOf(s, leaf.pain);
    return score === null ? [] : [{ day: dayOf(s.at), score }];
  });
  const last = lastLoggedDays(scores, leaf.days, today);
  const list = last.map((d) => d.score).join(', ');
  if (last.length < leaf.days) {
    return {
      text,
      state: 'not-known',
      because: say('{{n}} of {{days}} days logged in the last {{value}}{{words}}', {
        n: last.length,
        days: leaf.days,
        value: 2 * leaf.days,
        words: list === '' ? '' : `: ${list}`,
      }),
    };
  }
  return { text, state: last.every((d) => d.score <= leaf.max) ? 'met' : 'not-met', because: list };
}

const HOLDS: Record<Comparison, (a: number, b: number) => boolean> = {
  '>=': (a, b) => a >= b - TOLERANCE,
  '>': (a, b) => a > b + TOLERANCE,
  '<=': (a, b) => a <= b + TOLERANCE,
  '<': (a, b) => a < b - TOLERANCE,
};

const numberOf = (answer: number | boolean | null | undefined): number | null =>
  typeof answer === 'boolean' ? (answer ? 1 : 0) : (answer ?? null);

/** A question of the home log, on each of the last n days that have an answer. */
export function answerLeaf(leaf: Leaf<'answer'>, facts: Facts, today: DayText): CriterionPart {
  const text = said(leaf, facts);
  const from = addDays(today, -2 * leaf.days);
  const last = facts.sessions
    .flatMap((s) => {
      const score = numberOf(s.answers?.[leaf.answer]);
      const day = dayOf(s.at);
      return score === null || day <= from || day > today ? [] : [{ day, score }];
    })
    .sort((a, b) => (a.day < b.day ? -1 : 1))
    .slice(-leaf.days);
  const list = last.map((d) => shown(d.score, 2)).join(', ');
  if (last.length < leaf.days) {
    const because = say('{{n}} of {{days}} days answered in the last {{value}}', {
      n: last.length,
      days: leaf.days,
      value: 2 * leaf.days,
    });
    return { text, state: 'not-known', because: list === '' ? because : `${because}: ${list}` };
  }
  const met = last.every((d) => HOLDS[leaf.op](d.score, leaf.value));
  return { text, state: met ? 'met' : 'not-met', because: list };
}

/** Judged sessions may lie this many days before the span itself, so that a rest day at its edge costs nothing. */
const NO_RED_SLACK_DAYS = 3;
/** Judged sessions a week wanted when a criterion gives days only: alternate days are enough. [convention] */
const JUDGED_A_WEEK = 3;

/**
 * No red in the last n calendar days, with at least so many judged sessions in them and the 3 days before. A day whose
 * next morning is not answered is not judged and cannot stand for green; an older red does not count.
 */
export function noRedLeaf(leaf: Leaf<'noRed'>, facts: Facts, today: DayText): CriterionPart {
  const { days, atLeast: wanted } =
    typeof leaf.noRed === 'number'
      ? { days: leaf.noRed, atLeast: Math.max(1, Math.round((leaf.noRed * JUDGED_A_WEEK) / 7)) }
      : leaf.noRed;
  const worstOn = new Map<DayText, number>();
  for (const s of facts.sessions) {
    if (s.state === undefined || s.state === 'not-known') continue;
    const score = s.state === 'red' || s.state === 'stop' ? 2 : s.state === 'amber' ? 1 : 0;
    const day = dayOf(s.at);
    if (day <= today) worstOn.set(day, Math.max(score, worstOn.get(day) ?? 0));
  }
  const since = (span: number) => {
    const from = addDays(today, -span);
    return [...worstOn].filter(([day]) => day > from);
  };
  const reds = since(days).filter(([, score]) => score === 2).length;
  const ambers = since(days).filter(([, score]) => score === 1).length;
  const judged = since(days + NO_RED_SLACK_DAYS).length;
  const text = said(leaf, facts);
  if (reds > 0)
    return { text, state: 'not-met', because: say('{{reds}} red in the last {{days}} days', { reds, days }) };
  if (judged < wanted) {
    return {
      text,
      state: 'not-known',
      because: say('{{judged}} of {{wanted}} sessions judged in the last {{days}} days', {
        judged,
        wanted,
        days: days + NO_RED_SLACK_DAYS,
      }),
    };
  }
  return {
    text,
    state: 'met',
    because: say('no red, {{ambers}} amber in {{judged}} judged sessions', { ambers, judged }),
  };
}

/** Share of planned sessions done. */
export function adherenceLeaf(leaf: Leaf<'adherence'>, facts: Facts, today: DayText): CriterionPart {
  const { min, days } = leaf.adherence;
  const text = said(leaf, facts);
  if (facts.plannedPerWeek === undefined)
    return { text, state: 'not-known', because: say('nothing is planned') };
  const logged = facts.sessions.filter((s) => s.done !== false).map((s) => dayOf(s.at));
  const percent = adherencePercent(logged, facts.plannedPerWeek, today, days);
  if (percent === null) return { text, state: 'not-known', because: say('nothing is planned') };
  return {
    text,
    state: percent >= min ? 'met' : 'not-met',
    because: say('{{percent}} % done', { percent: shown(percent, 0) }),
  };
}
