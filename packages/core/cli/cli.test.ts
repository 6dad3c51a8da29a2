import { loadContent } from '@heathstep/content';
import { Ajv } from 'ajv';
import { run } from './run.js';
import { SCHEMAS, SHARED } from './schemas.js';

const call = (name: string, input: unknown) =>
  run([name], () => (typeof input === 'string' ? input : JSON.stringify(input)));
const facts = {
  measures: [],
  sessions: [],
  skills: {},
  stageSince: '2026-01-01T08:00:00Z',
  affected: 'left',
};
const dose = {
  sets: 3,
  reps: 10,
  holdSeconds: 5,
  restSeconds: 60,
  setupSeconds: 0,
  sides: 'left',
  timesPerDay: 1,
  daysPerWeek: 7,
};

const GOOD: Record<keyof typeof SCHEMAS, unknown> = {
  'lunge-estimate': { distanceCm: 8, footLengthCm: 26, shinLengthCm: 41 },
  trials: { measure: 'lunge-knee-bent', values: [34, null, 33] },
  compare: { measure: 'navicular-drop', then: 11, now: 7 },
  symmetry: { measure: 'toe-press-big-toe', left: 66, right: 91, affected: 'left' },
  dose,
  load: { bodyMassKg: 70, addedKg: 0, legs: 1, footPitchDeg: 0 },
  pain: {
    school: 'comfort',
    before: 4,
    during: 4,
    after: 4,
    hourAbove: false,
    nextMorning: null,
    morningBaseline: 2.5,
    stopSign: null,
  },
  criteria: {
    criteria: { all: [{ symmetry: 'single-leg-heel-raise', min: 90 }, { noRed: 7 }] },
    facts,
    now: '2026-02-01T08:00:00+01:00',
  },
  review: {
    episode: {
      now: '2026-02-01T08:00:00Z',
      lastReviewAt: '2026-01-01T08:00:00Z',
      stopsOpen: ['numb foot'],
      minimumDays: 7,
      leadingMeasure: 'first-step-pain',
      criteria: { minDays: 3 },
      facts,
    },
  },
  safety: {
    ageYears: 34,
    sex: 'female',
    affected: 'left',
    answers: { diabetes: false, 'heel-squeeze': { left: true }, 'calf-squeeze-still': 'not-tested' },
    measures: [
      { measure: 'skin-temperature', side: 'left', value: 30 },
      { measure: 'single-leg-heel-raise', side: 'left', value: null },
    ],
    seen: [{ sign: 'navicular', side: 'right' }],
    findings: [{ key: 'wakes-at-night', side: 'none', state: 'present' }],
  },
  reason: {
    findings: [
      { key: 'first-steps-worst', side: 'left', state: 'present' },
      { key: 'site-heel-inner', side: 'left', state: 'present' },
      { key: 'tender-heel-inner', side: 'left', state: 'present' },
      { key: 'calf-squeeze-still', side: 'right', state: 'present' },
      { key: 'ankle-bend-limited', side: 'left', state: 'present' },
    ],
    age: 47,
    daysSinceOnset: 70,
  },
  content: {},
};

describe('the command line', () => {
  it('lists its functions when none is named', () => {
    expect(JSON.parse(run([], () => '').stdout)).toEqual({ functions: Object.keys(SCHEMAS) });
  });

  it.each(Object.keys(SCHEMAS) as (keyof typeof SCHEMAS)[])('%s gives what its schema promises', (name) => {
    const result = call(name, GOOD[name]);
    expect(result).toMatchObject({ exitCode: 0, stderr: '' });
    const ajv = new Ajv({ strict: false });
    for (const shared of SHARED) ajv.addSchema(shared);
    expect(ajv.validate(SCHEMAS[name].output, JSON.parse(result.stdout)) ? [] : ajv.errors).toEqual([]);
    expect(JSON.parse(run([name, '--schema'], () => '').stdout)).toHaveProperty('input');
  });

  it.each([
    ['nonsense', {}, /function: "nonsense" is not one of lunge-estimate/],
    ['dose', '{ not json', /input: is not JSON/],
    ['dose', [], /input: \[\] is not of type object/],
    ['dose', { ...dose, sets: 'three' }, /^sets: "three" is not of type number$/m],
    ['dose', { ...dose, sets: 0 }, /^sets: 0 is not a number from 1 to 20$/m],
    ['dose', { ...dose, colour: 1 }, /^colour: is not a field of this function$/m],
    ['trials', { measure: 'no-such', values: [] }, /^measure: "no-such" is not a measure key/m],
    ['trials', { measure: 'lunge-knee-bent', values: [34, 340] }, /^values.1: 340 is not from 0 to 70°$/m],
    ['lunge-estimate', { distanceCm: 30, footLengthCm: 26, shinLengthCm: 41 }, /^r: /m],
    ['pain', { before: 11 }, /^school: nothing is given/m],
    [
      'criteria',
      { criteria: { wrong: 1 }, facts, now: '2026-02-01' },
      /^criteria: \{"wrong":1\} is not any of the forms/m,
    ],
    ['criteria', { criteria: { minDays: 1 }, facts, now: 'today' }, /^now: "today"/m],
  ])('%s with %j: one clear line, exit 2, nothing on stdout', (name, input, message) => {
    const result = call(name, input);
    expect(result).toMatchObject({ exitCode: 2, stdout: '' });
    expect(result.stderr).toMatch(message);
  });

  it('trials, compare and symmetry cover every measure there is', () => {
    const { measures } = (JSON.parse(call('content', {}).stdout) as { keys: { measures: string[] } }).keys;
    expect(measures.length).toBeGreaterThan(100);
    const loaded = loadContent();
    const byKey = new Map(loaded.ok ? loaded.content.measures.map((m) => [m.key, m]) : []);
    for (const key of measures) {
      const { min, max } = byKey.get(key)?.usual ?? { min: 0, max: 0 };
      for (const [name, input] of [
        ['trials', { measure: key, values: [min, max] }],
        ['compare', { measure: key, then: min, now: max }],
        ['symmetry', { measure: key, left: min, right: max, affected: 'left' }],
      ] as const)
        expect([key, name, call(name, input).exitCode]).toEqual([key, name, 0]);
    }
  });

  it('tells every problem at once', () => {
    expect(
      call('dose', { ...dose, sets: 0, daysPerWeek: 9 })
        .stderr.trim()
        .split('\n'),
    ).toHaveLength(2);
  });

  it('safety takes what is told, measured, drawn and found, and says what is left on each side', () => {
    const out = JSON.parse(call('safety', GOOD.safety).stdout) as {
      triggered: { rule: string; side: string }[];
      exercisesLeft: { left: number; right: number };
      notTested: string[];
      blocked: boolean;
    };
    expect(out.triggered.map((t) => `${t.rule} ${t.side}`)).toEqual(
      expect.arrayContaining(['bone-stress left', 'bone-stress-high-risk right']),
    );
    expect(out).toMatchObject({
      exercisesLeft: { left: 0, right: 0 },
      notTested: ['calf-squeeze-still'],
      blocked: true,
    });
  });

  it('safety says what is no question, sign, measure or finding of the content', () => {
    const bad = call('safety', {
      ageYears: 40,
      affected: 'left',
      answers: { sore: true },
      measures: [{ measure: 'skin-temperature', side: 'left', value: 300 }],
      seen: [{ sign: 'elbow', side: 'left' }],
      findings: [{ key: 'nope', side: 'left', state: 'present' }],
    });
    expect(bad).toMatchObject({ exitCode: 2, stdout: '' });
    expect(
      bad.stderr
        .trim()
        .split('\n')
        .map((l) => l.split(':')[0]),
    ).toEqual(['answers.sore', 'measures.0.value', 'seen.0.sign', 'findings.0.key']);
  });

  it('reason ranks by side, stops on a red flag, names drivers and what to ask next', () => {
    const out = JSON.parse(call('reason', GOOD.reason).stdout) as {
      conditions: { key: string; side: string; rank: string; for: { finding: string }[] }[];
      drivers: { key: string; side: string }[];
      stops: { key: string; side: string; level: string }[];
      next: { finding: string; side: string }[];
    };
    expect(out.conditions.find((c) => c.side === 'left')).toMatchObject({
      key: 'plantar-heel-pain',
      rank: 'leading',
    });
    expect(out.stops).toMatchObject([{ key: 'achilles-rupture', side: 'right', level: 'urgent' }]);
    expect(out.drivers).toMatchObject([{ key: 'ankle-stiff', side: 'left' }]);
    expect(out.next.length).toBeGreaterThan(0);
  });

  it('reason says which finding is not one, and takes an unknown age', () => {
    const bad = call('reason', {
      findings: [{ key: 'sore', side: 'left', state: 'present' }],
      age: null,
      daysSinceOnset: null,
    });
    expect(bad).toMatchObject({ exitCode: 2, stdout: '' });
    expect(bad.stderr).toContain('findings.0.key: "sore" is not a finding key');
    expect(call('reason', { findings: [], age: null, daysSinceOnset: null }).exitCode).toBe(0);
    expect(call('reason', { findings: [], age: -1, daysSinceOnset: null }).stderr).toContain('age: -1');
  });
});
