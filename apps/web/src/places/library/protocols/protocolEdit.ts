import type {
  Criterion,
  CriterionLeaf,
  ExerciseDefinition,
  ExerciseDose,
  ProtocolDefinition,
  Slot,
  Stage,
} from '@heathstep/core';

/** The protocol with one stage changed. */
export const withStage = (
  p: ProtocolDefinition,
  key: string,
  change: Partial<Stage>,
): ProtocolDefinition => ({
  ...p,
  stages: p.stages.map((s) => (s.key === key ? { ...s, ...change } : s)),
});

/** Slots in their order, which is their importance. */
const numbered = (slots: readonly Slot[]): Slot[] => slots.map((s, i) => ({ ...s, priority: i + 1 }));

export const slotMoved = (slots: readonly Slot[], at: number, by: -1 | 1): readonly Slot[] => {
  const [moved] = slots.slice(at, at + 1);
  if (moved === undefined || at + by < 0 || at + by >= slots.length) return slots;
  const rest = slots.filter((_, i) => i !== at);
  return numbered([...rest.slice(0, at + by), moved, ...rest.slice(at + by)]);
};

export const slotChanged = (slots: readonly Slot[], at: number, change: Partial<Slot>): readonly Slot[] =>
  slots.map((s, i) => (i === at ? { ...s, ...change } : s));

export const slotRemoved = (slots: readonly Slot[], at: number): readonly Slot[] =>
  numbered(slots.filter((_, i) => i !== at));

/** A slot more at the end, under a key of its own. */
export function slotAdded(slots: readonly Slot[], slot: Omit<Slot, 'key' | 'priority'>): readonly Slot[] {
  const free = (n: number): string => {
    const key = n === 1 ? slot.ladder : `${slot.ladder}-${n}`;
    return slots.some((s) => s.key === key) ? free(n + 1) : key;
  };
  return numbered([...slots, { ...slot, key: free(1), priority: 0 }]);
}

type Path = readonly (string | number)[];

/** A number in a criterion, by its place. */
export interface CriterionNumber {
  readonly path: Path;
  readonly name: string;
  readonly value: number;
}

const NAMES: Readonly<Record<string, string>> = {
  value: 'value',
  min: 'at least',
  max: 'at most',
  share: 'share of what is usual',
  days: 'days',
  floor: 'and at least',
  gain: 'gain',
  maxPain: 'pain at most',
  atLeast: 'at least',
  minDays: 'days',
  noRed: 'days',
  bothSides: 'with both sides treated',
  maxAgeDays: 'not older than, days',
};

/** Every number of a criterion that can be set, in the order it is written. */
export function numbersIn(criterion: unknown, path: Path = []): readonly CriterionNumber[] {
  if (typeof criterion === 'number')
    return [{ path, name: NAMES[String(path.at(-1))] ?? String(path.at(-1)), value: criterion }];
  if (typeof criterion !== 'object' || criterion === null) return [];
  return Object.entries(criterion).flatMap(([k, v]) =>
    numbersIn(v, [...path, Array.isArray(criterion) ? Number(k) : k]),
  );
}

/** The same with another number at a place. */
export function withNumber<T>(of: T, path: Path, value: number): T {
  const [first, ...rest] = path;
  if (first === undefined) return value as T;
  if (Array.isArray(of))
    return of.map((v: unknown, i) => (i === first ? withNumber(v, rest, value) : v)) as T;
  const inner = (of as Record<string, unknown>)[String(first)];
  return { ...of, [first]: withNumber(inner, rest, value) };
}

/** What must all hold, as a list; something that is no such list is one thing. */
export const partsOf = (criterion: Criterion): readonly Criterion[] =>
  'all' in criterion ? criterion.all : [criterion];

/** What can be asked for, to begin with usual numbers; those about a measure need one chosen. */
export const BLOCKS: readonly {
  readonly key: string;
  readonly name: string;
  readonly measure: boolean;
  readonly make: (measure: string) => CriterionLeaf;
}[] = [
  {
    key: 'during',
    name: 'pain while exercising',
    measure: false,
    make: () => ({ pain: 'during', max: 3, days: 5 }),
  },
  {
    key: 'morning',
    name: 'pain the next morning',
    measure: false,
    make: () => ({ pain: 'next-morning', max: 3, days: 5 }),
  },
  {
    key: 'worst',
    name: 'worst pain of the day',
    measure: false,
    make: () => ({ pain: 'worst-of-day', max: 3, days: 5 }),
  },
  { key: 'no-red', name: 'no red session', measure: false, make: () => ({ noRed: { days: 7, atLeast: 3 } }) },
  {
    key: 'adherence',
    name: 'sessions done',
    measure: false,
    make: () => ({ adherence: { min: 70, days: 14 } }),
  },
  {
    key: 'value',
    name: 'a measure, treated side',
    measure: true,
    make: (measure) => ({ measure, side: 'treated', op: '>=', value: 0 }),
  },
  {
    key: 'symmetry',
    name: 'a measure against the other side',
    measure: true,
    make: (measure) => ({ symmetry: measure, min: 90 }),
  },
  {
    key: 'age',
    name: 'a measure for the age',
    measure: true,
    make: (measure) => ({ atLeastForAge: measure, share: 0.8 }),
  },
];

/** A stage that also asks for something; a measure it reads is measured again in it. */
export function withCriterion(stage: Stage, leaf: CriterionLeaf, measure: string | null): Partial<Stage> {
  if (stage.criteria === null) return {};
  return {
    criteria: { all: [...partsOf(stage.criteria), leaf] },
    ...(measure === null || stage.remeasure.includes(measure)
      ? {}
      : { remeasure: [...stage.remeasure, measure] }),
  };
}

/** A stage that asks for one thing less; the last one stays: a stage is never left by itself. */
export function withoutCriterion(stage: Stage, at: number): Partial<Stage> {
  if (stage.criteria === null) return {};
  const parts = partsOf(stage.criteria);
  return parts.length < 2 ? {} : { criteria: { all: parts.filter((_, i) => i !== at) } };
}

const DOSE: readonly (keyof ExerciseDose)[] = [
  'sets',
  'reps',
  'holdSeconds',
  'releaseSeconds',
  'tempo',
  'restSeconds',
  'addedKg',
  'timesPerDay',
  'daysPerWeek',
];

/** Of a dose only what is otherwise than the exercise begins with. */
export function doseOf(
  dose: ExerciseDose,
  exercise: Pick<ExerciseDefinition, 'dose'>,
): Partial<ExerciseDose> {
  const same = (field: keyof ExerciseDose) =>
    JSON.stringify(dose[field]) === JSON.stringify(exercise.dose[field]);
  return Object.fromEntries(DOSE.filter((field) => !same(field)).map((field) => [field, dose[field]]));
}
