import {
  addImpact,
  type ComposedExercise,
  type ExerciseDefinition,
  type ExerciseLoad,
  type Impact,
  type ImpactRise,
  impactRise,
  type LoadRise,
  loadRise,
  NO_IMPACT,
  prescriptionTotals,
  type PrescriptionTotals,
  secondsOn,
  sidesFor,
  stepRung,
  weekLoadOn,
  ASSUMED_MASS_KG,
  type Stage,
  switchedOff,
} from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';

export interface PlanLine {
  readonly item: ComposedExercise;
  readonly exercise: ExerciseDefinition;
  readonly totals: PrescriptionTotals | null;
}

export interface PlanModel {
  readonly lines: readonly PlanLine[];
  readonly minutesPerDay: number;
  readonly minutesPerWeek: number;
  readonly week: readonly number[];
  readonly coming: readonly ExerciseLoad[];
  readonly withoutEstimate: readonly string[];
  readonly rise: LoadRise;
  /** Of the coming week. */
  readonly impact: Impact;
  readonly impactRise: ImpactRise;
  readonly most: number;
}

/** Minutes and load of a plan as it stands while it is edited; all arithmetic is the core's. */
export function planModel(
  items: readonly ComposedExercise[],
  course: CourseView,
  content: ClinicContent,
  stage: Stage,
): PlanModel {
  const mass = course.episode.bodyMassKg ?? ASSUMED_MASS_KG;
  const lines = items.flatMap((item): PlanLine[] => {
    const exercise = content.exercises.find((e) => e.key === item.exercise);
    if (exercise === undefined) return [];
    const totals = prescriptionTotals(item, exercise, mass);
    return [{ item, exercise, totals: totals.ok ? totals.value : null }];
  });
  const coming = lines.flatMap((l) => {
    const load = weekLoadOn(l.item, l.exercise, course.episode.affected, mass);
    return load === null ? [] : [{ exercise: l.exercise.name, load }];
  });
  const times = lines.map((l) => ({
    daySeconds: l.totals?.daySeconds ?? 0,
    daysPerWeek: l.item.daysPerWeek,
  }));
  const done = course.loadDone.map((l) => ({
    exercise: content.exercises.find((e) => e.key === l.exercise)?.name ?? l.exercise,
    load: l.load,
  }));
  const impact = lines.map((l) => l.totals?.weekImpact ?? NO_IMPACT).reduce(addImpact, NO_IMPACT);
  const minutes = (seconds: number) => seconds / 60;
  return {
    lines,
    minutesPerDay: minutes(lines.reduce((sum, l) => sum + (l.totals?.daySeconds ?? 0), 0)),
    minutesPerWeek: minutes(lines.reduce((sum, l) => sum + (l.totals?.weekSeconds ?? 0), 0)),
    week: Array.from({ length: 7 }, (_, day) => minutes(secondsOn(times, day))),
    coming,
    withoutEstimate: lines.filter((l) => l.totals?.weekLoad == null).map((l) => l.exercise.name),
    impact,
    impactRise: impactRise(impact, course.impactDone),
    rise: loadRise(coming, done, course.loggedDays, stage.loadRisePercent),
    most: Math.max(0, ...lines.map((l) => l.totals?.relativeLoad ?? 0)),
  };
}

/** The next easier or harder exercise of the ladder that safety and the plan leave; null when there is none. */
export function neighbour(
  line: PlanLine,
  by: 1 | -1,
  {
    course,
    content,
    stage,
    items,
  }: {
    readonly course: CourseView;
    readonly content: ClinicContent;
    readonly stage: Pick<Stage, 'slots'>;
    readonly items: readonly ComposedExercise[];
  },
): ComposedExercise | null {
  const next = stepRung(line.item, by, {
    exercises: offered(content),
    isOrdered: (ladder) => content.ladders.some((l) => l.key === ladder && l.set !== true),
    affected: course.episode.affected,
    tagsOff: course.episode.tagsOff,
    taken: items.filter((i) => i.exercise !== line.item.exercise).map((i) => i.exercise),
    sideRule: (slot) => stage.slots.find((s) => s.key === slot)?.sideRule,
  });
  return next === null
    ? null
    : { ...next, why: [by === 1 ? 'One rung up, by the clinician' : 'One rung down, by the clinician'] };
}

/** What a plan can still be given: not what was put aside. */
function offered(content: ClinicContent): ExerciseDefinition[] {
  const aside = new Set(content.ownExercises.filter((o) => o.retired).map((o) => o.key));
  return content.exercises.filter((e) => !aside.has(e.key));
}

/** Exercises not in the plan, each with why it cannot be added now, when it cannot. */
export function addable(
  lines: readonly PlanLine[],
  course: CourseView,
  content: ClinicContent,
): { exercise: ExerciseDefinition; off: string | null }[] {
  const off = course.episode.tagsOff;
  return offered(content)
    .filter((e) => lines.every((l) => l.exercise.key !== e.key))
    .map((exercise) => ({
      exercise,
      off: switchedOff(exercise, sidesFor(exercise, 'both', course.episode.affected), off),
    }));
}
