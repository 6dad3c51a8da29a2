import { loadContent } from '@heathstep/content';
import type { Column } from '@heathstep/core';
import { daysSinceOnset, isConcluded, newestEntries, reasonOnEntries } from '@heathstep/contracts';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const taken = (...trials: number[]) => ({ trials, status: 'taken', pain: null });

const on = (entries: Record<string, unknown>) =>
  reasonOnEntries(content, new Map(Object.entries(entries)), {
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
    const entries = new Map<string, unknown>([['story.regions', ['left:heel-inner']]]);
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
  const first = new Map<string, unknown>([
    ['measure.lunge-knee-bent.left', taken(30)],
    ['finding.windlass-test.left', 'present'],
    ['safety.giving-way', 'left'],
    ['conclude.condition', 'open'],
  ]);
  it('takes later answers over earlier ones, and lets not done hide nothing', () => {
    const second = new Map<string, unknown>([
      ['finding.windlass-test.left', 'absent'],
      ['measure.lunge-knee-bent.left', { trials: [], status: 'not-done', pain: null }],
    ]);
    const merged = newestEntries([first, second]);
    expect(merged.get('finding.windlass-test.left')).toBe('absent');
    expect(merged.get('measure.lunge-knee-bent.left')).toEqual(taken(30));
  });
  it('takes safety answers and conclusions of the last visit only', () => {
    const merged = newestEntries([first, new Map()]);
    expect([...merged.keys()].filter((k) => k.startsWith('safety.') || k.startsWith('conclude.'))).toEqual(
      [],
    );
  });
});

describe('days since it began', () => {
  it.each([
    [{}, 0, null],
    [{ 'story.since': '2-to-6-weeks' }, 0, 28],
    [{ 'story.since': 'under-2-weeks', 'story.days': 3 }, 0, 3],
    [{ 'story.since': 'under-2-weeks', 'story.days': 3 }, 14, 17],
  ] as [Record<string, unknown>, number, number | null][])('%j told %d days ago: %s', (entries, ago, days) =>
    expect(daysSinceOnset(new Map(Object.entries(entries)), ago)).toBe(days),
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
    expect(isConcluded(new Map(Object.entries(entries)))).toBe(concluded),
  );
});
