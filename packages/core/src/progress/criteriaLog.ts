import { addDays, dayOf, type DayText } from '../quantity/day.js';
import { shown } from '../quantity/statistics.js';
import { adherencePercent } from './sessions.js';
import type { CriterionLeaf, CriterionPart, Facts, PainWhen, SessionFact } from './criteriaTypes.js';

type Leaf<K extends string> = Extract<CriterionLeaf, Record<K, unknown>>;

const LABEL: Record<PainWhen, string> = {
  'first-step': 'first-step pain',
  before: 'pain before exercise',
  during: 'pain during exercise',
  after: 'pain after exercise',
  'next-morning': 'next-morning pain',
  day: 'worst pain of the day',
};

function scoreOf(session: SessionFact, when: PainWhen): number | null {
  const field = {
    'first-step': session.firstStep,
    before: session.before,
    during: session.during,
    after: session.after,
    'next-morning': session.nextMorning,
    day: session.day,
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
  const text = `${LABEL[leaf.pain]} ${leaf.max} or less for ${leaf.days} days`;
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
      because: `${last.length} of ${leaf.days} days logged in the last ${2 * leaf.days}${list === '' ? '' : `: ${list}`}`,
    };
  }
  return { text, state: last.every((d) => d.score <= leaf.max) ? 'met' : 'not-met', because: list };
}

/**
 * No red among the last n judged days. A day whose next morning is not answered is not judged and cannot stand for green.
 */
export function noRedLeaf(leaf: Leaf<'noRed'>, facts: Facts, today: DayText): CriterionPart {
  const n = leaf.noRed;
  const judged = facts.sessions.flatMap((s) =>
    s.state === undefined || s.state === 'not-known'
      ? []
      : [
          {
            day: dayOf(s.at),
            score: s.state === 'red' || s.state === 'stop' ? 2 : s.state === 'amber' ? 1 : 0,
          },
        ],
  );
  const last = lastLoggedDays(judged, n, today);
  const reds = last.filter((d) => d.score === 2).length;
  const ambers = last.filter((d) => d.score === 1).length;
  const text = `no red for ${n} days`;
  if (reds > 0)
    return { text, state: 'not-met', because: `${reds} red in the last ${last.length} judged days` };
  if (last.length < n) {
    return { text, state: 'not-known', because: `${last.length} of ${n} days judged in the last ${2 * n}` };
  }
  return { text, state: 'met', because: `no red, ${ambers} amber in ${n} judged days` };
}

/** Share of planned sessions done. */
export function adherenceLeaf(leaf: Leaf<'adherence'>, facts: Facts, today: DayText): CriterionPart {
  const { min, days } = leaf.adherence;
  const text = `at least ${min} % of planned sessions done over ${days} days`;
  if (facts.plannedPerWeek === undefined) return { text, state: 'not-known', because: 'nothing is planned' };
  const logged = facts.sessions.filter((s) => s.done !== false).map((s) => dayOf(s.at));
  const percent = adherencePercent(logged, facts.plannedPerWeek, today, days);
  if (percent === null) return { text, state: 'not-known', because: 'nothing is planned' };
  return { text, state: percent >= min ? 'met' : 'not-met', because: `${shown(percent, 0)} % done` };
}
