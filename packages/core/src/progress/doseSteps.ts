import { say } from '../quantity/tongue.js';
import { isOfRoutine } from '../plan/routine.js';
import type { Aim, ExerciseDefinition } from '../exercise/definition.js';
import type { Prescription } from '../plan/prescription.js';
import { isWalkRun, WALK_RUN_STEPS, walkRunAt, walkRunMove, type WalkRunMove } from '../dose/walkRun.js';
import { ASSUMED_MASS_KG } from '../plan/totals.js';
import type { DayText } from '../quantity/day.js';
import type { PainState } from './painRule.js';
import { currentRuns } from './sessions.js';
import {
  bodyShareKg,
  type DoneSession,
  type DoseStep,
  doubleProgression,
  easeDose,
  isEased,
  LOAD_STEP_PERCENT,
  minDaysAtLevel,
} from './titration.js';
import type { DoneWork } from './work.js';

/** Aims whose dose grows by double progression; skill, range, balance and relief have other ways. */
const GROWING: ReadonlySet<Aim> = new Set(['strength', 'eccentric', 'endurance']);

export interface DoseStepsOn {
  /** Of the plan the patient has. */
  readonly items: readonly Prescription[];
  /** What was done under this very plan, oldest first. */
  readonly work: readonly DoneWork[];
  readonly sessions: readonly { readonly day: DayText; readonly state: PainState }[];
  readonly exerciseOf: (key: string) => ExerciseDefinition | undefined;
  readonly ownedKg: readonly number[];
  readonly bodyMassKg: number | null;
  /** Days since this plan was given. */
  readonly daysAtLevel: number;
  /** Asked for by a caution: steps at most this large, and twice as long at a level; null where there is none. */
  readonly cautiousStepPercent: number | null;
}

export interface ExerciseStep {
  readonly exercise: string;
  readonly step: DoseStep;
}

/** A run by its steps: on, again or back; after the last step running without walking. */
function walkRunStep(item: Prescription, move: WalkRunMove): DoseStep {
  if (move.by === 0) return { kind: 'keep', because: move.because };
  const to = walkRunAt(item) + move.by;
  const step = WALK_RUN_STEPS[to];
  if (step !== undefined) return { kind: 'run', ...step, because: move.because };
  return to < 0
    ? {
        kind: 'easier',
        addedKg: null,
        because: say('{{because}}, and already at the first', { because: move.because }),
      }
    : { kind: 'harder', because: say('{{because}}, and it is the last', { because: move.because }) };
}

/** Days at a level before the next: twice as many where a caution asks for small steps. */
const daysAsked = (exercise: ExerciseDefinition, on: DoseStepsOn): number =>
  minDaysAtLevel(exercise) * (on.cautiousStepPercent === null ? 1 : 2);

/** What the log says of each exercise that may grow; nothing of one that stays as it is. */
export function readySteps(on: DoseStepsOn): ExerciseStep[] {
  const stateOn = (day: DayText) => on.sessions.find((s) => s.day === day)?.state ?? 'not-known';
  return on.items.flatMap((item): ExerciseStep[] => {
    const exercise = on.exerciseOf(item.exercise);
    // What came with a routine is upkeep: eased after reds like all else, raised never.
    if (exercise === undefined || !GROWING.has(exercise.aim) || isOfRoutine(item)) return [];
    if (isWalkRun(exercise)) {
      const states = on.work.filter((w) => w.exercise === item.exercise).map((w) => stateOn(w.day));
      const move = walkRunMove(states);
      const step = walkRunStep(item, move);
      // Only going on waits; going back never does.
      const soon = move.by > 0 && on.daysAtLevel < daysAsked(exercise, on);
      return step.kind === 'keep' || soon ? [] : [{ exercise: item.exercise, step }];
    }
    const done = on.work
      .filter((w) => w.exercise === item.exercise)
      .flatMap(({ day, sets, reps, effort }): DoneSession[] => {
        const state = stateOn(day);
        return effort === null || state === 'not-known'
          ? []
          : [{ day, setsDone: sets, repsDone: reps, effort, state }];
      });
    const step = doubleProgression(item, exercise.range, done, {
      ownedKg: on.ownedKg,
      bodyShareKg: bodyShareKg(exercise, on.bodyMassKg ?? ASSUMED_MASS_KG),
      daysAtLevel: on.daysAtLevel,
      minDaysAtLevel: daysAsked(exercise, on),
      loadStepPercent: on.cautiousStepPercent ?? LOAD_STEP_PERCENT,
    });
    return step.kind === 'keep' ? [] : [{ exercise: item.exercise, step }];
  });
}

/** Steps of the dose now: after reds less of what is eased then, else what may grow. */
export function doseSteps(on: DoseStepsOn, stageSince: DayText): ExerciseStep[] {
  const runs = currentRuns(on.sessions.filter((s) => s.day >= stageSince).map((s) => s.state));
  if (runs.reds === 0 && !runs.twoAmberOrWorse) return readySteps(on);
  const after = runs.reds > 0 ? 'red' : 'two-ambers';
  return on.items
    .filter((item) => isEased(on.exerciseOf(item.exercise)?.aim ?? 'relief', after))
    .map((item) => {
      const exercise = on.exerciseOf(item.exercise);
      const what = after === 'red' ? say('after a red') : say('two sessions running amber or worse');
      const back: WalkRunMove = { by: -1, because: say('{{what}}: one step back', { what }) };
      return {
        exercise: item.exercise,
        step: exercise !== undefined && isWalkRun(exercise) ? walkRunStep(item, back) : easeDose(item),
      };
    });
}
