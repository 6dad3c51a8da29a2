import { lunge, lookup } from '../testing/measures.js';
import type { ProtocolDefinition, Stage } from '../protocol/definition.js';
import type { Facts } from '../progress/criteriaTypes.js';
import { findDrivers } from './drivers.js';
import { judgeHeelPain } from './heelPain.js';
import { judgeIrritability } from './irritability.js';
import { startingStage } from './startingStage.js';

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

describe('why it looks like heel pain', () => {
  const typical = {
    firstStepPain: 6,
    nowPain: 2,
    regions: ['heel-inner'],
    onset: 'gradual' as const,
    character: [],
  };
  it('leads with first-step pain at the inner heel and nothing against', () => {
    expect(judgeHeelPain(typical)).toMatchObject({ rank: 'leading', against: [], missing: [] });
  });
  it('steps back when something speaks against', () => {
    expect(judgeHeelPain({ ...typical, character: ['burning'] })).toMatchObject({ rank: 'likely' });
    expect(judgeHeelPain({ ...typical, regions: ['heel-centre'], onset: 'injury' }).rank).toBe('possible');
  });
  it('cannot tell from nothing', () => expect(judgeHeelPain({})).toMatchObject({ rank: 'cannot-tell' }));
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

describe('drivers', () => {
  const keys = (values: Record<string, [number, number]>) =>
    findDrivers(facts(values).measures, 'left').map((d) => d.key);
  it.each([
    [{ 'lunge-knee-bent': [34.9, 35] }, ['ankle-stiff']],
    [{ 'lunge-knee-bent': [38, 44] }, ['ankle-stiff']],
    [{ 'lunge-knee-bent': [38, 43] }, []],
    [{ 'lunge-knee-bent': [40, 42], 'lunge-knee-straight': [24, 30] }, ['calf-short']],
    [{ 'big-toe-extension': [39, 60] }, ['big-toe-stiff']],
    [{ 'foot-shortening-hold': [7, 10] }, ['arch-weak']],
    [{ 'single-leg-heel-raise': [22, 25] }, ['calf-weak']],
    [{ 'single-leg-heel-raise': [24, 25] }, []],
  ] as [Record<string, [number, number]>, string[]][])('%p gives %p', (values, expected) =>
    expect(keys(values)).toEqual(expected),
  );
  it('says nothing without measures', () => expect(keys({})).toEqual([]));
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
  } as unknown as ProtocolDefinition;
  const low = { level: 'low', because: [], missing: [] } as const;
  const start = (
    values: Record<string, [number, number]>,
    irritability: Parameters<typeof startingStage>[2] = low,
    unable = false,
  ) => startingStage(protocol, facts(values), irritability, unable, NOW, lookup);

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
  it('is one lower when highly irritable, and the first when the foot cannot take weight', () => {
    const values = { 'first-step-pain': [4, 0], 'lunge-knee-bent': [40, 40] } as Record<
      string,
      [number, number]
    >;
    expect(start(values, { level: 'high', because: [], missing: [] }).stage).toBe('build');
    expect(start(values, low, true).stage).toBe('calm');
  });
});
