import { homeFacts, type HomeQuestion } from '@heathstep/core';
import { homeLogOf } from './homeLog.js';
import { harmlessStops, STOP_ENDS } from './stops.js';
import type { HomeEntryView } from './views.js';

const entry = (id: string, kind: HomeEntryView['kind'], day: string, payload: unknown) =>
  ({ id, kind, day, payload, version: 1, planId: null, at: `${day}T18:00:00Z` }) as HomeEntryView;

const stop = entry('s', 'stop', '2026-03-04', { grade: 'review', sign: 'Numbness', exercise: null });
const questions = [
  { key: 'before', role: 'before' },
  { key: 'during', role: 'during' },
  { key: 'after', role: 'after' },
  { key: 'morning', role: 'morning' },
] as unknown as readonly HomeQuestion[];
const scores = { before: 1, during: 1, after: 1 };

const states = (entries: readonly HomeEntryView[], harmless: ReadonlySet<string>) =>
  homeFacts(homeLogOf(entries, harmless), questions, 'next-morning', '2026-03-01').sessions.map((s) => [
    s.day,
    s.state,
  ]);

describe('a stop sign reported at home', () => {
  const session = entry('a', 'session', '2026-03-04', { scores, exercises: [] });
  const morning = (day: string) => entry(day, 'morning', day, { scores: { morning: 1 } });
  const log = [
    stop,
    session,
    ...['02-28', '03-01', '03-02', '03-03', '03-04', '03-05'].map((d) => morning(`2026-${d}`)),
  ];
  const closed = (done: string | null, subject = 'stop:s') => harmlessStops([{ subject, done }]);

  it('makes its day a stop, with or without a session, however it was dealt with', () => {
    expect(states([stop], new Set())).toEqual([['2026-03-04', 'stop']]);
    for (const done of [null, 'dealt-with'])
      expect(states(log, closed(done))).toEqual([['2026-03-04', 'stop']]);
  });

  it('is none once it was found harmless: the day is judged by what was logged, and is no day without that', () => {
    expect(states(log, closed('harmless'))).toEqual([['2026-03-04', 'green']]);
    expect(states([stop], closed('harmless'))).toEqual([]);
  });

  it('is not taken for another one, nor for a rule of that name', () => {
    expect(states(log, closed('harmless', 'stop:t'))).toEqual([['2026-03-04', 'stop']]);
    expect(states(log, closed('harmless', 'rule:s'))).toEqual([['2026-03-04', 'stop']]);
  });

  it('can always be closed, and says what that makes of its day', () => {
    expect(STOP_ENDS.every((w) => w.clears && /day/.test(w.label))).toBe(true);
  });
});
