import {
  BODY_MASS,
  type Column,
  FINDING_STATES,
  SAFETY_ANSWERS,
  SKILL_LEVELS,
  phrase,
  say,
} from '@heathstep/core';
import { POSES } from '../look.js';
import * as check from './checks.js';
import type {
  EntryKind,
  EntryKindValues,
  EntryKey,
  NamedEntries,
  NamedKey,
  SkippableStep,
} from './values.js';

/**
 * How long an entry stands. `visit`: only for the visit it was entered at. `record`: the newest counts until another is
 * entered, but a new visit asks anew. `person`: as record, and a new visit begins with it filled in.
 */
export type Stands = 'visit' | 'record' | 'person';

interface Registered<V> {
  /** What the entry is about, within a sentence. */
  readonly words: string;
  readonly stands: Stands;
  readonly check: check.Check<V>;
  /** A story without it is not whole. */
  readonly needed?: true;
}

/** Every entry with a key of its own. A new one is a line here and a line in NamedEntries. */
const NAMED: { readonly [K in NamedKey]: Registered<NamedEntries[K]> } = {
  'story.regions': { words: phrase('where it hurts'), stands: 'person', check: check.list, needed: true },
  'story.side': {
    words: phrase('the treated side'),
    stands: 'person',
    check: check.oneOf('left', 'right', 'both'),
  },
  'story.onset': {
    words: phrase('how it began'),
    stands: 'person',
    check: check.oneOf('gradual', 'sudden', 'injury'),
    needed: true,
  },
  'story.since': {
    words: phrase('since when'),
    stands: 'person',
    check: check.oneOf(
      'under-2-weeks',
      '2-to-6-weeks',
      '6-weeks-to-3-months',
      '3-to-6-months',
      '6-to-12-months',
      'over-a-year',
    ),
  },
  'story.days': { words: phrase('days since it began'), stands: 'person', check: check.within(0, 60) },
  'story.worst': { words: phrase('worst pain'), stands: 'record', check: check.score, needed: true },
  'story.now': { words: phrase('pain now'), stands: 'record', check: check.score, needed: true },
  'story.provoked': {
    words: phrase('how soon it is provoked'),
    stands: 'record',
    check: check.flag,
    needed: true,
  },
  'story.settles': {
    words: phrase('how long it lasts'),
    stands: 'record',
    check: check.within(0, 1440),
    needed: true,
  },
  'story.night': { words: phrase('night pain'), stands: 'record', check: check.flag, needed: true },
  'story.load-change': { words: phrase('what changed before it'), stands: 'person', check: check.list },
  'story.character': {
    words: phrase('burning or numbness'),
    stands: 'person',
    check: check.list,
    needed: true,
  },
  'story.worse-when': { words: phrase('when it is worse'), stands: 'person', check: check.list },
  'story.activities': { words: phrase('own activities'), stands: 'person', check: check.activities },
  'story.goal': { words: phrase('the goal'), stands: 'person', check: check.text },
  'visit.measures': { words: phrase('measures added'), stands: 'record', check: check.list },
  'conclude.condition': {
    words: phrase('whether it can be told'),
    stands: 'visit',
    check: check.oneOf('agree', 'other', 'open'),
  },
  'conclude.ideas': { words: phrase('what it is'), stands: 'visit', check: check.ideas },
  'conclude.other': { words: phrase('what it is, in words'), stands: 'visit', check: check.text },
  'conclude.stage': { words: phrase('the starting stage'), stands: 'visit', check: check.stageKey },
  'letter.safety': { words: phrase('the letter for safety signs'), stands: 'visit', check: check.text },
  'letter.conclude': { words: phrase('the letter to refer'), stands: 'visit', check: check.text },
  'conclude.stage-reason': { words: phrase('why this stage'), stands: 'visit', check: check.text },
};

interface RegisteredKind<V> extends Registered<V> {
  readonly key: RegExp;
}

const side = '(left|right)';
const column = '(left|right|none)';
const name = '([a-z0-9-]+)';
const steps: readonly SkippableStep[] = ['story', 'safety', 'look', 'measure', 'load', 'feel'];

const keyed = (...parts: readonly string[]): RegExp => new RegExp(`^${parts.join('\\.')}$`);

/** Every kind of entry whose key names something. A new one is a line here and one each in EntryKindValues and KindKeys. */
const KINDS: { readonly [N in EntryKind]: RegisteredKind<EntryKindValues[N]> } = {
  safety: {
    key: keyed('safety', name),
    words: phrase('a safety answer'),
    stands: 'visit',
    check: check.oneOf(...SAFETY_ANSWERS),
  },
  measure: {
    key: keyed('measure', name, column),
    words: phrase('a measure'),
    stands: 'record',
    check: check.measure,
  },
  finding: {
    key: keyed('finding', name, column),
    words: phrase('a finding'),
    stands: 'record',
    check: check.oneOf(...FINDING_STATES),
  },
  skill: {
    key: keyed('skill', name, side),
    words: phrase('a skill'),
    stands: 'record',
    check: check.oneOf(...SKILL_LEVELS),
  },
  limits: {
    key: keyed('limits', side),
    words: phrase('limits set by others'),
    stands: 'record',
    check: check.limits,
  },
  numb: { key: keyed('look', 'numb', side), words: phrase('feeling'), stands: 'record', check: check.numb },
  tender: {
    key: keyed('look', 'tender', side),
    words: phrase('tender bones'),
    stands: 'record',
    check: check.tender,
  },
  toes: { key: keyed('look', 'toes', side), words: phrase('toes'), stands: 'record', check: check.toes },
  wear: { key: keyed('look', 'wear', side), words: phrase('shoe wear'), stands: 'record', check: check.wear },
  callus: {
    key: keyed('look', 'callus', side),
    words: phrase('hard skin'),
    stands: 'record',
    check: check.callus,
  },
  points: {
    key: keyed('look', 'points', `(${POSES.map(([p]) => p).join('|')})`, side),
    words: phrase('support points'),
    stands: 'record',
    check: check.points,
  },
  skip: {
    key: keyed('skip', `(${steps.join('|')})`),
    words: phrase('a step left out'),
    stands: 'record',
    check: check.reason,
  },
  untested: {
    key: keyed('untested', name),
    words: phrase('why a test was left out'),
    stands: 'visit',
    check: check.reason,
  },
  note: { key: keyed('note', '([a-z]+)'), words: phrase('a note'), stands: 'record', check: check.text },
};

const kindList = Object.entries(KINDS) as [EntryKind, RegisteredKind<unknown>][];

const isNamed = (key: string): key is NamedKey => Object.hasOwn(NAMED, key);

/** An entry's key taken apart: its kind, what it names, and the side. */
export interface ReadKey {
  readonly kind: EntryKind;
  readonly name: string;
  readonly side: Column;
}

/** What a key names; null for one with a key of its own, and for an unknown one. */
export function readKey(key: string): ReadKey | null {
  for (const [kind, { key: pattern }] of kindList) {
    const found = pattern.exec(key);
    if (found === null) continue;
    const last = found.at(-1) ?? '';
    const sided = last === 'left' || last === 'right' || last === 'none';
    return { kind, name: found[1] ?? '', side: sided ? last : 'none' };
  }
  return null;
}

function registered(key: string): Registered<unknown> | null {
  if (isNamed(key)) return NAMED[key];
  const read = readKey(key);
  return read === null ? null : KINDS[read.kind];
}

/** What a value for this key should have been; null when it is fine. A null value clears the entry and is always fine. */
export function entryProblem(key: string, value: unknown): string | null {
  const entry = registered(key);
  if (entry === null) return say('a known entry');
  return value === null ? null : entry.check(value);
}

/** What an entry is about, within a sentence; one that names something is named by whoever knows the content. */
export const entryWords = (key: string): string => say(registered(key)?.words ?? key);

/** Body mass is asked in the story and changes slowly. */
const BODY_MASS_KEY = `measure.${BODY_MASS}.none` as const;

/** How long an entry of this key stands. */
export const standsFor = (key: string): Stands =>
  key === BODY_MASS_KEY ? 'person' : (registered(key)?.stands ?? 'record');

/** Entries a new visit begins with, filled in from the visit before. */
export const LASTING: readonly EntryKey[] = [
  ...(Object.keys(NAMED) as NamedKey[]).filter((k) => NAMED[k].stands === 'person'),
  BODY_MASS_KEY,
];

/** What a whole story needs, in the order it is told. */
export const STORY_NEEDS: readonly NamedKey[] = (Object.keys(NAMED) as NamedKey[]).filter(
  (k) => NAMED[k].needed === true,
);

/** Entries of one kind, with what each names. */
export function entriesOfKind<N extends EntryKind>(
  entries: Iterable<readonly [key: string, value: unknown]>,
  kind: N,
): { readonly name: string; readonly side: Column; readonly value: EntryKindValues[N] }[] {
  return [...entries].flatMap(([key, value]) => {
    const read = readKey(key);
    if (read?.kind !== kind) return [];
    return [{ name: read.name, side: read.side, value: value as EntryKindValues[N] }];
  });
}
