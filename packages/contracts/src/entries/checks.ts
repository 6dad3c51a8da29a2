import { type Limits, TAGS, WEIGHT_BEARING, say } from '@heathstep/core';
import {
  BONES,
  CALLUS_AREAS,
  type CallusArea,
  NUMB_SITES,
  type NumbEntry,
  POINT_STATES,
  POINTS,
  type PointsEntry,
  type TenderEntry,
  type Toe,
  TOE_SHAPES,
  type ToeEntry,
  TOES,
  WEAR_AREAS,
  type WearArea,
} from '../look.js';
import type { Activity, ConcludedIdea, MeasureEntry } from './values.js';

/** What may stand in an entry, of any key. */
export const ENTRY_LIMITS = { text: 10_000, list: 40, item: 200 } as const;

/** What a value should have been, in words; null when it is fine, and then it is a V. */
export interface Check<V> {
  (value: unknown): string | null;
  readonly holds?: V;
}

export const score: Check<number> = (v) =>
  Number.isInteger(v) && (v as number) >= 0 && (v as number) <= 10
    ? null
    : say('a whole number from 0 to 10');
export const flag: Check<boolean> = (v) => (typeof v === 'boolean' ? null : say('yes or no'));
export const oneOf =
  <V extends string>(...values: readonly V[]): Check<V> =>
  (v) =>
    typeof v === 'string' && (values as readonly string[]).includes(v)
      ? null
      : say('one of {{list}}', { list: values.join(', ') });
export const within =
  (min: number, max: number): Check<number> =>
  (v) =>
    typeof v === 'number' && v >= min && v <= max
      ? null
      : say('a number from {{min}} to {{max}}', { min: String(min), max: String(max) });
export const text: Check<string> = (v) =>
  typeof v === 'string' && v.length <= ENTRY_LIMITS.text
    ? null
    : say('a text of at most {{text}} characters', { text: String(ENTRY_LIMITS.text) });
export const reason: Check<string> = (v) =>
  typeof v === 'string' && v.trim() !== '' ? text(v) : say('a reason in a few words');
export const list: Check<readonly string[]> = (v) =>
  Array.isArray(v) &&
  v.length <= ENTRY_LIMITS.list &&
  v.every((i) => typeof i === 'string' && i.length <= ENTRY_LIMITS.item)
    ? null
    : say('a short list of words');

/** An object of these fields and no others. */
const hasOnly = <T extends object>(v: T | null | undefined, fields: readonly string[]): v is T =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && Object.keys(v).every((k) => fields.includes(k));

export const activities: Check<readonly Activity[]> = (v) =>
  Array.isArray(v) &&
  v.length <= 5 &&
  v.every((a: unknown) => {
    const item = a as { text?: unknown; ability?: unknown } | null;
    return (
      hasOnly(item, ['text', 'ability']) &&
      typeof item.text === 'string' &&
      item.text.length <= ENTRY_LIMITS.item &&
      (item.ability === null || score(item.ability) === null)
    );
  })
    ? null
    : say('up to 5 activities with an ability from 0 to 10');

const trialList = (v: unknown): boolean =>
  Array.isArray(v) &&
  v.length <= 10 &&
  v.every((t) => t === null || (typeof t === 'number' && Number.isFinite(t)));

const shortText = (v: unknown): boolean => typeof v === 'string' && v.length <= ENTRY_LIMITS.item;

const parts = (v: unknown): boolean =>
  typeof v === 'object' &&
  v !== null &&
  Object.entries(v).length <= 20 &&
  Object.entries(v).every(([k, n]) => shortText(k) && typeof n === 'number' && Number.isFinite(n));

const isAgain = (v: MeasureEntry['again']): boolean =>
  hasOnly(v, ['trials', 'pain']) && trialList(v.trials) && (v.pain === null || score(v.pain) === null);

/** What may stand beside the trials; the first that is wrong, in words. */
function besideProblem(m: Partial<MeasureEntry>): string | null {
  if (m.confirmed !== undefined && typeof m.confirmed !== 'boolean') return say('confirmed or not');
  if (m.simulated !== undefined && typeof m.simulated !== 'boolean') return say('simulated or not');
  if (m.method !== undefined && !shortText(m.method)) return say('a method in a few words');
  if (m.position !== undefined && !shortText(m.position)) return say('a position in a few words');
  if (m.by !== undefined && oneOf('another', 'self')(m.by) !== null)
    return say('measured by another or by oneself');
  if (m.parts !== undefined && !parts(m.parts)) return say('parts with a number each');
  if (m.reason !== undefined && !shortText(m.reason)) return say('a reason in a few words');
  if (m.capture !== undefined && !(typeof m.capture === 'string' && /^[0-9a-f-]{36}$/.test(m.capture)))
    return say('the id of a capture');
  if (m.again !== undefined && !isAgain(m.again)) return say('trials taken again');
  return null;
}

const MEASURE_FIELDS: ReadonlySet<string> = new Set([
  'trials',
  'status',
  'pain',
  'confirmed',
  'simulated',
  'method',
  'position',
  'by',
  'parts',
  'reason',
  'again',
  'capture',
]);

/** Taken, and yet nothing was: it would count as measured and mean nothing. */
const saysNothing = (m: Partial<MeasureEntry>): boolean =>
  (m.trials ?? []).every((t) => t === null) &&
  m.pain === null &&
  m.again === undefined &&
  (m.parts === undefined || Object.keys(m.parts).length === 0);

export const measure: Check<MeasureEntry> = (v) => {
  const m = v as Partial<MeasureEntry> | null;
  if (typeof m !== 'object' || m === null) return say('trials with a status');
  if (!trialList(m.trials)) return say('up to 10 trials, each a number or nothing');
  if (oneOf('taken', 'not-done', 'unable', 'stopped-by-pain')(m.status) !== null)
    return say('taken, not done, unable or stopped by pain');
  if (m.pain !== null && score(m.pain) !== null) return say('pain from 0 to 10, or nothing');
  const more = Object.keys(m).find((k) => !MEASURE_FIELDS.has(k));
  if (more !== undefined) return say('without {{more}}, which is no part of a measure', { more });
  if (m.status === 'taken' && saysNothing(m))
    return say('a value or what stands beside it; left out where there is none');
  return besideProblem(m);
};

const keysOf = <K extends string>(list: readonly (readonly [K, string])[]): readonly K[] =>
  list.map(([k]) => k);

const isOne = (names: readonly string[], v: unknown): boolean => typeof v === 'string' && names.includes(v);

const someOf =
  <V extends string>(names: readonly V[]): Check<readonly V[]> =>
  (v) =>
    Array.isArray(v) && v.length <= names.length && v.every((i) => isOne(names, i))
      ? null
      : say('some of {{list}}', { list: names.join(', ') });

export const numb: Check<NumbEntry> = (v) => {
  const n = v as { felt?: unknown; missed?: unknown } | null;
  const sites = someOf(keysOf(NUMB_SITES));
  const bad = !hasOnly(n, ['felt', 'missed']) || sites(n.felt) !== null || sites(n.missed) !== null;
  return bad ? say('the sites felt and the sites missed') : null;
};

export const tender: Check<readonly TenderEntry[]> = (v) =>
  Array.isArray(v) &&
  v.length <= BONES.length &&
  v.every((t: { bone?: unknown; cm?: unknown } | null) => {
    if (!hasOnly(t, ['bone', 'cm']) || !isOne(keysOf(BONES), t.bone)) return false;
    return t.cm === null || (typeof t.cm === 'number' && t.cm >= 0 && t.cm <= 60);
  })
    ? null
    : say('tender bones, each with a length from 0 to 60 cm or none');

export const toes: Check<Readonly<Partial<Record<Toe, ToeEntry>>>> = (v) =>
  typeof v === 'object' &&
  v !== null &&
  Object.entries(v as Record<string, { shape?: unknown; rigid?: unknown }>).every(
    ([toe, t]) =>
      isOne(keysOf(TOES), toe) &&
      hasOnly(t, ['shape', 'rigid']) &&
      oneOf(...TOE_SHAPES)(t.shape) === null &&
      typeof t.rigid === 'boolean',
  )
    ? null
    : say('toes, each with a shape and whether it is rigid');

export const points: Check<PointsEntry> = (v) =>
  typeof v === 'object' &&
  v !== null &&
  Object.entries(v).every(([p, state]) => isOne(keysOf(POINTS), p) && oneOf(...POINT_STATES)(state) === null)
    ? null
    : say('support points, each down, light or lifted');

export const wear: Check<readonly WearArea[]> = someOf(keysOf(WEAR_AREAS));
export const callus: Check<readonly CallusArea[]> = someOf(keysOf(CALLUS_AREAS));

const NAME = /^[a-z0-9-]{1,60}$/;

/** The key of a stage. */
export const stageKey: Check<string> = (v) => (typeof v === 'string' && NAME.test(v) ? null : say('a stage'));

const sideOfIdea = oneOf('left', 'right', 'none');
const verdict = oneOf('agreed', 'added', 'rejected');

export const ideas: Check<readonly ConcludedIdea[]> = (v) => {
  const wrong = (i: unknown): boolean => {
    const idea = i as Partial<ConcludedIdea> | null;
    if (!hasOnly(idea, ['condition', 'side', 'verdict', 'leads', 'reason'])) return true;
    if (typeof idea.condition !== 'string' || !NAME.test(idea.condition)) return true;
    if (sideOfIdea(idea.side) !== null || verdict(idea.verdict) !== null) return true;
    if (typeof idea.leads !== 'boolean') return true;
    const reasoned = typeof idea.reason === 'string' && idea.reason.trim() !== '';
    return idea.verdict === 'rejected'
      ? !reasoned || text(idea.reason) !== null
      : idea.reason !== null && text(idea.reason) !== null;
  };
  return Array.isArray(v) && v.length <= ENTRY_LIMITS.list && !v.some(wrong)
    ? null
    : say('ideas agreed, added, or rejected with a reason');
};

const isDay = (v: unknown): boolean =>
  typeof v === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(v) && !Number.isNaN(Date.parse(v));

export const limits: Check<Limits> = (v) => {
  const l = v as Partial<Limits> | null;
  if (!hasOnly(l, ['what', 'day', 'weightBearing', 'partialKg', 'allowed', 'by', 'text']))
    return say('what is allowed, by whom and since when');
  if (oneOf('surgery', 'cast', 'fracture', 'other')(l.what) !== null)
    return say('surgery, a cast, a fracture or something else');
  if (!isDay(l.day)) return say('a day');
  if (oneOf(...WEIGHT_BEARING)(l.weightBearing) !== null) return say('weight-bearing none, partial or full');
  if (l.weightBearing === 'partial' && within(1, 150)(l.partialKg) !== null)
    return say('partial weight from 1 to 150 kg');
  if (l.weightBearing !== 'partial' && l.partialKg !== null) return say('no kilograms unless it is partial');
  if (someOf(TAGS)(l.allowed) !== null) return say('a list of what is allowed');
  if (typeof l.by !== 'string' || l.by.trim() === '' || !shortText(l.by)) return say('who said it');
  return typeof l.text === 'string' && l.text.trim() !== '' && text(l.text) === null
    ? null
    : say('the allowed range and limits in words');
};
