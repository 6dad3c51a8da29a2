import type { HomeLog, LoggedWork } from '@heathstep/core';
import type { MorningPayload, SessionPayload, StopPayload } from './home.js';
import type { HomeEntryView } from './views.js';

/** Home entries, newest version of each, as the core reads them. A stop sign that was found harmless is none. */
export function homeLogOf(entries: readonly HomeEntryView[], harmless: ReadonlySet<string>): HomeLog {
  const scored = (kind: 'morning' | 'session') =>
    entries
      .filter((e) => e.kind === kind)
      .map((e) => ({ day: e.day, scores: (e.payload as MorningPayload | SessionPayload).scores }));
  return {
    mornings: scored('morning'),
    sessions: scored('session'),
    stops: entries
      .filter((e) => e.kind === 'stop' && !harmless.has(e.id))
      .map((e) => ({ day: e.day, grade: (e.payload as StopPayload).grade })),
  };
}

/** What was done of each exercise, with the plan version it was done by. */
export const loggedWorkOf = (entries: readonly HomeEntryView[]): LoggedWork[] =>
  entries
    .filter((e) => e.kind === 'session')
    .map((e) => ({ day: e.day, planId: e.planId, exercises: (e.payload as SessionPayload).exercises }));
