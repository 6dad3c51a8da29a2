import type { Comparison, MeasureDefinition } from '../measure/definition.js';
import { unitAfter } from '../measure/withUnit.js';
import type { HomeQuestion } from '../protocol/homeQuestions.js';
import type { Affected } from '../quantity/side.js';
import { shown } from '../quantity/statistics.js';
import { type Tongue, spoken } from '../quantity/tongue.js';
import type { MeasureLookup } from './criteria.js';
import type { AbsoluteTwin, CriterionLeaf, PainWhen, SinceWhat } from './criteriaTypes.js';

/** What criteria are called where they are said, and for whom. */
export interface SayingOf {
  readonly affected: Affected;
  /** Questions of the home log, by key. */
  readonly questions?: Readonly<Record<string, Pick<HomeQuestion, 'name' | 'kind'>>> | undefined;
  /** What a patient reads it in; English where it is not said. */
  readonly tongue?: Tongue | undefined;
  /** A patient does not know the colours of the pain rule. */
  readonly forPatient?: boolean | undefined;
}

type Leaf<K extends string> = Extract<CriterionLeaf, Record<K, unknown>>;

const AGAINST: Record<Comparison, string> = {
  '>=': '{{what}} at least {{value}}',
  '>': '{{what}} more than {{value}}',
  '<=': '{{what}} at most {{value}}',
  '<': '{{what}} under {{value}}',
};

const ON_SIDE = {
  treated: '{{what}}, treated side',
  other: '{{what}}, other side',
  left: '{{what}}, left side',
  right: '{{what}}, right side',
} as const;

const PAIN: Record<PainWhen, string> = {
  'first-step': 'first-step pain',
  before: 'pain before exercise',
  during: 'pain during exercise',
  after: 'pain after exercise',
  'next-morning': 'next-morning pain',
  day: 'worst pain of the day',
  'worst-of-day': 'worst pain of the day',
};

const ANSWER: Record<Comparison, string> = {
  '>=': '{{what}} at least {{value}} for {{days}} days',
  '>': '{{what}} more than {{value}} for {{days}} days',
  '<=': '{{what}} at most {{value}} for {{days}} days',
  '<': '{{what}} under {{value}} for {{days}} days',
};

const SINCE: Record<SinceWhat, string> = {
  injury: 'at least {{days}} days since the injury',
  surgery: 'at least {{days}} days since the surgery',
  cast: 'at least {{days}} days since the cast came off',
  fracture: 'at least {{days}} days since the fracture',
};

const WEIGHT = {
  none: 'no weight-bearing allowed',
  partial: 'partial weight-bearing allowed',
  full: 'full weight-bearing allowed',
} as const;

const USUAL = {
  all: '{{what}} at least what is usual for age',
  allBySex: '{{what}} at least what is usual for age and sex',
  share: '{{what}} at least {{percent}} % of what is usual for age',
  shareBySex: '{{what}} at least {{percent}} % of what is usual for age and sex',
} as const;

const IMPACT = {
  contacts: '{{min}} landings in a week with pain {{pain}} or less',
  'run-minutes': '{{min}} minutes of running in a week with pain {{pain}} or less',
} as const;

/** The key of the measure a leaf reads; null where it reads none. */
export function measureOf(leaf: CriterionLeaf): string | null {
  if ('measure' in leaf) return leaf.measure;
  if ('symmetry' in leaf) return leaf.symmetry;
  if ('lessThanOther' in leaf) return leaf.lessThanOther;
  if ('atLeastForAge' in leaf) return leaf.atLeastForAge;
  if ('sideDifference' in leaf) return leaf.sideDifference;
  return 'outcome' in leaf ? leaf.outcome : null;
}

/** A limit of a measure as it is read: a chosen level by its word, a number with its unit. */
function valueText(m: MeasureDefinition, value: number, t: Tongue): string {
  const level = m.levels?.find((l) => l.value === value);
  return level === undefined
    ? `${t.number(value, 2)}${unitAfter(m)}`
    : `\u201c${t.say(level.word.replaceAll('-', ' '))}\u201d`;
}

/** A measure held against a plain limit on each of both sides. */
const eachSideText = (
  m: MeasureDefinition,
  limit: { readonly op: Comparison; readonly value: number },
  t: Tongue = spoken(),
): string =>
  t.say(AGAINST[limit.op], {
    what: t.say('{{what}}, each side', { what: t.say(m.label) }),
    value: valueText(m, limit.value, t),
  });

/** The plain limit each side must meet where there is no other side to compare with; null where the leaf has none. */
export function twinOf(
  leaf: CriterionLeaf,
  m: MeasureDefinition,
): { readonly op: Comparison; readonly value: number } | null {
  const least = (value: AbsoluteTwin) =>
    typeof value === 'number'
      ? { op: m.direction === 'less' ? ('<=' as const) : ('>=' as const), value }
      : value;
  if ('symmetry' in leaf) return leaf.floor === undefined ? null : least(leaf.floor);
  if ('lessThanOther' in leaf) return leaf.bothSides === undefined ? null : least(leaf.bothSides);
  return null;
}

function usualText(leaf: Leaf<'atLeastForAge'>, m: MeasureDefinition, t: Tongue): string {
  const bySex = m.norms !== undefined;
  const form = leaf.share === 1 ? (bySex ? 'allBySex' : 'all') : bySex ? 'shareBySex' : 'share';
  return t.say(USUAL[form], { what: t.say(m.label), percent: t.number(leaf.share * 100, 0) });
}

function measureText(
  leaf: CriterionLeaf,
  m: MeasureDefinition,
  { affected, tongue: t = spoken() }: SayingOf,
): string {
  const what = t.say(m.label);
  const twin = affected === 'both' ? twinOf(leaf, m) : null;
  if (twin !== null) return eachSideText(m, twin, t);
  if ('measure' in leaf)
    return t.say(AGAINST[leaf.op], {
      what: m.sides === 'single' ? what : t.say(ON_SIDE[leaf.side], { what }),
      value: valueText(m, leaf.value, t),
    });
  if ('symmetry' in leaf) {
    const gaps = { what, percent: leaf.min };
    return leaf.floor === undefined
      ? t.say('{{what}}, treated side at least {{percent}} % of the other', gaps)
      : t.say('{{what}}, treated side at least {{percent}} % of the other and at least {{floor}}', {
          ...gaps,
          floor: valueText(m, leaf.floor, t),
        });
  }
  if ('sideDifference' in leaf)
    return t.say('{{what}} within {{value}} of the other side', {
      what,
      value: `${t.number(leaf.max, 2)}${unitAfter(m)}`,
    });
  if ('lessThanOther' in leaf)
    return t.say('{{what}} not more than {{value}} worse than the other side', {
      what,
      value: `${t.number(leaf.max, 2)}${unitAfter(m)}`,
    });
  if ('outcome' in leaf)
    return t.say('{{what}} better by {{value}}', { what, value: `${t.number(leaf.gain)}${unitAfter(m)}` });
  return 'atLeastForAge' in leaf ? usualText(leaf, m, t) : what;
}

function answerText(leaf: Leaf<'answer'>, { questions, tongue: t = spoken() }: SayingOf): string {
  const question = questions?.[leaf.answer];
  const what = question === undefined ? leaf.answer : t.say(question.name);
  const { days } = leaf;
  if (leaf.op === '<=' && leaf.value === 0) return t.say('no {{what}} for {{days}} days', { what, days });
  if (question?.kind === 'yes-no' && leaf.op === '>=' && leaf.value === 1)
    return t.say('{{what}} on each of {{days}} days', { what, days });
  return t.say(ANSWER[leaf.op], { what, value: t.number(leaf.value, 2), days });
}

function eventsText(leaf: Leaf<'events'>, { questions, tongue: t = spoken() }: SayingOf): string {
  const named = (key: string) => {
    const question = questions?.[key];
    return t.say(question === undefined ? key.replaceAll('-', ' ') : question.name);
  };
  const gaps = {
    what: named(leaf.events),
    max: leaf.max,
    days: leaf.days,
    exposure: named(leaf.exposure.what),
    times: leaf.exposure.min,
  };
  return leaf.max === 0
    ? t.say('no {{what}} in {{days}} days with {{exposure}} {{times}} times or more', gaps)
    : t.say(
        '{{what}} at most {{max}} times in {{days}} days with {{exposure}} {{times}} times or more',
        gaps,
      );
}

const noRedText = (days: number, { forPatient = false, tongue: t = spoken() }: SayingOf): string =>
  forPatient
    ? t.say('no session that hurt too much for {{days}} days', { days })
    : t.say('no red for {{days}} days', { days });

/**
 * One criterion as words, without a capital and a full stop, in the tongue of who reads it. A measure that there is none of
 * stands as its key.
 */
export function leafText(leaf: CriterionLeaf, on: SayingOf, lookup: MeasureLookup): string {
  const t = on.tongue ?? spoken();
  const key = measureOf(leaf);
  if (key !== null) {
    const measure = lookup(key);
    return measure === undefined ? key : measureText(leaf, measure, on);
  }
  if ('pain' in leaf)
    return t.say('{{what}} {{max}} or less for {{days}} days', {
      what: t.say(PAIN[leaf.pain]),
      max: leaf.max,
      days: leaf.days,
    });
  if ('answer' in leaf) return answerText(leaf, on);
  if ('noRed' in leaf) return noRedText(typeof leaf.noRed === 'number' ? leaf.noRed : leaf.noRed.days, on);
  if ('skill' in leaf) return `${leaf.skill.replaceAll('-', ' ')} ${leaf.state}`;
  if ('adherence' in leaf)
    return t.say('at least {{percent}} % of planned sessions done over {{days}} days', {
      percent: leaf.adherence.min,
      days: leaf.adherence.days,
    });
  if ('daysSince' in leaf) return t.say(SINCE[leaf.daysSince], { days: leaf.min });
  if ('events' in leaf) return eventsText(leaf, on);
  if ('status' in leaf) return t.say(WEIGHT[leaf.atLeast]);
  if ('noLimp' in leaf) return t.say('no limp');
  if ('impact' in leaf) return t.say(IMPACT[leaf.impact], { min: shown(leaf.min, 0), pain: leaf.maxPain });
  return 'minDays' in leaf ? t.say('at least {{days}} days in this stage', { days: leaf.minDays }) : '';
}
