import { daysBetween, dayOf, type DayText } from '../quantity/day.js';
import { above, atLeast, shown, TOLERANCE } from '../quantity/statistics.js';
import { otherSide, treatedSides, type Side } from '../quantity/side.js';
import type { Comparison, MeasureDefinition } from '../measure/definition.js';
import { areLike, type Taken, unlikeness } from '../measure/like.js';
import { semAt } from '../measure/error.js';
import { unitAfter as unit } from '../measure/withUnit.js';
import { criteriaPercent } from '../measure/symmetry.js';
import type { MeasureLookup } from './criteria.js';
import type { CriterionLeaf, CriterionPart, CriterionState, Facts } from './criteriaTypes.js';

type Leaf<K extends string> = Extract<CriterionLeaf, Record<K, unknown>>;

/** Values older than this do not count toward a criterion, unless it says otherwise. */
const DEFAULT_MAX_AGE_DAYS = 28;

/** Clears a limit by at least the error: met; passes it by less: met within error. An unknown error counts as none. */
function against(margin: number, error: number | null, strict: boolean): CriterionState {
  const passes = strict ? margin > TOLERANCE : margin >= -TOLERANCE;
  if (!passes) return 'not-met';
  return error === null || atLeast(margin, error) ? 'met' : 'met-within-error';
}

const marginOf = (op: Comparison, value: number, limit: number): number =>
  op === '>=' || op === '>' ? value - limit : limit - value;

interface Take {
  readonly day: DayText;
  readonly state: CriterionState;
}

/** Met within error at two takes running, on different days, counts as met. Takes newest first. */
function settle(takes: readonly Take[]): { state: CriterionState; confirmed: boolean } {
  const [latest] = takes;
  if (latest === undefined) return { state: 'not-known', confirmed: false };
  const previous = takes.find((t) => t.day !== latest.day);
  const confirmed =
    latest.state === 'met-within-error' &&
    previous !== undefined &&
    (previous.state === 'met-within-error' || previous.state === 'met');
  return { state: confirmed ? 'met' : latest.state, confirmed };
}

interface Reading extends Taken {
  readonly at: string;
  readonly value: number;
}

/** Fresh readings of one measure on one side, newest first; and whether any older or empty one exists. */
function readings(
  facts: Facts,
  definition: MeasureDefinition,
  side: Side | 'none',
  today: DayText,
  maxAge: number,
) {
  const all = facts.measures
    .filter((m) => m.measure === definition.key && m.side === side && dayOf(m.at) <= today)
    .sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0));
  const fresh = all.filter((m) => daysBetween(dayOf(m.at), today) <= maxAge);
  const newestEmpty = fresh[0] !== undefined && fresh[0].value === null;
  const newestTaken = fresh.find((m) => m.value !== null);
  return {
    fresh:
      newestEmpty || newestTaken === undefined
        ? []
        : fresh.filter(
            (m): m is typeof m & Reading => m.value !== null && areLike(definition, m, newestTaken),
          ),
    newest: all[0],
    newestEmpty,
  };
}

function missing(label: string, side: string, found: ReturnType<typeof readings>, today: DayText): string {
  if (found.newestEmpty) return `${label}, ${side}: could not be taken last time`;
  if (found.newest === undefined) return `${label}, ${side}: not measured yet`;
  return `${label}, ${side}: last measured ${daysBetween(dayOf(found.newest.at), today)} days ago, too old`;
}

function unknownMeasure(key: string): CriterionPart {
  return { text: key, state: 'not-known', because: `there is no measure ${key}` };
}

const WORDS: Record<Comparison, string> = {
  '>=': 'at least',
  '>': 'more than',
  '<=': 'at most',
  '<': 'under',
};

const RANK: Record<CriterionState, number> = { 'not-met': 0, 'not-known': 1, 'met-within-error': 2, met: 3 };

const lowest = (a: CriterionState, b: CriterionState): CriterionState => (RANK[a] <= RANK[b] ? a : b);

function sidesFor(
  leaf: Leaf<'measure'>,
  measure: MeasureDefinition,
  facts: Facts,
): readonly (Side | 'none')[] {
  if (measure.sides === 'single') return ['none'];
  if (leaf.side === 'left' || leaf.side === 'right') return [leaf.side];
  const treated = treatedSides(facts.affected);
  return leaf.side === 'treated' ? treated : treated.length === 1 ? [otherSide(treated[0] as Side)] : [];
}

/** `measure op value` on the named side; with both sides affected, `treated` needs each of them. */
export function measureLeaf(
  leaf: Leaf<'measure'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const measure = lookup(leaf.measure);
  if (measure === undefined) return unknownMeasure(leaf.measure);
  const sides = sidesFor(leaf, measure, facts);
  const where = measure.sides === 'single' ? '' : `, ${leaf.side} side`;
  const text = `${measure.label}${where} ${WORDS[leaf.op]} ${leaf.value}${unit(measure)}`;
  if (sides.length === 0) {
    const applies = leaf.side === 'treated' || facts.affected !== 'both';
    return {
      text,
      state: applies ? 'not-known' : 'not-applicable',
      because:
        facts.affected === 'both'
          ? 'both sides are affected, there is no other side'
          : 'there is no treated side',
    };
  }
  const judged = sides.map((side) => {
    const found = readings(facts, measure, side, today, leaf.maxAgeDays ?? DEFAULT_MAX_AGE_DAYS);
    const takes = found.fresh.map((r) => ({
      day: dayOf(r.at),
      state: against(
        marginOf(leaf.op, r.value, leaf.value),
        semAt(measure, r.value),
        leaf.op === '>' || leaf.op === '<',
      ),
    }));
    const settled = settle(takes);
    const latest = found.fresh[0];
    const because =
      latest === undefined
        ? missing(measure.label, side, found, today)
        : `${side === 'none' ? '' : `${side} `}${shown(latest.value)}${unit(measure)}${errorNote(settled, semAt(measure, latest.value))}`;
    return { state: settled.state, because };
  });
  return {
    text,
    state: judged.map((j) => j.state).reduce(lowest),
    because: judged.map((j) => j.because).join('; '),
  };
}

function errorNote(settled: { state: CriterionState; confirmed: boolean }, sem: number | null): string {
  if (settled.confirmed) return ', within error twice running, on different days';
  if (settled.state === 'met-within-error')
    return `, within the error of ${shown(sem ?? 0)}: repeat to confirm`;
  return '';
}

interface Pair {
  readonly day: DayText;
  readonly left: number;
  readonly right: number;
}

/** Days on which both sides were taken, newest first; the newest of a day counts. */
function pairs(left: readonly Reading[], right: readonly Reading[]): Pair[] {
  const rightOn = new Map<string, number>();
  for (const r of [...right].reverse()) rightOn.set(dayOf(r.at), r.value);
  const leftOn = new Map<string, number>();
  for (const l of [...left].reverse()) leftOn.set(dayOf(l.at), l.value);
  return [...leftOn.entries()]
    .flatMap(([day, value]) => {
      const other = rightOn.get(day);
      return other === undefined ? [] : [{ day, left: value, right: other }];
    })
    .sort((a, b) => (a.day < b.day ? 1 : -1));
}

/** Sides measured on different days still compare when both are fresh: the newest of each. */
function freshPairs(left: readonly Reading[], right: readonly Reading[]): Pair[] {
  const sameDay = pairs(left, right);
  const [l, r] = [left[0], right[0]];
  if (l === undefined || r === undefined) return [];
  const newest = dayOf(l.at) > dayOf(r.at) ? dayOf(l.at) : dayOf(r.at);
  if (sameDay[0]?.day === newest) return sameDay;
  return [{ day: newest, left: l.value, right: r.value }, ...sameDay];
}

function twoSided(
  key: string,
  text: (m: MeasureDefinition) => string,
  leaf: { readonly maxAgeDays?: number | undefined },
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
  judge: (m: MeasureDefinition, pair: Pair) => { state: CriterionState; because: string } | { none: string },
): CriterionPart {
  const measure = lookup(key);
  if (measure === undefined) return unknownMeasure(key);
  const words = text(measure);
  if (facts.affected === 'both') {
    return {
      text: words,
      state: 'not-applicable',
      because: 'both sides are affected: each must meet the absolute criterion',
    };
  }
  if (facts.affected === 'none')
    return { text: words, state: 'not-known', because: 'there is no treated side' };
  const maxAge = leaf.maxAgeDays ?? DEFAULT_MAX_AGE_DAYS;
  const left = readings(facts, measure, 'left', today, maxAge);
  const right = readings(facts, measure, 'right', today, maxAge);
  const [newestLeft, newestRight] = [left.fresh[0], right.fresh[0]];
  if (newestLeft !== undefined && newestRight !== undefined && !areLike(measure, newestLeft, newestRight)) {
    const how = unlikeness(measure, newestLeft, newestRight);
    return { text: words, state: 'not-known', because: `the sides were taken differently: ${how}` };
  }
  const found = freshPairs(left.fresh, right.fresh);
  if (found.length === 0) {
    const gaps = [
      left.fresh.length === 0 ? missing(measure.label, 'left', left, today) : '',
      right.fresh.length === 0 ? missing(measure.label, 'right', right, today) : '',
    ];
    return { text: words, state: 'not-known', because: gaps.filter((g) => g !== '').join('; ') };
  }
  const judged = found.map((pair) => ({ pair, result: judge(measure, pair) }));
  const newest = judged[0]?.result;
  if (newest === undefined || 'none' in newest) {
    return { text: words, state: 'not-known', because: newest === undefined ? 'not measured' : newest.none };
  }
  const takes = judged.flatMap(({ pair, result }) =>
    'none' in result ? [] : [{ day: pair.day, state: result.state }],
  );
  const settled = settle(takes);
  const note = settled.confirmed
    ? ', within error twice running, on different days'
    : settled.state === 'met-within-error'
      ? ', within error: repeat to confirm'
      : '';
  return { text: words, state: settled.state, because: newest.because + note };
}

/** Treated over other at least `min` %, with both sides' errors carried into the ratio. */
export function symmetryLeaf(
  leaf: Leaf<'symmetry'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const text = (m: MeasureDefinition) => `${m.label}, treated side at least ${leaf.min} % of the other`;
  return twoSided(leaf.symmetry, text, leaf, facts, today, lookup, (measure, pair) => {
    const ratio = criteriaPercent(measure, pair, facts.affected);
    if (ratio.percent === null) return { none: ratio.reason };
    const relative = ([pair.left, pair.right] as const).map((v) => {
      const sem = semAt(measure, v);
      return sem === null || v === 0 ? 0 : sem / v;
    });
    const error = ratio.percent * Math.hypot(...relative);
    return {
      state: against(ratio.percent - leaf.min, error, false),
      because: `${shown(ratio.percent, 0)} % (left ${shown(pair.left)}, right ${shown(pair.right)}, error ${shown(error, 0)} points)`,
    };
  });
}

/** |left - right| at most `max`, with both sides' errors carried into the difference. */
export function sideDifferenceLeaf(
  leaf: Leaf<'sideDifference'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const text = (m: MeasureDefinition) => `${m.label} within ${leaf.max}${unit(m)} of the other side`;
  return twoSided(leaf.sideDifference, text, leaf, facts, today, lookup, (measure, pair) => {
    const difference = Math.abs(pair.left - pair.right);
    const sems = [semAt(measure, pair.left), semAt(measure, pair.right)];
    const error = sems.includes(null) ? null : Math.hypot(...sems.map((s) => s ?? 0));
    const over = above(difference, leaf.max);
    return {
      state: over ? 'not-met' : against(leaf.max - difference, error, false),
      because: `${shown(difference)}${unit(measure)} apart (left ${shown(pair.left)}, right ${shown(pair.right)})`,
    };
  });
}
