import { confirmationsOf, type ConfirmOn, type VisitView } from './index.js';

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
    ['the other answer', { 'finding.squeeze.left': 'present' }, 'open'],
    ['the other side only', { 'finding.squeeze.right': 'absent' }, 'open'],
    ['not tested', { 'finding.squeeze.left': 'not-tested' }, 'open'],
    ['the safety answer no', { 'safety.squeeze': 'no' }, 'confirmed'],
    ['the safety answer of the other side', { 'safety.squeeze': 'right' }, 'confirmed'],
    ['the safety answer of this side', { 'safety.squeeze': 'left' }, 'open'],
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
});
