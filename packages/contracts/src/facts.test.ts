import 'reflect-metadata';
import type { MeasureDefinition } from '@heathstep/core';
import {
  entriesOf,
  entryProblem,
  measuredFacts,
  skillFacts,
  storyFacts,
  type EntryView,
  type VisitView,
} from './index.js';

const lunge = {
  key: 'lunge',
  sides: 'each',
  computed: null,
  methods: ['phone'],
  positions: ['standing'],
  trials: { count: 3, combine: 'mean' },
  direction: 'more',
  band: null,
  error: null,
} as unknown as MeasureDefinition;
const measures = [lunge];
const entry = (key: string, value: unknown): EntryView => ({ key, version: 1, value, at: '', author: '' });
const visit = (startedAt: string, ...entries: EntryView[]): VisitView => ({
  id: startedAt,
  episodeId: '',
  kind: 'review',
  number: 1,
  startedAt,
  signedAt: null,
  signedBy: null,
  entries,
  amendments: [],
});
const taken = (trials: (number | null)[], status = 'taken') => ({ trials, status, pain: null });
const measured = (value: unknown) =>
  measuredFacts([visit('2026-03-01', entry('measure.lunge.left', value))], (iso) => iso, measures);

describe('from entries to facts', () => {
  it('combines trials by the measure’s own rule, under the visit’s day', () => {
    expect(measured(taken([30, null, 33]))).toEqual([
      { measure: 'lunge', side: 'left', value: 31.5, at: '2026-03-01' },
    ]);
  });

  it.each(['unable', 'stopped-by-pain'])('%s is a value that could not be taken, never zero', (status) => {
    expect(measured(taken([], status))).toMatchObject([{ value: null }]);
  });

  it('not done, no trial yet, cleared and unknown measures say nothing', () => {
    expect(measured(taken([], 'not-done'))).toEqual([]);
    expect(measured(taken([null, null]))).toEqual([]);
    expect(measured(null)).toEqual([]);
    expect(
      measuredFacts([visit('2026-03-01', entry('measure.other.left', taken([1])))], (iso) => iso, measures),
    ).toEqual([]);
  });

  it('takes the newest level of a skill on each side', () => {
    const visits = [
      visit('2026-03-01', entry('skill.arch.left', 'none'), entry('skill.arch.right', 'learned')),
      visit('2026-03-15', entry('skill.arch.left', 'partial')),
    ];
    expect(skillFacts(visits, [])).toEqual({ arch: { left: 'partial', right: 'learned' } });
  });

  it('leaves out of the story what was not asked', () => {
    const entries = entriesOf([
      entry('story.worst', 7),
      entry('story.night', false),
      entry('story.settles', null),
    ]);
    expect(storyFacts(entries)).toMatchObject({ worstPain: 7, nightPain: false });
    expect(storyFacts(entries).settlesMinutes).toBeUndefined();
    expect(storyFacts(new Map()).worstPain).toBeUndefined();
  });
});

const idea = (verdict: string, reason: string | null) => ({
  condition: 'plantar-heel-pain',
  side: 'left',
  verdict,
  leads: false,
  reason,
});

describe('what an entry may hold', () => {
  it.each([
    ['story.worst', 0],
    ['story.worst', 10],
    ['story.settles', 1440],
    ['story.activities', [{ text: 'walk', ability: null }]],
    ['safety.diabetes', 'both'],
    ['measure.lunge.left', taken([1, null, 3])],
    ['note.story', ''],
    ['finding.windlass-test.left', 'absent'],
    ['finding.stiff-over-30.none', 'not-tested'],
    ['story.days', 3],
    ['conclude.condition', 'open'],
    [
      'conclude.ideas',
      [idea('agreed', null), idea('added', 'seen before'), idea('rejected', 'no tenderness')],
    ],
    ['story.worst', null],
  ])('%s = %j is fine', (key, value) => expect(entryProblem(key, value)).toBeNull());

  it.each([
    ['story.worst', -1],
    ['story.settles', 1441],
    ['story.regions', Array(41).fill('x')],
    ['story.activities', Array(6).fill({ text: 'walk', ability: 1 })],
    ['story.activities', [{ text: 'x'.repeat(201), ability: 1 }]],
    ['measure.lunge.middle', taken([1])],
    ['measure.lunge.left', { trials: [Number.NaN], status: 'taken', pain: null }],
    ['measure.lunge.left', { trials: Array(11).fill(1), status: 'taken', pain: null }],
    ['measure.lunge.left', { ...taken([1]), confirmed: 'yes' }],
    ['conclude.stage', 'the end'],
    ['finding.windlass-test.left', 'maybe'],
    ['finding.windlass-test.middle', 'present'],
    ['story.days', 61],
    ['conclude.ideas', [idea('rejected', null)]],
    ['conclude.ideas', [idea('rejected', ' ')]],
    ['conclude.ideas', [{ ...idea('agreed', null), side: 'middle' }]],
    ['conclude.ideas', [{ ...idea('agreed', null), condition: '<b>' }]],
    ['conclude.ideas', [null]],
    ['constructor', 1],
    ['__proto__', 1],
    ['measure.lunge-knee-bent.left', taken([])],
    ['measure.lunge-knee-bent.left', taken([null, null])],
    ['measure.lunge-knee-bent.left', { ...taken([30]), colour: 'red' }],
    ['skip.look', ''],
    ['skip.look', '   '],
  ])('%s = %j is not', (key, value) => expect(entryProblem(key, value)).not.toBeNull());
});
