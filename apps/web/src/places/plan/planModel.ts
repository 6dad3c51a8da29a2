import { type Find, finderOf } from '../../parts/finder.js';
import {
  addImpact,
  type ComposedExercise,
  type ExerciseDefinition,
  type ExerciseLoad,
  type Impact,
  type ImpactRise,
  impactOfPlans,
  impactRise,
  type Planned,
  runMinutesOfOne,
  type RunRise,
  runRise,
  type LoadRise,
  loadRise,
  NO_IMPACT,
  prescriptionTotals,
  type PrescriptionTotals,
  secondsOn,
  sidesFor,
  stepRung,
  type TissueDefinition,
  loadOfOne,
  type WeekConflict,
  weekConflicts,
  weekLoadOn,
  ASSUMED_MASS_KG,
  type Stage,
  switchedOff,
  tooEarlyOn,
  say,
} from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';

export interface PlanLine {
  readonly item: ComposedExercise;
  readonly exercise: ExerciseDefinition;
  readonly totals: PrescriptionTotals | null;
  /** Of the tissue that the protocol watches first, in body weights; null where there is no estimate. */
  readonly relativeLoad: number | null;
  /** Why it asks for more than was measured; null where nothing speaks against it. */
  readonly early: string | null;
}

/** The coming week of one tissue against the last 7 days done. */
export interface TissueLoad {
  readonly tissue: TissueDefinition;
  readonly coming: readonly ExerciseLoad[];
  readonly done: readonly ExerciseLoad[];
  /** What plans for the person's other complaints ask of it. */
  readonly elsewhere: number;
  readonly withoutEstimate: readonly string[];
  readonly rise: LoadRise;
}

export interface PlanModel {
  readonly lines: readonly PlanLine[];
  readonly minutesPerDay: number;
  readonly minutesPerWeek: number;
  readonly week: readonly number[];
  /** Minutes of the same days that the person's other complaints take. */
  readonly weekElsewhere: readonly number[];
  /** Of each tissue the protocol counts. */
  readonly loads: readonly TissueLoad[];
  /** Of the coming week. */
  readonly impact: Impact;
  /** Of the same week, asked for by plans for the person's other complaints. */
  readonly impactElsewhere: Impact;
  readonly impactRise: ImpactRise;
  /** The longest run of it, against those of the last 30 days. */
  readonly runRise: RunRise;
  readonly most: number;
  /** What the week does against the rules of load. */
  readonly conflicts: readonly WeekConflict[];
}

/** Minutes and load of a plan as it stands while it is edited; all arithmetic is the core's. */
export function planModel(
  items: readonly ComposedExercise[],
  course: CourseView,
  content: ClinicContent,
  stage: Stage,
): PlanModel {
  const mass = course.episode.bodyMassKg ?? ASSUMED_MASS_KG;
  const tissues = course.protocol.tissues.flatMap((k) => content.tissues.find((t) => t.key === k) ?? []);
  const [first] = tissues;
  const lines = items.flatMap((item): PlanLine[] => {
    const exercise = content.exercises.find((e) => e.key === item.exercise);
    if (exercise === undefined) return [];
    const totals = prescriptionTotals(item, exercise);
    return [
      {
        item,
        exercise,
        totals: totals.ok ? totals.value : null,
        relativeLoad: first === undefined ? null : loadOfOne(item, exercise, first, mass),
        early: tooEarlyOn(course.tooEarly, exercise.key, item.sides),
      },
    ];
  });
  const elsewhere = course.episode.elsewhere.flatMap((c) => c.plan?.exercises ?? []);
  const others = elsewhere.flatMap(({ key, item }): Planned[] => {
    const exercise = content.exercises.find((e) => e.key === key);
    return exercise === undefined ? [] : [{ item, exercise }];
  });
  const impactElsewhere = impactOfPlans(others);
  const times = lines.map((l) => ({
    daySeconds: l.totals?.daySeconds ?? 0,
    daysPerWeek: l.item.daysPerWeek,
    days: l.item.days,
  }));
  const impact = lines.map((l) => l.totals?.weekImpact ?? NO_IMPACT).reduce(addImpact, NO_IMPACT);
  const minutes = (seconds: number) => seconds / 60;
  return {
    lines,
    minutesPerDay: minutes(lines.reduce((sum, l) => sum + (l.totals?.daySeconds ?? 0), 0)),
    minutesPerWeek: minutes(lines.reduce((sum, l) => sum + (l.totals?.weekSeconds ?? 0), 0)),
    week: Array.from({ length: 7 }, (_, day) => minutes(secondsOn(times, day))),
    weekElsewhere: Array.from({ length: 7 }, (_, day) => minutes(secondsOn(elsewhere, day))),
    loads: tissues.map((tissue) => tissueLoad(tissue, lines, { course, content, stage, others })),
    impact,
    impactElsewhere,
    impactRise: impactRise(
      addImpact(impact, impactElsewhere),
      addImpact(course.impactDone, impactElsewhere),
      stage.impactRisePercent,
    ),
    runRise: runRise(
      Math.max(0, ...lines.map((l) => runMinutesOfOne(l.item, l.exercise))),
      course.runsDone,
      course.episode.today,
    ),
    most: Math.max(0, ...lines.map((l) => l.relativeLoad ?? 0)),
    conflicts: weekConflicts([
      ...lines.map((l) => ({ item: l.item, definition: l.exercise })),
      ...others.map(({ item, exercise }) => ({ item, definition: exercise })),
    ]),
  };
}

function tissueLoad(
  tissue: TissueDefinition,
  lines: readonly PlanLine[],
  {
    course,
    content,
    stage,
    others,
  }: { course: CourseView; content: ClinicContent; stage: Stage; others: readonly Planned[] },
): TissueLoad {
  const { affected, bodyMassKg } = course.episode;
  const on = { tissue, affected, bodyMassKg: bodyMassKg ?? ASSUMED_MASS_KG };
  const week = lines.map((l) => ({ name: l.exercise.name, load: weekLoadOn(l.item, l.exercise, on) }));
  const coming = week.flatMap(({ name, load }) => (load === null ? [] : [{ exercise: name, load }]));
  const done = course.loadDone
    .filter((l) => l.tissue === tissue.key)
    .map((l) => ({
      exercise: content.exercises.find((e) => e.key === l.exercise)?.name ?? l.exercise,
      load: l.load,
    }));
  const elsewhere = others.reduce((sum, o) => sum + (weekLoadOn(o.item, o.exercise, on) ?? 0), 0);
  return {
    tissue,
    coming,
    done,
    elsewhere,
    withoutEstimate: week.filter((w) => w.load === null).map((w) => w.name),
    rise: loadRise(coming, done, {
      loggedDays: course.loggedDays,
      limitPercent: stage.loadRisePercent,
      elsewhere,
    }),
  };
}

/** Minutes a week by some of the words of an exercise, most first; one of two words counts for both. */
export function minutesBy(
  lines: readonly PlanLine[],
  wordsOf: (exercise: ExerciseDefinition) => readonly string[],
): readonly (readonly [word: string, minutes: number])[] {
  const sums = new Map<string, number>();
  for (const { exercise, totals } of lines)
    for (const word of wordsOf(exercise))
      sums.set(word, (sums.get(word) ?? 0) + (totals?.weekSeconds ?? 0) / 60);
  return [...sums].sort((a, b) => b[1] - a[1]);
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
    early: course.tooEarly,
    taken: items.filter((i) => i.exercise !== line.item.exercise).map((i) => i.exercise),
    sideRule: (slot) => stage.slots.find((s) => s.key === slot)?.sideRule,
  });
  return next === null
    ? null
    : {
        ...next,
        why: [by === 1 ? say('One rung up, by the clinician') : say('One rung down, by the clinician')],
      };
}

/** What a plan can still be given: not what was put aside. */
function offered(content: ClinicContent): ExerciseDefinition[] {
  const aside = new Set(content.ownExercises.filter((o) => o.retired).map((o) => o.key));
  return content.exercises.filter((e) => !aside.has(e.key));
}

/** Every exercise one rung easier or harder, as far as the ladder, safety and the rest of the plan leave one. */
export function allSteps(
  model: PlanModel,
  by: 1 | -1,
  on: { readonly course: CourseView; readonly content: ClinicContent; readonly stage: Pick<Stage, 'slots'> },
): readonly ComposedExercise[] {
  return model.lines.reduce<readonly ComposedExercise[]>(
    (items, line) => {
      const next = neighbour(line, by, { ...on, items });
      return next === null ? items : items.map((i) => (i.exercise === line.item.exercise ? next : i));
    },
    model.lines.map((l) => l.item),
  );
}

/** An exercise that may be added: why not, where safety switches it off, and which driver found it serves. */
export interface Addable {
  readonly exercise: ExerciseDefinition;
  readonly off: string | null;
  /** Why it asks for more than was measured: it can still be added, by who knows better. */
  readonly early: string | null;
  readonly serves: string | null;
}

/** Every exercise of the library not in the plan yet; those that serve what was found come first, in the order of what was found. */
export function addable(
  lines: readonly PlanLine[],
  course: CourseView,
  content: ClinicContent,
): readonly Addable[] {
  const off = course.episode.tagsOff;
  const first = (e: ExerciseDefinition) => course.drivers.findIndex((d) => e.drivers.includes(d.key));
  const place = (at: number) => (at === -1 ? course.drivers.length : at);
  return offered(content)
    .filter((e) => lines.every((l) => l.exercise.key !== e.key))
    .map((exercise) => ({ exercise, at: first(exercise) }))
    .sort((a, b) => place(a.at) - place(b.at) || (a.at === -1 ? 0 : a.exercise.rung - b.exercise.rung))
    .map(({ exercise, at }) => ({
      exercise,
      off: switchedOff(exercise, sidesFor(exercise, 'both', course.episode.affected), off),
      early: tooEarlyOn(
        course.tooEarly,
        exercise.key,
        sidesFor(exercise, 'treated', course.episode.affected),
      ),
      serves: course.drivers[at]?.label ?? null,
    }));
}

/** Exercises to add by their name, ladder, aim, body part, or what they help with. */
export function addableFinder(list: readonly Addable[], content: ClinicContent): Find<Addable> {
  const labels = new Map(content.drivers.map((d) => [d.key, d.label] as const));
  return finderOf(list, ({ exercise: e }) =>
    [
      e.name,
      ...(e.also ?? []),
      e.ladder,
      e.aim,
      ...e.parts,
      ...e.drivers.map((d) => labels.get(d) ?? d),
    ].join(' '),
  );
}
