import fc from 'fast-check';
import {
  asEntries,
  entriesOfKind,
  entryProblem,
  entryWords,
  LASTING,
  readKey,
  standsFor,
  STORY_NEEDS,
} from '../index.js';

describe('the key of an entry', () => {
  it.each([
    ['measure.lunge-knee-bent.left', { kind: 'measure', name: 'lunge-knee-bent', side: 'left' }],
    ['measure.body-mass.none', { kind: 'measure', name: 'body-mass', side: 'none' }],
    ['safety.diabetes', { kind: 'safety', name: 'diabetes', side: 'none' }],
    ['look.points.squat.right', { kind: 'points', name: 'squat', side: 'right' }],
    ['look.numb.left', { kind: 'numb', name: 'left', side: 'left' }],
    ['skip.feel', { kind: 'skip', name: 'feel', side: 'none' }],
    ['story.worst', null],
    ['look.hair.left', null],
    ['measure.lunge.middle', null],
    ['look.points.flying.left', null],
    ['toString', null],
  ])('%s', (key, read) => expect(readKey(key)).toEqual(read));

  it('takes no key that it does not know, whatever it is', () => {
    fc.assert(
      fc.property(fc.string(), (key) => {
        fc.pre(readKey(key) === null && !key.startsWith('story.'));
        expect(['visit.measures', 'conclude.other'].includes(key) || entryProblem(key, 'x') !== null).toBe(
          true,
        );
      }),
    );
  });
});

describe('how long an entry stands', () => {
  it.each([
    ['safety.diabetes', 'visit'],
    ['conclude.ideas', 'visit'],
    ['story.onset', 'person'],
    ['measure.body-mass.none', 'person'],
    ['measure.foot-length.left', 'record'],
    ['story.worst', 'record'],
    ['limits.left', 'record'],
  ])('%s: %s', (key, stands) => expect(standsFor(key)).toBe(stands));

  it('never fills in today’s pain, a safety answer or a conclusion from another day', () => {
    const today = ['story.worst', 'story.now', 'story.night', 'safety.fever', 'conclude.stage'];
    expect(LASTING.filter((key) => today.includes(key))).toEqual([]);
  });
});

describe('the registry', () => {
  it('has words for everything a story needs', () => {
    expect(STORY_NEEDS.length).toBeGreaterThan(5);
    expect(STORY_NEEDS.filter((key) => entryWords(key) === key)).toEqual([]);
  });

  it('finds the entries of one kind with what each names', () => {
    const entries = asEntries([
      ['finding.windlass-test.left', 'present'],
      ['story.worst', 3],
      ['finding.stiff.none', 'absent'],
    ]);
    expect(entriesOfKind(entries, 'finding')).toEqual([
      { name: 'windlass-test', side: 'left', value: 'present' },
      { name: 'stiff', side: 'none', value: 'absent' },
    ]);
  });

  it('answers whatever is sent, and never fails over it', () => {
    const keys = [
      'story.activities',
      'story.regions',
      'story.worst',
      'story.goal',
      'conclude.ideas',
      'measure.lunge.left',
      'look.numb.left',
      'look.tender.left',
      'look.toes.left',
      'look.points.squat.left',
      'look.wear.left',
      'limits.left',
      'safety.diabetes',
      'skip.feel',
    ];
    const odd = fc.oneof(
      fc.anything({ withNullPrototype: true, withDate: true, withMap: true, withSparseArray: true }),
      fc.constantFrom(
        [null],
        { toString: 1 },
        [{ toString: 1 }],
        { trials: [1], status: 'taken', pain: null, again: null },
        { 'big-toe': null },
      ),
    );
    fc.assert(
      fc.property(fc.constantFrom(...keys), odd, (key, value) => {
        const said = entryProblem(key, value);
        expect(said === null || typeof said === 'string').toBe(true);
      }),
      { numRuns: 3000 },
    );
  });
});
