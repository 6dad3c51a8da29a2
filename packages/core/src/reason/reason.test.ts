import { lunge, lookup } from '../testing/measures.js';
import type { ProtocolDefinition, Stage } from '../protocol/definition.js';
import type { Facts } from '../progress/criteriaTypes.js';
import { judgeAcuity } from './acuity.js';
import { judgeIrritability } from './irritability.js';
import { startingStage, type StartingState } from './startingStage.js';

const NOW = '2026-04-20T09:00:00Z';
const at = NOW;

describe('irritability', () => {
  const calm = { worstPain: 3, provokedWithinFiveMinutes: false, settlesMinutes: 30, nightPain: false };
  it.each([
    [{}, 'low'],
    [{ worstPain: 4 }, 'moderate'],
    [{ settlesMinutes: 31 }, 'moderate'],
    [{ worstPain: 7 }, 'moderate'],
    [{ worstPain: 7, provokedWithinFiveMinutes: true }, 'high'],
    [{ settlesMinutes: 121, nightPain: true }, 'high'],
    [{ settlesMinutes: 120, nightPain: true }, 'moderate'],
  ] as const)('%p is %s', (change, level) =>
    expect(judgeIrritability({ ...calm, ...change }).level).toBe(level),
  );

  it('is not known, and says what is missing, until it can be told', () => {
    expect(judgeIrritability({ worstPain: 5 })).toMatchObject({
      level: 'not-known',
      missing: ['how soon it is provoked', 'how long it lasts', 'night pain'],
    });
    expect(judgeIrritability({ worstPain: 8, nightPain: true }).level).toBe('high');
  });
});

const facts = (values: Record<string, [number, number]>): Facts => ({
  measures: Object.entries(values).flatMap(([measure, [left, right]]) => [
    { measure, side: 'left' as const, value: left, at },
    { measure, side: 'right' as const, value: right, at },
  ]),
  sessions: [],
  skills: {},
  stageSince: at,
  affected: 'left',
});

describe('time course', () => {
  it.each([
    [0, 'acute'],
    [5, 'acute'],
    [6, 'settling'],
    [41, 'settling'],
    [42, 'persistent'],
    [null, 'not-known'],
  ] as const)('%p days is %s', (days, level) => expect(judgeAcuity(days).level).toBe(level));
});

describe('starting stage', () => {
  const stage = (key: string, entry: Stage['entry'], criteria: Stage['criteria'] = { minDays: 1 }): Stage =>
    ({ key, name: key, entry, criteria }) as Stage;
  const protocol = {
    stages: [
      stage('calm', null),
      stage('build', { measure: 'first-step-pain', side: 'treated', op: '<=', value: 5 }),
      stage('heavy', { measure: lunge.key, side: 'treated', op: '>=', value: 35 }),
      stage('upkeep', null, null),
    ],
    unableAt: { measure: 'rise', stage: 'build', because: 'one rise is not possible' },
  } as unknown as ProtocolDefinition;
  const low = { level: 'low', because: [], missing: [] } as const;
  const start = (values: Record<string, [number, number]>, state: Partial<StartingState> = {}) =>
    startingStage(
      protocol,
      facts(values),
      { irritability: low, acuity: judgeAcuity(60), cannotTakeWeight: false, unable: false, ...state },
      { now: NOW, lookup },
    );

  it('is the highest whose entry criteria all hold, never upkeep', () => {
    expect(start({ 'first-step-pain': [4, 0], 'lunge-knee-bent': [40, 40] }).stage).toBe('heavy');
    expect(start({ 'first-step-pain': [4, 0], 'lunge-knee-bent': [30, 40] }).stage).toBe('build');
    expect(start({ 'first-step-pain': [6, 0] }).stage).toBe('calm');
  });
  it('does not take a missing measure for a good one', () => {
    const result = start({});
    expect(result.stage).toBe('calm');
    expect(result.because[0]).toContain('not measured yet');
  });
  it('is lower when highly irritable, in the first days, without a single rise, and when the foot cannot take weight', () => {
    const values = { 'first-step-pain': [4, 0], 'lunge-knee-bent': [40, 40] } as Record<
      string,
      [number, number]
    >;
    const high = { level: 'high', because: [], missing: [] } as const;
    expect(start(values, { irritability: high }).stage).toBe('build');
    expect(start(values, { acuity: judgeAcuity(3) }).stage).toBe('build');
    expect(start(values, { irritability: high, acuity: judgeAcuity(3) }).stage).toBe('calm');
    expect(start(values, { unable: true }).stage).toBe('build');
    expect(start(values, { cannotTakeWeight: true }).stage).toBe('calm');
  });
});
