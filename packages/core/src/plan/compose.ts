import { say } from '../quantity/tongue.js';
import type { ExerciseDefinition, ExerciseDose, Tag } from '../exercise/definition.js';
import { RUN_DAYS, RUN_RISE_PERCENT } from '../dose/longestRun.js';
import { isWalkRun } from '../dose/walkRun.js';
import type { MeasureLookup } from '../progress/criteria.js';
import { evaluateCriteria } from '../progress/criteria.js';
import type { Facts } from '../progress/criteriaTypes.js';
import type { Slot, Stage } from '../protocol/definition.js';
import type { PerSide } from '../quantity/side.js';
import { dayOf, daysBetween } from '../quantity/day.js';
import { shown, TOLERANCE } from '../quantity/statistics.js';
import { tooEarly } from './ability.js';
import { keptOf } from './keptWanted.js';
import { cutWords } from './cutWords.js';
import { type Choice, fillPlaces, type Place } from './planner.js';
import { prescribe } from './prescribe.js';
import type { Prescription } from './prescription.js';
import { type LeftOut, onlySupervised, switchedOff } from './safety.js';
import { prescriptionTime } from './timing.js';
import { impactOfWeek, runMinutesOfOne } from './totals.js';
import { arrangeWeek } from './week.js';
import { CONTACTS, RUN_MINUTES, type WeekLimits } from './weekLimits.js';

export interface ComposeInput {
  readonly stage: Stage;
  readonly exercises: readonly ExerciseDefinition[];
  readonly facts: Facts;
  /** Chosen option of each school question. */
  readonly schools: Readonly<Record<string, string>>;
  readonly equipment: readonly string[];
  readonly minutesPerDay: number;
  /** Days a week there is time; 7 when left out. */
  readonly daysPerWeek?: number;
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** Tags that are done only with someone beside; such exercises are not put into a plan for home by themselves. */
  readonly supervised?: PerSide<readonly Tag[]>;
  readonly drivers: readonly { readonly key: string; readonly because: string }[];
  readonly now: string;
  /** Exercises the person is given for another complaint: none is given twice. */
  readonly elsewhere?: readonly string[];
  /** 5 at home by default. */
  readonly maxExercises?: number;
  /** Exercises that must be in it, and that must not. */
  readonly locks?: { readonly keep: readonly string[]; readonly never: readonly string[] };
  /** Exercises the person likes or would rather not do. */
  readonly likes?: Readonly<Record<string, 'likes' | 'dislikes'>>;
  /** Weights the person has, in kg; where there are none, a weight is left as the exercise begins with it. */
  readonly weightsKg?: readonly number[];
  /** Load of a week of a prescription, by what is limited, and the most of each. */
  readonly load?: WeekLimits;
}

export interface ComposedExercise extends Prescription {
  readonly why: readonly string[];
}

export interface ComposedPlan {
  readonly exercises: readonly ComposedExercise[];
  readonly left: readonly LeftOut[];
  /** Minutes on a day when everything falls due, and of each exercise. */
  readonly minutesPerDay: number;
  readonly minutes: Readonly<Record<string, number>>;
  /** What stands in the way of a fuller plan, in words; never empty when the plan is. */
  readonly warnings: readonly string[];
}

const DEFAULT_MAX = 5;

/**
 * What a filled place is worth, all by convention: 10 less its priority; 1.5 more where a driver that was found asks for
 * it; 0.6 less for each rung below the one the measures allow; up to 1 less for sets left out, 6 where the dose is the
 * point, and 3 more where under two thirds are left of what is to make stronger; 1 more for what the person likes and 1
 * less for what not; half a point for the first exercise of its aim.
 */
const WORTH = { top: 10, driver: 1.5, rung: 0.6, sets: 1, wholeSets: 6, thin: 3, liking: 1 } as const;

/** Less than this share of a dose makes no one stronger. [convention] */
const THIN_UNDER = 2 / 3;

/** What all the sets of a slot are worth over none; most where the dose is the point. */
const setsWorth = (slot: Slot): number => (slot.whole === true ? WORTH.wholeSets : WORTH.sets);

/** What a dose cut to a share of itself is worth less. */
function cutCost(slot: Slot, e: ExerciseDefinition, share: number): number {
  const strengthens = e.aim === 'strength' || e.aim === 'eccentric';
  const thin = strengthens && share < THIN_UNDER - TOLERANCE ? WORTH.thin : 0;
  return setsWorth(slot) * (1 - share) + thin;
}

/** Whether a driver found asks for the slot. */
const isDriven = (slot: Slot, input: ComposeInput): boolean =>
  (slot.drivers ?? []).some((d) => input.drivers.some((x) => x.key === d));

/** Whether the slot is there for this person: by the schools chosen, and by what was found where it asks for that. */
function slotApplies(slot: Slot, input: ComposeInput): boolean {
  const chosen = Object.entries(slot.school ?? {}).every(([q, option]) => input.schools[q] === option);
  return chosen && (slot.onlyForDriver !== true || isDriven(slot, input));
}

interface Start {
  readonly exercise: string;
  readonly why: string;
  /** Exercises of the ladder that wait for a criterion, and for what: none of them is given as an easier one either. */
  readonly waiting: ReadonlyMap<string, string>;
}

/** The rung to start on: the last whose criterion the measures meet. */
function startRung(slot: Slot, input: ComposeInput, lookup: MeasureLookup): Start {
  const judged = (slot.rungs ?? []).map((rung) => {
    const { state, parts } = evaluateCriteria(rung.when, input.facts, input.now, lookup);
    return {
      exercise: rung.exercise,
      met: state === 'met' || state === 'met-within-error',
      why: parts.map((p) => `${p.text}: ${p.because}`).join('; '),
    };
  });
  const reached = judged.filter((rung) => rung.met).at(-1);
  return {
    exercise: reached?.exercise ?? slot.start,
    why: reached?.why ?? '',
    waiting: new Map(judged.flatMap((rung) => (rung.met ? [] : [[rung.exercise, rung.why] as const]))),
  };
}

/** Week of the stage, from 1. */
const weekOf = (input: ComposeInput): number =>
  Math.max(1, Math.floor(daysBetween(dayOf(input.facts.stageSince), dayOf(input.now)) / 7) + 1);

/** Numbers a slot asks for in a week of its stage. */
function doseIn(slot: Slot, week: number): Partial<ExerciseDose> | undefined {
  const row = (slot.table ?? []).filter((r) => r.fromWeek <= week).at(-1);
  return row === undefined ? slot.dose : { ...slot.dose, ...row.dose };
}

/** Exercises of the slot's ladder from the start down to the easiest that still is what the slot is for. */
function candidates(slot: Slot, start: string, all: readonly ExerciseDefinition[]): ExerciseDefinition[] {
  const rungOf = (key: string | undefined) => all.find((e) => e.key === key)?.rung ?? 1;
  const [top, bottom] = [rungOf(start), slot.least === undefined ? 1 : rungOf(slot.least)];
  return all
    .filter((e) => e.ladder === slot.ladder && e.rung <= top && e.rung >= bottom)
    .sort((a, b) => b.rung - a.rung);
}

function minutes(p: Prescription, e: ExerciseDefinition): number {
  const time = prescriptionTime(p, e);
  return time.ok ? time.value.daySeconds / 60 : Number.POSITIVE_INFINITY;
}

/** One exercise in one slot at one number of sets. */
interface Way extends Choice {
  readonly slot: Slot;
  readonly start: Start;
  readonly item: Prescription;
  readonly full: Prescription;
  readonly definition: ExerciseDefinition;
}

interface SlotWays {
  readonly slot: Slot;
  readonly ways: readonly Way[];
  /** Exercises that cannot be given here, the harder first. */
  readonly barred: readonly LeftOut[];
  /** Filled before all else: its dose is the point, and the minutes hold it beside those before it. */
  readonly first: boolean;
}

type Days = { readonly item: Prescription } | { readonly why: string };

/** The dose on the days there are; refused where the exercise needs more of them. */
function onDays(item: Prescription, e: ExerciseDefinition, days: number): Days {
  if (item.daysPerWeek <= days) return { item };
  const [fewest] = e.range.daysPerWeek;
  if (fewest > days)
    return { why: say('needs {{fewest}} days a week, {{days}} are there', { fewest, days }) };
  return { item: { ...item, daysPerWeek: days } };
}

/** Why an exercise cannot be given to this person, in words; null when it can. */
function barred(e: ExerciseDefinition, full: Prescription, input: ComposeInput): string | null {
  if (input.locks?.never.includes(e.key) === true) return say('not wanted in this plan');
  if (input.elsewhere?.includes(e.key) === true) return say('given for the other complaint already');
  const off = switchedOff(e, full.sides, input.tagsOff) ?? onlySupervised(e, full.sides, input.supervised);
  if (off !== null) return off;
  const missing = e.equipment.filter((item) => !input.equipment.includes(item));
  return missing.length === 0 ? null : say('needs {{list}}', { list: missing.join(', ') });
}

function worthOf(slot: Slot, e: ExerciseDefinition, rungsBelow: number, input: ComposeInput): number {
  const driven = isDriven(slot, input);
  const liking = input.likes?.[e.key];
  return (
    Math.max(1, WORTH.top - slot.priority) +
    (driven ? WORTH.driver : 0) -
    WORTH.rung * rungsBelow +
    (liking === 'likes' ? WORTH.liking : liking === 'dislikes' ? -WORTH.liking : 0)
  );
}

/** Impact of a week of a prescription, limited by the stage as everything else. */
function impactTaken(p: Prescription, e: ExerciseDefinition): Readonly<Record<string, number>> {
  const { contacts, runMinutes } = impactOfWeek(p, e);
  return { [CONTACTS]: contacts, [RUN_MINUTES]: runMinutes };
}

/** Of two limits of the same thing the smaller one. */
const smallest = (
  a: Readonly<Record<string, number>>,
  b: Readonly<Record<string, number>>,
): Readonly<Record<string, number>> =>
  Object.fromEntries(
    [...new Set([...Object.keys(a), ...Object.keys(b)])].map((key) => [
      key,
      Math.min(a[key] ?? Number.POSITIVE_INFINITY, b[key] ?? Number.POSITIVE_INFINITY),
    ]),
  );

/** Most impact a stage allows in a week, less what plans for other complaints take of it. */
function impactLimits(
  { contactsPerWeek, runMinutesPerWeek }: Stage,
  load: WeekLimits | undefined,
): Readonly<Record<string, number>> {
  const left = (key: string, most: number | null) =>
    most === null ? {} : { [key]: Math.max(0, most - (load?.elsewhere[key] ?? 0)) };
  return { ...left(CONTACTS, contactsPerWeek), ...left(RUN_MINUTES, runMinutesPerWeek) };
}

/**
 * The heaviest owned weight that is not over what is asked for; where every one is heavier, none at all, and where the exercise
 * cannot go without, what was asked for.
 */
function withOwned(p: Prescription, e: ExerciseDefinition, owned: readonly number[]): Prescription {
  const span = e.range.addedKg;
  const asked = p.addedKg ?? 0;
  if (span === undefined || asked <= 0 || owned.length === 0) return p;
  const lighter = owned.filter((kg) => kg >= span[0] && kg <= asked).sort((a, b) => b - a);
  return { ...p, addedKg: lighter[0] ?? (span[0] === 0 ? 0 : asked) };
}

/** Every number of sets, and of times a day, an exercise can be done with, most first; a walk-run also with fewer turns. */
function setsOf(full: Prescription, e: ExerciseDefinition, slot: Slot, room: number): Prescription[] {
  if (slot.whole === true && minutes(full, e) <= room) return [full];
  const down = (from: number, least: number) =>
    Array.from({ length: from - Math.max(1, Math.min(from, least)) + 1 }, (_, i) => from - i);
  return down(full.timesPerDay, e.range.timesPerDay[0]).flatMap((timesPerDay) =>
    down(full.sets, e.range.sets[0]).flatMap((sets) =>
      (isWalkRun(e) ? down(full.reps, e.range.reps[0]) : [full.reps]).map((reps) => ({
        ...full,
        sets,
        reps,
        timesPerDay,
      })),
    ),
  );
}

/** Share of the whole dose that is left when it is cut to fit the minutes. */
const shareOf = (item: Prescription, full: Prescription): number =>
  (item.sets * item.reps * item.timesPerDay) / (full.sets * full.reps * full.timesPerDay);

/** Whether it is a longer run than the longest of late allows. */
const isTooLong = (item: Prescription, e: ExerciseDefinition, load: WeekLimits | undefined): boolean =>
  load?.mostRunMinutes != null && runMinutesOfOne(item, e) > load.mostRunMinutes + TOLERANCE;

const tooLong = (load: WeekLimits | undefined): string =>
  say(
    'one run would be longer than {{mostRunMinutes}} min, {{runRisePercent}} % over the longest of the last {{runDays}} days',
    {
      mostRunMinutes: shown(load?.mostRunMinutes ?? 0, 1),
      runRisePercent: RUN_RISE_PERCENT,
      runDays: RUN_DAYS,
    },
  );

/** The ways to fill a slot; `room` is the minutes of a day that slots filled before it leave. */
function waysOf(slot: Slot, input: ComposeInput, lookup: MeasureLookup, room: number): SlotWays {
  const start = startRung(slot, input, lookup);
  const ways: Way[] = [];
  const left: LeftOut[] = [];
  for (const [below, e] of candidates(slot, start.exercise, input.exercises).entries()) {
    const asked = prescribe(e, {
      slot: slot.key,
      sideRule: slot.sideRule,
      affected: input.facts.affected,
      dose: doseIn(slot, weekOf(input)),
    });
    const fitted = onDays(asked, e, input.daysPerWeek ?? 7);
    const why =
      barred(e, asked, input) ??
      start.waiting.get(e.key) ??
      tooEarly(e, asked.sides, input, lookup) ??
      ('why' in fitted ? fitted.why : null);
    if (why !== null || 'why' in fitted) {
      left.push({ exercise: e.key, why: why ?? '' });
      continue;
    }
    // An easier rung is for whom the harder is barred, never to save minutes.
    if (ways.length > 0 && input.locks?.keep.includes(e.key) !== true) continue;
    const full = withOwned(fitted.item, e, input.weightsKg ?? []);
    const doses = setsOf(full, e, slot, room).filter((item) => !isTooLong(item, e, input.load));
    if (doses.length === 0) left.push({ exercise: e.key, why: tooLong(input.load) });
    for (const item of doses)
      ways.push({
        exercise: e.key,
        value: worthOf(slot, e, below, input) - cutCost(slot, e, shareOf(item, full)),
        minutes: minutes(item, e),
        // Where the dose is the point, slow load is told when it rises, not held back; impact always is.
        takes: { ...(slot.whole === true ? {} : input.load?.of(item, e)), ...impactTaken(item, e) },
        kind: e.aim,
        slot,
        start,
        item,
        full: asked,
        definition: e,
      });
  }
  return { slot, ways, barred: left, first: slot.whole === true && ways.some((w) => w.minutes <= room) };
}

/** What fewer sets or times a day are for: the minutes, or, where those would have been there, a slow rise of the load. */
function cutFor({ item, full, definition }: Way, input: ComposeInput, used: number): string {
  const more = minutes(full, definition) - minutes(item, definition);
  return used + more > input.minutesPerDay + TOLERANCE
    ? say('to fit the minutes')
    : say('so that the load of the week rises slowly');
}

function reasons(way: Way, input: ComposeInput, used: number): string[] {
  const { slot, start, item, full, definition } = way;
  const driver = input.drivers.find((d) => (slot.drivers ?? []).includes(d.key));
  const below = definition.rung < (input.exercises.find((e) => e.key === slot.start)?.rung ?? 1);
  return [
    below ? say('A step toward: {{purpose}}', { purpose: slot.purpose }) : say(slot.purpose),
    ...(driver === undefined ? [] : [driver.because]),
    ...(start.why === '' || definition.key !== start.exercise ? [] : [start.why]),
    ...cutWords(item, full, cutFor(way, input, used)),
    ...(input.locks?.keep.includes(definition.key) === true ? [say('kept as wanted')] : []),
  ];
}

/** A slot of its own for an exercise that is kept and that no slot of the stage reaches. */
const keptSlot = (e: ExerciseDefinition): Slot => ({
  key: `kept-${e.key}`,
  purpose: say('Kept as wanted'),
  aim: e.aim,
  ladder: e.ladder,
  start: e.key,
  priority: 1,
  sideRule: 'treated',
});

/** The slots of a stage under the schools chosen with their ways, and one more for each kept exercise none of them reaches. */
function allWays(input: ComposeInput, kept: readonly string[], lookup: MeasureLookup): SlotWays[] {
  const slots = input.stage.slots.filter((s) => slotApplies(s, input));
  const whole = new Map<string, SlotWays>();
  let room = input.minutesPerDay;
  for (const slot of [...slots].sort((a, b) => a.priority - b.priority).filter((s) => s.whole === true)) {
    const filled = waysOf(slot, input, lookup, room);
    whole.set(slot.key, filled);
    if (filled.first) room -= Math.min(...filled.ways.map((w) => w.minutes));
  }
  const own = slots.map((slot) => whole.get(slot.key) ?? waysOf(slot, input, lookup, room));
  const reached = (key: string) =>
    own.some((s) => s.ways.some((w) => w.exercise === key) || s.barred.some((b) => b.exercise === key));
  const extra = input.exercises.filter((e) => kept.includes(e.key) && !reached(e.key));
  return [...own, ...extra.map((e) => waysOf(keptSlot(e), { ...input, exercises: [e] }, lookup, room))];
}

/** Of a slot that a kept exercise belongs to, only the ways that give it; the slot must then be filled. */
function lockedPlaces(all: readonly SlotWays[], kept: readonly string[], wholeFirst: boolean): Place<Way>[] {
  const held = new Map<string, string>();
  for (const key of kept) {
    const home = all.find((s) => !held.has(s.slot.key) && s.ways.some((w) => w.exercise === key));
    if (home !== undefined) held.set(home.slot.key, key);
  }
  return all.flatMap(({ slot, ways, first }) => {
    const key = held.get(slot.key);
    const choices = key === undefined ? ways : ways.filter((w) => w.exercise === key);
    return choices.length === 0
      ? []
      : [{ key: slot.key, choices, must: key !== undefined || (wholeFirst && first) }];
  });
}

/** Why a slot that could have been filled was not. */
function notFilled(ways: readonly Way[], input: ComposeInput, used: number, count: number): LeftOut[] {
  const [first] = ways;
  if (first === undefined) return [];
  const least = Math.min(...ways.map((w) => w.minutes));
  const room = Math.max(0, input.minutesPerDay - used);
  const max = input.maxExercises ?? DEFAULT_MAX;
  const why =
    count >= max
      ? say('{{max}} exercises are enough', { max })
      : least > room
        ? say('no minutes left: needs {{least}}, {{room}} left', { least: shown(least), room: shown(room) })
        : say(
            'its load or impact is more than a week may hold: the last one with a slow rise, or what this stage allows',
          );
  return [{ exercise: first.exercise, why }];
}

/** What an empty plan says: why, and the way out. */
function emptyWords(input: ComposeInput, all: readonly SlotWays[]): string[] {
  if (input.stage.slots.length === 0) return [say('This stage asks for no exercise')];
  const ways = all.flatMap((s) => s.ways);
  if (ways.length === 0) {
    const whys = [...new Set(all.flatMap((s) => s.barred.map((b) => b.why)))];
    return [
      say('Nothing can be given: {{list}}. Clear what holds it back, or choose by hand', {
        list: whys.slice(0, 4).join('; '),
      }),
    ];
  }
  const least = Math.min(...ways.map((w) => w.minutes));
  return [
    say('Nothing fits: the shortest needs {{least}} minutes a day, {{minutesPerDay}} are given', {
      least: shown(least),
      minutesPerDay: shown(input.minutesPerDay),
    }),
  ];
}

/** What stands in the way, where the plan has gaps that someone can close. */
function warningsOf(
  input: ComposeInput,
  all: readonly SlotWays[],
  chosen: ReadonlyMap<string, Way> | null,
): string[] {
  if (chosen === null) {
    const needs = input.locks?.keep ?? [];
    return [
      say(
        'What is to be kept ({{n}}) does not fit into {{minutesPerDay}} minutes and {{maxExercises}} exercises: give more of them, or keep less',
        {
          n: needs.length,
          minutesPerDay: shown(input.minutesPerDay),
          maxExercises: input.maxExercises ?? DEFAULT_MAX,
        },
      ),
    ];
  }
  return chosen.size === 0 ? emptyWords(input, all) : [];
}

/**
 * Fills a stage's slots for this patient so that what matters most is done: the rung the measures allow, or an easier one
 * that safety and equipment permit, within minutes, days, load and the number of exercises. The filling is the best there
 * is by the worth of its parts, never the first that fits. Says what was left out and why.
 */
export function composePlan(input: ComposeInput, lookup: MeasureLookup): ComposedPlan {
  const kept = keptOf(input);
  const all = allWays(input, kept.keys, lookup);
  const limits = {
    minutes: input.minutesPerDay,
    count: input.maxExercises ?? DEFAULT_MAX,
    most: smallest(input.load?.most ?? {}, impactLimits(input.stage, input.load)),
  };
  const filled =
    fillPlaces(lockedPlaces(all, kept.keys, true), limits) ??
    fillPlaces(lockedPlaces(all, kept.keys, false), limits);
  const chosen = filled?.chosen ?? new Map<string, Way>();
  const used = [...chosen.values()].reduce((sum, w) => sum + w.minutes, 0);
  const given = new Set([...chosen.values()].map((w) => w.exercise));
  const left = all.flatMap(({ slot, ways, barred: out }) => {
    const way = chosen.get(slot.key);
    const harder = way === undefined ? out : out.filter((b) => isHarder(b.exercise, way, input));
    const free = ways.filter((w) => !given.has(w.exercise));
    return [...harder, ...(way === undefined ? notFilled(free, input, used, chosen.size) : [])];
  });
  const bySlot = all.flatMap(({ slot }) => chosen.get(slot.key) ?? []);
  const first = (w: Way) => (w.definition.when === null ? 1 : 0);
  return {
    exercises: arranged(
      [...bySlot].sort((a, b) => first(a) - first(b) || a.slot.priority - b.slot.priority),
      input,
    ),
    left: uniqueLeft(left.filter((l) => !given.has(l.exercise))),
    minutesPerDay: used,
    minutes: Object.fromEntries(bySlot.map((w) => [w.exercise, w.minutes])),
    warnings: [...kept.warnings, ...warningsOf(input, all, filled?.chosen ?? null)],
  };
}

/** What was chosen, on days of the week that get on with each other. */
function arranged(ways: readonly Way[], input: ComposeInput): ComposedExercise[] {
  const items = arrangeWeek(ways);
  const used = ways.reduce((sum, w) => sum + w.minutes, 0);
  return ways.map((w, i) => ({ ...(items[i] ?? w.item), why: reasons(w, input, used) }));
}

const isHarder = (exercise: string, way: Way, input: ComposeInput): boolean =>
  (input.exercises.find((e) => e.key === exercise)?.rung ?? 0) > way.definition.rung;

/** Each exercise once, with its first reason. */
const uniqueLeft = (left: readonly LeftOut[]): LeftOut[] =>
  left.filter((l, i) => left.findIndex((x) => x.exercise === l.exercise) === i);
