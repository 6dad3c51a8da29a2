import { say } from '@heathstep/core';
import type {
  ExerciseDefinition,
  ExerciseDose,
  HomeQuestion,
  ProtocolDefinition,
  School,
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

/** A list with one item changed. */
export const itemChanged = <T>(list: readonly T[], at: number, part: Partial<T>): readonly T[] =>
  list.map((item, i) => (i === at ? { ...item, ...part } : item));

/** The first key of a name that nothing in a list has. */
function freeKey(list: readonly { readonly key: string }[], name: string, n = 1): string {
  const key = `${name}-${n}`;
  return list.some((item) => item.key === key) ? freeKey(list, name, n + 1) : key;
}

/** A question more, asked only where criteria read it until it is said otherwise. */
export const questionAdded = (questions: readonly HomeQuestion[]): readonly HomeQuestion[] => [
  ...questions,
  {
    key: freeKey(questions, 'own'),
    at: 'morning',
    kind: 'yes-no',
    ask: 'Did it swell today?',
    name: 'swelling',
    role: null,
    asked: 'by-criteria',
  },
];

/** One way more to choose. */
export const optionAdded = (options: School['options']): School['options'] => [
  ...options,
  { key: freeKey(options, 'way'), label: 'Another way', reason: 'Convention' },
];

/** A choice more, of two ways, the first taken where nobody chose. */
export function schoolAdded(schools: readonly School[]): readonly School[] {
  const options = optionAdded(optionAdded([]));
  const [first] = options;
  return [
    ...schools,
    { key: freeKey(schools, 'choice'), question: 'Which way', default: first?.key ?? '', options },
  ];
}

type Path = readonly (string | number)[];

/** A number in a criterion, by its place. */
export interface CriterionNumber {
  readonly path: Path;
  readonly name: string;
  readonly value: number;
}

const NAMES: Readonly<Record<string, string>> = {
  value: say('value'),
  min: say('at least'),
  max: say('at most'),
  share: say('share of what is usual'),
  days: say('days'),
  floor: say('and at least'),
  gain: say('gain'),
  maxPain: say('pain at most'),
  atLeast: say('at least'),
  minDays: say('days'),
  noRed: say('days'),
  bothSides: say('with both sides treated'),
  maxAgeDays: say('not older than, days'),
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
