import { say } from '../quantity/tongue.js';
import type { ExerciseDefinition, ExerciseDose, Tag } from '../exercise/definition.js';
import type { LoggedWork, GivenPlan } from '../progress/work.js';
import type { Slot } from '../protocol/definition.js';
import type { DayText } from '../quantity/day.js';
import type { Affected, PerSide } from '../quantity/side.js';
import type { Evidence } from '../why/evidence.js';
import type { ComposedExercise } from './compose.js';
import { prescribe } from './prescribe.js';
import type { Prescription } from './prescription.js';
import { type InRound, tidyRounds } from './rounds.js';
import { type LeftOut, onlySupervised, switchedOff } from './safety.js';

/** One exercise of a routine; numbers left out are the exercise's own. */
export interface RoutineItem {
  readonly exercise: string;
  readonly sideRule: Slot['sideRule'];
  readonly dose?: Partial<ExerciseDose> | undefined;
  readonly round?: InRound | undefined;
}

/**
 * A ready short set without stages, given beside a plan or alone. It counts as relief or upkeep: doing it is never taken for
 * a session of the plan.
 */
export interface RoutineDefinition {
  readonly key: string;
  readonly name: string;
  readonly purpose: string;
  /** What is minded while it is done. */
  readonly mind: string;
  readonly items: readonly RoutineItem[];
  readonly evidence: Evidence;
}

const PREFIX = 'routine:';

/** The slot of what came into a plan with a routine. */
const routineSlot = (routine: string): string => `${PREFIX}${routine}`.slice(0, 60);

export const isOfRoutine = ({ slot }: Pick<Prescription, 'slot'>): boolean => slot.startsWith(PREFIX);

export interface RoutineOn {
  readonly exerciseOf: (key: string) => ExerciseDefinition | undefined;
  readonly affected: Affected;
  readonly tagsOff: PerSide<readonly Tag[]>;
  readonly supervised: PerSide<readonly Tag[]>;
  /** Exercises the person has already, in this plan or another. */
  readonly taken: readonly string[];
  /** Keys of rounds the plan has already. */
  readonly rounds: readonly string[];
}

const FREE = ['a', 'b', 'c', 'd', 'e', 'f', 'g'] as const;

/** A routine for a person: what safety leaves of it, at its own dose, and what is left out with the reason. */
export function fillRoutine(
  routine: Pick<RoutineDefinition, 'key' | 'name' | 'items'>,
  on: RoutineOn,
): { readonly items: readonly ComposedExercise[]; readonly left: readonly LeftOut[] } {
  const own = [...new Set(routine.items.flatMap((i) => i.round?.key ?? []))];
  const free = FREE.filter((k) => !on.rounds.includes(k));
  const keyOf = (key: string) => free[own.indexOf(key)] ?? key;
  const items: ComposedExercise[] = [];
  const left: LeftOut[] = [];
  for (const { exercise, sideRule, dose, round } of routine.items) {
    const e = on.exerciseOf(exercise);
    const leave = (why: string) => left.push({ exercise, why });
    if (e === undefined) leave(say('no longer in the library'));
    else if (on.taken.includes(exercise)) leave(say('given already'));
    else {
      const made = prescribe(e, { slot: routineSlot(routine.key), sideRule, affected: on.affected, dose });
      const why =
        switchedOff(e, made.sides, on.tagsOff) ?? onlySupervised(e, made.sides, on.supervised) ?? null;
      if (why !== null) leave(why);
      else
        items.push({
          ...made,
          ...(round === undefined ? {} : { round: { ...round, key: keyOf(round.key) } }),
          ...(round === undefined || dose?.restSeconds === undefined
            ? {}
            : { restSeconds: dose.restSeconds }),
          why: [say('Of the routine "{{name}}"', { name: routine.name })],
        });
    }
  }
  return { items: tidyRounds(items), left };
}

/** Exercises of a plan as a routine that can be given to anyone. */
export const routineItems = (items: readonly Prescription[]): RoutineItem[] =>
  items.map(({ exercise, sides, round, slot: _slot, variant: _variant, days: _days, ...rest }) => {
    const { sets, reps, holdSeconds, releaseSeconds, tempo, restSeconds, timesPerDay, daysPerWeek } = rest;
    const dose = { sets, reps, holdSeconds, releaseSeconds, tempo, restSeconds, timesPerDay, daysPerWeek };
    return {
      exercise,
      sideRule: sides === 'left' || sides === 'right' ? ('treated' as const) : ('both' as const),
      dose: Object.fromEntries(Object.entries(dose).filter(([, v]) => v !== undefined)),
      ...(round === undefined ? {} : { round }),
    };
  });

/** Days on which something was logged, and all of it came with routines: no sessions of the plan. */
export function routineDays(
  logged: readonly LoggedWork[],
  plans: readonly GivenPlan[],
): ReadonlySet<DayText> {
  const newest = [...plans].reverse();
  const ofRoutine = (planId: string | null, key: string): boolean => {
    const item = [...newest.filter((p) => p.id === planId), ...newest]
      .flatMap((p) => p.items)
      .find((i) => i.exercise === key);
    return item !== undefined && isOfRoutine(item);
  };
  const byDay = new Map<DayText, boolean>();
  for (const { day, planId, exercises } of logged)
    for (const { exercise } of exercises)
      byDay.set(day, (byDay.get(day) ?? true) && ofRoutine(planId, exercise));
  return new Set([...byDay].flatMap(([day, all]) => (all ? [day] : [])));
}
