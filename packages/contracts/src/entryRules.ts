import {
  BONES,
  CALLUS_AREAS,
  NUMB_SITES,
  POINT_STATES,
  POINTS,
  POSES,
  TOE_SHAPES,
  TOES,
  WEAR_AREAS,
} from './look.js';
import { type Limits, TAGS, WEIGHT_BEARING } from '@heathstep/core';

/** What a visit entry may hold, by its key. Checked on the server, and in the form before it is sent. */
export const ENTRY_LIMITS = { text: 10_000, list: 40, item: 200 } as const;

export type SkillLevel = 'none' | 'partial' | 'learned';

export interface MeasureEntry {
  /** Values in the measure's unit; null for a trial not taken. */
  readonly trials: readonly (number | null)[];
  readonly status: 'taken' | 'not-done' | 'unable' | 'stopped-by-pain';
  readonly pain: number | null;
  /** An unusual reading that was asked about and confirmed. */
  readonly confirmed?: boolean;
  /** How it was taken, where not the measure's usual way. */
  readonly method?: string;
  readonly position?: string;
  readonly by?: 'another' | 'self';
  /** Named parts: the scores of its items, or the lever arm in cm. */
  readonly parts?: Readonly<Record<string, number>>;
  /** Taken again within the visit, after an exercise was tried. */
  readonly again?: { readonly trials: readonly (number | null)[]; readonly pain: number | null };
  /** Why it was not done. */
  readonly reason?: string;
}

/** One idea of what it is, as the clinician judged it; the record of a visit's conclusion. */
export interface ConcludedIdea {
  readonly condition: string;
  readonly side: 'left' | 'right' | 'none';
  readonly verdict: 'agreed' | 'added' | 'rejected';
  /** The one that is treated first. */
  readonly leads: boolean;
  /** Required for a rejected one. */
  readonly reason: string | null;
}

type Check = (value: unknown) => string | null;

const score: Check = (v) =>
  Number.isInteger(v) && (v as number) >= 0 && (v as number) <= 10 ? null : 'a whole number from 0 to 10';
const flag: Check = (v) => (typeof v === 'boolean' ? null : 'yes or no');
const oneOf =
  (...values: readonly string[]): Check =>
  (v) =>
    typeof v === 'string' && values.includes(v) ? null : `one of ${values.join(', ')}`;
const within =
  (min: number, max: number): Check =>
  (v) =>
    typeof v === 'number' && v >= min && v <= max ? null : `a number from ${String(min)} to ${String(max)}`;
const text: Check = (v) =>
  typeof v === 'string' && v.length <= ENTRY_LIMITS.text
    ? null
    : `a text of at most ${String(ENTRY_LIMITS.text)} characters`;
const reason: Check = (v) => (typeof v === 'string' && v.trim() !== '' ? text(v) : 'a reason in a few words');
const list: Check = (v) =>
  Array.isArray(v) &&
  v.length <= ENTRY_LIMITS.list &&
  v.every((i) => typeof i === 'string' && i.length <= ENTRY_LIMITS.item)
    ? null
    : 'a short list of words';

const activities: Check = (v) =>
  Array.isArray(v) &&
  v.length <= 5 &&
  v.every((a: unknown) => {
    const item = a as { text?: unknown; ability?: unknown };
    return (
      typeof item.text === 'string' &&
      item.text.length <= ENTRY_LIMITS.item &&
      (item.ability === null || score(item.ability) === null)
    );
  })
    ? null
    : 'up to 5 activities with an ability from 0 to 10';

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

/** What may stand beside the trials; the first that is wrong, in words. */
function besideProblem(m: Partial<MeasureEntry>): string | null {
  if (m.confirmed !== undefined && typeof m.confirmed !== 'boolean') return 'confirmed or not';
  if (m.method !== undefined && !shortText(m.method)) return 'a method in a few words';
  if (m.position !== undefined && !shortText(m.position)) return 'a position in a few words';
  if (m.by !== undefined && oneOf('another', 'self')(m.by) !== null)
    return 'measured by another or by oneself';
  if (m.parts !== undefined && !parts(m.parts)) return 'parts with a number each';
  if (m.reason !== undefined && !shortText(m.reason)) return 'a reason in a few words';
  if (m.again !== undefined && !(typeof m.again === 'object' && trialList(m.again.trials)))
    return 'trials taken again';
  return null;
}

const MEASURE_FIELDS: ReadonlySet<string> = new Set([
  'trials',
  'status',
  'pain',
  'confirmed',
  'method',
  'position',
  'by',
  'parts',
  'reason',
  'again',
]);

/** Taken, and yet nothing was: it would count as measured and mean nothing. */
const saysNothing = (m: Partial<MeasureEntry>): boolean =>
  (m.trials ?? []).every((t) => t === null) &&
  m.pain === null &&
  m.again === undefined &&
  (m.parts === undefined || Object.keys(m.parts).length === 0);

const measure: Check = (v) => {
  const m = v as Partial<MeasureEntry> | null;
  if (typeof m !== 'object' || m === null) return 'trials with a status';
  if (!trialList(m.trials)) return 'up to 10 trials, each a number or nothing';
  if (oneOf('taken', 'not-done', 'unable', 'stopped-by-pain')(m.status) !== null)
    return 'taken, not done, unable or stopped by pain';
  if (m.pain !== null && score(m.pain) !== null) return 'pain from 0 to 10, or nothing';
  const more = Object.keys(m).find((k) => !MEASURE_FIELDS.has(k));
  if (more !== undefined) return `without ${more}, which is no part of a measure`;
  if (m.status === 'taken' && saysNothing(m))
    return 'a value or what stands beside it; left out where there is none';
  return besideProblem(m);
};

const keysOf = (list: readonly (readonly [string, string])[]): readonly string[] => list.map(([k]) => k);

const someOf =
  (names: readonly string[]): Check =>
  (v) =>
    Array.isArray(v) && v.length <= names.length && v.every((i) => names.includes(String(i)))
      ? null
      : `some of ${names.join(', ')}`;

const numb: Check = (v) => {
  const n = v as { felt?: unknown; missed?: unknown } | null;
  const sites = someOf(keysOf(NUMB_SITES));
  const bad = typeof n !== 'object' || n === null || sites(n.felt) !== null || sites(n.missed) !== null;
  return bad ? 'the sites felt and the sites missed' : null;
};

const tender: Check = (v) =>
  Array.isArray(v) &&
  v.length <= BONES.length &&
  v.every((t: { bone?: unknown; cm?: unknown } | null) => {
    if (typeof t !== 'object' || t === null || !keysOf(BONES).includes(String(t.bone))) return false;
    return t.cm === null || (typeof t.cm === 'number' && t.cm >= 0 && t.cm <= 60);
  })
    ? null
    : 'tender bones, each with a length from 0 to 60 cm or none';

const toes: Check = (v) =>
  typeof v === 'object' &&
  v !== null &&
  Object.entries(v as Record<string, { shape?: unknown; rigid?: unknown }>).every(
    ([toe, t]) =>
      keysOf(TOES).includes(toe) && oneOf(...TOE_SHAPES)(t.shape) === null && typeof t.rigid === 'boolean',
  )
    ? null
    : 'toes, each with a shape and whether it is rigid';

const points: Check = (v) =>
  typeof v === 'object' &&
  v !== null &&
  Object.entries(v).every(
    ([p, state]) => keysOf(POINTS).includes(p) && oneOf(...POINT_STATES)(state) === null,
  )
    ? null
    : 'support points, each down, light or lifted';

const LOOK: Readonly<Record<string, Check>> = {
  numb,
  tender,
  toes,
  wear: someOf(keysOf(WEAR_AREAS)),
  callus: someOf(keysOf(CALLUS_AREAS)),
};

function lookCheck(key: string): Check | null {
  const flat = /^look\.([a-z]+)\.(left|right)$/.exec(key);
  if (flat !== null) return Object.hasOwn(LOOK, flat[1] ?? '') ? (LOOK[flat[1] ?? ''] ?? null) : null;
  const pose = /^look\.points\.([a-z]+)\.(left|right)$/.exec(key);
  return pose !== null && keysOf(POSES).includes(pose[1] ?? '') ? points : null;
}

const sideOfIdea = oneOf('left', 'right', 'none');
const verdict = oneOf('agreed', 'added', 'rejected');

const ideas: Check = (v) => {
  const wrong = (i: unknown): boolean => {
    const idea = i as Partial<ConcludedIdea> | null;
    if (typeof idea !== 'object' || idea === null) return true;
    if (typeof idea.condition !== 'string' || !/^[a-z0-9-]{1,60}$/.test(idea.condition)) return true;
    if (sideOfIdea(idea.side) !== null || verdict(idea.verdict) !== null) return true;
    if (typeof idea.leads !== 'boolean') return true;
    const reasoned = typeof idea.reason === 'string' && idea.reason.trim() !== '';
    return idea.verdict === 'rejected'
      ? !reasoned || text(idea.reason) !== null
      : idea.reason !== null && text(idea.reason) !== null;
  };
  return Array.isArray(v) && v.length <= ENTRY_LIMITS.list && !v.some(wrong)
    ? null
    : 'ideas agreed, added, or rejected with a reason';
};

const isDay = (v: unknown): boolean =>
  typeof v === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(v) && !Number.isNaN(Date.parse(v));

const limits: Check = (v) => {
  const l = v as Partial<Limits> | null;
  if (typeof l !== 'object' || l === null) return 'what is allowed, by whom and since when';
  if (oneOf('surgery', 'cast', 'fracture', 'other')(l.what) !== null)
    return 'surgery, a cast, a fracture or something else';
  if (!isDay(l.day)) return 'a day';
  if (oneOf(...WEIGHT_BEARING)(l.weightBearing) !== null) return 'weight-bearing none, partial or full';
  if (l.weightBearing === 'partial' && within(1, 150)(l.partialKg) !== null)
    return 'partial weight from 1 to 150 kg';
  if (l.weightBearing !== 'partial' && l.partialKg !== null) return 'no kilograms unless it is partial';
  if (someOf(TAGS)(l.allowed) !== null) return 'a list of what is allowed';
  if (typeof l.by !== 'string' || l.by.trim() === '' || !shortText(l.by)) return 'who said it';
  return typeof l.text === 'string' && l.text.trim() !== '' && text(l.text) === null
    ? null
    : 'the allowed range and limits in words';
};

const EXACT: Readonly<Record<string, Check>> = {
  'story.side': oneOf('left', 'right', 'both'),
  'story.regions': list,
  'story.onset': oneOf('gradual', 'sudden', 'injury'),
  'story.since': oneOf(
    'under-2-weeks',
    '2-to-6-weeks',
    '6-weeks-to-3-months',
    '3-to-6-months',
    '6-to-12-months',
    'over-a-year',
  ),
  'story.days': within(0, 60),
  'story.worst': score,
  'story.now': score,
  'story.provoked': flag,
  'story.settles': within(0, 1440),
  'story.night': flag,
  'story.load-change': list,
  'story.character': list,
  'story.worse-when': list,
  'story.activities': activities,
  'story.goal': text,
  'visit.measures': list,
  'conclude.condition': oneOf('agree', 'other', 'open'),
  'conclude.ideas': ideas,
  'conclude.other': text,
  'conclude.stage': (v) => (typeof v === 'string' && /^[a-z0-9-]{1,60}$/.test(v) ? null : 'a stage'),
  'conclude.stage-reason': text,
};

function checkFor(key: string): Check | null {
  const exact = Object.hasOwn(EXACT, key) ? EXACT[key] : undefined;
  if (exact !== undefined) return exact;
  if (/^safety\.[a-z0-9-]+$/.test(key)) return oneOf('no', 'yes', 'left', 'right', 'both', 'not-tested');
  if (/^measure\.[a-z0-9-]+\.(left|right|none)$/.test(key)) return measure;
  if (/^finding\.[a-z0-9-]+\.(left|right|none)$/.test(key)) return oneOf('present', 'absent', 'not-tested');
  if (/^skill\.[a-z0-9-]+\.(left|right)$/.test(key)) return oneOf('none', 'partial', 'learned');
  if (/^limits\.(left|right)$/.test(key)) return limits;
  if (key.startsWith('look.')) return lookCheck(key);
  if (/^skip\.(story|safety|look|measure|load|feel)$/.test(key)) return reason;
  if (/^note\.[a-z]+$/.test(key)) return text;
  return null;
}

/** What a value for this key should have been; null when it is fine. A null value clears the entry and is always fine. */
export function entryProblem(key: string, value: unknown): string | null {
  const check = checkFor(key);
  if (check === null) return 'a known entry';
  return value === null ? null : check(value);
}
