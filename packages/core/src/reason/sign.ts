import { say } from '../quantity/tongue.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { semAt } from '../measure/error.js';
import { medianFor, type Sex } from '../measure/norms.js';
import { withUnit } from '../measure/withUnit.js';
import { otherSide, type Side } from '../quantity/side.js';
import { above, atLeast, shown } from '../quantity/statistics.js';
import type { Sign } from './definition.js';

export type Column = Side | 'none';
type SignState = 'present' | 'absent' | 'unknown';

/** What one sign comes to. `weak` when it hangs on a value within the error of its threshold. */
export interface SignReading {
  readonly state: SignState;
  readonly weak: boolean;
  readonly because: readonly string[];
}

/** The record, as far as signs read it. Null is not known throughout. */
export interface SignSource {
  readonly measured: (measure: string, side: Column) => number | null;
  readonly measure: (key: string) => MeasureDefinition | undefined;
  /** Words of a story answer. */
  readonly told: (key: string) => readonly string[] | null;
  /** Regions of a side where it hurts; null when none was marked on either side. */
  readonly marked: (side: Side) => readonly string[] | null;
  readonly safety: (question: string, side: Column) => boolean | null;
  /** Words for a marked sign, false when it was looked at and is not there. */
  readonly seen: (sign: string, side: Side) => string | false | null;
  readonly point: (pose: string, point: string, side: Side) => string | null;
  readonly ageYears: number | null;
  readonly sex?: Sex | null;
  readonly finding: (key: string, side: Column) => SignReading;
}

/** What a sign hangs on when it is no figure; a finding is named with it. */
export const PLAIN = {
  get marked() {
    return say('marked on the drawing');
  },
  get notMarked() {
    return say('not marked on the drawing');
  },
  get told() {
    return say('as the story tells');
  },
  get safety() {
    return say('answered in Safety');
  },
  get looked() {
    return say('looked at');
  },
  get answered() {
    return say('answered at the visit');
  },
};

export const UNKNOWN: SignReading = { state: 'unknown', weak: false, because: [] };
const reading = (present: boolean, because: string, weak = false): SignReading => ({
  state: present ? 'present' : 'absent',
  weak,
  because: [because],
});

type Compared = Extract<Sign, { measure: string }>;

const HOLDS = {
  '>=': atLeast,
  '>': above,
  '<=': (a: number, b: number) => atLeast(b, a),
  '<': (a: number, b: number) => above(b, a),
} as const;

const LIMIT_WORDS: Readonly<Record<Compared['op'], (limit: string) => string>> = {
  '<': (limit) => say('under {{limit}}', { limit }),
  '<=': (limit) => say('{{limit}} or less', { limit }),
  '>': (limit) => say('over {{limit}}', { limit }),
  '>=': (limit) => say('{{limit}} or more', { limit }),
};

/** `9, under 20`, or `25, not under 20`. */
const against = (text: string, op: Compared['op'], limit: string, holds: boolean): string =>
  `${text}, ${holds ? '' : say('not ')}${LIMIT_WORDS[op](limit)}`;

/** A value against a limit; nearer to it than one standard error (times the root of how many values went in) it counts weakly. */
function limited(
  m: MeasureDefinition,
  { value, op, limit }: { readonly value: number; readonly op: Compared['op']; readonly limit: number },
  text: string,
  values = 1,
): SignReading {
  const sem = semAt(m, value);
  const weak = sem !== null && Math.abs(value - limit) < sem * Math.sqrt(values);
  const holds = HOLDS[op](value, limit);
  const words = against(text, op, shown(limit), holds);
  return reading(holds, `${words}${weak ? say(', within the error of the measurement') : ''}`, weak);
}

const either = (source: SignSource, key: string, side: Column): number | null =>
  source.measured(key, side) ?? source.measured(key, 'none');

function ownValue(sign: Compared, side: Column, source: SignSource): SignReading {
  const m = source.measure(sign.measure);
  const value = either(source, sign.measure, side);
  if (m === undefined || value === null) return UNKNOWN;
  return limited(
    m,
    { value, op: sign.op, limit: sign.value },
    `${say(m.label)} ${withUnit(m, value, m.decimals)}`,
  );
}

function otherwiseThanOther(
  sign: Extract<Sign, { by: number }>,
  side: Column,
  source: SignSource,
): SignReading {
  const less = 'less' in sign;
  const key = less ? sign.less : sign.more;
  const m = source.measure(key);
  if (side === 'none' || m === undefined) return UNKNOWN;
  const own = source.measured(key, side);
  const other = source.measured(key, otherSide(side));
  if (own === null || other === null) return UNKNOWN;
  const by = less ? other - own : own - other;
  const text = say('{{label}} {{withUnit}} {{words}} than the other side', {
    label: m.label,
    withUnit: withUnit(m, Math.abs(by), m.decimals),
    words: by < 0 === less ? say('more') : say('less'),
  });
  const sem = semAt(m, own);
  const weak = sem !== null && Math.abs(by - sign.by) < sem;
  const holds = above(by, sign.by);
  const words = against(text, '>', shown(sign.by), holds);
  return reading(holds, `${words}${weak ? say(', within the error of the measurement') : ''}`, weak);
}

function shareOfOther(
  sign: Extract<Sign, { shareOf: string }>,
  side: Column,
  source: SignSource,
): SignReading {
  const m = source.measure(sign.shareOf);
  if (side === 'none' || m === undefined) return UNKNOWN;
  const own = source.measured(sign.shareOf, side);
  const other = source.measured(sign.shareOf, otherSide(side));
  if (own === null || other === null || other <= 0) return UNKNOWN;
  const share = (own / other) * 100;
  const holds = above(sign.under, share);
  const text = say('{{label}} {{share}} % of the other side', { label: m.label, share: shown(share, 0) });
  return reading(holds, against(text, '<', `${sign.under} %`, holds));
}

function underUsual(
  sign: Extract<Sign, { underUsual: string }>,
  side: Column,
  source: SignSource,
): SignReading {
  const m = source.measure(sign.underUsual);
  const value = either(source, sign.underUsual, side);
  const median = m === undefined ? null : medianFor(m, source.ageYears, source.sex ?? null);
  if (m === undefined || value === null || median === null) return UNKNOWN;
  const limit = median.low * sign.share;
  const text = `${say(m.label)} ${withUnit(m, value, m.decimals)}`;
  return limited(
    m,
    { value, op: '<', limit },
    say('{{text}}, usual for age about {{low}}', { text, low: shown(median.low) }),
  );
}

function gained(sign: Extract<Sign, { gain: string }>, side: Column, source: SignSource): SignReading {
  const m = source.measure(sign.gain);
  const gain = source.measured(sign.gain, side);
  const over = source.measured(sign.over, side);
  if (m === undefined || gain === null || over === null) return UNKNOWN;
  const by = gain - over;
  return limited(
    m,
    { value: by, op: '>=', limit: sign.atLeast },
    say('{{withUnit}} more with the knee bent', { withUnit: withUnit(m, by, m.decimals) }),
    2,
  );
}

function marked(sign: Extract<Sign, { marked: unknown }>, side: Column, source: SignSource): SignReading {
  const sides: readonly Side[] = side === 'none' ? ['left', 'right'] : [side];
  const lists = sides.map((s) => source.marked(s));
  if (lists.every((l) => l === null)) return UNKNOWN;
  const hit = sign.marked.filter((r) => lists.some((l) => l?.includes(r) === true));
  return reading(hit.length > 0, hit.length > 0 ? PLAIN.marked : PLAIN.notMarked);
}

const POINT_WORDS: Readonly<Record<string, string>> = { first: 'inner', fifth: 'outer', heel: 'heel' };
const POSE_WORDS: Readonly<Record<string, string>> = {
  stance: 'standing',
  squat: 'in a squat',
  raise: 'on a heel raise',
  single: 'on one leg',
};

function pointed(sign: Extract<Sign, { point: string }>, side: Column, source: SignSource): SignReading {
  if (side === 'none') return UNKNOWN;
  const states = sign.in.map((pose) => ({ pose, state: source.point(pose, sign.point, side) }));
  const known = states.filter((s) => s.state !== null);
  if (known.length === 0) return UNKNOWN;
  const hit = known.find((s) => sign.is.includes(s.state ?? ''));
  const told = hit ?? known[0];
  return reading(
    hit !== undefined,
    say('{{point}} support point {{state}}, {{value}}', {
      point: say(POINT_WORDS[sign.point] ?? sign.point),
      state: told?.state ?? '',
      value: say(POSE_WORDS[told?.pose ?? ''] ?? told?.pose ?? ''),
    }),
  );
}

function joined(readings: readonly SignReading[], decisive: 'present' | 'absent'): SignReading {
  const deciding = readings.filter((r) => r.state === decisive);
  if (deciding.length > 0) {
    const clear = deciding.filter((r) => !r.weak);
    const told = clear.length > 0 ? clear : deciding;
    return { state: decisive, weak: clear.length === 0, because: told.flatMap((r) => r.because) };
  }
  if (readings.length === 0 || readings.some((r) => r.state === 'unknown'))
    return { state: 'unknown', weak: false, because: [] };
  return {
    state: decisive === 'present' ? 'absent' : 'present',
    weak: readings.some((r) => r.weak),
    because: readings.flatMap((r) => r.because),
  };
}

const NEGATED = { present: 'absent', absent: 'present', unknown: 'unknown' } as const;

/** Reads one sign on a side, or for the person. Unknown parts never count as absent. */
export function readSign(sign: Sign, side: Column, source: SignSource): SignReading {
  if ('all' in sign)
    return joined(
      sign.all.map((s) => readSign(s, side, source)),
      'absent',
    );
  if ('any' in sign)
    return joined(
      sign.any.map((s) => readSign(s, side, source)),
      'present',
    );
  if ('either' in sign) {
    const known = sign.either.map((s) => readSign(s, side, source)).filter((r) => r.state !== 'unknown');
    return known.length === 0 ? UNKNOWN : joined(known, 'present');
  }
  if ('ruledOutBy' in sign) {
    const other = readSign(sign.ruledOutBy, side, source);
    return other.state === 'present' ? { ...other, state: 'absent' } : UNKNOWN;
  }
  if ('not' in sign) {
    const inner = readSign(sign.not, side, source);
    return { ...inner, state: NEGATED[inner.state] };
  }
  if ('measure' in sign) return ownValue(sign, side, source);
  if ('by' in sign) return otherwiseThanOther(sign, side, source);
  if ('underUsual' in sign) return underUsual(sign, side, source);
  if ('shareOf' in sign) return shareOfOther(sign, side, source);
  if ('gain' in sign) return gained(sign, side, source);
  if ('marked' in sign) return marked(sign, side, source);
  if ('point' in sign) return pointed(sign, side, source);
  if ('told' in sign) {
    const words = source.told(sign.told);
    if (words === null) return UNKNOWN;
    return reading(
      sign.has.some((w) => words.includes(w)),
      say('as the story tells'),
    );
  }
  if ('safety' in sign) {
    const answer = source.safety(sign.safety, side);
    return answer === null ? UNKNOWN : reading(answer, PLAIN.safety);
  }
  if ('seen' in sign) {
    const seen = side === 'none' ? null : source.seen(sign.seen, side);
    return seen === null ? UNKNOWN : reading(seen !== false, seen === false ? PLAIN.looked : seen);
  }
  if ('ageFrom' in sign)
    return source.ageYears === null
      ? UNKNOWN
      : reading(source.ageYears >= sign.ageFrom, say('age {{ageYears}}', { ageYears: source.ageYears }));
  return source.finding(sign.finding, side);
}
