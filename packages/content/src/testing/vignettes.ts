import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  type Affected,
  type FindingState,
  type MeasureDefinition,
  openSigns,
  type Reasoning,
  reasonAbout,
  type SafetyState,
  type Side,
  type ScreenRecord,
  screenRecord,
  treatedSides,
} from '@heathstep/core';
import { readYaml } from '../readYaml.js';
import type { ContentBundle } from '../bundle.js';

/** A written case: what is known of a person, and what an experienced physiotherapist would think of first. */
export interface Vignette {
  readonly key: string;
  readonly kind: 'typical' | 'atypical' | 'mixed' | 'red-flag' | 'little';
  /** Held aside while weights were set. */
  readonly aside?: boolean;
  readonly text: string;
  readonly age: number;
  readonly days: number | null;
  readonly side: Affected;
  readonly told?: Readonly<Record<string, readonly string[]>>;
  readonly marked?: readonly string[];
  readonly present?: readonly string[];
  readonly absent?: readonly string[];
  /** Left and right. */
  readonly measures?: Readonly<Record<string, readonly [left: number, right: number]>>;
  /** Any of these may lead; empty where it cannot be told. */
  readonly expect: readonly string[];
  /** Each of these is at least possible. */
  readonly also?: readonly string[];
  /** One of these is among the first three that are asked next. */
  readonly asks?: readonly string[];
  /** None of these is among the first five. */
  readonly asksNot?: readonly string[];
  /** Conditions at least possible, or safety rules (`rule:KEY`, or a bare key of one) that are triggered. */
  readonly mustNotMiss?: readonly string[];
}

export function loadVignettes(): Vignette[] {
  const folder = join(__dirname, '..', '..', 'vignettes');
  return readdirSync(folder)
    .sort()
    .flatMap((file) => readYaml(readFileSync(join(folder, file), 'utf8')) as Vignette[]);
}

export interface Judged {
  readonly reasoning: Reasoning;
  readonly safety: SafetyState;
}

function answersOf(v: Vignette, content: ContentBundle): Map<string, FindingState> {
  const answers = new Map<string, FindingState>();
  const put = (key: string, state: FindingState) => {
    const finding = content.findings.find((f) => f.key === key);
    if (finding === undefined) throw new Error(`${v.key}: there is no finding ${key}`);
    const sides =
      finding.sides === 'person' || v.side === 'none' ? (['none'] as const) : treatedSides(v.side);
    for (const side of sides) answers.set(`${key}.${side}`, state);
  };
  for (const key of v.present ?? []) put(key, 'present');
  for (const key of v.absent ?? []) put(key, 'absent');
  return answers;
}

/** Runs one case through safety and reasoning, as a visit would. */
export function judgeVignette(v: Vignette, content: ContentBundle): Judged {
  const answers = answersOf(v, content);
  const injured = v.told?.['onset']?.includes('injury') === true && v.days !== null && v.days <= 10;
  const index = (side: Side) => (side === 'left' ? 0 : 1);
  const record: ScreenRecord = {
    measure: (key: string): MeasureDefinition | undefined => content.measures.find((m) => m.key === key),
    measured: (key, side) => (side === 'none' ? null : (v.measures?.[key]?.[index(side)] ?? null)),
    told: (key) => v.told?.[key] ?? null,
    marked: (side) => (v.marked === undefined ? null : treatedSides(v.side).includes(side) ? v.marked : []),
    seen: () => null,
    point: () => null,
    ageYears: v.age,
  };
  const safety = screenRecord(content, {
    answers: injured ? { 'injury-10-days': 'both' } : {},
    found: answers,
    record,
    affected: v.side,
    closures: [],
    labelOf: (key) => key,
  });
  const reasoning = reasonAbout(content, {
    answers,
    record: { ...record, safety: () => null },
    stops: openSigns(safety),
    affected: v.side,
    daysSinceOnset: v.days,
    tagsOff: (side) =>
      side === 'none' ? [...safety.tagsOff.left, ...safety.tagsOff.right] : safety.tagsOff[side],
  });
  return { reasoning, safety };
}

const IN_VIEW = new Set(['leading', 'likely', 'possible']);

/** Whether each thing a case must not miss is in view. */
export function missed(v: Vignette, { reasoning, safety }: Judged): string[] {
  return (v.mustNotMiss ?? []).filter((key) => {
    const rule = key.replace(/^rule:/, '');
    if (safety.triggered.some((t) => t.rule.key === rule)) return false;
    if (key.startsWith('rule:')) return true;
    return !reasoning.ranked.some((r) => r.key === key && IN_VIEW.has(r.rank));
  });
}

/** Right when one of the expected leads; and nothing leads where it cannot be told. */
export function rightlyLed(v: Vignette, judged: Judged): boolean {
  const leading = judged.reasoning.ranked.filter((r) => r.rank === 'leading').map((r) => r.key);
  if (v.expect.length === 0) return leading.length === 0;
  return leading.some((key) => v.expect.includes(key));
}

/** Expected companions that are not in view. */
export const notInView = (v: Vignette, { reasoning }: Judged): string[] =>
  (v.also ?? []).filter((key) => !reasoning.ranked.some((r) => r.key === key && IN_VIEW.has(r.rank)));

/** What is wrong with what would be asked next; empty when it is sensible. */
export function wronglyAsked(v: Vignette, { reasoning }: Judged): string[] {
  const next = reasoning.next.map((n) => n.finding);
  const wanted = v.asks === undefined || next.slice(0, 3).some((k) => v.asks?.includes(k));
  return [
    ...(wanted
      ? []
      : [`asks ${next.slice(0, 3).join(', ') || 'nothing'}, not one of ${v.asks?.join(', ') ?? ''}`]),
    ...next
      .slice(0, 5)
      .filter((k) => v.asksNot?.includes(k))
      .map((k) => `asks ${k}`),
  ];
}
