import { say } from '../quantity/tongue.js';
import type { ExerciseDefinition, ExerciseDose } from '../exercise/definition.js';
import type { PainState } from '../progress/painRule.js';
import { TOLERANCE } from '../quantity/statistics.js';
import { isRun } from './impact.js';

/** Running and walking in turn, in seconds. */
export interface WalkRunStep {
  readonly runSeconds: number;
  readonly walkSeconds: number;
}

/** From one minute of running to four in every five. After the last comes running without walking. [convention] */
export const WALK_RUN_STEPS: readonly WalkRunStep[] = [1, 2, 3, 4].map((minutes) => ({
  runSeconds: minutes * 60,
  walkSeconds: (5 - minutes) * 60,
}));

/** Green runs at a step before the next: a week of them at three a week. [convention] */
const GREEN_RUNS = 3;

/** Whether an exercise is run and walked in turn: both are its position, and the slower half is set. */
export const isWalkRun = (exercise: Pick<ExerciseDefinition, 'tags' | 'position' | 'range'>): boolean =>
  isRun(exercise) && exercise.position.includes('walking') && exercise.range.downSeconds !== undefined;

/** The step a dose is on: the last whose share of running it reaches; the first for less than any. */
export function walkRunAt(dose: Pick<ExerciseDose, 'tempo'>): number {
  const { upSeconds = 0, downSeconds = 0 } = dose.tempo ?? {};
  const share = upSeconds + downSeconds <= TOLERANCE ? 0 : upSeconds / (upSeconds + downSeconds);
  const at = WALK_RUN_STEPS.findLastIndex(
    (s) => s.runSeconds / (s.runSeconds + s.walkSeconds) <= share + TOLERANCE,
  );
  return Math.max(0, at);
}

/** Where a run goes from a step: by how many steps, and why. */
export interface WalkRunMove {
  readonly by: -1 | 0 | 1;
  readonly because: string;
}

/**
 * After the runs done at a step, oldest first: one back on red, again on amber, on after three green ones running. What is
 * not known yet counts for nothing.
 */
export function walkRunMove(states: readonly PainState[]): WalkRunMove {
  const known = states.filter((s) => s !== 'not-known');
  const last = known.at(-1);
  if (last === 'red' || last === 'stop')
    return { by: -1, because: say('the last run was red: one step back') };
  if (last === 'amber') return { by: 0, because: say('the last run was amber: the same step again') };
  const lastOther = known.findLastIndex((s) => s !== 'green');
  const green = known.length - 1 - lastOther;
  return green >= GREEN_RUNS
    ? { by: 1, because: say('{{greenRuns}} green runs running at this step', { greenRuns: GREEN_RUNS }) }
    : {
        by: 0,
        because: say('{{green}} of {{greenRuns}} green runs at this step', { green, greenRuns: GREEN_RUNS }),
      };
}
