import type { Confirmation, MeasureDefinition } from '@heathstep/core';
import { confirmationsOf, type ConfirmOn, type VisitView } from './index.js';

const measures = [
  { key: 'total', sides: 'single', computed: null, decimals: 0, trials: { count: 1, combine: 'last' } },
] as unknown as readonly MeasureDefinition[];

const protocol = {
  confirm: [
    {
      key: 'squeeze',
      text: 'The calf squeeze moves the foot',
      by: [{ finding: 'squeeze', is: 'absent' as const }],
      validDays: 14,
    },
    { key: 'score', text: 'A total', by: [{ measure: 'total' }], validDays: 60 },
  ],
};
const findings = [{ key: 'squeeze', sides: 'each' as const, safety: 'squeeze' }];
const visit = (day: string, entries: Record<string, unknown>): VisitView => ({
  id: day,
  episodeId: 'e',
  kind: 'review',
  number: 1,
  startedAt: `${day}T09:00:00Z`,
  signedAt: null,
  signedBy: null,
  entries: Object.entries(entries).map(([key, value]) => ({ key, value, version: 1, author: '', at: '' })),
  amendments: [],
});
const on = (affected: ConfirmOn['affected'], day = '2026-03-20'): ConfirmOn => ({
  findings,
  measures,
  affected,
  day,
  localDayOf: (iso) => iso.slice(0, 10),
});
const states = (visits: readonly VisitView[], o = on('left')) =>
  confirmationsOf(protocol, visits, o).map((c) => c.state);

describe('what is confirmed before a protocol starts', () => {
  it('is open while nothing was looked at', () => expect(states([])).toEqual(['open', 'open']));

  it.each([
    ['the finding by hand', { 'finding.squeeze.left': 'absent' }, 'confirmed'],
    ['the other answer', { 'finding.squeeze.left': 'present' }, 'against'],
    ['the other side only', { 'finding.squeeze.right': 'absent' }, 'open'],
    ['not tested', { 'finding.squeeze.left': 'not-tested' }, 'open'],
    ['the safety answer no', { 'safety.squeeze': 'no' }, 'confirmed'],
    ['the safety answer of the other side', { 'safety.squeeze': 'right' }, 'confirmed'],
    ['the safety answer of this side', { 'safety.squeeze': 'left' }, 'against'],
    ['the safety question not tested', { 'safety.squeeze': 'not-tested' }, 'open'],
  ])('%s', (_name, entries, state) => expect(states([visit('2026-03-10', entries)])[0]).toBe(state));

  it('is needed on both sides where both are treated', () => {
    expect(states([visit('2026-03-10', { 'finding.squeeze.left': 'absent' })], on('both'))[0]).toBe('open');
    const both = { 'finding.squeeze.left': 'absent', 'finding.squeeze.right': 'absent' };
    expect(states([visit('2026-03-10', both)], on('both'))[0]).toBe('confirmed');
  });

  it('grows too old, on the day after its last', () => {
    const looked = [visit('2026-03-06', { 'finding.squeeze.left': 'absent' })];
    expect(states(looked, on('left', '2026-03-20'))[0]).toBe('confirmed');
    expect(states(looked, on('left', '2026-03-21'))[0]).toBe('too-old');
  });

  it('a measure confirms when it was taken or could not be, not when it was left out', () => {
    const with_ = (status: string) => [
      visit('2026-03-10', { 'measure.total.none': { trials: [20], status, pain: null } }),
    ];
    expect([states(with_('taken'))[1], states(with_('unable'))[1], states(with_('not-done'))[1]]).toEqual([
      'confirmed',
      'confirmed',
      'open',
    ]);
  });

  it('goes by the newest answer: what was clear and is not any more is against, and the other way round', () => {
    const clear = visit('2026-03-06', { 'finding.squeeze.left': 'absent' });
    const found = visit('2026-03-12', { 'finding.squeeze.left': 'present' });
    const unasked = visit('2026-03-14', { 'finding.squeeze.left': 'not-tested' });
    expect(states([clear, found, unasked])[0]).toBe('against');
    const again = visit('2026-03-18', { 'safety.squeeze': 'no' });
    expect(states([clear, found, again])[0]).toBe('confirmed');
  });

  it('one sore side against is against, whatever the other says', () => {
    const sides = { 'finding.squeeze.left': 'absent', 'finding.squeeze.right': 'present' };
    expect(states([visit('2026-03-10', sides)], on('both'))[0]).toBe('against');
  });
});

describe('what shows it', () => {
  const one = (by: Confirmation['by'], entries: Record<string, unknown>) => {
    const day = visit('2026-03-10', entries);
    return confirmationsOf({ confirm: [{ key: 'k', text: 't', by, validDays: 30 }] }, [day], on('left'))[0]
      ?.state;
  };
  const dangers: Confirmation['by'] = [
    { finding: 'rotation', is: 'absent' },
    { finding: 'press', is: 'absent' },
  ];
  const either: Confirmation['by'] = [
    { finding: 'drawer', is: 'present' },
    { finding: 'drawer', is: 'absent' },
    { finding: 'tilt', is: 'present' },
    { finding: 'tilt', is: 'absent' },
  ];
  const total = (value: number, status = 'taken') => ({
    'measure.total.none': { trials: [value], status, pain: null },
  });

  it.each([
    ['of dangers one is not enough', dangers, { 'finding.rotation.left': 'absent' }, 'open'],
    [
      'all dangers absent',
      dangers,
      { 'finding.rotation.left': 'absent', 'finding.press.left': 'absent' },
      'confirmed',
    ],
    [
      'one danger found, the other absent',
      dangers,
      { 'finding.rotation.left': 'absent', 'finding.press.left': 'present' },
      'against',
    ],
    ['either test, whatever it showed', either, { 'finding.tilt.left': 'present' }, 'confirmed'],
    ['neither test', either, {}, 'open'],
    [
      'what is wanted is not there',
      [{ finding: 'curl', is: 'present' }],
      { 'finding.curl.left': 'absent' },
      'against',
    ],
    ['a total at the limit', [{ measure: 'total', atMost: 80 }], total(80), 'confirmed'],
    ['a total above it', [{ measure: 'total', atMost: 80 }], total(81), 'against'],
    ['a total below the least', [{ measure: 'total', atLeast: 5 }], total(4), 'against'],
    ['a total that could not be taken', [{ measure: 'total', atMost: 80 }], total(0, 'unable'), 'open'],
    ['what no answer shows', [], {}, 'yourself'],
  ] as const)('%s', (_name, by, entries, state) => expect(one(by, entries)).toBe(state));
});
