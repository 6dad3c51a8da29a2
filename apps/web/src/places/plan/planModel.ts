import {
  addImpact,
  type ComposedExercise,
  type ExerciseDefinition,
  type ExerciseLoad,
  type Impact,
  type ImpactRise,
  impactRise,
  isDueOn,
  type LoadRise,
  loadRise,
  NO_IMPACT,
  type Prescription,
  prescriptionTotals,
  type PrescriptionTotals,
  sidesFor,
  type Stage,
  switchedOff,
} from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';

/** Used for the load estimate until the person's own mass is known; shown where it is used. */
const ASSUMED_MASS_KG = 75;

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
  const side = course.episode.affected === 'right' ? 'right' : 'left';
  const coming = lines.flatMap((l) =>
    l.totals?.weekLoad == null ? [] : [{ exercise: l.exercise.name, load: l.totals.weekLoad[side] }],
  );
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
    week: Array.from({ length: 7 }, (_, day) =>
      minutes(
        lines
          .filter((l) => isDueOn(l.item.daysPerWeek, day))
          .reduce((sum, l) => sum + (l.totals?.daySeconds ?? 0), 0),
      ),
    ),
    coming,
    withoutEstimate: lines.filter((l) => l.totals?.weekLoad == null).map((l) => l.exercise.name),
    impact,
    impactRise: impactRise(impact, course.impactDone),
    rise: loadRise(coming, done, course.loggedDays, stage.loadRisePercent),
    most: Math.max(0, ...lines.map((l) => l.totals?.relativeLoad ?? 0)),
  };
}

/** The next easier or harder exercise of the ladder that safety and laterality allow; null when there is none. */
export function neighbour(
  line: PlanLine,
  by: 1 | -1,
  course: CourseView,
  content: ClinicContent,
): ComposedExercise | null {
  const off = course.episode.tagsOff;
  // What stands side by side has no easier and harder.
  if (content.ladders.find((l) => l.key === line.exercise.ladder)?.set === true) return null;
  for (let rung = line.exercise.rung + by; rung > 0; rung += by) {
    const next = content.exercises.find((e) => e.ladder === line.exercise.ladder && e.rung === rung);
    if (next === undefined) return null;
    const item = prescribed(next, line.item.slot, line.item.sides, course);
    if (switchedOff(next, item.sides, off) === null)
      return {
        ...item,
        why: [by === 1 ? 'One rung up, by the clinician' : 'One rung down, by the clinician'],
      };
  }
  return null;
}

export function prescribed(
  exercise: ExerciseDefinition,
  slot: string,
  sides: Prescription['sides'],
  course: CourseView,
): Prescription {
  const rule = sides === 'left' || sides === 'right' ? 'treated' : 'both';
  const kept =
    exercise.laterality === 'per-side' && sides !== 'together'
      ? sides
      : sidesFor(exercise, rule, course.episode.affected);
  return { ...exercise.dose, exercise: exercise.key, slot, sides: kept };
}

/** Exercises not in the plan, each with why it cannot be added now, when it cannot. */
export function addable(
  lines: readonly PlanLine[],
  course: CourseView,
  content: ClinicContent,
): { exercise: ExerciseDefinition; off: string | null }[] {
  const off = course.episode.tagsOff;
  const aside = new Set(content.ownExercises.filter((o) => o.retired).map((o) => o.key));
  return content.exercises
    .filter((e) => !aside.has(e.key))
    .filter((e) => lines.every((l) => l.exercise.key !== e.key))
    .map((exercise) => ({
      exercise,
      off: switchedOff(exercise, sidesFor(exercise, 'both', course.episode.affected), off),
    }));
}
