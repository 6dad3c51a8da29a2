import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv, type ValidateFunction } from 'ajv';
import { type FileProblem, wrong } from './fileProblems.js';
import { TAG_SCHEMA } from './tagSchema.js';
import { type ExerciseDefinition, figureProblems, type FigureDefinition, phrase } from '@heathstep/core';
import type { ContentBundle } from './bundle.js';
import { exerciseProblems } from './crossCheck.js';
import { expandExercise, usualStops, type WrittenExercise } from './expandExercise.js';

/** The ladder of what a clinic adds for itself; its members stand side by side. */
export const OWN_LADDER = {
  key: 'own',
  name: phrase('Our own'),
  purpose: phrase('Added by this clinic'),
  set: true,
} as const;

/** An exercise as it is exported and imported; the schema is `schemas/exerciseFile.schema.json`. */
export interface ExerciseFile {
  readonly format: 'heathstep exercise';
  readonly version: 1;
  readonly exercise: WrittenExercise;
  readonly figure: FigureDefinition;
}

export type CheckedFile =
  | {
      readonly ok: true;
      readonly exercise: ExerciseDefinition;
      readonly figure: FigureDefinition & { exercise: string };
    }
  | { readonly ok: false; readonly problems: readonly FileProblem[] };

const FOLDER = fileURLToPath(new URL('../schemas', import.meta.url));
const VIEWS = { side: 0, top: 1, sole: 1, front: 2, back: 2 } as const;
const FRAMES = [0, 0.25, 0.5, 0.75, 1];

interface Validators {
  readonly file: ValidateFunction;
  readonly exercise: ValidateFunction;
  readonly figure: (view: FigureDefinition['view']) => ValidateFunction;
}

let made: Validators | null = null;

function validators(): Validators {
  if (made !== null) return made;
  const ajv = new Ajv({ allErrors: true, allowUnionTypes: true });
  const schema = (name: string) =>
    JSON.parse(readFileSync(join(FOLDER, `${name}.schema.json`), 'utf8')) as object;
  ajv.addSchema(TAG_SCHEMA);
  ajv.addSchema(schema('exercises'));
  ajv.addSchema(schema('figures'));
  const exercise = ajv.compile({ $ref: 'heathstep/exercises#/items' });
  const figures = [0, 1, 2].map((i) => ajv.compile({ $ref: `heathstep/figures#/items/anyOf/${i}` }));
  const file = ajv.compile(schema('exerciseFile'));
  made = { file, exercise, figure: (view) => figures[VIEWS[view]] ?? file };
  return made;
}

/** Which field of the form a problem across fields belongs to. */
function pointerOf(reason: string): string {
  if (reason.startsWith('default dose')) return '/exercise/dose';
  return reason.startsWith('the step') ? '/exercise/steps' : '/exercise/after';
}

/**
 * Checks an exercise a clinic adds, adapts or imports, as strictly as the shipped ones, and completes it.
 * It gets the key given, and a place among the clinic's own.
 */
export function checkExerciseFile(
  file: unknown,
  own: { readonly key: string; readonly rung: number; readonly version: number },
  content: Pick<ContentBundle, 'exercises' | 'ladders' | 'drivers'>,
): CheckedFile {
  const v = validators();
  const outer = wrong(v.file, file, '');
  if (outer.length > 0) return { ok: false, problems: outer };
  const given = file as ExerciseFile;
  const written = { ...given.exercise, key: own.key, ladder: OWN_LADDER.key, rung: own.rung };
  const figure = { ...given.figure, exercise: own.key };
  const fields = [
    ...wrong(v.exercise, written, '/exercise'),
    ...wrong(v.figure(given.figure.view), figure, '/figure'),
  ];
  if (fields.length > 0) return { ok: false, problems: fields };
  const whole = expandExercise(written);
  const exercise = { ...whole, evidence: { ...whole.evidence, version: own.version } };
  const known = new Set(content.drivers.map((d) => d.key));
  const [left, bottom, right, top] = figure.frame;
  const problems = [
    ...exerciseProblems(exercise, { ...content, ladders: [...content.ladders, OWN_LADDER] }).map((p) => ({
      pointer: pointerOf(p.reason),
      detail: p.reason,
    })),
    ...exercise.drivers
      .filter((k) => !known.has(k))
      .map((k) => ({ pointer: '/exercise/drivers', detail: `there is no driver ${k}` })),
    ...(left < right && bottom < top ? [] : [{ pointer: '/figure/frame', detail: 'the frame has no size' }]),
    ...FRAMES.flatMap((t) =>
      figureProblems(figure, t).map((p) => ({
        pointer: '/figure',
        detail: `at ${t} of the way the ${p.leg} ${p.joint} is at ${Math.round(p.angle)}`,
      })),
    ),
  ];
  return problems.length > 0 ? { ok: false, problems } : { ok: true, exercise, figure };
}

function writtenDose(e: ExerciseDefinition): WrittenExercise['dose'] {
  const { dose: d } = e;
  return {
    sets: d.sets,
    reps: d.reps,
    ...(d.holdSeconds === undefined ? {} : { hold: d.holdSeconds }),
    ...(d.releaseSeconds === undefined ? {} : { release: d.releaseSeconds }),
    ...(d.tempo === undefined
      ? {}
      : {
          tempo: [d.tempo.upSeconds, d.tempo.topSeconds, d.tempo.downSeconds, d.tempo.bottomSeconds] as const,
        }),
    rest: d.restSeconds,
    ...(d.addedKg === undefined ? {} : { kg: d.addedKg }),
    day: d.timesPerDay,
    week: d.daysPerWeek,
  };
}

const WRITTEN_RANGE = [
  ['sets', 'sets'],
  ['reps', 'reps'],
  ['hold', 'holdSeconds'],
  ['up', 'upSeconds'],
  ['top', 'topSeconds'],
  ['down', 'downSeconds'],
  ['rest', 'restSeconds'],
  ['kg', 'addedKg'],
  ['day', 'timesPerDay'],
  ['week', 'daysPerWeek'],
] as const;

/** A whole exercise as it is written, every field said. Reading it back gives the same exercise. */
export function writeExercise(e: ExerciseDefinition): WrittenExercise {
  const {
    laterality,
    setupSeconds,
    dose: _dose,
    range,
    faults,
    stops,
    variants,
    changes,
    after,
    breathing,
    load,
    loads,
    when,
    ...same
  } = e;
  const usual = usualStops(e.tags);
  const own = stops.filter((s) => !usual.includes(s));
  return {
    ...same,
    ...(changes.length === 0 ? {} : { changes }),
    ...(after.length === 0 ? {} : { after }),
    ...(breathing === null ? {} : { breathing }),
    ...(load === null ? {} : { load }),
    ...(Object.keys(loads).length === 0 ? {} : { loads }),
    ...(when === null ? {} : { when }),
    ...(own.length === 0 ? {} : { stops: own }),
    ...(variants.length === 0
      ? {}
      : { variants: Object.fromEntries(variants.map(({ key, ...v }) => [key, v])) }),
    sides: laterality === 'together' ? 'together' : 'each',
    setup: setupSeconds,
    dose: writtenDose(e),
    range: Object.fromEntries(
      WRITTEN_RANGE.flatMap(([short, long]) => (range[long] === undefined ? [] : [[short, range[long]]])),
    ) as unknown as WrittenExercise['range'],
    faults: Object.fromEntries(faults.map((f) => [f.fault, f.fix])),
  };
}
