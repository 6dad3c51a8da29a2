import { say, phrase } from '../quantity/tongue.js';
import { daysBetween, dayOf, type DayText, instantOf } from '../quantity/day.js';
import { shown } from '../quantity/statistics.js';
import { type Side, treatedSides } from '../quantity/side.js';
import { compareValues, isImportant } from '../measure/compare.js';
import { areLike } from '../measure/like.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { distanceOutside } from '../measure/direction.js';
import { medianFor, type Sex } from '../measure/norms.js';
import { worstOf } from '../measure/worst.js';
import { evaluateCriteria, type MeasureLookup } from './criteria.js';
import type { Criterion, CriteriaResult, CriterionPart, Facts } from './criteriaTypes.js';
import type { PainState } from './painRule.js';
import { adherencePercent, currentRuns, redsWithin } from './sessions.js';
import type { DoseStep } from './titration.js';

export type Decision =
  | 'refer'
  | 'ease-back'
  | 'adjust-dose'
  | 'hold-and-retest'
  | 'progress'
  | 'hold'
  | 'look-again';

export interface Episode {
  /** ISO 8601 with zone. */
  readonly now: string;
  /** ISO 8601; the start of the episode when there was no review. */
  readonly lastReviewAt: string;
  /** Open emergency, urgent or home stop signs, in words. */
  readonly stopsOpen: readonly string[];
  readonly minimumDays: number;
  readonly leadingMeasure: string | null;
  /** Weeks without real change in the leading measure until someone looks again, and until it is referred; 6 and 12. */
  readonly lookAgainWeeks?: number | undefined;
  readonly referWeeks?: number | undefined;
  /** There is no stage to ease back to: the dose is cut instead, and the run of reds is not forgotten. */
  readonly firstStage?: boolean | undefined;
  /** Of the person; where given they stand before those of the facts. */
  readonly ageYears?: number | null | undefined;
  readonly sex?: Sex | null | undefined;
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
const ADHERENCE_DAYS = 14;
const YOUNG_DAYS = 7;
const REDS_DAYS = 14;
const MOST_REDS = 3;
const LOOK_AGAIN_WEEKS = 6;
const REFER_WEEKS = 12;

type Verdict = Pick<ReviewResult, 'decision' | 'rule' | 'because' | 'wouldChange' | 'confidence'>;

/** What each rule says, the first first: the working of a suggestion shows them as they stand here. */
export const REVIEW_RULES = [
  phrase('a stop is open, refer'),
  phrase('two reds running or three in 14 days, ease back'),
  phrase('the last session red or the last two amber or worse, smaller dose'),
  phrase('all met and the minimum days passed, progress'),
  phrase('under 60 % done, hold'),
  phrase('no real change for the weeks the protocol names, look again or refer'),
  phrase('under 3 sessions or a criterion not known, hold and retest'),
  phrase('only within error, hold and retest'),
  phrase('dose by the log unless the leading measure got worse, or hold'),
] as const;

const named = (parts: readonly CriterionPart[], state: CriterionPart['state']): CriterionPart[] =>
  parts.filter((p) => p.state === state && p.spare !== true);

const told = (p: CriterionPart): string => `${p.text}: ${p.because}`;

/** A value that nothing better is wanted of: what is usual for age and sex, inside the wanted band, or the best end of the scale. */
function isReached(measure: MeasureDefinition, value: number, facts: Facts): boolean {
  const { band, direction, allowed } = measure;
  if (direction === 'target') return distanceOutside(measure, value) === 0;
  const median = medianFor(measure, facts.ageYears ?? null, facts.sex ?? null);
  if (median !== null) return direction === 'less' ? value <= median.low : value >= median.high;
  if (direction === 'less') return value <= Math.max(allowed.min, band?.max ?? allowed.min);
  return value >= Math.min(allowed.max, band?.min ?? allowed.max);
}

/**
 * Whether the leading measure shows no real gain between its newest take and the newest one at least `days` old, both in
 * this stage, on the treated side or, with both treated, on the worse of them. Unable counts as the worst value: unable all along is no gain.
 */
function withoutGain(episode: Episode, days: number, today: DayText, lookup: MeasureLookup): boolean {
  const measure = episode.leadingMeasure === null ? undefined : lookup(episode.leadingMeasure);
  if (measure === undefined) return false;
  const sides: readonly (Side | 'none')[] =
    measure.sides === 'single' ? ['none'] : treatedSides(episode.facts.affected);
  const stuck = sides.map((side) => stuckOn(measure, side, episode, { days, today }));
  return stuck.includes(true) && !stuck.includes(false);
}

/** Null when there are no two takes to compare, or nothing better is wanted. */
function stuckOn(
  measure: MeasureDefinition,
  side: Side | 'none',
  episode: Episode,
  { days, today }: { readonly days: number; readonly today: DayText },
): boolean | null {
  const takes = episode.facts.measures
    .filter((m) => m.measure === measure.key && (m.side === side || m.side === 'none'))
    .flatMap((m) => {
      const value = m.value ?? worstOf(measure);
      return value === null ? [] : [{ day: dayOf(m.at), at: instantOf(m.at), value, method: m.method }];
    })
    .filter((t) => t.day >= dayOf(episode.facts.stageSince) && t.day <= today)
    .sort((a, b) => a.at - b.at);
  const newest = takes[takes.length - 1];
  const old = takes.filter((t) => daysBetween(t.day, today) >= days).pop();
  if (newest === undefined || old === undefined || old === newest) return null;
  if (isReached(measure, newest.value, episode.facts)) return null;
  const change = compareValues(measure, old.value, newest.value, newest.method);
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
    because: episode.stopsOpen.map((s) => say('open: {{s}}', { s })),
    wouldChange: [say('closing it with the date, who assessed and the result')],
    confidence: 'clear',
  };
}

/** Judged sessions of this stage, oldest first. */
function judgedOf(episode: Episode): { day: DayText; state: PainState }[] {
  const since = dayOf(episode.facts.stageSince);
  return [...episode.facts.sessions]
    .filter((s) => dayOf(s.at) >= since)
    .sort((a, b) => instantOf(a.at) - instantOf(b.at))
    .flatMap((s) => (s.state === undefined ? [] : [{ day: dayOf(s.at), state: s.state }]));
}

function easeBackVerdict(episode: Episode, today: DayText): Verdict | null {
  const judged = judgedOf(episode);
  const runs = currentRuns(judged.map((j) => j.state));
  const many = redsWithin(judged, today, REDS_DAYS);
  if (runs.reds < 2 && many < MOST_REDS) return null;
  return {
    decision: 'ease-back',
    rule: 2,
    because: [
      runs.reds >= 2
        ? say('the last {{reds}} judged sessions were red', { reds: runs.reds })
        : say('{{many}} red sessions in {{redsDays}} days', { many, redsDays: REDS_DAYS }),
      ...(episode.firstStage === true
        ? [say('this is the first stage: two thirds of the sets instead, and the patient is seen')]
        : []),
    ],
    wouldChange:
      runs.reds >= 2
        ? [say('one session without red')]
        : [
            say('fewer than {{mostReds}} reds in {{redsDays}} days', {
              mostReds: MOST_REDS,
              redsDays: REDS_DAYS,
            }),
          ],
    confidence: 'clear',
  };
}

function redVerdict(episode: Episode): Verdict | null {
  const runs = currentRuns(judgedOf(episode).map((j) => j.state));
  if (runs.reds === 0 && !runs.twoAmberOrWorse) return null;
  return {
    decision: 'adjust-dose',
    rule: 3,
    because: [
      runs.reds > 0
        ? say('the last judged session was red')
        : say('the last two judged sessions were amber or worse, which counts as red for load'),
      say(
        'two thirds of the sets, rounded down; with one set already, the easier exercise or a fifth less load',
      ),
    ],
    wouldChange: [say('a green session at the smaller dose'), say('a second red: then ease back a stage')],
    confidence: 'clear',
  };
}

function progressVerdict(episode: Episode, criteria: CriteriaResult | null, today: DayText): Verdict | null {
  const days = daysBetween(dayOf(episode.facts.stageSince), today);
  if (criteria === null || criteria.state !== 'met' || days < episode.minimumDays) return null;
  return {
    decision: 'progress',
    rule: 4,
    because: [
      ...named(criteria.parts, 'met').map(told),
      say('{{days}} days in this stage, at least {{minimumDays}}', {
        days,
        minimumDays: episode.minimumDays,
      }),
    ],
    wouldChange: [say('a red session'), say('any criterion no longer met')],
    confidence: 'clear',
  };
}

function adherenceVerdict(episode: Episode, today: DayText): Verdict | null {
  const planned = episode.facts.plannedPerWeek;
  if (planned === undefined) return null;
  const logged = episode.facts.sessions.filter((s) => s.done !== false).map((s) => dayOf(s.at));
  // A stage younger than two weeks is asked for the days there were, one younger than a week not at all.
  const inStage = daysBetween(dayOf(episode.facts.stageSince), today);
  if (inStage < YOUNG_DAYS) return null;
  const span = Math.min(ADHERENCE_DAYS, inStage);
  const percent = adherencePercent(logged, planned, today, span);
  if (percent === null || percent >= LOW_ADHERENCE_PERCENT) return null;
  return {
    decision: 'hold',
    rule: 5,
    because: [
      say('{{percent}} % of the planned sessions done in {{span}} days, under {{value}} %', {
        percent: shown(percent, 0),
        span,
        value: LOW_ADHERENCE_PERCENT,
      }),
      say('ask why, and offer the smaller plan'),
    ],
    wouldChange: [say('a plan that fits the week')],
    confidence: 'fair',
  };
}

function plateauVerdict(episode: Episode, today: DayText, lookup: MeasureLookup): Verdict | null {
  const spans = [
    ['refer', episode.referWeeks ?? REFER_WEEKS],
    ['look-again', episode.lookAgainWeeks ?? LOOK_AGAIN_WEEKS],
  ] as const;
  const found = spans.find(([, weeks]) => withoutGain(episode, weeks * 7, today, lookup));
  if (found === undefined) return null;
  const label = lookup(episode.leadingMeasure ?? '')?.label ?? say('the leading measure');
  return {
    decision: found[0],
    rule: 6,
    because: [
      say('no real change for the better in {{label}} for {{found}} weeks', { label, found: found[1] }),
    ],
    wouldChange: [say('a real change'), say('a driver or another source of the problem found')],
    confidence: 'fair',
  };
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
          say('{{done}} {{words}} logged since the last review, {{fewestSessions}} needed', {
            done,
            words: done === 1 ? say('session') : say('sessions'),
            fewestSessions: FEWEST_SESSIONS,
          }),
        ]
      : [];
  return {
    decision: 'hold-and-retest',
    rule: 7,
    because: [...few, ...unknown.map((p) => say('not known: {{told}}', { told: told(p) }))],
    wouldChange: [
      ...(few.length > 0 ? [say('at least 3 logged sessions')] : []),
      ...unknown.map((p) => say('knowing {{text}}', { text: p.text })),
    ],
    confidence: 'weak',
  };
}

function withinErrorVerdict(criteria: CriteriaResult | null): Verdict | null {
  if (criteria?.state !== 'met-within-error') return null;
  const close = named(criteria.parts, 'met-within-error');
  return {
    decision: 'hold-and-retest',
    rule: 8,
    because: close.map((p) => say('met, within error: {{told}}', { told: told(p) })),
    wouldChange: close.map((p) => say('meeting it again on another day: {{text}}', { text: p.text })),
    confidence: 'fair',
  };
}

/** The reasons of a suggestion that are criteria simply not met yet. */
export const notMetYet = (criteria: CriteriaResult | null): readonly string[] =>
  criteria === null
    ? []
    : named(criteria.parts, 'not-met').map((p) => say('not yet: {{told}}', { told: told(p) }));

/** Treated sides on which the leading measure fell by more than its error between its last two takes in this stage, in words. */
function worseNow(episode: Episode, lookup: MeasureLookup): readonly string[] {
  const measure = episode.leadingMeasure === null ? undefined : lookup(episode.leadingMeasure);
  if (measure === undefined) return [];
  const sides: readonly (Side | 'none')[] =
    measure.sides === 'single' ? ['none'] : treatedSides(episode.facts.affected);
  return sides.flatMap((side) => {
    const takes = episode.facts.measures
      .filter((m) => m.measure === measure.key && m.side === side)
      .filter((m) => dayOf(m.at) >= dayOf(episode.facts.stageSince))
      .toSorted((a, b) => instantOf(a.at) - instantOf(b.at));
    const newest = takes.at(-1);
    if (newest === undefined) return [];
    const then = takes.findLast((m) => dayOf(m.at) < dayOf(newest.at) && areLike(measure, m, newest));
    const [before, now] = [then?.value ?? null, newest.value ?? worstOf(measure)];
    if (before === null || now === null) return [];
    const { class: kind, direction } = compareValues(measure, before, now, newest.method);
    const counts = kind === 'real' || (kind === 'not-known' && isImportant(measure, before, now) === true);
    if (!counts || direction !== 'worse') return [];
    return [
      say('{{label}}{{side}} went from {{before}} to {{now}}, worse by more than the error', {
        label: measure.label,
        side: side === 'none' ? '' : `, ${say(side)}`,
        before: shown(before),
        now: newest.value === null ? say('unable') : shown(now),
      }),
    ];
  });
}

function doseVerdict(
  episode: Episode,
  criteria: CriteriaResult | null,
  { today, lookup }: { readonly today: DayText; readonly lookup: MeasureLookup },
): Verdict {
  const steps = (episode.doseSteps ?? []).filter((s) => s.step.kind !== 'keep');
  const open = criteria === null ? [] : named(criteria.parts, 'not-met');
  const notYet = notMetYet(criteria);
  const days = daysBetween(dayOf(episode.facts.stageSince), today);
  const wait =
    criteria?.state === 'met' && days < episode.minimumDays
      ? [
          say('all criteria met, {{days}} of at least {{minimumDays}} days in this stage', {
            days,
            minimumDays: episode.minimumDays,
          }),
        ]
      : [];
  const worse = steps.length > 0 ? worseNow(episode, lookup) : [];
  if (worse.length > 0)
    return {
      decision: 'hold-and-retest',
      rule: 9,
      because: [
        ...worse,
        say('the log would allow more; what was measured speaks against it: measure again, and ask why'),
        ...notYet,
        ...wait,
      ],
      wouldChange: [say('measured again, no worse than before')],
      confidence: 'fair',
    };
  if (steps.length > 0) {
    return {
      decision: 'adjust-dose',
      rule: 9,
      because: [...steps.map((s) => `${say(s.exercise)}: ${s.step.because}`), ...notYet, ...wait],
      wouldChange: open.map((p) => p.text),
      confidence: 'clear',
    };
  }
  return {
    decision: 'hold',
    rule: 9,
    because: [...notYet, ...wait, say('no exercise is ready for more, none is too much')],
    wouldChange: [
      ...open.map((p) => p.text),
      ...(wait.length > 0
        ? [say('day {{minimumDays}} of this stage', { minimumDays: episode.minimumDays })]
        : []),
    ],
    confidence: 'fair',
  };
}

const NONE: ReadonlySet<number> = new Set();

/**
 * The review decision: nine rules, the first that matches decides, with its reasons and what would change it.
 *
 * @param without rules that are left out, to see what each is worth on made-up people; none wherever it counts
 */
export function reviewEpisode(
  given: Episode,
  lookup: MeasureLookup,
  without: ReadonlySet<number> = NONE,
): ReviewResult {
  const person = {
    ...(given.ageYears === undefined ? {} : { ageYears: given.ageYears }),
    ...(given.sex === undefined ? {} : { sex: given.sex }),
  };
  const episode = { ...given, facts: { ...given.facts, ...person } };
  const today = dayOf(episode.now);
  const criteria =
    episode.criteria === null ? null : evaluateCriteria(episode.criteria, episode.facts, episode.now, lookup);
  const rules: readonly (() => Verdict | null)[] = [
    () => stopVerdict(episode),
    () => easeBackVerdict(episode, today),
    () => redVerdict(episode),
    () => progressVerdict(episode, criteria, today),
    () => adherenceVerdict(episode, today),
    () => plateauVerdict(episode, today, lookup),
    () => unknownVerdict(episode, criteria),
    () => withinErrorVerdict(criteria),
  ];
  const verdict =
    rules.reduce<Verdict | null>((found, rule, i) => found ?? (without.has(i + 1) ? null : rule()), null) ??
    doseVerdict(episode, criteria, { today, lookup });
  return { ...verdict, criteria };
}
