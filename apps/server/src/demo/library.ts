import { checkExerciseFile, type ContentBundle, writeExercise } from '@heathstep/content';
import type { FigureDefinition } from '@heathstep/core';
import type { EntityManager } from 'typeorm';
import {
  BandCalibration,
  ClinicExercise,
  ContentReview,
  ExerciseFavourite,
  ExerciseNote,
  TaughtExercise,
} from '../persistence/entities.js';

const STRETCHES = [50, 100, 150, 200];
const BANDS = { light: [14, 20, 26, 31], medium: [24, 34, 43, 52], firm: [38, 55, 68, 82] } as const;
const FAVOURITES = ['raise-towel-one-leg', 'doming-standing', 'knee-forward-weighted', 'stance-head-turns'];

/** An exercise the made-up clinic adapted: its heel raise on a low kerb, less high. */
function adapted(content: ContentBundle): {
  exercise: object;
  figure: FigureDefinition & { exercise: string };
} {
  const from = content.exercises.find((e) => e.key === 'raise-two-legs');
  const drawn = content.figures.find((f) => f.exercise === 'raise-two-legs');
  if (from === undefined || drawn?.view !== 'side') throw new Error('The demo adapts raise-two-legs');
  const end = {
    ...drawn.end,
    near: { ...drawn.end.near, pitch: 22 },
    ...(drawn.end.far === undefined ? {} : { far: { ...drawn.end.far, pitch: 22 } }),
  };
  return {
    exercise: {
      ...writeExercise(from),
      name: 'Half heel raise at the sorting table',
      steps: [
        'Stand at the sorting table, fingers on it',
        'Rise half way on both feet',
        'Lower slowly, heels quiet',
      ],
      after: ['raise-seated'],
      change: 'standing, half the height',
      changes: ['position', 'load'],
      evidence: {
        statement: 'For shifts on hard floors',
        source: 'Agreed in the team',
        kind: 'convention',
        version: 1,
      },
    },
    figure: { ...drawn, end },
  };
}

/** What the made-up clinic keeps in its library: an exercise of its own, bands, favourites, a note, a review, a lesson. */
export async function loadDemoLibrary(
  tx: EntityManager,
  content: ContentBundle,
  clinic: {
    readonly clinicId: string;
    readonly who: {
      readonly lead: string;
      readonly leadName: string;
      readonly clinician: string;
      readonly episode: string;
    };
    readonly id: (...parts: string[]) => string;
    readonly now: Date;
  },
): Promise<void> {
  const { clinicId, who, id, now } = clinic;
  const daysAgo = (days: number) => new Date(now.getTime() - days * 86_400_000);
  const filledId = id('exercise', 'half-raise');
  const key = `own-${filledId.slice(0, 8)}`;
  const { exercise, figure } = adapted(content);
  const file = { format: 'heathstep exercise', version: 1, exercise, figure };
  const checked = checkExerciseFile(file, { key, rung: 1, version: 1 }, content);
  if (!checked.ok) throw new Error(checked.problems.map((p) => `${p.pointer} ${p.detail}`).join('\n'));
  await tx.insert(ClinicExercise, {
    clinicId,
    key,
    version: 1,
    filledId,
    file,
    definition: checked.exercise,
    figure: checked.figure,
    retired: false,
    authorId: who.clinician,
    at: daysAgo(30),
  });
  for (const [band, newtons] of Object.entries(BANDS))
    await tx.insert(BandCalibration, {
      id: id('band', band),
      clinicId,
      band,
      points: STRETCHES.map((stretchPercent, i) => ({ stretchPercent, newtons: newtons[i] ?? 0 })),
      authorId: who.lead,
      at: daysAgo(40),
    });
  for (const favourite of FAVOURITES)
    await tx.insert(ExerciseFavourite, { clinicId, userId: who.clinician, exercise: favourite });
  await tx.insert(ExerciseNote, {
    clinicId,
    exercise: 'raise-towel-one-leg',
    version: 1,
    text: 'The step in room two is 16 cm. Roll the small blue towel, not the large one.',
    authorId: who.lead,
    at: daysAgo(35),
  });
  await tx.insert(ContentReview, {
    clinicId,
    item: 'exercise:raise-towel-one-leg',
    version: 1,
    reviewer: who.leadName,
    reviewedOn: daysAgo(53).toISOString().slice(0, 10),
  });
  const fault = content.exercises.find((e) => e.key === 'doming-seated')?.faults[0]?.fault;
  await tx.insert(TaughtExercise, {
    id: id('taught', 'doming-seated'),
    clinicId,
    episodeId: who.episode,
    exercise: 'doming-seated',
    side: 'left',
    reps: 10,
    faults: fault === undefined ? [] : [fault],
    authorId: who.clinician,
    at: daysAgo(12),
  });
}
