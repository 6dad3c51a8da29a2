import { type ExerciseDefinition, type ExerciseDose, type Tag, TAGS } from '../exercise/definition.js';
import type { MeasureLookup } from '../progress/criteria.js';
import { evaluateCriteria } from '../progress/criteria.js';
import type { Facts } from '../progress/criteriaTypes.js';
import type { Slot, Stage } from '../protocol/definition.js';
import type { PerSide, Side } from '../quantity/side.js';
import { shown } from '../quantity/statistics.js';
import type { DoseSides } from '../dose/dose.js';
import { computeDose } from '../dose/dose.js';
import { sidesFor, toDoseInput, type Prescription } from './prescription.js';

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
  /** 5 at home by default. */
  readonly maxExercises?: number;
}

export interface ComposedExercise extends Prescription {
  readonly why: readonly string[];
}

export interface LeftOut {
  readonly exercise: string;
  readonly why: string;
}

export interface ComposedPlan {
  readonly exercises: readonly ComposedExercise[];
  readonly left: readonly LeftOut[];
  /** Minutes on a day when everything falls due. */
  readonly minutesPerDay: number;
}

const DEFAULT_MAX = 5;

function sidesTouched(sides: DoseSides): readonly Side[] {
  return sides === 'left' || sides === 'right' ? [sides] : ['left', 'right'];
}

/** Why this exercise cannot be given on these sides; null when it can. */
export function switchedOff(
  exercise: ExerciseDefinition,
  sides: DoseSides,
  tagsOff: PerSide<readonly Tag[]>,
): string | null {
  if (sidesTouched(sides).some((side) => TAGS.every((tag) => tagsOff[side].includes(tag)))) {
    return 'safety switches off everything';
  }
  const off = sidesTouched(sides).flatMap((side) =>
    exercise.tags.filter((tag) => tagsOff[side].includes(tag)),
  );
  return off.length === 0 ? null : `safety switches off ${[...new Set(off)].join(', ')}`;
}

/** A given plan held against what safety switches off now: what may still be done, and what is held back with the reason. */
export function heldBack<T extends Pick<Prescription, 'exercise' | 'sides'>>(
  items: readonly T[],
  exerciseOf: (key: string) => ExerciseDefinition | undefined,
  tagsOff: PerSide<readonly Tag[]>,
): { readonly kept: readonly T[]; readonly held: readonly LeftOut[] } {
  const judged = items.map((item) => {
    const exercise = exerciseOf(item.exercise);
    return { item, why: exercise === undefined ? null : switchedOff(exercise, item.sides, tagsOff) };
  });
  return {
    kept: judged.filter((j) => j.why === null).map((j) => j.item),
    held: judged.flatMap((j) => (j.why === null ? [] : [{ exercise: j.item.exercise, why: j.why }])),
  };
}

/** Why an exercise is not for home without someone beside; null when it is. */
export function onlySupervised(
  exercise: ExerciseDefinition,
  sides: DoseSides,
  supervised: PerSide<readonly Tag[]> | undefined,
): string | null {
  if (supervised === undefined) return null;
  const tags = sidesTouched(sides).flatMap((side) =>
    exercise.tags.filter((tag) => supervised[side].includes(tag)),
  );
  return tags.length === 0
    ? null
    : `only with someone beside, for ${[...new Set(tags)].join(', ')}: add it when that is so`;
}

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

/** A slot's own numbers, kept inside the safe range of whichever exercise fills it. */
function withinRange(dose: ExerciseDose, e: ExerciseDefinition): ExerciseDose {
  const kept = (
    ['sets', 'reps', 'holdSeconds', 'restSeconds', 'addedKg', 'timesPerDay', 'daysPerWeek'] as const
  ).flatMap((field) => {
    const value = dose[field];
    const span = e.range[field];
    return value === undefined || span === undefined
      ? []
      : [[field, Math.min(span[1], Math.max(span[0], value))]];
  });
  return { ...dose, ...(Object.fromEntries(kept) as Partial<ExerciseDose>) };
}

function prescribe(e: ExerciseDefinition, slot: Slot, input: ComposeInput): Prescription {
  const { tempo, holdSeconds, ...rest } = withinRange({ ...e.dose, ...slot.dose }, e);
  const work =
    e.dose.tempo === undefined
      ? { holdSeconds: holdSeconds ?? e.dose.holdSeconds }
      : { tempo: tempo ?? e.dose.tempo };
  return {
    ...rest,
    ...work,
    exercise: e.key,
    slot: slot.key,
    sides: sidesFor(e, slot.sideRule, input.facts.affected),
  };
}

function minutes(p: Prescription, e: ExerciseDefinition): number {
  const dose = computeDose(toDoseInput(p, e));
  return dose.ok ? dose.value.daySeconds / 60 : Number.POSITIVE_INFINITY;
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
      const full = prescribe(e, slot, input);
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
    input.exercises.find((e) => e.key === c.exercise)?.when === 'before-first-step' ? 0 : 1;
  return { exercises: [...chosen].sort((a, b) => order(a) - order(b)), left, minutesPerDay: used };
}
