import type { HomeEntryBody, SessionPayload, StopPayload } from '@heathstep/contracts';
import { answerProblem, type HomeMoment, type HomeQuestion, type LoggedExercise } from '@heathstep/core';
import { badRequest, type FieldError } from '../http/problem.js';

const isCount = (v: unknown): boolean => Number.isInteger(v) && (v as number) >= 0 && (v as number) <= 1000;
const isScore = (v: unknown): boolean => Number.isInteger(v) && (v as number) >= 0 && (v as number) <= 10;
const isText = (v: unknown, most: number): boolean =>
  typeof v === 'string' && v.length > 0 && v.length <= most;

/** What an entry of each kind answers, and which of it must be answered. */
const MOMENTS = {
  morning: ['morning'],
  session: ['before', 'after', 'later'],
} as const satisfies Record<string, readonly HomeMoment[]>;

/** Roles without which a day cannot be judged; an hour later and what is asked in some stages only may stay open. */
const NEEDED = new Set(['morning', 'before', 'during', 'after']);

function scoreErrors(
  scores: unknown,
  moments: readonly HomeMoment[],
  questions: readonly HomeQuestion[],
): FieldError[] {
  if (typeof scores !== 'object' || scores === null || Array.isArray(scores))
    return [{ pointer: '/payload/scores', detail: 'Answers by question' }];
  const own = questions.filter((q) => moments.includes(q.at));
  const given = scores as Record<string, unknown>;
  const unknown = Object.keys(given)
    .filter((key) => own.every((q) => q.key !== key))
    .map((key) => ({ pointer: `/payload/scores/${key}`, detail: 'is not a question here' }));
  const wrong = own.flatMap((q) => {
    const answer = given[q.key] ?? null;
    const missing = answer === null && q.role !== null && NEEDED.has(q.role);
    const detail = missing ? answerProblem(q, '') : answerProblem(q, answer);
    return detail === null ? [] : [{ pointer: `/payload/scores/${q.key}`, detail }];
  });
  return [...unknown, ...wrong];
}

const isLogged = (e: Partial<LoggedExercise> | null): boolean =>
  typeof e === 'object' &&
  e !== null &&
  isText(e.exercise, 60) &&
  isCount(e.sets) &&
  isCount(e.reps) &&
  (e.effort === null || isScore(e.effort));

function exerciseErrors(list: unknown): FieldError[] {
  return Array.isArray(list) && list.length <= 20 && list.every(isLogged)
    ? []
    : [
        {
          pointer: '/payload/exercises',
          detail: 'Sets, repetitions and effort from 0 to 10 of each exercise',
        },
      ];
}

function stopErrors(p: Partial<StopPayload>): FieldError[] {
  const wants: readonly [boolean, string, string][] = [
    [['emergency', 'review', 'pause'].includes(p.grade ?? ''), 'grade', 'emergency, review or pause'],
    [isText(p.sign, 200), 'sign', 'What was felt'],
    [p.exercise === null || isText(p.exercise, 60), 'exercise', 'An exercise or nothing'],
  ];
  return wants
    .filter(([fine]) => !fine)
    .map(([, field, detail]) => ({ pointer: `/payload/${field}`, detail }));
}

const FIELDS = {
  morning: ['scores'],
  session: ['scores', 'exercises'],
  stop: ['grade', 'sign', 'exercise'],
} as const satisfies Record<HomeEntryBody['kind'], readonly string[]>;

/** What of a payload is wrong whatever the protocol asks. */
const formErrors = ({ kind, payload }: Pick<HomeEntryBody, 'kind' | 'payload'>): FieldError[] => {
  const known: readonly string[] = FIELDS[kind];
  return [
    ...(kind === 'stop' ? stopErrors(payload as Partial<StopPayload>) : []),
    ...(kind === 'session' ? exerciseErrors((payload as Partial<SessionPayload>).exercises) : []),
    ...Object.keys(payload)
      .filter((field) => !known.includes(field))
      .map((field) => ({ pointer: `/payload/${field}`, detail: 'is not a field here' })),
  ];
};

const isAnswer = (v: unknown): boolean =>
  v === null || typeof v === 'boolean' || (typeof v === 'number' && v >= 0 && v <= 1000);

/** The same of an entry that was taken once, under a protocol that may have asked something else. */
export function takenProblem({ kind, payload }: Pick<HomeEntryBody, 'kind' | 'payload'>): string | null {
  if (!Object.hasOwn(FIELDS, kind) || typeof payload !== 'object' || payload === null)
    return 'is no entry of a day at home';
  const { scores } = payload as Partial<SessionPayload>;
  const answered =
    kind === 'stop' ||
    (typeof scores === 'object' && scores !== null && Object.values(scores).every(isAnswer));
  return answered ? (formErrors({ kind, payload })[0]?.detail ?? null) : 'Answers by question';
}

/** Each payload by its kind and the protocol's questions, with an error by its field. */
export function checkPayload({ kind, payload }: HomeEntryBody, questions: readonly HomeQuestion[]): void {
  const errors = [
    ...(kind === 'stop'
      ? []
      : scoreErrors((payload as Partial<SessionPayload>).scores, MOMENTS[kind], questions)),
    ...formErrors({ kind, payload }),
  ];
  if (errors.length > 0) throw badRequest(errors);
}
