import {
  type Affected,
  emptyRecord,
  type FindingState,
  type Limits,
  type SafetyAnswer,
  type SafetyState,
  screenRecord,
  type Side,
  type Tag,
} from '@heathstep/core';
import type { ContentBundle } from '../bundle.js';

/** A made-up person who could be hurt, and what a careful physiotherapist would and would not give. */
export interface Endangered {
  readonly who: string;
  readonly age: number | null;
  readonly affected: Affected;
  /** Parts that the complaint concerns; all where left out. */
  readonly concerned?: readonly string[];
  /** Answers other than no, by question; `open` leaves a question unanswered. */
  readonly answers?: Readonly<Record<string, SafetyAnswer | 'open'>>;
  /** Left and right. */
  readonly measures?: Readonly<Record<string, readonly [left: number | null, right: number | null]>>;
  /** Marked on the drawings, as `sign.side`. */
  readonly seen?: readonly string[];
  /** Found present, as `finding.side`. */
  readonly found?: readonly string[];
  readonly limits?: Partial<Record<Side, Limits>>;
  /** Rules that must open, as `rule` or `rule.side`. */
  readonly opens?: readonly string[];
  /** Rules that must not. */
  readonly shut?: readonly string[];
  /** Whether any plan may be given. */
  readonly blocked: boolean;
  /** Sides of which nothing at all may be offered. */
  readonly nothing?: readonly Side[];
  /** Exercises that must not be offered on any side. */
  readonly never?: readonly string[];
  /** Tags none of whose exercises may be offered on any side. */
  readonly noTags?: readonly Tag[];
  /** Exercises that must still be offered, so that nobody is left with nothing for no reason. */
  readonly still?: readonly string[];
}

const SIDES: readonly Side[] = ['left', 'right'];

/** Every question answered no, but for what is told. */
export function screenOf(p: Endangered, content: ContentBundle): SafetyState {
  const answers: Record<string, SafetyAnswer> = {};
  for (const q of content.safetyQuestions) {
    const told = p.answers?.[q.key];
    if (told !== 'open') answers[q.key] = told ?? 'no';
  }
  for (const key of Object.keys(p.answers ?? {}))
    if (!(key in answers) && p.answers?.[key] !== 'open') throw new Error(`${p.who}: no question ${key}`);
  const found = new Map(
    (p.found ?? []).map((id): [string, FindingState] => {
      const key = id.slice(0, id.lastIndexOf('.'));
      const finding = content.findings.find((f) => f.key === key);
      if (finding === undefined) throw new Error(`${p.who}: no finding ${key}`);
      return [finding.sides === 'person' ? `${key}.none` : id, 'present'];
    }),
  );
  const measure = (key: string) => content.measures.find((m) => m.key === key);
  for (const key of Object.keys(p.measures ?? {}))
    if (measure(key) === undefined) throw new Error(`${p.who}: no measure ${key}`);
  return screenRecord(content, {
    answers,
    found,
    record: {
      ...emptyRecord(p.age),
      measure,
      measured: (key, side) => (side === 'none' ? null : (p.measures?.[key]?.[SIDES.indexOf(side)] ?? null)),
      seen: (sign, side) => (p.seen?.includes(`${sign}.${side}`) === true ? sign : null),
    },
    affected: p.affected,
    firstVisit: true,
    ...(p.concerned === undefined ? {} : { concerned: new Set(p.concerned) }),
    closures: [],
    ...(p.limits === undefined ? {} : { limits: p.limits }),
    labelOf: (key) => key,
  });
}
