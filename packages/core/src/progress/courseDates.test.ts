import { type Adjunct, type Stage, stageKey } from '../protocol/definition.js';
import { adjunctSpans, stageStretches } from './courseDates.js';

const stage = (key: string, weeks: readonly [number, number], adjuncts: readonly Adjunct[] = []): Stage =>
  ({
    key,
    usualWeeks: { min: weeks[0], max: weeks[1] },
    criteria: key === 'upkeep' ? null : { all: [] },
    adjuncts,
  }) as unknown as Stage;
const brace = (weaning: Adjunct['weaning'], key = 'brace'): Adjunct => ({
  key,
  text: 'A brace',
  reason: 'hold',
  dose: null,
  weaning,
});

const STAGES = [stage('a', [2, 4]), stage('b', [4, 6]), stage('c', [6, 8]), stage('upkeep', [12, 52])];

describe('stages along the days', () => {
  it('are as long as they took, then as long as they usually take, upkeep left off', () => {
    const list = stageStretches(
      [
        { stage: stageKey('a'), day: '2026-01-05' },
        { stage: stageKey('b'), day: '2026-01-19' },
      ],
      STAGES,
      '2026-02-02',
    );
    expect(list.map((s) => [s.stage, s.kind, s.from, s.to])).toEqual([
      ['a', 'done', '2026-01-05', '2026-01-19'],
      ['b', 'now', '2026-01-19', '2026-02-23'],
      ['c', 'ahead', '2026-02-23', '2026-04-13'],
    ]);
    expect(list.map((s) => s.usually)).toEqual([
      ['2026-01-19', '2026-01-19'],
      ['2026-02-16', '2026-03-02'],
      ['2026-04-06', '2026-04-20'],
    ]);
  });

  it('end today at the earliest, and stand before anything has begun', () => {
    const late = stageStretches([{ stage: stageKey('a'), day: '2026-01-05' }], STAGES, '2026-06-01');
    expect(late[0]?.to).toBe('2026-06-01');
    expect(stageStretches([], STAGES, '2026-01-05').map((s) => s.kind)).toEqual(['ahead', 'ahead', 'ahead']);
  });

  it('keep a stage that is no longer in the protocol', () =>
    expect(
      stageStretches([{ stage: stageKey('gone'), day: '2026-01-05' }], STAGES, '2026-01-06')[0]?.stage,
    ).toBe('gone'));
});

describe('what stands beside them', () => {
  const spans = (stages: readonly Stage[]) =>
    adjunctSpans(
      stageStretches([{ stage: stageKey('a'), day: '2026-01-05' }], stages, '2026-01-05'),
      stages,
      {},
    ).map((s) => [s.adjunct.key, s.from, s.to, s.lessFrom, s.ends]);

  it('runs through the stages that have it, and is gone by its week', () => {
    const held = brace({ fromWeek: 4, goneByWeek: 6, text: 'less' });
    const stages = [stage('a', [2, 4], [held]), stage('b', [4, 6], [held]), stage('c', [6, 8])];
    expect(spans(stages)).toEqual([['brace', '2026-01-05', '2026-02-16', '2026-02-02', true]]);
  });

  it('stays where nothing ends it, and begins with its stage', () => {
    const stages = [stage('a', [2, 4], [brace(null)]), stage('b', [4, 6], [brace(null, 'shoes')])];
    expect(spans(stages)).toEqual([
      ['brace', '2026-01-05', '2026-01-26', null, true],
      ['shoes', '2026-01-26', '2026-03-02', null, false],
    ]);
  });

  it('is not drawn once it is gone before its stage begins', () => {
    const gone = brace({ fromWeek: 1, goneByWeek: 2, text: 'less' });
    expect(spans([stage('a', [2, 4]), stage('b', [4, 6], [gone])])).toEqual([]);
  });
});
