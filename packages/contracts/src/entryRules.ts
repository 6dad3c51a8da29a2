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

const measure: Check = (v) => {
  const m = v as Partial<MeasureEntry> | null;
  if (typeof m !== 'object' || m === null) return 'trials with a status';
  if (
    !Array.isArray(m.trials) ||
    m.trials.length > 10 ||
    !m.trials.every((t) => t === null || (typeof t === 'number' && Number.isFinite(t)))
  ) {
    return 'up to 10 trials, each a number or nothing';
  }
  if (oneOf('taken', 'not-done', 'unable', 'stopped-by-pain')(m.status) !== null)
    return 'taken, not done, unable or stopped by pain';
  if (m.pain !== null && score(m.pain) !== null) return 'pain from 0 to 10, or nothing';
  return m.confirmed === undefined || typeof m.confirmed === 'boolean' ? null : 'confirmed or not';
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
  'story.worst': score,
  'story.now': score,
  'story.provoked': flag,
  'story.settles': within(0, 1440),
  'story.night': flag,
  'story.load-change': list,
  'story.character': list,
  'story.worse-when': list,
  'story.activities': activities,
  'story.body-mass': within(10, 350),
  'story.goal': text,
  'conclude.condition': oneOf('agree', 'other'),
  'conclude.other': text,
  'conclude.stage': oneOf('calm', 'build', 'heavy', 'return', 'upkeep'),
  'conclude.stage-reason': text,
};

function checkFor(key: string): Check | null {
  const exact = Object.hasOwn(EXACT, key) ? EXACT[key] : undefined;
  if (exact !== undefined) return exact;
  if (/^safety\.[a-z0-9-]+$/.test(key)) return oneOf('no', 'yes', 'left', 'right', 'both');
  if (/^measure\.[a-z0-9-]+\.(left|right|none)$/.test(key)) return measure;
  if (/^skill\.[a-z0-9-]+\.(left|right)$/.test(key)) return oneOf('none', 'partial', 'learned');
  if (/^note\.[a-z]+$/.test(key)) return text;
  return null;
}

/** What a value for this key should have been; null when it is fine. A null value clears the entry and is always fine. */
export function entryProblem(key: string, value: unknown): string | null {
  const check = checkFor(key);
  if (check === null) return 'a known entry';
  return value === null ? null : check(value);
}
