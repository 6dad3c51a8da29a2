import type { MeasureLookup } from '../progress/criteria.js';
import { type ComposedPlan, type ComposeInput, composePlan } from './compose.js';

/** What one more of something would put into a plan that is not in it now. */
export interface Brings {
  readonly what: 'minutes' | 'days' | 'exercises' | 'equipment';
  /** How many more, or which piece. */
  readonly more: number | string;
  /** Exercises it brings in, and how many sets more of those that are in already. */
  readonly exercises: readonly string[];
  readonly sets: number;
}

/** Most minutes that are looked ahead for. [convention] */
const MOST_MINUTES = 10;

function gained(now: ComposedPlan, then: ComposedPlan): Pick<Brings, 'exercises' | 'sets'> {
  const had = new Map(now.exercises.map((e) => [e.exercise, e.sets]));
  return {
    exercises: then.exercises.filter((e) => !had.has(e.exercise)).map((e) => e.exercise),
    sets: then.exercises.reduce((sum, e) => sum + Math.max(0, e.sets - (had.get(e.exercise) ?? e.sets)), 0),
  };
}

const brings = (g: Pick<Brings, 'exercises' | 'sets'>): boolean => g.exercises.length > 0 || g.sets > 0;

/**
 * What a little more would bring: the fewest minutes a day, one exercise, one day a week, or one piece of equipment that
 * changes the plan. Nothing is named that would bring nothing.
 */
export function whatMoreBrings(input: ComposeInput, lookup: MeasureLookup): readonly Brings[] {
  const now = composePlan(input, lookup);
  const than = (change: Partial<ComposeInput>) => gained(now, composePlan({ ...input, ...change }, lookup));
  const minutes = Array.from({ length: MOST_MINUTES }, (_, i) => i + 1)
    .map((more) => ({
      what: 'minutes' as const,
      more,
      ...than({ minutesPerDay: input.minutesPerDay + more }),
    }))
    .find(brings);
  const one = {
    what: 'exercises' as const,
    more: 1,
    ...than({ maxExercises: (input.maxExercises ?? 5) + 1 }),
  };
  const days =
    (input.daysPerWeek ?? 7) < 7
      ? [{ what: 'days' as const, more: 1, ...than({ daysPerWeek: (input.daysPerWeek ?? 7) + 1 }) }]
      : [];
  const ladders = new Set(input.stage.slots.map((s) => s.ladder));
  const pieces = new Set(
    input.exercises
      .filter((e) => ladders.has(e.ladder))
      .flatMap((e) => e.equipment.filter((piece) => !input.equipment.includes(piece))),
  );
  const equipment = [...pieces].sort().map((piece) => ({
    what: 'equipment' as const,
    more: piece,
    ...than({ equipment: [...input.equipment, piece] }),
  }));
  return [...(minutes === undefined ? [] : [minutes]), one, ...days, ...equipment].filter(brings);
}
