import type { Comparison, MeasureDefinition } from '../measure/definition.js';
import { semAt } from '../measure/error.js';
import { usualLimit } from '../measure/norms.js';
import type { MeasureLookup } from '../progress/criteria.js';
import { atLeastFloor } from '../progress/criteriaMeasures.js';
import { pairsOf, type Reading, readings } from '../progress/criteriaReadings.js';
import type { Criterion, CriterionLeaf, CriterionPart, Facts } from '../progress/criteriaTypes.js';
import { leafText } from '../progress/criterionText.js';
import { dayOf, type DayText } from '../quantity/day.js';
import { otherSide, type Side, treatedSides } from '../quantity/side.js';
import type { Forecast, ForecastInput } from './forecast.js';

/** Everything taken counts, however long ago: a trend is made of old values. */
const ANY_AGE_DAYS = 100_000;
/** Pain varies by about 1 from day to day in people who do not change. */
const PAIN_SEM = 1;

/** What is forecast of one side of a measure. */
export interface SeriesAhead extends ForecastInput {
  readonly measure: string;
  readonly side: Side | 'none';
  /** Whether values are the measure's own or percent of the other side. */
  readonly as: 'measured' | 'share';
}

/** One criterion that a trend leads to: as it is told among the criteria, and a series for each side that must meet it. */
export interface CriterionAhead {
  readonly text: string;
  readonly inputs: readonly SeriesAhead[];
}

interface On {
  readonly facts: Facts;
  readonly now: string;
  readonly lookup: MeasureLookup;
  readonly seed: number;
}

/** The single criteria of an expression, however deep. */
export const leavesOf = (criterion: Criterion): readonly CriterionLeaf[] =>
  'all' in criterion
    ? criterion.all.flatMap(leavesOf)
    : 'any' in criterion
      ? criterion.any.flatMap(leavesOf)
      : 'of' in criterion
        ? criterion.of.flatMap(leavesOf)
        : [criterion];

const isPain = (m: MeasureDefinition): boolean => m.region === 'pain' && m.allowed.max === 10;

const errorAt = (m: MeasureDefinition, value: number, method: string | undefined): number | null =>
  isPain(m) ? PAIN_SEM : semAt(m, value, method);

/** Comparable readings of a side, newest first. */
const taken = ({ facts, now }: On, measure: MeasureDefinition, side: Side | 'none'): readonly Reading[] =>
  readings(facts, { measure, side, maxAgeDays: ANY_AGE_DAYS }, dayOf(now)).fresh;

function plain(
  measure: MeasureDefinition,
  { op, value }: { readonly op: Comparison; readonly value: number },
  on: On,
): SeriesAhead[] {
  const sides = measure.sides === 'single' ? (['none'] as const) : treatedSides(on.facts.affected);
  return sides.flatMap((side): SeriesAhead[] => {
    const series = taken(on, measure, side);
    const [newest] = series;
    const sem = newest === undefined ? null : errorAt(measure, newest.value, newest.method);
    if (sem === null || sem <= 0) return [];
    return [
      {
        measure: measure.key,
        side,
        as: 'measured',
        series: series.map(({ at, value: v }) => ({ at, value: v })),
        threshold: value,
        direction: op === '>=' || op === '>' ? 'more' : 'less',
        sem,
        now: on.now,
        seed: on.seed,
      },
    ];
  });
}

/** The treated side as a percentage of the other, of the days on which both were taken. */
function shareOfOther(measure: MeasureDefinition, min: number, on: On): SeriesAhead[] {
  const { affected } = on.facts;
  if (affected !== 'left' && affected !== 'right') return [];
  const side: Side = affected;
  const [left, right] = [taken(on, measure, 'left'), taken(on, measure, 'right')];
  const less = measure.direction === 'less';
  const series = pairsOf(left, right).flatMap((pair) => {
    const [own, other] = [pair[side].value, pair[otherSide(side)].value];
    const [part, whole] = less ? [other, own] : [own, other];
    return whole <= 0 ? [] : [{ at: pair.day, value: (part / whole) * 100, whole, part }];
  });
  const [newest] = series;
  if (newest === undefined) return [];
  const sem = errorAt(measure, newest.whole, undefined);
  if (sem === null || sem <= 0) return [];
  const percent = Math.hypot(sem / newest.whole, (sem * newest.part) / newest.whole ** 2) * 100;
  return [
    {
      measure: measure.key,
      side,
      as: 'share',
      series: series.map(({ at, value }) => ({ at, value })),
      threshold: min,
      direction: 'more',
      sem: percent,
      now: on.now,
      seed: on.seed,
    },
  ];
}

function inputsOf(leaf: CriterionLeaf, on: On): readonly SeriesAhead[] {
  const { lookup, facts } = on;
  if ('measure' in leaf) {
    const measure = lookup(leaf.measure);
    return measure === undefined || measure.direction === 'target' || leaf.side !== 'treated'
      ? []
      : plain(measure, { op: leaf.op, value: leaf.value }, on);
  }
  if ('atLeastForAge' in leaf) {
    const measure = lookup(leaf.atLeastForAge);
    if (measure === undefined) return [];
    const usual = usualLimit(measure, facts, leaf.share);
    // Of two medians the harder: the criterion is met when both agree.
    return usual === null ? [] : plain(measure, { op: usual.op, value: usual.hard }, on);
  }
  if ('symmetry' in leaf) {
    const measure = lookup(leaf.symmetry);
    if (measure === undefined) return [];
    // With both sides treated only the floor counts.
    return [
      ...shareOfOther(measure, leaf.min, on),
      ...(leaf.floor === undefined ? [] : plain(measure, atLeastFloor(measure, leaf.floor), on)),
    ];
  }
  return [];
}

/** Criteria of a stage that a trend of measures can lead to, each once; those of the log and of the days are not among them. */
export function criteriaAhead(criteria: Criterion | null, on: On): CriterionAhead[] {
  if (criteria === null) return [];
  return leavesOf(criteria).flatMap((leaf) => {
    const inputs = inputsOf(leaf, on);
    return inputs.length === 0 ? [] : [{ text: leafText(leaf, on.facts, on.lookup), inputs }];
  });
}

/** The criteria that are still wanted and a trend can lead to; what another way has made needless is not among them. */
export function openAhead(
  criteria: Criterion | null,
  parts: readonly CriterionPart[],
  on: On,
): readonly CriterionAhead[] {
  const open = new Set(parts.filter((p) => p.spare !== true && p.state === 'not-met').map((p) => p.text));
  return criteriaAhead(criteria, on).filter((a) => open.has(a.text));
}

/** The same episode, the same draws, wherever they are made. */
export const seedOf = (episodeId: string): number =>
  Number.parseInt(episodeId.replaceAll('-', '').slice(0, 7), 16);

/** When all of some forecasts are met: each date the latest, none where one is not within the horizon. */
export function lastOf(
  forecasts: readonly Forecast[],
): Pick<Forecast, 'medianDate' | 'lowDate' | 'highDate'> | null {
  if (forecasts.length === 0) return null;
  const latest = (of: (f: Forecast) => DayText | null): DayText | null => {
    const dates = forecasts.map(of);
    return dates.includes(null) ? null : ((dates as DayText[]).toSorted().at(-1) ?? null);
  };
  return {
    medianDate: latest((f) => f.medianDate),
    lowDate: latest((f) => f.lowDate),
    highDate: latest((f) => f.highDate),
  };
}
