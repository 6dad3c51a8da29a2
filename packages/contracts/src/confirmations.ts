import {
  answerOn,
  type Confirmation,
  daysBetween,
  type FindingDefinition,
  type ProtocolDefinition,
  type Side,
  treatedSides,
  type Affected,
} from '@heathstep/core';
import type { Entries } from './entries/values.js';
import { entriesOf } from './facts.js';
import type { VisitView } from './views.js';

/** Whether something is confirmed, was once but too long ago, or never. */
export type ConfirmationState = 'confirmed' | 'too-old' | 'open';

export interface ConfirmationView {
  readonly key: string;
  readonly text: string;
  readonly state: ConfirmationState;
  /** Day it was last shown; null when never. */
  readonly on: string | null;
  readonly validDays: number;
}

export interface ConfirmOn {
  readonly findings: readonly Pick<FindingDefinition, 'key' | 'sides' | 'safety'>[];
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

function showsOn(entries: Entries, by: By, side: Side, on: ConfirmOn): boolean {
  if ('finding' in by) return answered(entries, by.finding, side, on) === by.is;
  const entry = entries.get(`measure.${by.measure}.${side}`) ?? entries.get(`measure.${by.measure}.none`);
  return entry !== undefined && entry.status !== 'not-done';
}

/** Whether a visit shows it on every treated side. */
const shows = (entries: Entries, c: Confirmation, on: ConfirmOn): boolean =>
  treatedSides(on.affected).every((side) => c.by.some((by) => showsOn(entries, by, side, on)));

/** What a protocol wants confirmed before it starts, as the visits show it. Visits come oldest first. */
export function confirmationsOf(
  protocol: Pick<ProtocolDefinition, 'confirm'>,
  visits: readonly VisitView[],
  on: ConfirmOn,
): readonly ConfirmationView[] {
  const newest = [...visits].reverse();
  return protocol.confirm.map((c) => {
    const visit = newest.find((v) => shows(entriesOf(v.entries), c, on));
    const day = visit === undefined ? null : on.localDayOf(visit.startedAt);
    const state = day === null ? 'open' : daysBetween(day, on.day) > c.validDays ? 'too-old' : 'confirmed';
    return { key: c.key, text: c.text, state, on: day, validDays: c.validDays };
  });
}
