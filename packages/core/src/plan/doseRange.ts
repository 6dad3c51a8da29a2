import type { ExerciseDefinition } from '../exercise/definition.js';
import { outsideRanges } from '../result/result.js';
import type { Prescription } from './prescription.js';
import { MOST_ROUNDS } from './rounds.js';

type Ranges = ExerciseDefinition['range'];
type Span = readonly [number, number];

/** The longest rest in a round, in seconds. [convention] */
const LONGEST_REST = 300;

/** How far beyond the usual range of a number a clinician goes with a reason: half as little, half again as much. [convention] */
const BEYOND = { least: 0.5, most: 1.5 } as const;

/** Counted in whole numbers, and never fewer than one. */
const WHOLE: ReadonlySet<string> = new Set(['sets', 'reps', 'timesPerDay', 'daysPerWeek']);
const DAYS: Span = [1, 7];

function widened([min, max]: Span, field: string): Span {
  if (field === 'daysPerWeek') return DAYS;
  const [least, most] = [min * BEYOND.least, max * BEYOND.most];
  return WHOLE.has(field) ? [Math.max(1, Math.ceil(least)), Math.floor(most)] : [least, most];
}

/** In a round others are done between the sets of an exercise, so its own shortest rest does not bind. */
const inRound = (range: Ranges): Ranges => ({
  ...range,
  sets: [Math.min(range.sets[0], MOST_ROUNDS), Math.min(range.sets[1], MOST_ROUNDS)],
  restSeconds: [0, LONGEST_REST],
});

/** What a dose can be: the exercise's usual range, wider where a reason is given for going beyond it. */
export function doseRange(
  { round, beyond }: Pick<Prescription, 'round' | 'beyond'>,
  { range }: Pick<ExerciseDefinition, 'range'>,
): Ranges {
  const own = round === undefined ? range : inRound(range);
  if (beyond === undefined) return own;
  return Object.fromEntries(
    Object.entries(own).map(([field, span]) => [field, widened(span as Span, field)]),
  ) as unknown as Ranges;
}

/** A dose with its reason for going beyond the usual range, as long as it does. */
export function withBeyond<T extends Prescription>(
  p: T,
  exercise: Pick<ExerciseDefinition, 'range'>,
  reason = p.beyond,
): T {
  const { beyond: _beyond, ...usual } = p;
  const range = doseRange({ round: p.round }, exercise);
  const numbers = Object.fromEntries(Object.entries({ ...p, ...p.tempo })) as Record<string, unknown>;
  const asked = Object.fromEntries(
    Object.entries(range).filter(([field]) => numbers[field] !== undefined),
  ) as Record<string, Span>;
  const goesBeyond = outsideRanges(numbers, asked).length > 0;
  return (goesBeyond && reason !== undefined ? { ...p, beyond: reason } : usual) as T;
}
