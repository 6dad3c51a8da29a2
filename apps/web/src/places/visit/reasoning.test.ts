import { loadContent } from '@heathstep/content';
import type { Column } from '@heathstep/core';
import {
  asEntries,
  daysSinceOnset,
  isConcluded,
  newestEntries,
  reasonOnEntries,
  type VisitView,
} from '@heathstep/contracts';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const taken = (...trials: number[]) => ({ trials, status: 'taken', pain: null });

const on = (entries: Record<string, unknown>) =>
  reasonOnEntries(content, asEntries(Object.entries(entries)), {
    affected: 'left',
    ageYears: 47,
    daysSinceOnset: 70,
    tagsOff: () => [],
  });
const state = (entries: Record<string, unknown>, key: string, side: Column = 'left') =>
  on(entries).known.at(key, side).state;

describe('what a visit’s entries say of the findings', () => {
  it.each([
    ['story.worse-when', ['first-steps'], 'first-steps-worst', 'left', 'present'],
    ['story.onset', 'injury', 'began-with-injury', 'none', 'present'],
    ['story.onset', 'injury', 'began-gradually', 'none', 'absent'],
    ['story.load-change', ['none'], 'load-up', 'none', 'absent'],
    ['story.load-change', [], 'load-up', 'none', 'unknown'],
    ['story.character', ['burning'], 'burning-numb', 'left', 'present'],
    ['story.night', true, 'wakes-at-night', 'none', 'present'],
    ['story.night', false, 'wakes-at-night', 'none', 'absent'],
    ['story.regions', ['left:heel-inner'], 'site-heel-inner', 'left', 'present'],
    ['story.regions', ['left:heel-inner'], 'site-heel-back', 'left', 'absent'],
    ['story.regions', [], 'site-heel-inner', 'left', 'unknown'],
    ['safety.giving-way', 'right', 'gives-way-often', 'left', 'absent'],
    ['safety.giving-way', 'both', 'gives-way-often', 'left', 'present'],
    ['safety.falls', 'yes', 'falls-told', 'none', 'present'],
    ['look.wear.left', ['forefoot-out'], 'wear-outer', 'left', 'present'],
    ['look.wear.left', ['heel-out'], 'wear-outer', 'left', 'absent'],
    ['look.callus.left', ['middle-heads'], 'callus-middle', 'left', 'present'],
    ['look.toes.left', { second: { shape: 'hammer', rigid: true } }, 'toes-curled', 'left', 'present'],
    ['look.toes.left', { second: { shape: 'hammer', rigid: true } }, 'toes-rigid', 'left', 'present'],
    ['look.toes.left', { second: { shape: 'straight', rigid: false } }, 'toes-curled', 'left', 'absent'],
    ['look.numb.left', { felt: ['heel'], missed: ['big-toe'] }, 'feeling-lost', 'left', 'present'],
    ['look.numb.left', { felt: [], missed: [] }, 'feeling-lost', 'left', 'unknown'],
    ['look.points.squat.left', { fifth: 'lifted' }, 'tips-in-squat', 'left', 'present'],
    ['look.points.squat.left', { fifth: 'light' }, 'tips-in-squat', 'left', 'absent'],
    ['measure.big-toe-extension.left', taken(20, 21), 'big-toe-limited', 'left', 'present'],
    [
      'measure.single-leg-heel-raise.left',
      { trials: [], status: 'unable', pain: null },
      'cannot-single-raise',
      'left',
      'present',
    ],
    [
      'measure.single-leg-heel-raise.left',
      { trials: [], status: 'not-done', pain: null },
      'cannot-single-raise',
      'left',
      'unknown',
    ],
    ['finding.windlass-test.left', 'present', 'windlass-test', 'left', 'present'],
    ['finding.windlass-test.left', 'present', 'windlass-test', 'right', 'unknown'],
    ['finding.windlass-test.left', 'not-tested', 'windlass-test', 'left', 'unknown'],
  ] as [string, unknown, string, Column, string][])(
    '%s %j: %s on %s is %s',
    (key, value, finding, side, expected) => expect(state({ [key]: value }, finding, side)).toBe(expected),
  );

  it('supposes an answer without keeping it', () => {
    const entries = asEntries([['story.regions', ['left:heel-inner']]]);
    const context = { affected: 'left', ageYears: 47, daysSinceOnset: 70, tagsOff: () => [] } as const;
    const weight = (suppose?: ReadonlyMap<string, 'present' | 'absent'>) =>
      reasonOnEntries(content, entries, {
        ...context,
        ...(suppose === undefined ? {} : { suppose }),
      }).ranked.find((r) => r.key === 'plantar-heel-pain')?.raw ?? 0;
    expect(weight(new Map([['windlass-test.left', 'present']]))).toBeCloseTo(weight() * 10, 9);
    expect(weight(new Map([['windlass-test.left', 'absent']]))).toBeCloseTo(weight() * 0.68, 9);
  });
});

describe('the newest of several visits', () => {
  const first = asEntries([
    ['measure.lunge-knee-bent.left', taken(30)],
    ['finding.windlass-test.left', 'present'],
    ['safety.giving-way', 'left'],
    ['conclude.condition', 'open'],
  ]);
  it('takes later answers over earlier ones, and lets not done hide nothing', () => {
    const second = asEntries([
      ['finding.windlass-test.left', 'absent'],
      ['measure.lunge-knee-bent.left', { trials: [], status: 'not-done', pain: null }],
    ]);
    const merged = newestEntries([first, second]);
    expect(merged.get('finding.windlass-test.left')).toBe('absent');
    expect(merged.get('measure.lunge-knee-bent.left')).toEqual(taken(30));
  });
  it('takes safety answers and conclusions of the last visit only', () => {
    const merged = newestEntries([first, asEntries([])]);
    expect([...merged].map(([key]) => key)).toEqual([
      'measure.lunge-knee-bent.left',
      'finding.windlass-test.left',
    ]);
  });
});

describe('days since it began', () => {
  type Told = Readonly<Record<string, unknown>>;
  const visit = (day: string, told: Told): VisitView => ({
    id: day,
    episodeId: 'e',
    kind: 'review',
    number: 1,
    startedAt: `${day}T09:00:00Z`,
    signedAt: null,
    signedBy: null,
    entries: Object.entries(told).map(([key, value]) => ({ key, value, version: 1, author: '', at: '' })),
    amendments: [],
  });
  const days = (first: Told, second: Told | null, day: string) =>
    daysSinceOnset(
      [visit('2026-03-01', first), ...(second === null ? [] : [visit('2026-03-15', second)])],
      day,
      (iso) => iso.slice(0, 10),
    );
  const fresh = { 'story.since': 'under-2-weeks', 'story.days': 3 };
  it.each([
    ['nothing told', {}, null, '2026-03-01', null],
    ['a span', { 'story.since': '2-to-6-weeks' }, null, '2026-03-01', 28],
    ['days, over their span', fresh, null, '2026-03-01', 3],
    ['days, told a fortnight ago', fresh, null, '2026-03-15', 17],
    ['days, and a later visit that says nothing of it', fresh, {}, '2026-03-20', 22],
    [
      'told anew: the days of the first visit no longer count',
      fresh,
      { 'story.since': '2-to-6-weeks' },
      '2026-03-20',
      33,
    ],
    ['cleared at the later visit', fresh, { 'story.since': null, 'story.days': null }, '2026-03-20', 22],
  ] as [string, Told, Told | null, string, number | null][])('%s', (_name, first, second, day, expected) =>
    expect(days(first, second, day)).toBe(expected),
  );
});

describe('whether a visit is concluded', () => {
  const idea = { condition: 'gout', side: 'left', leads: true, reason: null };
  it.each([
    [{}, false],
    [{ 'conclude.ideas': [{ ...idea, verdict: 'agreed' }] }, true],
    [{ 'conclude.ideas': [{ ...idea, verdict: 'added' }] }, true],
    [{ 'conclude.ideas': [{ ...idea, verdict: 'rejected', reason: 'no' }] }, false],
    [{ 'conclude.other': 'a thorn' }, true],
    [{ 'conclude.other': ' ' }, false],
    [{ 'conclude.condition': 'open' }, true],
  ] as [Record<string, unknown>, boolean][])('%j: %s', (entries, concluded) =>
    expect(isConcluded(asEntries(Object.entries(entries)))).toBe(concluded),
  );
});
