import type { Criterion, CriterionLeaf, CriterionPart } from '../progress/criteriaTypes.js';
import type { DayText } from '../quantity/day.js';
import type { Forecast } from './forecast.js';

/** Dates of first meeting; null where that is not within the horizon. */
export type When = Pick<Forecast, 'medianDate' | 'lowDate' | 'highDate'>;

/** When a stage may be left as far as trends tell, and what no trend leads to. */
export interface StageAhead {
  /** Never before the shortest time of the stage. Null where no trend leads to anything that is still wanted. */
  readonly when: When | null;
  /** Criteria that are still wanted and that no forecast is made of, as they are told. */
  readonly besides: readonly string[];
}

export interface StageAheadOn {
  readonly criteria: Criterion;
  /** How a single criterion is told. */
  readonly textOf: (leaf: CriterionLeaf) => string;
  readonly stateOf: (text: string) => CriterionPart['state'] | undefined;
  /** Its own forecast; undefined where there is none. */
  readonly whenOf: (text: string) => When | undefined;
  readonly today: DayText;
  /** The day on which the shortest time of the stage is over. */
  readonly notBefore: DayText;
}

/** What is left of an expression: met already, or dates and what else is wanted. */
type Left = { readonly met: true } | (StageAhead & { readonly met: false });

const NEVER = '9999-12-31';

const latest = (a: DayText | null, b: DayText | null): DayText | null =>
  a === null || b === null ? null : a > b ? a : b;

const laterOf = (a: When | null, b: When | null): When | null =>
  a === null
    ? b
    : b === null
      ? a
      : {
          medianDate: latest(a.medianDate, b.medianDate),
          lowDate: latest(a.lowDate, b.lowDate),
          highDate: latest(a.highDate, b.highDate),
        };

/** Ways in the order they are taken: what is met, then with the least besides, then by middle, begin and end of its dates. */
const order = (left: Left): readonly [besides: number, dates: string] =>
  left.met
    ? [-1, '']
    : [
        left.besides.length,
        [left.when?.medianDate, left.when?.lowDate, left.when?.highDate].map((d) => d ?? NEVER).join(),
      ];

function sooner(a: Left, b: Left): number {
  const [[moreA, datesA], [moreB, datesB]] = [order(a), order(b)];
  return moreA === moreB ? (datesA < datesB ? -1 : datesA > datesB ? 1 : 0) : moreA - moreB;
}

/** So many of some, the likeliest of them, each met. */
function together(parts: readonly Left[], count: number): Left {
  const taken = parts
    .toSorted(sooner)
    .slice(0, count)
    .filter((p) => !p.met);
  if (taken.length === 0) return { met: true };
  return {
    met: false,
    when: taken.reduce<When | null>((when, p) => laterOf(when, p.when), null),
    besides: [...new Set(taken.flatMap((p) => p.besides))],
  };
}

function leftOf(criterion: Criterion, on: StageAheadOn): Left {
  const each = (list: readonly Criterion[]) => list.map((c) => leftOf(c, on));
  if ('all' in criterion) return together(each(criterion.all), criterion.all.length);
  if ('any' in criterion) return together(each(criterion.any), 1);
  if ('of' in criterion) return together(each(criterion.of), criterion.atLeast);
  // The shortest time is reckoned with as it is: it comes by itself.
  if ('minDays' in criterion) return { met: true };
  const text = on.textOf(criterion);
  const state = on.stateOf(text);
  if (state === 'met' || state === 'not-applicable') return { met: true };
  const when = on.whenOf(text);
  return when === undefined ? { met: false, when: null, besides: [text] } : { met: false, when, besides: [] };
}

/**
 * When a stage may be left: the last of its criteria, of alternatives the likeliest, and not before its shortest time. It says
 * nothing of criteria that no trend leads to; those stand beside it.
 */
export function stageAhead(on: StageAheadOn): StageAhead {
  const left = leftOf(on.criteria, on);
  const floor: When = { medianDate: on.notBefore, lowDate: on.notBefore, highDate: on.notBefore };
  if (left.met) return { when: on.notBefore > on.today ? floor : null, besides: [] };
  return { when: left.when === null ? null : laterOf(left.when, floor), besides: left.besides };
}
