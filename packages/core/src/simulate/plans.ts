import type { ExerciseDefinition } from '../exercise/definition.js';
import { type ComposedExercise, composePlan } from '../plan/compose.js';
import { isDueOn } from '../plan/due.js';
import type { Prescription } from '../plan/prescription.js';
import { ASSUMED_MASS_KG } from '../plan/totals.js';
import { bodyShareKg } from '../progress/titration.js';
import type { ProtocolDefinition } from '../protocol/definition.js';
import type { Side } from '../quantity/side.js';
import type { MeasureDefinition } from '../measure/definition.js';

/** What is known of exercises, measures and ladders; the clinic's whole library, nothing of a person. */
export interface SimulatedLibrary {
  readonly exercises: readonly ExerciseDefinition[];
  readonly measures: readonly MeasureDefinition[];
  readonly ladders: readonly { readonly key: string; readonly set?: boolean | undefined }[];
}

/** What a made-up person has at home. */
const MINUTES = 25;
export const WEIGHTS_KG: readonly number[] = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20];
const NOW = '2026-01-05T09:00:00';
/** A repetition that carries no body mass still is some work, in kg. */
const UNLOADED_KG = 5;
/** A landing counts as so many slow repetitions. */
const LANDING = 3;
const SECONDS_A_REP = 3;

/** Work of one time through a prescription, in kg times repetitions: not a load on any tissue, only what is more and what less. */
function workOf(item: Prescription, exercise: ExerciseDefinition): number {
  const kg = Math.max(UNLOADED_KG, bodyShareKg(exercise, ASSUMED_MASS_KG)) + (item.addedKg ?? 0);
  const reps = item.holdSeconds === undefined ? item.reps : (item.reps * item.holdSeconds) / SECONDS_A_REP;
  return item.sets * reps * kg * (exercise.tags.includes('impact') ? LANDING : 1) * item.timesPerDay;
}

/** The plan of a stage as it is first filled, and what its days come to. */
export interface StagePlan {
  readonly items: readonly ComposedExercise[];
  /** Work of its heaviest day, and of a week. */
  readonly dayWork: number;
  readonly weekWork: number;
}

const WEEKDAYS = [0, 1, 2, 3, 4, 5, 6] as const;

/** Plans of a protocol by stage and side, filled once by the planner itself. */
export class StagePlans {
  private readonly made = new Map<string, StagePlan>();
  private readonly byKey: ReadonlyMap<string, ExerciseDefinition>;
  private readonly measureByKey: ReadonlyMap<string, MeasureDefinition>;

  constructor(
    readonly protocol: ProtocolDefinition,
    readonly library: SimulatedLibrary,
  ) {
    this.byKey = new Map(library.exercises.map((e) => [e.key, e]));
    this.measureByKey = new Map(library.measures.map((m) => [m.key, m]));
  }

  readonly exerciseOf = (key: string): ExerciseDefinition | undefined => this.byKey.get(key);

  readonly measureOf = (key: string): MeasureDefinition | undefined => this.measureByKey.get(key);

  /** Work of what falls due on a weekday, 0 Monday. */
  workOn(items: readonly Prescription[], weekday: number): number {
    return items
      .filter((i) => isDueOn(i, weekday))
      .reduce((sum, item) => {
        const exercise = this.byKey.get(item.exercise);
        return exercise === undefined ? sum : sum + workOf(item, exercise);
      }, 0);
  }

  of(stage: number, side: Side): StagePlan {
    const key = `${stage} ${side}`;
    const known = this.made.get(key);
    if (known !== undefined) return known;
    const made = this.fill(stage, side);
    this.made.set(key, made);
    return made;
  }

  private fill(at: number, side: Side): StagePlan {
    const { protocol, library } = this;
    const stage = protocol.stages[at];
    if (stage === undefined) throw new Error(`${protocol.key} has no stage ${at}`);
    const { exercises: items } = composePlan(
      {
        stage,
        exercises: library.exercises,
        facts: {
          measures: [],
          sessions: [],
          skills: {},
          stageSince: NOW,
          affected: side,
          ageYears: null,
          sex: null,
        },
        schools: Object.fromEntries(protocol.schools.map((s) => [s.key, s.default])),
        equipment: [...new Set(library.exercises.flatMap((e) => e.equipment))],
        minutesPerDay: MINUTES,
        weightsKg: WEIGHTS_KG,
        tagsOff: { left: [], right: [] },
        drivers: [],
        now: NOW,
      },
      this.measureOf,
    );
    const days = WEEKDAYS.map((d) => this.workOn(items, d));
    return {
      items,
      dayWork: Math.max(1, ...days),
      weekWork: Math.max(
        1,
        days.reduce((a, b) => a + b, 0),
      ),
    };
  }
}
