import { loadContent } from '@heathstep/content';
import { Ajv } from 'ajv';
import { jsonLines, type Recording } from '@heathstep/core/lab';
import { recordMat, recordMotion, simulateMat, simulateMotion, walkerOf } from '@heathstep/core/simulate';
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

const sprain = {
  protocol: 'lateral-ankle-sprain',
  stage: null,
  affected: 'right',
  ageYears: 30,
  sex: 'male',
  equipment: ['towel', 'belt'],
  minutesPerDay: 20,
  daysPerWeek: 7,
  safety: { answers: { diabetes: false } },
  measures: [{ measure: 'single-leg-heel-raise', side: 'right', value: 8 }],
};

/** A capture as its file is written, of a made-up person. */
const captureOf = (r: Recording): unknown => JSON.parse([...jsonLines(r)].join(''));
const walker = walkerOf(4);
const pair = recordMotion(simulateMotion({ walker, task: 'walk', side: 'both', seed: 1, mistakes: [] }), 9);
const mat = recordMat(simulateMat({ walker, task: 'stance', side: 'both', seed: 1, mistakes: [] }), 1.5);

const GOOD: Record<keyof typeof SCHEMAS, unknown> = {
  pressure: { capture: captureOf(mat), task: 'stance', side: 'both', bodyMassKg: walker.massKg },
  motion: { capture: captureOf(pair), task: 'walk', side: 'both' },
  plan: {
    ...sprain,
    schools: { support: 'none' },
    weightsKg: [2, 5],
    drivers: ['balance-poor'],
    locks: { keep: ['ankle-circles'], never: ['bridge'] },
  },
  forecast: {
    series: [
      { at: '2026-01-05', value: 20 },
      { at: '2026-01-19', value: 24 },
      { at: '2026-02-02', value: 28 },
    ],
    threshold: 35,
    direction: 'more',
    sem: 1,
    now: '2026-02-02',
    seed: 1,
  },
  simulate: { protocol: 'plantar-heel-pain', seed: 3, weeks: 4 },
  'lunge-estimate': { distanceCm: 8, footLengthCm: 26, shinLengthCm: 41 },
  trials: { measure: 'lunge-knee-bent', values: [34, null, 33] },
  compare: { measure: 'navicular-drop', then: 11, now: 7 },
  symmetry: { measure: 'toe-press-big-toe', left: 66, right: 91, affected: 'left' },
  dose,
  load: { bodyMassKg: 70, addedKg: 0, legs: 1, footPitchDeg: 0 },
  'run-rise': { minutes: 20, runs: [{ day: '2026-05-20', minutes: 18 }], today: '2026-05-31' },
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
  schedule: {
    plan: [
      {
        key: 'raise-two-legs',
        sides: 'together',
        dose: {
          sets: 3,
          reps: 12,
          tempo: { upSeconds: 2, topSeconds: 1, downSeconds: 3, bottomSeconds: 0 },
          restSeconds: 60,
          timesPerDay: 1,
          daysPerWeek: 3,
        },
      },
    ],
    from: '2026-03-23',
    days: 14,
    timeZone: 'Europe/Berlin',
    busy: [{ start: '2026-03-23T17:30:00+01:00', end: '2026-03-23T18:30:00+01:00' }],
  },
  'repetition-maximum': { loadKg: 20, reps: 10, targetReps: 6, stepsKg: [10, 15, 20, 25] },
  content: {},
};

const schedule = GOOD.schedule as { plan: { dose: object }[] } & object;

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
    [
      'schedule',
      { ...schedule, timeZone: 'Europe/Atlantis' },
      /^timeZone: "Europe\/Atlantis" is not a time zone$/m,
    ],
    ['schedule', { ...schedule, from: '2026-02-30' }, /^from: "2026-02-30" is not a day$/m],
    ['schedule', { ...schedule, days: 0 }, /^days: 0/m],
    [
      'schedule',
      { ...schedule, plan: [{ ...schedule.plan[0], key: 'fly' }] },
      /^plan.0.key: "fly" is not an exercise key$/m,
    ],
    [
      'schedule',
      { ...schedule, plan: [{ ...schedule.plan[0], dose: { ...schedule.plan[0]?.dose, sets: 90 } }] },
      /^plan.0.dose.sets: 90/m,
    ],
    [
      'schedule',
      { ...schedule, busy: [{ start: '2026-03-23T18:00:00Z', end: '2026-03-23T17:00:00Z' }] },
      /^busy.0.end: .* is not a time after its start$/m,
    ],
    [
      'repetition-maximum',
      { loadKg: 20, reps: 13, targetReps: 6, stepsKg: [] },
      /^reps: 13 is not a whole number from 1 to 12$/m,
    ],
    ['run-rise', { minutes: -1, runs: [], today: '2026-05-31' }, /^minutes: -1/m],
    ['run-rise', { minutes: 1, runs: [], today: 'now' }, /^today: "now"/m],
    ['pain', { before: 11 }, /^school: nothing is given/m],
    [
      'criteria',
      { criteria: { wrong: 1 }, facts, now: '2026-02-01' },
      /^criteria: \{"wrong":1\} is not any of the forms/m,
    ],
    ['criteria', { criteria: { minDays: 1 }, facts, now: 'today' }, /^now: "today"/m],
    [
      'plan',
      { ...sprain, protocol: 'no-such' },
      /^protocol: "no-such" is not one of .*lateral-ankle-sprain/m,
    ],
    ['plan', { ...sprain, stage: 'no-such' }, /^stage: "no-such" is not null or one of protect-first/m],
    [
      'plan',
      { ...sprain, schools: { support: 'wings' } },
      /^schools.support: "wings" is not one of brace, none$/m,
    ],
    ['plan', { ...sprain, locks: { keep: ['fly'] } }, /^locks.keep.0: "fly" is not an exercise key/m],
    ['plan', { ...sprain, minutesPerDay: -1 }, /^minutesPerDay: -1/m],
    [
      'plan',
      { ...sprain, safety: { answers: { nonsense: true } } },
      /^safety.answers.nonsense: true is not a question/m,
    ],
    [
      'plan',
      { ...sprain, measures: [{ measure: 'single-leg-heel-raise', side: 'right', value: 900 }] },
      /^measures.0.value: 900/m,
    ],
  ])('%s with %j: one clear line, exit 2, nothing on stdout', (name, input, message) => {
    const result = call(name, input);
    expect(result).toMatchObject({ exitCode: 2, stdout: '' });
    expect(result.stderr).toMatch(message);
  });

  it('a schedule goes around what is taken, and keeps its hour over the change of the clocks', () => {
    const made = JSON.parse(call('schedule', GOOD.schedule).stdout) as {
      items: { start: string; moved: boolean }[];
    };
    expect(made.items.map((i) => i.start)).toEqual([
      '2026-03-23T18:30:00+01:00',
      '2026-03-26T18:00:00+01:00',
      '2026-03-28T18:00:00+01:00',
      '2026-03-30T18:00:00+02:00',
      '2026-04-02T18:00:00+02:00',
      '2026-04-04T18:00:00+02:00',
    ]);
  });

  describe('plan', () => {
    interface Out {
      exercises: {
        key: string;
        sides: string;
        dose: Record<string, number>;
        minutes: number;
        why: string[];
      }[];
      left: { key: string; why: string }[];
      warnings: string[];
      minutesPerDay: number;
    }
    const made = (change: object): Out => JSON.parse(call('plan', { ...sprain, ...change }).stdout) as Out;
    const keys = (out: Out) => out.exercises.map((e) => e.key);

    it('fills the first stage when none is named, within the minutes, with a reason for each', () => {
      const out = made({});
      expect(out.exercises.length).toBeGreaterThanOrEqual(3);
      expect(out.exercises.every((e) => e.why.length > 0 && e.minutes > 0)).toBe(true);
      expect(out.exercises.reduce((sum, e) => sum + e.minutes, 0)).toBeCloseTo(out.minutesPerDay, 6);
      expect(out.minutesPerDay).toBeLessThanOrEqual(20);
    });

    it('gives nothing past an open stop, nor at the wrong age, and says why', () => {
      const stopped = made({ safety: { answers: { 'calf-squeeze-still': { right: true } } } });
      expect(stopped.exercises).toEqual([]);
      expect(stopped.warnings.join(' ')).toMatch(/Nothing is prescribed/);
      expect(made({ ageYears: 12 }).warnings[0]).toMatch(/from 16 years/);
      expect(made({ ageYears: null }).warnings[0]).toMatch(/date of birth is missing/);
    });

    it('keeps and leaves out what is locked; never counts where both are asked', () => {
      expect(keys(made({ locks: { keep: ['ankle-letters'] } }))).toContain('ankle-letters');
      expect(keys(made({ locks: { never: ['ankle-pumps'] } }))).not.toContain('ankle-pumps');
      const both = made({ locks: { keep: ['ankle-pumps'], never: ['ankle-pumps'] } });
      expect(keys(both)).not.toContain('ankle-pumps');
      expect(both.warnings.join(' ')).toMatch(/to be kept and never given/);
    });

    it('says why it is empty, and the way out', () => {
      expect(made({ minutesPerDay: 0 }).warnings[0]).toMatch(/Nothing fits: the shortest needs/);
      const keep = {
        keep: ['calf-belt', 'bridge', 'side-lying-lift', 'ankle-letters', 'raise-seated', 'ankle-pumps'],
      };
      expect(made({ locks: keep, minutesPerDay: 4 }).warnings.join(' ')).toMatch(
        /does not fit into 4 minutes/,
      );
    });

    it('asks for an owned weight, never for none and never for more than begins', () => {
      const heavy = (weightsKg: number[]) =>
        made({
          protocol: 'achilles-midportion',
          stage: 'slow-load',
          schools: { loading: 'heavy' },
          equipment: ['hand weight'],
          minutesPerDay: 60,
          weightsKg,
          measures: [{ measure: 'single-leg-heel-raise', side: 'right', value: 20 }],
        }).exercises.find((e) => e.key === 'raise-seated-heavy')?.dose['addedKg'];
      expect([heavy([2, 6, 20]), heavy([20]), heavy([])]).toEqual([6, 8, 8]);
    });

    it('fits the days there are', () => {
      for (const e of made({ daysPerWeek: 3 }).exercises)
        expect(e.dose['daysPerWeek']).toBeLessThanOrEqual(3);
    });
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

  it('pressure and motion read a capture as it was exported, and tell a frame that is none by its place', () => {
    const out = JSON.parse(call('pressure', GOOD.pressure).stdout) as {
      usable: boolean;
      quantities: { left: Record<string, { value: number }> };
    };
    expect(out.usable).toBe(true);
    expect(out.quantities.left['weightShare']?.value).toBeCloseTo(walker.leftShare * 100, -1);
    const capture = (GOOD.motion as { capture: { frames: object[] } }).capture;
    const frames = [...capture.frames.slice(0, 30), { t: 0.2, left: [1, 2], right: null }];
    const bad = call('motion', { capture: { ...capture, frames }, task: 'walk', side: 'both' });
    expect(bad).toMatchObject({ exitCode: 2, stdout: '' });
    expect(bad.stderr).toMatch(/^capture\.frames\.30: .*a leg must give the angles/);
    expect(call('motion', { ...(GOOD.motion as object), task: 'balance' }).stderr).toContain(
      'task: "balance"',
    );
    expect(call('pressure', { ...(GOOD.motion as object) }).stderr).toContain('capture.kind: "motion-pair"');
  });
});
