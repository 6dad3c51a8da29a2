import type { ImpactDay } from './criteriaTypes.js';
import { addImpact, type Impact, NO_IMPACT } from '../dose/impact.js';
import type { ExerciseLoad } from '../dose/loadRise.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { Prescription } from '../plan/prescription.js';
import type { TissueDefinition } from '../exercise/tissue.js';
import type { DoneRun } from '../dose/longestRun.js';
import { impactOfWork, tensionSeconds, weekLoadOf } from '../plan/totals.js';
import { addDays, type DayText } from '../quantity/day.js';
import { type Affected, type Side, SIDES, treatedSides } from '../quantity/side.js';

/** What was logged of one exercise. */
export interface LoggedExercise {
  readonly exercise: string;
  readonly sets: number;
  readonly reps: number;
  /** 0 to 10; null when not asked. */
  readonly effort: number | null;
}

/** Exercises of one logged session, with the plan it was done by. */
export interface LoggedWork {
  readonly day: DayText;
  readonly planId: string | null;
  readonly exercises: readonly LoggedExercise[];
}

/** A plan that was given. Drafts have no part in what was done. */
export interface GivenPlan {
  readonly id: string;
  readonly items: readonly Prescription[];
}

/** One exercise as done, with the prescription it was done under. */
export interface DoneWork extends LoggedExercise {
  readonly day: DayText;
  readonly planId: string | null;
  readonly item: Prescription;
  readonly definition: ExerciseDefinition;
}

/** Items by exercise; the first of each. */
const byExercise = (items: readonly Prescription[]): ReadonlyMap<string, Prescription> =>
  new Map([...items].reverse().map((i) => [i.exercise, i]));

/**
 * Each logged exercise with the dose of the very plan version it was done by. Where that version does not have it, the
 * newest other version that does counts. What is in no given plan is left out.
 *
 * @param plans given versions, oldest first
 */
export function workDone(
  logged: readonly LoggedWork[],
  plans: readonly GivenPlan[],
  exerciseOf: (key: string) => ExerciseDefinition | undefined,
): DoneWork[] {
  const planOf = new Map(plans.map((p) => [p.id, p]));
  const known = new Map<string, ReadonlyMap<string, Prescription>>();
  /** Of a plan that something was done by; most versions of a long course are not asked for. */
  const itemsOf = (planId: string) => {
    const items = known.get(planId) ?? byExercise(planOf.get(planId)?.items ?? []);
    known.set(planId, items);
    return items;
  };
  const newestOf = (key: string) =>
    plans.findLast((p) => p.items.some((i) => i.exercise === key))?.items.find((i) => i.exercise === key);
  const itemOf = (planId: string | null, key: string) =>
    (planId === null ? undefined : itemsOf(planId).get(key)) ?? newestOf(key);
  return logged.flatMap(({ day, planId, exercises }) =>
    exercises.flatMap((done): DoneWork[] => {
      const item = itemOf(planId, done.exercise);
      const definition = exerciseOf(done.exercise);
      return item === undefined || definition === undefined
        ? []
        : [
            {
              exercise: done.exercise,
              sets: done.sets,
              reps: done.reps,
              effort: done.effort,
              day,
              planId,
              item,
              definition,
            },
          ];
    }),
  );
}

/**
 * The last day of the week that is looked back on: today once something is logged on it, else yesterday. A day that is not over
 * would count as one on which nothing was done.
 */
export const lastWholeDay = (loggedDays: readonly DayText[], today: DayText): DayText =>
  loggedDays.includes(today) ? today : addDays(today, -1);

/** Work of the last `days` days, today included. */
export function workWithin(work: readonly DoneWork[], today: DayText, days: number): DoneWork[] {
  const from = addDays(today, -days);
  return work.filter((w) => w.day > from && w.day <= today);
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

/** The sides whose load is watched: the treated, or both where none is. */
const watched = (affected: Affected): readonly Side[] => {
  const sides = treatedSides(affected);
  return sides.length === 0 ? SIDES : sides;
};

/** Whose load is estimated: which tissue, on which sides, of what mass. */
export interface LoadOn {
  readonly tissue: Pick<TissueDefinition, 'key' | 'model'>;
  readonly affected: Affected;
  readonly bodyMassKg: number;
}

/** Load of a week of a prescription on the side that carries more of those watched; null where there is no estimate. */
export function weekLoadOn(
  item: Prescription,
  definition: ExerciseDefinition,
  { tissue, affected, bodyMassKg }: LoadOn,
): number | null {
  const load = weekLoadOf(item, definition, tissue, bodyMassKg);
  return load === null ? null : Math.max(...watched(affected).map((side) => load[side]));
}

/** Load actually done per exercise on the treated side, in the order first done. */
export function loadOfWork(work: readonly DoneWork[], on: LoadOn): ExerciseLoad[] {
  const keys = [...new Set(work.map((w) => w.exercise))];
  return keys.flatMap((exercise) => {
    const loads = work
      .filter((w) => w.exercise === exercise)
      .flatMap(({ item, definition, sets, reps }) => {
        const week = weekLoadOn(item, definition, on);
        const share = (sets * reps) / (item.sets * item.reps);
        return week === null ? [] : [(week / (item.timesPerDay * item.daysPerWeek)) * share];
      });
    return loads.length === 0 ? [] : [{ exercise, load: sum(loads) }];
  });
}

/** Landings on a foot and minutes of running actually done. */
export const impactOfDone = (work: readonly DoneWork[]): Impact =>
  work.map((w) => impactOfWork(w.item, w.definition, w.sets * w.reps)).reduce(addImpact, NO_IMPACT);

/** Each run done: its day, and the minutes of running in it. */
export const runsDone = (work: readonly DoneWork[]): readonly DoneRun[] =>
  work.flatMap((w) => {
    const { runMinutes } = impactOfWork(w.item, w.definition, w.sets * w.reps);
    return runMinutes > 0 ? [{ day: w.day, minutes: runMinutes }] : [];
  });

/** Impact done on each day that had any, with the pain told of it. */
export function impactByDay(
  work: readonly DoneWork[],
  painOn: (day: DayText) => number | null,
): readonly ImpactDay[] {
  return [...workByDay(work)]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([day, done]): ImpactDay[] => {
      const { contacts, runMinutes } = impactOfDone(done);
      return contacts + runMinutes === 0 ? [] : [{ day, contacts, runMinutes, pain: painOn(day) }];
    });
}

/** What was done on each day. */
export function workByDay(work: readonly DoneWork[]): ReadonlyMap<DayText, readonly DoneWork[]> {
  const days = new Map<DayText, DoneWork[]>();
  for (const done of work) {
    const day = days.get(done.day);
    if (day === undefined) days.set(done.day, [done]);
    else day.push(done);
  }
  return days;
}

/** Minutes under tension of what was done. */
export const tensionMinutes = (work: readonly DoneWork[]): number =>
  sum(work.map((w) => (w.sets * w.reps * tensionSeconds(w.item)) / 60));
