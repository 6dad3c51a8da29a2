import type { ExerciseDefinition, Tag } from '../exercise/definition.js';
import type { MeasureLookup } from '../progress/criteria.js';
import { evaluateCriteria } from '../progress/criteria.js';
import type { Facts } from '../progress/criteriaTypes.js';
import type { Slot, Stage } from '../protocol/definition.js';
import type { PerSide } from '../quantity/side.js';
import { shown } from '../quantity/statistics.js';
import { prescribe } from './prescribe.js';
import type { Prescription } from './prescription.js';
import { type LeftOut, onlySupervised, switchedOff } from './safety.js';
import { prescriptionTime } from './timing.js';

export interface ComposeInput {
  readonly stage: Stage;
  readonly exercises: readonly ExerciseDefinition[];
  readonly facts: Facts;
  /** Chosen option of each school question. */
  readonly schools: Readonly<Record<string, string>>;
  readonly equipment: readonly string[];
  readonly minutesPerDay: number;
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** Tags that are done only with someone beside; such exercises are not put into a plan for home by themselves. */
  readonly supervised?: PerSide<readonly Tag[]>;
  readonly drivers: readonly { readonly key: string; readonly because: string }[];
  readonly now: string;
  /** Exercises the person is given for another complaint: none is given twice. */
  readonly elsewhere?: readonly string[];
  /** 5 at home by default. */
  readonly maxExercises?: number;
}

export interface ComposedExercise extends Prescription {
  readonly why: readonly string[];
}

export interface ComposedPlan {
  readonly exercises: readonly ComposedExercise[];
  readonly left: readonly LeftOut[];
  /** Minutes on a day when everything falls due. */
  readonly minutesPerDay: number;
}

const DEFAULT_MAX = 5;

function slotApplies(slot: Slot, schools: Readonly<Record<string, string>>): boolean {
  return Object.entries(slot.school ?? {}).every(([question, option]) => schools[question] === option);
}

interface Start {
  readonly exercise: string;
  readonly why: string;
}

/** The rung to start on: the last whose criterion the measures meet. */
function startRung(slot: Slot, input: ComposeInput, lookup: MeasureLookup): Start {
  const reached = (slot.rungs ?? []).flatMap((rung) => {
    const result = evaluateCriteria(rung.when, input.facts, input.now, lookup);
    if (result.state !== 'met' && result.state !== 'met-within-error') return [];
    return [{ exercise: rung.exercise, why: result.parts.map((p) => `${p.text}: ${p.because}`).join('; ') }];
  });
  return reached[reached.length - 1] ?? { exercise: slot.start, why: '' };
}

function candidates(slot: Slot, start: string, all: readonly ExerciseDefinition[]): ExerciseDefinition[] {
  const rung = all.find((e) => e.key === start)?.rung ?? 1;
  return all.filter((e) => e.ladder === slot.ladder && e.rung <= rung).sort((a, b) => b.rung - a.rung);
}

const missingEquipment = (e: ExerciseDefinition, owned: readonly string[]): string[] =>
  e.equipment.filter((item) => !owned.includes(item));

function minutes(p: Prescription, e: ExerciseDefinition): number {
  const time = prescriptionTime(p, e);
  return time.ok ? time.value.daySeconds / 60 : Number.POSITIVE_INFINITY;
}

/** The largest number of sets, down to the exercise's fewest, that fits the minutes left; null when none does. */
function fitted(p: Prescription, e: ExerciseDefinition, left: number): Prescription | null {
  for (let sets = p.sets; sets >= Math.max(1, e.range.sets[0]); sets -= 1) {
    const smaller = { ...p, sets };
    if (minutes(smaller, e) <= left) return smaller;
  }
  return null;
}

function orderSlots(stage: Stage, drivers: readonly { readonly key: string }[]): Slot[] {
  const raised = (slot: Slot): number =>
    slot.priority - ((slot.drivers ?? []).some((d) => drivers.some((x) => x.key === d)) ? 1.5 : 0);
  return [...stage.slots].sort((a, b) => raised(a) - raised(b) || a.priority - b.priority);
}

function reasons(
  slot: Slot,
  start: Start,
  p: Prescription,
  full: Prescription,
  input: ComposeInput,
): string[] {
  const driver = input.drivers.find((d) => (slot.drivers ?? []).includes(d.key));
  return [
    slot.purpose,
    ...(driver === undefined ? [] : [driver.because]),
    ...(start.why === '' || p.exercise !== start.exercise ? [] : [start.why]),
    ...(p.sets < full.sets ? [`${p.sets} of ${full.sets} sets, to fit the minutes`] : []),
  ];
}

/**
 * Fills a stage's slots for this patient, most important first: the rung the measures allow, or the next easier that
 * safety and equipment permit, at its dose, while minutes and the number of exercises last. Says what was left out and why.
 */
export function composePlan(input: ComposeInput, lookup: MeasureLookup): ComposedPlan {
  const max = input.maxExercises ?? DEFAULT_MAX;
  const chosen: ComposedExercise[] = [];
  const left: LeftOut[] = [];
  let used = 0;
  for (const slot of orderSlots(input.stage, input.drivers)) {
    if (!slotApplies(slot, input.schools)) continue;
    const start = startRung(slot, input, lookup);
    for (const e of candidates(slot, start.exercise, input.exercises)) {
      if (chosen.some((c) => c.exercise === e.key)) continue;
      if (input.elsewhere?.includes(e.key) === true) {
        left.push({ exercise: e.key, why: 'given for the other complaint already' });
        break;
      }
      const full = prescribe(e, {
        slot: slot.key,
        sideRule: slot.sideRule,
        affected: input.facts.affected,
        dose: slot.dose,
      });
      const off =
        switchedOff(e, full.sides, input.tagsOff) ?? onlySupervised(e, full.sides, input.supervised);
      const missing = missingEquipment(e, input.equipment);
      if (off !== null || missing.length > 0) {
        left.push({ exercise: e.key, why: off ?? `needs ${missing.join(', ')}` });
        continue;
      }
      if (chosen.length >= max) {
        left.push({ exercise: e.key, why: `${max} exercises are enough` });
        break;
      }
      const p = fitted(full, e, input.minutesPerDay - used);
      if (p === null) {
        left.push({
          exercise: e.key,
          why: `no minutes left: needs ${shown(minutes({ ...full, sets: e.range.sets[0] }, e))}, ${shown(Math.max(0, input.minutesPerDay - used))} left`,
        });
        break;
      }
      used += minutes(p, e);
      chosen.push({ ...p, why: reasons(slot, start, p, full, input) });
      break;
    }
  }
  const order = (c: ComposedExercise) =>
    input.exercises.find((e) => e.key === c.exercise)?.when == null ? 1 : 0;
  return { exercises: [...chosen].sort((a, b) => order(a) - order(b)), left, minutesPerDay: used };
}
