import {
  type Affected,
  type ExaminedPart,
  answerOn,
  type Closure,
  type Limits,
  type MeasureDefinition,
  type SafetyAnswer,
  type SafetyState,
  type ScreenContent,
  type ScreenInput,
  screenRecord,
  type Side,
  type TriggeredRule,
} from '@heathstep/core';
import { entriesOfKind, readKey } from './entries/registry.js';
import type { Entries } from './entries/values.js';
import { entriesOf } from './facts.js';
import { VisitReadings } from './measured.js';
import { findingAnswers, newestEntries, recordOf } from './record.js';
import type { VisitView } from './views.js';

/** A closure, and the visit at which it was made. */
export interface VisitClosure extends Closure {
  readonly visitId: string | null;
}

export interface SafetyOn {
  readonly affected: Affected;
  /** The key of the complaint: what it concerns is tested. */
  readonly complaint: string;
  readonly ageYears: number | null;
  readonly closures: readonly VisitClosure[];
}

type Content = ScreenContent & {
  readonly measures: readonly MeasureDefinition[];
  readonly bodyParts: readonly ExaminedPart[];
  readonly pathways: readonly { readonly key: string; readonly parts: readonly string[] }[];
};

/**
 * Parts of the body that a complaint concerns by itself, or that pain was marked on; undefined where the complaint is none of
 * those known, so that nothing is spared.
 */
function concernedParts(
  content: Content,
  entries: Entries,
  complaint: string,
): ReadonlySet<string> | undefined {
  const pathway = content.pathways.find((p) => p.key === complaint);
  if (pathway === undefined) return undefined;
  const marked = (entries.get('story.regions') ?? []).map((r) => r.slice(r.indexOf(':') + 1));
  const painful = content.bodyParts.filter((p) => p.areas.some((a) => marked.includes(a)));
  return new Set([...pathway.parts, ...painful.map((p) => p.key)]);
}

/** Safety answers of some entries, by question. */
const answersIn = (entries: Entries): Map<string, SafetyAnswer> =>
  new Map(entriesOfKind(entries, 'safety').map(({ name, value }) => [name, value]));

const isYes = (a: SafetyAnswer | undefined): boolean => answerOn(a, 'none') === true;

/**
 * The newest answer of each question over some visits, oldest first. A danger that was told stands until it is answered
 * no: leaving its test out does not take it away, and neither does beginning another visit.
 */
function standingAnswers(visits: readonly Entries[]): Record<string, SafetyAnswer> {
  const standing = new Map<string, SafetyAnswer>();
  for (const entries of visits)
    for (const [key, answer] of answersIn(entries))
      if (answer !== 'not-tested' || !isYes(standing.get(key))) standing.set(key, answer);
  return Object.fromEntries(standing);
}

function limitsIn(entries: Entries): Partial<Record<Side, Limits>> {
  const [left, right] = [entries.get('limits.left'), entries.get('limits.right')];
  return { ...(left === undefined ? {} : { left }), ...(right === undefined ? {} : { right }) };
}

function screened(
  content: Content,
  entries: Entries,
  on: SafetyOn,
  more: Pick<ScreenInput, 'answers'> & Partial<ScreenInput>,
): SafetyState {
  const readings = new VisitReadings(content.measures, entries);
  const concerned = concernedParts(content, entries, on.complaint);
  return screenRecord(content, {
    found: findingAnswers(entries),
    record: recordOf(content.measures, readings, on.ageYears),
    affected: on.affected,
    ...(concerned === undefined ? {} : { concerned }),
    closures: [],
    limits: limitsIn(entries),
    labelOf: (key) => readings.labelOf(key),
    ...more,
  });
}

const idOf = (t: { readonly side: string } & ({ rule: string } | Pick<TriggeredRule, 'rule'>)): string =>
  `${typeof t.rule === 'string' ? t.rule : t.rule.key}/${t.side}`;

/** What each visit triggers by what was told at it alone. */
function triggeredAt(content: Content, visits: readonly Entries[], on: SafetyOn): ReadonlySet<string>[] {
  return visits.map(
    (entries) =>
      new Set(
        screened(content, entries, on, { answers: Object.fromEntries(answersIn(entries)) }).triggered.map(
          (t) => idOf(t),
        ),
      ),
  );
}

/**
 * Closures that still hold: made at or after the newest visit that told of the sign by itself. A sign that is told again
 * after it was closed is open again.
 */
function standingClosures(
  content: Content,
  visits: readonly VisitView[],
  maps: readonly Entries[],
  on: SafetyOn,
): Closure[] {
  if (on.closures.length === 0) return [];
  const told = triggeredAt(content, maps, on);
  const last = visits.length - 1;
  return on.closures.filter((c) => {
    const made = visits.findIndex((v) => v.id === c.visitId);
    const newest = told.findLastIndex((set) => set.has(`${c.rule}/${c.side}`));
    return made !== -1 && made >= (newest === -1 ? last : newest);
  });
}

/** The visit at which safety was last asked, or is to be asked; null when there is none. */
export function screenedVisit(visits: readonly VisitView[]): VisitView | null {
  return (
    [...visits]
      .reverse()
      .find((v) => v.signedAt === null || v.entries.some((e) => readKey(e.key)?.kind === 'safety')) ?? null
  );
}

/**
 * The safety of an episode from all its visits, oldest first: one truth for the server, the phone and the open visit.
 * Missing answers are those of the visit at which it is asked; null when there is no such visit.
 */
export function episodeSafety(
  content: Content,
  visits: readonly VisitView[],
  on: SafetyOn,
): SafetyState | null {
  const asked = screenedVisit(visits);
  return asked === null ? null : safetyAt(content, visits, asked, on);
}

/** Tests left out at a visit without saying why. */
export const unexplainedTests = (safety: Pick<SafetyState, 'asked'>, entries: Entries): readonly string[] =>
  safety.asked.filter(
    (key) => entries.get(`safety.${key}`) === 'not-tested' && entries.get(`untested.${key}`) === undefined,
  );

/** The same as it is asked at one of the visits; what was told at any of them counts. */
export function safetyAt(
  content: Content,
  visits: readonly VisitView[],
  asked: VisitView,
  on: SafetyOn,
): SafetyState {
  const maps = visits.map((v) => entriesOf(v.entries));
  return screened(content, newestEntries(maps), on, {
    answers: standingAnswers(maps),
    answered: new Set(answersIn(entriesOf(asked.entries)).keys()),
    firstVisit: asked.kind === 'first',
    closures: standingClosures(content, visits, maps, on),
  });
}
