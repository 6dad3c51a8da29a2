import { say } from '../quantity/tongue.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { guardReading } from '../measure/guard.js';
import type { Side } from '../quantity/side.js';
import { nearest } from './nearest.js';

/** Readings for one measure on one side, as one line of typing says them. */
export interface QuickItem {
  readonly measure: string;
  readonly side: Side | 'none';
  readonly trials: readonly number[];
  readonly status: 'taken' | 'not-done' | 'unable' | 'stopped-by-pain';
  readonly pain: number | null;
}

/** Where a line goes wrong, why, and the closest line that would do. */
export interface QuickProblem {
  readonly start: number;
  readonly end: number;
  readonly message: string;
  readonly nearest: string | null;
}

export type QuickResult =
  | { readonly ok: true; readonly items: readonly QuickItem[] }
  | { readonly ok: false; readonly problem: QuickProblem };

export interface Token {
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

const SIDE_WORDS: Readonly<Record<string, readonly Side[]>> = {
  l: ['left'],
  left: ['left'],
  r: ['right'],
  right: ['right'],
  b: ['left', 'right'],
  both: ['left', 'right'],
};

const STATUS_WORDS: Readonly<Record<string, QuickItem['status']>> = {
  unable: 'unable',
  skip: 'not-done',
  stopped: 'stopped-by-pain',
};

const MOST_TRIALS = 10;

/** The words of a quick line with where each begins. */
export const tokensOf = (line: string): Token[] =>
  [...line.matchAll(/;|[^\s;]+/g)].map((m) => ({
    text: m[0],
    start: m.index,
    end: m.index + m[0].length,
  }));

/** Every name a measure answers to, words apart, lower case: its aliases first, then its key. */
export const namesOf = (measure: MeasureDefinition): string[] => [
  ...measure.aliases.map((a) => a.toLowerCase()),
  measure.key.replaceAll('-', ' '),
];

class Fault extends Error {
  constructor(readonly problem: QuickProblem) {
    super(problem.message);
  }
}

const fault = (from: Token, message: string, near: string | null = null, to = from): never => {
  throw new Fault({ start: from.start, end: to.end, message, nearest: near });
};

interface Named {
  readonly measure: MeasureDefinition;
  /** Tokens the name takes up: one when it is written with hyphens. */
  readonly tokens: number;
}

/** The measure whose name is the longest one at the start of the words. */
function nameAt(words: readonly Token[], measures: readonly MeasureDefinition[]): Named | null {
  const first = words[0]?.text.toLowerCase() ?? '';
  let best: (Named & { readonly length: number }) | null = null;
  for (const measure of measures) {
    for (const name of namesOf(measure)) {
      const parts = name.split(' ');
      const apart = parts.every((part, i) => words[i]?.text.toLowerCase() === part);
      const hyphened = parts.length > 1 && first === parts.join('-');
      if ((apart || hyphened) && parts.length > (best?.length ?? 0))
        best = { measure, tokens: hyphened ? 1 : parts.length, length: parts.length };
    }
  }
  return best;
}

const isName = (t: Token): boolean => /^[a-z-]+$/i.test(t.text);

function unknownName(words: readonly Token[], measures: readonly MeasureDefinition[]): never {
  const first = words[0] as Token;
  const run = words.slice(
    0,
    Math.max(
      1,
      words.findIndex((w) => !isName(w) || w.text.toLowerCase() in SIDE_WORDS),
    ),
  );
  const name = run.map((w) => w.text.toLowerCase()).join(' ');
  const close = nearest(name, measures.flatMap(namesOf));
  const rest = words.slice(run.length).map((w) => w.text);
  return fault(
    first,
    say('There is no measure called {{name}}', { name }),
    close === null ? null : [close, ...rest].join(' '),
    run[run.length - 1],
  );
}

interface Part {
  sides: readonly (Side | 'none')[];
  trials: number[];
  status: QuickItem['status'];
  pain: number | null;
  at: Token;
}

function painAfter(tokens: readonly Token[], i: number): number {
  const word = tokens[i] as Token;
  const next = tokens[i + 1];
  if (next === undefined) return fault(word, say('Pain is a whole number from 0 to 10'), `${word.text} 3`);
  if (!/^\d{1,2}$/.test(next.text) || Number(next.text) > 10)
    return fault(next, say('Pain is a whole number from 0 to 10'), '10');
  return Number(next.text);
}

/** A value may be two words when the second is its unit: `80 mm`. */
function valueAt(
  measure: MeasureDefinition,
  tokens: readonly Token[],
  i: number,
): { value: number; used: number } {
  const token = tokens[i] as Token;
  const next = tokens[i + 1];
  const unit =
    next !== undefined &&
    /^(mm|cm|km|m|s|sec|min|h|deg|n|kgf|kg|c|reps|points|m\/s|km\/h|%|°)$/i.test(next.text);
  if (unit) {
    const both = guardReading(measure, `${token.text} ${next.text}`);
    if (both.state === 'fine' || both.state === 'unusual') return { value: both.value, used: 2 };
    if (both.state === 'impossible')
      fault(token, both.message, both.meant === undefined ? null : String(both.meant), next);
  }
  const read = guardReading(measure, token.text);
  if (read.state === 'fine' || read.state === 'unusual') return { value: read.value, used: 1 };
  if (read.state === 'impossible') {
    const words = [
      ...Object.keys(SIDE_WORDS),
      ...Object.keys(STATUS_WORDS),
      'pain',
      ...(measure.levels ?? []).map((l) => l.word),
    ];
    const close = isName(token)
      ? nearest(token.text.toLowerCase(), words)
      : read.meant === undefined
        ? null
        : String(read.meant);
    const message =
      isName(token) && measure.levels === null
        ? say('{{text}} is neither a number nor a word of this line', { text: token.text })
        : read.message;
    fault(token, message, close);
  }
  return fault(token, say('Type a number'));
}

function partsOf(measure: MeasureDefinition, tokens: readonly Token[], at: Token): Part[] {
  const parts: Part[] = [];
  const open = (sides: readonly (Side | 'none')[], token: Token): Part => {
    const part: Part = { sides, trials: [], status: 'taken', pain: null, at: token };
    parts.push(part);
    return part;
  };
  let part: Part | null = measure.sides === 'single' ? open(['none'], at) : null;
  for (let i = 0; i < tokens.length;) {
    const token = tokens[i] as Token;
    const word = token.text.toLowerCase();
    if (Object.hasOwn(SIDE_WORDS, word)) {
      if (measure.sides === 'single') fault(token, say('{{label}} has no sides', { label: measure.label }));
      part = open(SIDE_WORDS[word] ?? [], token);
      i += 1;
      continue;
    }
    const now: Part = part ?? fault(token, say('Which side? Say l or r before the value'), `l ${token.text}`);
    if (Object.hasOwn(STATUS_WORDS, word)) {
      now.status = STATUS_WORDS[word] ?? 'taken';
      now.at = token;
      i += 1;
    } else if (word === 'pain') {
      now.pain = painAfter(tokens, i);
      i += 2;
    } else {
      const { value, used } = valueAt(measure, tokens, i);
      now.trials.push(value);
      if (now.trials.length > MOST_TRIALS)
        fault(token, say('At most {{mostTrials}} trials', { mostTrials: MOST_TRIALS }));
      i += used;
    }
  }
  return parts;
}

function itemOf(tokens: readonly Token[], measures: readonly MeasureDefinition[]): QuickItem[] {
  const named = nameAt(tokens, measures);
  if (named === null) return unknownName(tokens, measures);
  const { measure, tokens: used } = named;
  const at = tokens[used - 1] as Token;
  if (measure.computed !== null)
    return fault(
      tokens[0] as Token,
      say('{{label}} is worked out from others, not typed', { label: measure.label }),
    );
  const parts = partsOf(measure, tokens.slice(used), at);
  const usual = measure.sides === 'each' ? 'l ' : '';
  if (parts.length === 0)
    fault(
      at,
      say('Say the side and the value'),
      `${namesOf(measure)[0] ?? ''} ${usual}${String(measure.usual.min)}`,
    );
  return parts.flatMap((part) => {
    if (part.status === 'taken' && part.trials.length === 0 && part.pain === null)
      return fault(part.at, say('A value, unable, skip or stopped is wanted here'));
    if (part.status !== 'taken' && part.trials.length > 0)
      return fault(part.at, say('Either a value or why there is none, not both'));
    return part.sides.map((side): QuickItem => ({
      measure: measure.key,
      side,
      trials: part.trials,
      status: part.status,
      pain: part.pain,
    }));
  });
}

/**
 * Reads one line of the quick grammar: `name side values [pain n] [side values ...] [; name ...]`.
 * Sides are l, r or b; instead of values `unable`, `skip` or `stopped`. Values may carry a unit of their kind.
 *
 * @example parseQuick('lunge l 34 35 33 r 31 pain 3', measures)
 */
export function parseQuick(line: string, measures: readonly MeasureDefinition[]): QuickResult {
  const tokens = tokensOf(line);
  const groups: Token[][] = [[]];
  for (const t of tokens) {
    if (t.text === ';') groups.push([]);
    else (groups[groups.length - 1] as Token[]).push(t);
  }
  try {
    const items = groups.filter((g) => g.length > 0).flatMap((g) => itemOf(g, measures));
    return { ok: true, items };
  } catch (error) {
    if (error instanceof Fault) return { ok: false, problem: error.problem };
    throw error;
  }
}

const STATUS_PRINT = {
  taken: '',
  'not-done': 'skip',
  unable: 'unable',
  'stopped-by-pain': 'stopped',
} as const;

function printPart(item: QuickItem, measure: MeasureDefinition): string {
  const wordOf = (v: number) =>
    measure.levels?.find((l) => l.value === v)?.word.includes(' ') === false
      ? (measure.levels.find((l) => l.value === v)?.word ?? String(v))
      : String(v);
  return [
    item.side === 'none' ? '' : item.side === 'left' ? 'l' : 'r',
    STATUS_PRINT[item.status],
    ...item.trials.map(wordOf),
    item.pain === null ? '' : say('pain {{pain}}', { pain: item.pain }),
  ]
    .filter((t) => t !== '')
    .join(' ');
}

/** Writes items as one line that reads back to the same items; sides of one measure that follow each other share its name. */
export function printQuick(items: readonly QuickItem[], measures: readonly MeasureDefinition[]): string {
  const out: string[] = [];
  let last: QuickItem | null = null;
  for (const item of items) {
    const measure = measures.find((m) => m.key === item.measure);
    if (measure === undefined) continue;
    const shares = last?.measure === item.measure && item.side !== 'none';
    out.push(
      shares
        ? ` ${printPart(item, measure)}`
        : `${out.length > 0 ? '; ' : ''}${namesOf(measure)[0] ?? ''} ${printPart(item, measure)}`,
    );
    last = item;
  }
  return out.join('');
}
