import { say } from '../quantity/tongue.js';
import { dayOf, type DayText } from '../quantity/day.js';
import { above, shown } from '../quantity/statistics.js';
import { otherSide, treatedSides, type Affected, type Side } from '../quantity/side.js';
import type { Comparison, MeasureDefinition } from '../measure/definition.js';
import { gain } from '../measure/direction.js';
import { areLike, unlikeness } from '../measure/like.js';
import { usualLimit } from '../measure/norms.js';

import { unitAfter as unit } from '../measure/withUnit.js';
import { criteriaPercent } from '../measure/symmetry.js';
import type { MeasureLookup } from './criteria.js';
import {
  against,
  DEFAULT_MAX_AGE_DAYS,
  errorOf,
  missing,
  type Pair,
  pairsOf,
  type Reading,
  readings,
  settle,
} from './criteriaReadings.js';
import { leafText, measureOf, twinOf } from './criterionText.js';
import type { CriterionLeaf, CriterionPart, CriterionState, Facts } from './criteriaTypes.js';

type Leaf<K extends string> = Extract<CriterionLeaf, Record<K, unknown>>;

const marginOf = (op: Comparison, value: number, limit: number): number =>
  op === '>=' || op === '>' ? value - limit : limit - value;

function unknownMeasure(key: string): CriterionPart {
  return { text: key, state: 'not-known', because: say('there is no measure {{key}}', { key }) };
}

const RANK: Record<CriterionState, number> = { 'not-met': 0, 'not-known': 1, 'met-within-error': 2, met: 3 };

const lowest = (a: CriterionState, b: CriterionState): CriterionState => (RANK[a] <= RANK[b] ? a : b);

const told = (m: MeasureDefinition, r: Reading): string =>
  r.unable ? say('unable') : `${shown(r.value)}${unit(m)}`;

interface Limit {
  readonly op: Comparison;
  readonly value: number;
}

type Sided = CriterionPart & { readonly state: CriterionState };

/** A limit, and what of which sides it is held against. */
interface AskedOf {
  readonly measure: MeasureDefinition;
  readonly sides: readonly (Side | 'none')[];
  readonly limit: Limit;
  readonly text: string;
  readonly maxAgeDays: number | undefined;
}

/** One plain limit on some sides, each with its own error; the lowest counts. */
function limitOn(asked: AskedOf, facts: Facts, today: DayText): Sided {
  const { measure, sides, limit, text, maxAgeDays } = asked;
  const judged = sides.map((side) => {
    const found = readings(facts, { measure, side, maxAgeDays: maxAgeDays ?? DEFAULT_MAX_AGE_DAYS }, today);
    const settled = settle(
      found.fresh.map((r) => ({
        day: dayOf(r.at),
        state: against(
          marginOf(limit.op, r.value, limit.value),
          errorOf(measure, r),
          limit.op === '>' || limit.op === '<',
        ),
      })),
    );
    const latest = found.fresh[0];
    const because =
      latest === undefined
        ? missing(measure.label, side, found, today)
        : `${side === 'none' ? '' : `${say(side)} `}${told(measure, latest)}${errorNote(settled, errorOf(measure, latest))}`;
    return { state: settled.state, because };
  });
  return {
    text,
    state: judged.map((j) => j.state).reduce(lowest),
    because: judged.map((j) => j.because).join('; '),
  };
}

function errorNote(settled: { state: CriterionState; confirmed: boolean }, sem: number | null): string {
  if (settled.confirmed) return say(', within error twice running, on different days');
  if (settled.state !== 'met-within-error') return '';
  return sem === null
    ? say(', the error of the measure is not known: repeat to confirm')
    : say(', within the error of {{sem}}: repeat to confirm', { sem: shown(sem) });
}

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
  const text = leafText(leaf, facts, lookup);
  if (sides.length === 0) {
    const applies = leaf.side === 'treated' || facts.affected !== 'both';
    return {
      text,
      state: applies ? 'not-known' : 'not-applicable',
      because:
        facts.affected === 'both'
          ? say('both sides are affected, there is no other side')
          : say('there is no treated side'),
    };
  }
  return limitOn({ measure, sides, limit: leaf, text, maxAgeDays: leaf.maxAgeDays }, facts, today);
}

/** At least a share of the published median for age and sex, on each treated side. Without a sex both medians must agree. */
export function atLeastForAgeLeaf(
  leaf: Leaf<'atLeastForAge'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const measure = lookup(leaf.atLeastForAge);
  if (measure === undefined) return unknownMeasure(leaf.atLeastForAge);
  const usual = usualLimit(measure, facts, leaf.share);
  const text = leafText(leaf, facts, lookup);
  if (usual === null) {
    const because =
      (facts.ageYears ?? null) === null
        ? say('the age is not known')
        : say('nothing is published for this age');
    return { text, state: 'not-known', because };
  }
  const sides = measure.sides === 'single' ? (['none'] as const) : treatedSides(facts.affected);
  if (sides.length === 0) return { text, state: 'not-known', because: say('there is no treated side') };
  const { op, easy, hard } = usual;
  const on = (value: number) =>
    limitOn({ measure, sides, limit: { op, value }, text, maxAgeDays: leaf.maxAgeDays }, facts, today);
  const [least, most] = [on(easy), on(hard)];
  const wanted = (value: number) => `${shown(value)}${unit(measure)}`;
  if (least.state === most.state)
    return {
      ...most,
      because: say('{{because}}; wanted {{wanted}}', {
        because: most.because,
        wanted: wanted(easy),
      }),
    };
  return {
    text,
    state: least.state === 'not-met' ? 'not-met' : 'not-known',
    because: say('{{because}}; wanted {{wanted}} or {{wanted2}} by sex, which is not known', {
      because: most.because,
      wanted: wanted(easy),
      wanted2: wanted(hard),
    }),
  };
}

type Judge = (
  m: MeasureDefinition,
  pair: Pair,
) => { readonly state: CriterionState; readonly because: string } | { readonly none: string };

interface TwoSided {
  readonly leaf: Leaf<'symmetry'> | Leaf<'sideDifference'> | Leaf<'lessThanOther'>;
  readonly judge: Judge;
}

function twoSided(of: TwoSided, facts: Facts, today: DayText, lookup: MeasureLookup): CriterionPart {
  const { leaf } = of;
  const key = measureOf(leaf) ?? '';
  const measure = lookup(key);
  if (measure === undefined) return unknownMeasure(key);
  const text = leafText(leaf, facts, lookup);
  if (facts.affected === 'both') {
    const limit = twinOf(leaf, measure);
    if (limit === null)
      return {
        text,
        state: 'not-applicable',
        because: 'both sides are affected: each must meet the absolute criterion',
      };
    return limitOn(
      { measure, sides: ['left', 'right'], limit, text, maxAgeDays: leaf.maxAgeDays },
      facts,
      today,
    );
  }
  if (facts.affected === 'none')
    return { text, state: 'not-known', because: say('there is no treated side') };
  return betweenSides(of, { measure, text }, facts, today);
}

function betweenSides(
  { leaf, judge }: TwoSided,
  { measure, text }: Pick<AskedOf, 'measure' | 'text'>,
  facts: Facts,
  today: DayText,
): CriterionPart {
  const notKnown = (because: string): CriterionPart => ({ text, state: 'not-known', because });
  const maxAge = leaf.maxAgeDays ?? DEFAULT_MAX_AGE_DAYS;
  const left = readings(facts, { measure, side: 'left', maxAgeDays: maxAge }, today);
  const right = readings(facts, { measure, side: 'right', maxAgeDays: maxAge }, today);
  const [l, r] = [left.fresh[0], right.fresh[0]];
  if (l !== undefined && r !== undefined && !l.unable && !r.unable && !areLike(measure, l, r))
    return notKnown(
      say('the sides were taken differently: {{unlikeness}}', { unlikeness: unlikeness(measure, l, r) }),
    );
  const judged = pairsOf(left.fresh, right.fresh).map((pair) => ({
    pair,
    result: judge(measure, pair),
  }));
  const newest = judged[0]?.result;
  if (newest === undefined) {
    const gaps = [
      left.fresh.length === 0 ? missing(measure.label, 'left', left, today) : '',
      right.fresh.length === 0 ? missing(measure.label, 'right', right, today) : '',
    ];
    return notKnown(gaps.filter((g) => g !== '').join('; '));
  }
  if ('none' in newest) return notKnown(newest.none);
  const settled = settle(
    judged.flatMap(({ pair, result }) => ('none' in result ? [] : [{ day: pair.day, state: result.state }])),
  );
  const note = settled.confirmed
    ? say(', within error twice running, on different days')
    : settled.state === 'met-within-error'
      ? say(', within error: repeat to confirm')
      : '';
  return { text, state: settled.state, because: newest.because + note };
}

/** Both readings' errors carried into their difference; null when one is not known. */
function joinedError(measure: MeasureDefinition, pair: Pair): number | null {
  const sems = [errorOf(measure, pair.left), errorOf(measure, pair.right)];
  return sems.includes(null) ? null : Math.hypot(...sems.map((s) => s ?? 0));
}

const pairText = (m: MeasureDefinition, pair: Pair): string =>
  say('left {{told}}, right {{told2}}', { told: told(m, pair.left), told2: told(m, pair.right) });

/** The least a treated side must be, however much better it is than the other. */
export const atLeastFloor = (m: MeasureDefinition, floor: number): Limit => ({
  op: m.direction === 'less' ? '<=' : '>=',
  value: floor,
});

/** Treated over other at least `min` %, and treated at least `floor`, with both sides' errors carried into the ratio. */
export function symmetryLeaf(
  leaf: Leaf<'symmetry'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const { floor } = leaf;
  const judge: Judge = (measure, pair) => {
    const values = { left: pair.left.value, right: pair.right.value };
    const ratio = criteriaPercent(measure, values, facts.affected);
    if (ratio.percent === null) return { none: ratio.reason };
    const treated = pair[treatedOne(facts.affected)];
    const relative = [pair.left, pair.right].map((v) => {
      const sem = errorOf(measure, v);
      return sem === null ? null : v.value === 0 ? 0 : sem / v.value;
    });
    const error = relative.includes(null) ? null : ratio.percent * Math.hypot(...relative.map((v) => v ?? 0));
    const inRatio = against(ratio.percent - leaf.min, error, false);
    const aboveFloor =
      floor === undefined
        ? 'met'
        : against(
            marginOf(atLeastFloor(measure, floor).op, treated.value, floor),
            errorOf(measure, treated),
            false,
          );
    const short =
      aboveFloor === 'not-met'
        ? say('; treated {{told}}, wanted at least {{floor}}', {
            told: told(measure, treated),
            floor: floor ?? 0,
          })
        : '';
    const spread =
      error === null ? say('error not known') : say('error {{error}} points', { error: shown(error, 0) });
    return {
      // A floor is passed or not; only the ratio has to be certain.
      state: aboveFloor === 'not-met' ? 'not-met' : inRatio,
      because: `${shown(ratio.percent, 0)} % (${pairText(measure, pair)}, ${spread})${short}`,
    };
  };
  return twoSided({ leaf, judge }, facts, today, lookup);
}

const treatedOne = (affected: Affected): Side => (affected === 'right' ? 'right' : 'left');

/** |left - right| at most `max`, with both sides' errors carried into the difference. */
export function sideDifferenceLeaf(
  leaf: Leaf<'sideDifference'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const judge: Judge = (measure, pair) => {
    const difference = Math.abs(pair.left.value - pair.right.value);
    const over = above(difference, leaf.max);
    return {
      state: over ? 'not-met' : against(leaf.max - difference, joinedError(measure, pair), false),
      because: say('{{difference}}{{unit}} apart ({{pair}})', {
        difference: shown(difference),
        unit: unit(measure),
        pair: pairText(measure, pair),
      }),
    };
  };
  return twoSided({ leaf, judge }, facts, today, lookup);
}

/** Treated not more than `max` worse than the other; better than the other always passes. */
export function lessThanOtherLeaf(
  leaf: Leaf<'lessThanOther'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const judge: Judge = (measure, pair) => {
    const side = treatedOne(facts.affected);
    const [treated, other] = [pair[side].value, pair[otherSide(side)].value];
    const short = gain(measure, treated, other);
    const where = `(${pairText(measure, pair)})`;
    if (short <= 0) {
      const better = short === 0 ? say('the same as the other side') : say('better than the other side');
      return { state: 'met', because: `${better} ${where}` };
    }
    return {
      state: against(leaf.max - short, joinedError(measure, pair), false),
      because: say('{{short}}{{unit}} worse than the other side {{where}}', {
        short: shown(short),
        unit: unit(measure),
        where,
      }),
    };
  };
  return twoSided({ leaf, judge }, facts, today, lookup);
}
