import { daysBetween, dayOf, type DayText } from '../quantity/day.js';
import { shown } from '../quantity/statistics.js';
import { treatedSides } from '../quantity/side.js';
import { compareValues, isImportant } from '../measure/compare.js';
import { evaluateCriteria, type MeasureLookup } from './criteria.js';
import type { Criterion, CriteriaResult, CriterionPart, Facts } from './criteriaTypes.js';
import { adherencePercent, currentRuns } from './sessions.js';
import type { DoseStep } from './titration.js';

export type Decision =
  'refer' | 'ease-back' | 'adjust-dose' | 'hold-and-retest' | 'progress' | 'hold' | 'look-again';

export interface Episode {
  /** ISO 8601 with zone. */
  readonly now: string;
  /** ISO 8601; the start of the episode when there was no review. */
  readonly lastReviewAt: string;
  /** Open emergency, urgent or home stop signs, in words. */
  readonly stopsOpen: readonly string[];
  readonly minimumDays: number;
  readonly leadingMeasure: string | null;
  /** Null in upkeep: there is nothing to progress to. */
  readonly criteria: Criterion | null;
  /** Sessions carry their judged state. */
  readonly facts: Facts;
  /** What section 4 proposes for each exercise; only asked for when nothing above decides. */
  readonly doseSteps?: readonly { readonly exercise: string; readonly step: DoseStep }[] | undefined;
}

export interface ReviewResult {
  readonly decision: Decision;
  /** Which of the nine rules decided, 1 to 9. */
  readonly rule: number;
  readonly because: readonly string[];
  readonly wouldChange: readonly string[];
  readonly confidence: 'clear' | 'fair' | 'weak';
  readonly criteria: CriteriaResult | null;
}

const FEWEST_SESSIONS = 3;
const LOW_ADHERENCE_PERCENT = 60;
const LOOK_AGAIN_DAYS = 28;
const REFER_DAYS = 42;

type Verdict = Pick<ReviewResult, 'decision' | 'rule' | 'because' | 'wouldChange' | 'confidence'>;

const named = (parts: readonly CriterionPart[], state: CriterionPart['state']): CriterionPart[] =>
  parts.filter((p) => p.state === state);

const told = (p: CriterionPart): string => `${p.text}: ${p.because}`;

/** Whether the leading measure shows no real gain between its newest take and the newest one at least `days` old, both in this stage. */
function withoutGain(episode: Episode, days: number, today: DayText, lookup: MeasureLookup): boolean {
  const measure = episode.leadingMeasure === null ? undefined : lookup(episode.leadingMeasure);
  const side = treatedSides(episode.facts.affected)[0];
  if (measure === undefined || side === undefined) return false;
  const takes = episode.facts.measures
    .filter((m) => m.measure === measure.key && (m.side === side || m.side === 'none'))
    .flatMap((m) => (m.value === null ? [] : [{ day: dayOf(m.at), value: m.value }]))
    .filter((t) => t.day >= dayOf(episode.facts.stageSince) && t.day <= today)
    .sort((a, b) => (a.day < b.day ? -1 : 1));
  const newest = takes[takes.length - 1];
  const old = takes.filter((t) => daysBetween(t.day, today) >= days).pop();
  if (newest === undefined || old === undefined || old === newest) return false;
  const change = compareValues(measure, old.value, newest.value);
  const counts =
    change.class === 'real' ||
    (change.class === 'not-known' && isImportant(measure, old.value, newest.value) === true);
  return !(counts && change.direction === 'better');
}

function stopVerdict(episode: Episode): Verdict | null {
  if (episode.stopsOpen.length === 0) return null;
  return {
    decision: 'refer',
    rule: 1,
    because: episode.stopsOpen.map((s) => `open: ${s}`),
    wouldChange: ['closing it with the date, who assessed and the result'],
    confidence: 'clear',
  };
}

function redVerdict(episode: Episode): Verdict | null {
  const since = dayOf(episode.facts.stageSince);
  const states = [...episode.facts.sessions]
    .filter((s) => dayOf(s.at) >= since)
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .flatMap((s) => (s.state === undefined ? [] : [s.state]));
  const runs = currentRuns(states);
  if (runs.reds >= 2) {
    return {
      decision: 'ease-back',
      rule: 2,
      because: [`the last ${runs.reds} judged sessions were red`],
      wouldChange: ['one session without red'],
      confidence: 'clear',
    };
  }
  if (runs.reds === 1 || runs.twoAmbers) {
    return {
      decision: 'adjust-dose',
      rule: 3,
      because: [
        runs.reds === 1 ? 'the last judged session was red' : 'two ambers in a row count as red for load',
        'two thirds of the sets, rounded up; with one set already, the easier exercise',
      ],
      wouldChange: ['a green session at the smaller dose', 'a second red: then ease back a stage'],
      confidence: 'clear',
    };
  }
  return null;
}

function unknownVerdict(episode: Episode, criteria: CriteriaResult | null): Verdict | null {
  const since = dayOf(episode.lastReviewAt);
  const done = new Set(
    episode.facts.sessions.filter((s) => s.done !== false && dayOf(s.at) >= since).map((s) => s.at),
  ).size;
  const unknown = criteria === null || criteria.state === 'met' ? [] : named(criteria.parts, 'not-known');
  if (done >= FEWEST_SESSIONS && unknown.length === 0) return null;
  const few =
    done < FEWEST_SESSIONS
      ? [
          `${done} ${done === 1 ? 'session' : 'sessions'} logged since the last review, ${FEWEST_SESSIONS} needed`,
        ]
      : [];
  return {
    decision: 'hold-and-retest',
    rule: 4,
    because: [...few, ...unknown.map((p) => `not known: ${told(p)}`)],
    wouldChange: [
      ...(few.length > 0 ? ['at least 3 logged sessions'] : []),
      ...unknown.map((p) => `knowing ${p.text}`),
    ],
    confidence: 'weak',
  };
}

function criteriaVerdict(episode: Episode, criteria: CriteriaResult | null, today: DayText): Verdict | null {
  if (criteria === null) return null;
  const days = daysBetween(dayOf(episode.facts.stageSince), today);
  if (criteria.state === 'met' && days >= episode.minimumDays) {
    return {
      decision: 'progress',
      rule: 5,
      because: [
        ...named(criteria.parts, 'met').map(told),
        `${days} days in this stage, at least ${episode.minimumDays}`,
      ],
      wouldChange: ['a red session', 'any criterion no longer met'],
      confidence: 'clear',
    };
  }
  if (criteria.state === 'met-within-error') {
    const close = named(criteria.parts, 'met-within-error');
    return {
      decision: 'hold-and-retest',
      rule: 6,
      because: close.map((p) => `met, within error: ${told(p)}`),
      wouldChange: close.map((p) => `meeting it again on another day: ${p.text}`),
      confidence: 'fair',
    };
  }
  return null;
}

function adherenceVerdict(episode: Episode, today: DayText): Verdict | null {
  const planned = episode.facts.plannedPerWeek;
  if (planned === undefined) return null;
  const logged = episode.facts.sessions.filter((s) => s.done !== false).map((s) => dayOf(s.at));
  const percent = adherencePercent(logged, planned, today, 7);
  if (percent === null || percent >= LOW_ADHERENCE_PERCENT) return null;
  return {
    decision: 'hold',
    rule: 7,
    because: [
      `${shown(percent, 0)} % of the planned sessions done in 7 days, under ${LOW_ADHERENCE_PERCENT} %`,
      'ask why, and offer the smaller plan',
    ],
    wouldChange: ['a plan that fits the week'],
    confidence: 'fair',
  };
}

function plateauVerdict(episode: Episode, today: DayText, lookup: MeasureLookup): Verdict | null {
  const days = [REFER_DAYS, LOOK_AGAIN_DAYS].find((d) => withoutGain(episode, d, today, lookup));
  if (days === undefined) return null;
  const label = lookup(episode.leadingMeasure ?? '')?.label ?? 'the leading measure';
  return {
    decision: days === REFER_DAYS ? 'refer' : 'look-again',
    rule: 8,
    because: [`no real change for the better in ${label} for ${days / 7} weeks`],
    wouldChange: ['a real change', 'a driver or another source of the problem found'],
    confidence: 'fair',
  };
}

function doseVerdict(episode: Episode, criteria: CriteriaResult | null, today: DayText): Verdict {
  const steps = (episode.doseSteps ?? []).filter((s) => s.step.kind !== 'keep');
  const open = criteria === null ? [] : named(criteria.parts, 'not-met');
  const days = daysBetween(dayOf(episode.facts.stageSince), today);
  const wait =
    criteria?.state === 'met' && days < episode.minimumDays
      ? [`all criteria met, ${days} of at least ${episode.minimumDays} days in this stage`]
      : [];
  if (steps.length > 0) {
    return {
      decision: 'adjust-dose',
      rule: 9,
      because: [
        ...steps.map((s) => `${s.exercise}: ${s.step.because}`),
        ...open.map((p) => `not yet: ${told(p)}`),
        ...wait,
      ],
      wouldChange: open.map((p) => p.text),
      confidence: 'clear',
    };
  }
  return {
    decision: 'hold',
    rule: 9,
    because: [
      ...open.map((p) => `not yet: ${told(p)}`),
      ...wait,
      'no exercise is ready for more, none is too much',
    ],
    wouldChange: [
      ...open.map((p) => p.text),
      ...(wait.length > 0 ? [`day ${episode.minimumDays} of this stage`] : []),
    ],
    confidence: 'fair',
  };
}

/** The review decision: nine rules, the first that matches decides, with its reasons and what would change it. */
export function reviewEpisode(episode: Episode, lookup: MeasureLookup): ReviewResult {
  const today = dayOf(episode.now);
  const criteria =
    episode.criteria === null ? null : evaluateCriteria(episode.criteria, episode.facts, episode.now, lookup);
  const verdict =
    stopVerdict(episode) ??
    redVerdict(episode) ??
    unknownVerdict(episode, criteria) ??
    criteriaVerdict(episode, criteria, today) ??
    adherenceVerdict(episode, today) ??
    plateauVerdict(episode, today, lookup) ??
    doseVerdict(episode, criteria, today);
  return { ...verdict, criteria };
}
