import {
  answerOn,
  type Confirmation,
  daysBetween,
  type FindingDefinition,
  type MeasureDefinition,
  type ProtocolDefinition,
  type Side,
  treatedSides,
  type Affected,
} from '@heathstep/core';
import type { Entries } from './entries/values.js';
import { entriesOf } from './facts.js';
import { entryAt, VisitReadings } from './measured.js';
import type { VisitView } from './views.js';

/**
 * Confirmed, answered otherwise, once but too long ago, never looked at, or such as no answer of a visit shows: whoever gives
 * the plan makes sure of it.
 */
export type ConfirmationState = 'confirmed' | 'against' | 'too-old' | 'open' | 'yourself';

export interface ConfirmationView {
  readonly key: string;
  readonly text: string;
  readonly state: ConfirmationState;
  /** Day of the newest answer that counts; null when there is none. */
  readonly on: string | null;
  readonly validDays: number;
}

export interface ConfirmOn {
  readonly findings: readonly Pick<FindingDefinition, 'key' | 'sides' | 'safety'>[];
  readonly measures: readonly MeasureDefinition[];
  readonly affected: Affected;
  /** Today, in the clinic's zone. */
  readonly day: string;
  readonly localDayOf: (iso: string) => string;
}

type By = Confirmation['by'][number];

/** What was answered of a finding on a side at a visit; a finding that is a safety question is answered there. */
function answered(entries: Entries, key: string, side: Side, on: ConfirmOn): 'present' | 'absent' | null {
  const finding = on.findings.find((f) => f.key === key);
  const state = entries.get(`finding.${key}.${finding?.sides === 'person' ? 'none' : side}`);
  if (state === 'present' || state === 'absent') return state;
  if (finding?.safety == null) return null;
  const yes = answerOn(entries.get(`safety.${finding.safety}`), side);
  return yes === null ? null : yes ? 'present' : 'absent';
}

/** Whether the entries of one visit say it; null when they say nothing of it. */
function says(entries: Entries, by: By, side: Side, on: ConfirmOn): boolean | null {
  if ('finding' in by) {
    const state = answered(entries, by.finding, side, on);
    return state === null ? null : state === by.is;
  }
  const single = on.measures.find((m) => m.key === by.measure)?.sides === 'single';
  const column = single ? 'none' : side;
  const value = new VisitReadings(on.measures, entries).value(by.measure, column);
  if (value !== null) return value >= (by.atLeast ?? -Infinity) && value <= (by.atMost ?? Infinity);
  const status = entryAt(entries, by.measure, column)?.status;
  const tried = status === 'unable' || status === 'stopped-by-pain';
  return tried && by.atLeast === undefined && by.atMost === undefined ? true : null;
}

interface Dated {
  readonly visit: VisitView;
  readonly entries: Entries;
}

interface Newest {
  readonly by: By;
  readonly yes: boolean;
  readonly day: string;
}

/** The newest answer to each of what would show it, on one side. */
function newestOn(newest: readonly Dated[], c: Confirmation, side: Side, on: ConfirmOn): readonly Newest[] {
  return c.by.flatMap((by) => {
    for (const { visit, entries } of newest) {
      const yes = says(entries, by, side, on);
      if (yes !== null) return [{ by, yes, day: on.localDayOf(visit.startedAt) }];
    }
    return [];
  });
}

/** What is asked only for its absence: present, it is a danger that no other answer makes up for. */
const onlyAbsent = (c: Confirmation, by: By): boolean =>
  'finding' in by &&
  by.is === 'absent' &&
  !c.by.some((b) => 'finding' in b && b.finding === by.finding && b.is === 'present');

type Known = Pick<ConfirmationView, 'state' | 'on'>;
const OPEN: Known = { state: 'open', on: null };

function knownOn(newest: readonly Dated[], c: Confirmation, side: Side, on: ConfirmOn): Known {
  const answers = newestOn(newest, c, side, on);
  const days = (of: readonly Newest[]) => of.map((a) => a.day).sort();
  const [absent, rest] = [c.by.filter((b) => onlyAbsent(c, b)), c.by.filter((b) => !onlyAbsent(c, b))];
  const danger = answers.filter((a) => absent.includes(a.by) && !a.yes);
  if (danger.length > 0) return { state: 'against', on: days(danger).at(-1) ?? null };
  const clear = answers.filter((a) => absent.includes(a.by));
  const shown = answers.filter((a) => rest.includes(a.by) && a.yes);
  if (rest.length > 0 && shown.length === 0)
    return answers.length > clear.length ? { state: 'against', on: days(answers).at(-1) ?? null } : OPEN;
  if (clear.length < absent.length) return OPEN;
  // As old as the oldest of what must be absent, or as the newest of what is enough.
  const day = [...days(clear), ...days(shown).slice(-1)].sort()[0];
  if (day === undefined) return OPEN;
  return { state: daysBetween(day, on.day) > c.validDays ? 'too-old' : 'confirmed', on: day };
}

const WORST: readonly ConfirmationState[] = ['against', 'open', 'too-old', 'confirmed'];

/**
 * What a protocol wants confirmed before it starts, as the visits show it: by the newest answer to each, on every treated
 * side. Visits come oldest first.
 */
export function confirmationsOf(
  protocol: Pick<ProtocolDefinition, 'confirm'>,
  visits: readonly VisitView[],
  on: ConfirmOn,
): readonly ConfirmationView[] {
  const newest = [...visits].reverse().map((visit) => ({ visit, entries: entriesOf(visit.entries) }));
  return protocol.confirm.map((c) => {
    const { key, text, validDays } = c;
    if (c.by.length === 0) return { key, text, validDays, state: 'yourself', on: null };
    const sides = treatedSides(on.affected).map((side) => knownOn(newest, c, side, on));
    const worst = WORST.find((state) => sides.some((s) => s.state === state));
    return { key, text, validDays, ...(sides.find((s) => s.state === worst) ?? OPEN) };
  });
}
