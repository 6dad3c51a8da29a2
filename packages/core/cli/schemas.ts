import { CRITERION_SCHEMA } from '@heathstep/core';
import {
  object,
  open,
  number,
  text,
  flag,
  key,
  anyOf,
  list,
  orNull,
  texts,
  score,
  iso,
  type Schema,
} from './schemaParts.js';
import { AHEAD } from './schemasAhead.js';
import { LAB } from './schemasLab.js';

/** JSON Schemas of what goes into and comes out of each function; names and shapes are stable. */
const affected = anyOf('left', 'right', 'both', 'none');
const column = anyOf('left', 'right', 'none');
const perSide = (of: Schema): Schema => object({ left: of, right: of });
const days: Schema = { type: 'integer', minimum: 1 };

const push = open({
  finding: key,
  state: anyOf('present', 'absent'),
  ratio: number,
  weak: flag,
  source: text,
  share: number,
});
const stop = open({
  key,
  side: anyOf('left', 'right', 'none'),
  level: text,
  title: text,
  action: text,
  because: texts,
});
const would = open({ condition: key, factor: number });

const sex = anyOf('female', 'male', null);
const ageYears = orNull({ type: 'number', minimum: 0, maximum: 120 });

/** Shared schemas, registered once under their `$id`. */
export const SHARED: readonly Schema[] = [CRITERION_SCHEMA];

const facts = object(
  {
    measures: list(
      object(
        {
          measure: key,
          side: anyOf('left', 'right', 'none'),
          value: orNull(number),
          at: iso,
          method: text,
          position: text,
          by: anyOf('another', 'self'),
        },
        ['method', 'position', 'by'],
      ),
    ),
    sessions: list(
      object(
        {
          at: iso,
          done: flag,
          state: anyOf('green', 'amber', 'red', 'not-known', 'stop'),
          firstStep: orNull(score),
          before: orNull(score),
          during: orNull(score),
          after: orNull(score),
          nextMorning: orNull(score),
          day: orNull(score),
          answers: {
            type: 'object',
            additionalProperties: { anyOf: [number, flag, { type: 'null' }] },
          },
        },
        ['done', 'state', 'firstStep', 'before', 'during', 'after', 'nextMorning', 'day', 'answers'],
      ),
    ),
    skills: {
      type: 'object',
      additionalProperties: { anyOf: [text, object({ left: text, right: text }, ['left', 'right'])] },
    },
    stageSince: iso,
    affected,
    ageYears,
    sex,
    plannedPerWeek: { type: 'number', minimum: 0 },
  },
  ['ageYears', 'sex', 'plannedPerWeek'],
);

const criteriaState = anyOf('met', 'met-within-error', 'not-met', 'not-known');
const criteriaOut = object({
  state: criteriaState,
  parts: list(
    object({
      text,
      state: anyOf('met', 'met-within-error', 'not-met', 'not-known', 'not-applicable'),
      because: text,
    }),
  ),
});

const doseStep = open({
  kind: anyOf('keep', 'load', 'reps', 'sets', 'run', 'harder', 'easier'),
  because: text,
});

export interface FunctionSchemas {
  readonly input: Schema;
  readonly output: Schema;
}

const tempo = object({ upSeconds: number, topSeconds: number, downSeconds: number, bottomSeconds: number });

export const SCHEMAS = {
  'lunge-estimate': {
    input: object({ distanceCm: number, footLengthCm: number, shinLengthCm: number }),
    output: object({ angleDeg: number, plusMinusDeg: number }),
  },
  trials: {
    input: object({ measure: key, values: list(orNull(number)) }),
    output: object({
      value: orNull(number),
      how: anyOf('mean', 'best', 'last', 'worst'),
      spread: orNull(number),
      outliers: list({ type: 'integer', minimum: 0 }),
    }),
  },
  compare: {
    input: object({ measure: key, then: number, now: number }),
    output: object({
      change: number,
      class: anyOf('real', 'likely', 'within-error', 'not-known'),
      direction: anyOf('better', 'worse', 'same'),
    }),
  },
  symmetry: {
    input: object({ measure: key, left: number, right: number, affected }),
    output: object({
      difference: number,
      worseSide: anyOf('left', 'right', 'none'),
      symmetryPercent: orNull(number),
      criteriaPercent: orNull(number),
      reason: orNull(text),
      flagged: orNull(flag),
    }),
  },
  dose: {
    input: object(
      {
        sets: number,
        reps: number,
        holdSeconds: number,
        releaseSeconds: number,
        tempo,
        restSeconds: number,
        setupSeconds: number,
        sides: anyOf('left', 'right', 'together', 'one-after-other', 'alternating'),
        timesPerDay: number,
        daysPerWeek: number,
      },
      ['holdSeconds', 'releaseSeconds', 'tempo'],
    ),
    output: object({
      exerciseSeconds: number,
      tensionSecondsPerSide: perSide(number),
      repsPerSide: perSide(number),
      daySeconds: number,
      weekSeconds: number,
      timeline: list(
        object({ side: anyOf('left', 'right', 'both'), set: days, startSecond: number, endSecond: number }),
      ),
    }),
  },
  load: {
    input: object({ bodyMassKg: number, addedKg: number, legs: anyOf(1, 2), footPitchDeg: number }),
    output: object({ relativeLoad: number }),
  },
  'run-rise': {
    input: object({
      minutes: { type: 'number', minimum: 0 },
      runs: list(object({ day: iso, minutes: { type: 'number', minimum: 0 } })),
      today: iso,
    }),
    output: object({ longestMinutes: orNull(number), mostMinutes: orNull(number), over: flag }),
  },
  pain: {
    input: object({
      school: anyOf('comfort', 'next-morning', 'bone'),
      before: score,
      during: score,
      after: score,
      hourAbove: flag,
      nextMorning: orNull(score),
      morningBaseline: orNull({ type: 'number', minimum: 0, maximum: 10, multipleOf: 0.5 }),
      stopSign: anyOf(null, 'emergency', 'review', 'pause'),
    }),
    output: object({
      state: anyOf('green', 'amber', 'red', 'not-known', 'stop'),
      because: texts,
      restOnly: flag,
    }),
  },
  criteria: {
    input: object({ criteria: { $ref: 'heathstep/criterion' }, facts, now: iso }),
    output: criteriaOut,
  },
  review: {
    input: object({
      episode: object(
        {
          now: iso,
          lastReviewAt: iso,
          stopsOpen: texts,
          minimumDays: { type: 'integer', minimum: 0 },
          leadingMeasure: orNull(key),
          lookAgainWeeks: { type: 'number', exclusiveMinimum: 0 },
          referWeeks: { type: 'number', exclusiveMinimum: 0 },
          firstStage: flag,
          ageYears,
          sex,
          criteria: orNull({ $ref: 'heathstep/criterion' }),
          facts,
          doseSteps: list(object({ exercise: key, step: doseStep })),
        },
        ['lookAgainWeeks', 'referWeeks', 'firstStage', 'ageYears', 'sex', 'doseSteps'],
      ),
    }),
    output: object({
      decision: anyOf(
        'refer',
        'ease-back',
        'adjust-dose',
        'hold-and-retest',
        'progress',
        'hold',
        'look-again',
      ),
      rule: { type: 'integer', minimum: 1, maximum: 9 },
      because: texts,
      wouldChange: texts,
      confidence: anyOf('clear', 'fair', 'weak'),
      criteria: orNull(criteriaOut),
    }),
  },
  reason: {
    input: object({
      findings: list(
        object({
          key,
          side: anyOf('left', 'right', 'none'),
          state: anyOf('present', 'absent', 'not-tested'),
        }),
      ),
      age: orNull({ type: 'number', minimum: 0, maximum: 120 }),
      daysSinceOnset: orNull({ type: 'number', minimum: 0 }),
    }),
    output: object({
      conditions: list(
        object({
          key,
          side: anyOf('left', 'right', 'none'),
          rank: anyOf('leading', 'likely', 'possible', 'unlikely'),
          weight: number,
          for: list(push),
          against: list(push),
          missing: list(key),
          keptBy: orNull(text),
          shownAs: orNull(key),
        }),
      ),
      cannotTell: flag,
      drivers: list(
        open({
          key,
          label: text,
          side: anyOf('left', 'right', 'none'),
          strength: anyOf('clear', 'possible'),
          because: text,
          adds: text,
          waitsFor: texts,
        }),
      ),
      stops: list(stop),
      cautions: list(stop),
      tagsOff: perSide(texts),
      held: list(open({ condition: key, name: text, side: column, tags: texts, by: text })),
      referral: list(
        open({ condition: key, side: anyOf('left', 'right', 'none'), text, because: texts, source: text }),
      ),
      next: list(
        open({
          finding: key,
          side: anyOf('left', 'right', 'both', 'none'),
          bits: number,
          minutes: number,
          bitsPerMinute: number,
          worth: number,
          why: text,
          ifPresent: list(would),
          ifAbsent: list(would),
        }),
      ),
    }),
  },
  plan: {
    input: object(
      {
        protocol: key,
        stage: orNull(key),
        affected: anyOf('left', 'right', 'both'),
        ageYears,
        sex,
        schools: { type: 'object', additionalProperties: key },
        equipment: texts,
        weightsKg: list({ type: 'number', exclusiveMinimum: 0, maximum: 200 }),
        minutesPerDay: { type: 'number', minimum: 0, maximum: 240 },
        daysPerWeek: { type: 'integer', minimum: 1, maximum: 7 },
        safety: object({
          answers: {
            type: 'object',
            additionalProperties: {
              anyOf: [flag, { const: 'not-tested' }, object({ left: flag, right: flag }, ['left', 'right'])],
            },
          },
        }),
        measures: list(object({ measure: key, side: column, value: orNull(number) })),
        drivers: list(key),
        locks: object({ keep: list(key), never: list(key) }, ['keep', 'never']),
      },
      ['schools', 'weightsKg', 'drivers', 'locks'],
    ),
    output: object({
      exercises: list(
        object({
          key,
          sides: anyOf('left', 'right', 'together', 'one-after-other', 'alternating'),
          dose: open({
            sets: number,
            reps: number,
            restSeconds: number,
            timesPerDay: number,
            daysPerWeek: number,
          }),
          minutes: number,
          why: texts,
        }),
      ),
      left: list(object({ key, why: text })),
      adjuncts: list(object({ key, text })),
      minutesPerDay: number,
      warnings: texts,
    }),
  },
  schedule: {
    input: object(
      {
        plan: list(
          object(
            {
              key,
              sides: anyOf('left', 'right', 'together', 'one-after-other', 'alternating'),
              dose: open({
                sets: number,
                reps: number,
                restSeconds: number,
                timesPerDay: number,
                daysPerWeek: number,
              }),
              minutes: number,
              why: texts,
            },
            ['minutes', 'why'],
          ),
        ),
        from: { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' },
        days: { type: 'integer', minimum: 1, maximum: 366 },
        timeZone: key,
        busy: list(object({ start: iso, end: iso })),
        usualTime: { type: 'string', pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' },
      },
      ['busy', 'usualTime'],
    ),
    output: object({
      items: list(
        object({
          day: text,
          start: iso,
          end: iso,
          when: orNull(text),
          exercises: texts,
          minutes: number,
          moved: flag,
        }),
      ),
      conflicts: list(
        object({
          kind: anyOf('busy', 'no-rest-between', 'heavy-and-run'),
          days: texts,
          exercises: texts,
          because: text,
        }),
      ),
    }),
  },
  'repetition-maximum': {
    input: object(
      { loadKg: number, reps: number, targetReps: number, stepsKg: list(number), bodyMassKg: number },
      ['bodyMassKg'],
    ),
    output: object({ oneRepMaxKg: number, loadKg: orNull(number), reason: orNull(text) }),
  },
  safety: {
    input: object(
      {
        ageYears,
        sex,
        affected,
        answers: {
          type: 'object',
          additionalProperties: {
            anyOf: [flag, { const: 'not-tested' }, object({ left: flag, right: flag }, ['left', 'right'])],
          },
        },
        measures: list(object({ measure: key, side: column, value: orNull(number) })),
        seen: list(object({ sign: key, side: anyOf('left', 'right') })),
        findings: list(object({ key, side: column, state: anyOf('present', 'absent', 'not-tested') })),
      },
      ['sex', 'measures', 'seen', 'findings'],
    ),
    output: object({
      asked: list(key),
      unanswered: list(key),
      notTested: list(key),
      triggered: list(
        object({ rule: key, level: text, side: column, status: text, because: texts, action: text }),
      ),
      tagsOff: perSide(texts),
      exercisesLeft: perSide({ type: 'integer', minimum: 0 }),
      school: orNull(text),
      blocked: flag,
      blockedBecause: texts,
    }),
  },
  ...AHEAD,
  ...LAB,
  content: {
    input: object({}),
    output: open({
      counts: { type: 'object', additionalProperties: { type: 'integer' } },
      problems: texts,
      keys: { type: 'object' },
    }),
  },
} satisfies Record<string, FunctionSchemas>;

export type FunctionName = keyof typeof SCHEMAS;
