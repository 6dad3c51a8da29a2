import { say } from '@heathstep/core';
import { type ContentBundle, OWN_LADDER } from '@heathstep/content';
import {
  type BandView,
  type NoteView,
  type OwnExerciseView,
  ownRoutineKey,
  type OwnRoutineView,
} from '@heathstep/contracts';
import type { ExerciseDefinition, FigureDefinition, RoutineDefinition, RoutineItem } from '@heathstep/core';
import type { Tx } from '../persistence/db.js';

type DrawnFigure = FigureDefinition & { readonly exercise: string };

interface OwnRow {
  readonly key: string;
  readonly version: number;
  readonly filled_id: string;
  readonly definition: ExerciseDefinition;
  readonly figure: DrawnFigure;
  readonly retired: boolean;
  readonly at: Date;
  readonly author: string;
}

/** The newest version of each exercise of the clinic's own, the first made first. */
const ownRows = (tx: Tx): Promise<OwnRow[]> =>
  tx.query<OwnRow[]>(
    `SELECT newest.*, u.name AS author,
            (SELECT min(f.at) FROM clinic_exercise f WHERE f.key = newest.key) AS first_at
       FROM (SELECT DISTINCT ON (key) key, version, filled_id, definition, figure, retired, author_id, at
               FROM clinic_exercise ORDER BY key, version DESC) newest
       JOIN app_user u ON u.id = newest.author_id ORDER BY first_at, newest.key`,
  );

/** Shipped exercises with their figures, and a clinic's own. */
export class Library {
  /** What a plan can still be given. */
  readonly offered: readonly ExerciseDefinition[];
  private readonly byKey: ReadonlyMap<string, ExerciseDefinition>;
  private readonly drawn: ReadonlyMap<string, DrawnFigure>;

  constructor(
    readonly exercises: readonly ExerciseDefinition[],
    readonly figures: readonly DrawnFigure[],
    /** Put aside: they stay in the plans that have them, and are offered to no new one. */
    aside: ReadonlySet<string> = new Set(),
  ) {
    this.offered = exercises.filter((e) => !aside.has(e.key));
    this.byKey = new Map(exercises.map((e) => [e.key, e]));
    this.drawn = new Map(figures.map((f) => [f.exercise, f]));
  }

  static async of(bundle: ContentBundle, tx: Tx): Promise<Library> {
    return Library.with(bundle, await ownRows(tx));
  }

  static with(bundle: ContentBundle, rows: readonly OwnRow[]): Library {
    if (rows.length === 0) return shipped(bundle);
    const own = rows.map((r, i) => ({ ...r.definition, rung: i + 1 }));
    const aside = new Set(rows.filter((r) => r.retired).map((r) => r.key));
    return new Library(
      [...bundle.exercises, ...own],
      [...bundle.figures, ...rows.map((r) => r.figure)],
      aside,
    );
  }

  exercise(key: string): ExerciseDefinition | undefined {
    return this.byKey.get(key);
  }

  figure(key: string): DrawnFigure | undefined {
    return this.drawn.get(key);
  }
}

const libraries = new WeakMap<ContentBundle, Library>();

/** Made once: most clinics have no exercises of their own. */
function shipped(bundle: ContentBundle): Library {
  const made = libraries.get(bundle) ?? new Library(bundle.exercises, bundle.figures);
  libraries.set(bundle, made);
  return made;
}

interface RoutineRow {
  readonly id: string;
  readonly name: string;
  readonly items: readonly RoutineItem[];
  readonly at: Date;
  readonly by: string;
}

/** A routine of the clinic's own as one of the shipped. */
const ownRoutine = ({ id, name, items }: RoutineRow): RoutineDefinition => ({
  key: ownRoutineKey(id),
  name,
  purpose: '',
  mind: '',
  items,
  evidence: { statement: '', source: say('Of the clinic itself'), kind: 'convention', version: 1 },
});

/** Shipped routines and those of the clinic's own that are not put aside, the newest last. */
async function clinicRoutines(
  bundle: ContentBundle,
  tx: Tx,
): Promise<{
  readonly routines: readonly RoutineDefinition[];
  readonly ownRoutines: readonly OwnRoutineView[];
}> {
  const rows = await tx.query<RoutineRow[]>(
    `SELECT r.id, r.name, r.items, r.at, u.name AS by
       FROM clinic_routine r JOIN app_user u ON u.id = r.author_id WHERE NOT r.retired ORDER BY r.at, r.id`,
  );
  return {
    routines: [...bundle.routines, ...rows.map(ownRoutine)],
    ownRoutines: rows.map((r) => ({ key: ownRoutineKey(r.id), id: r.id, at: r.at.toISOString(), by: r.by })),
  };
}

/** What a clinic has in its library beyond the shipped content, and what one of its people marked. */
export async function clinicLibrary(bundle: ContentBundle, tx: Tx, userId: string): Promise<object> {
  const rows = await ownRows(tx);
  const { exercises, figures } = Library.with(bundle, rows);
  const favourites = await tx.query<{ exercise: string }[]>(
    'SELECT exercise FROM exercise_favourite WHERE user_id = $1 ORDER BY exercise',
    [userId],
  );
  const notes = await tx.query<{ exercise: string; text: string; version: number; at: Date; by: string }[]>(
    `SELECT DISTINCT ON (n.exercise) n.exercise, n.text, n.version, n.at, u.name AS by
       FROM exercise_note n JOIN app_user u ON u.id = n.author_id ORDER BY n.exercise, n.version DESC`,
  );
  const bands = await tx.query<(Omit<BandView, 'at'> & { at: Date })[]>(
    `SELECT DISTINCT ON (b.band) b.band, b.points, b.at, u.name AS by
       FROM band_calibration b JOIN app_user u ON u.id = b.author_id ORDER BY b.band, b.at DESC`,
  );
  const { routines, ownRoutines } = await clinicRoutines(bundle, tx);
  return {
    exercises,
    figures,
    routines,
    ownRoutines,
    ladders: rows.length === 0 ? bundle.ladders : [...bundle.ladders, OWN_LADDER],
    ownExercises: rows.map((r): OwnExerciseView => ({
      key: r.key,
      id: r.filled_id,
      version: r.version,
      retired: r.retired,
      at: r.at.toISOString(),
      by: r.author,
    })),
    favourites: favourites.map((f) => f.exercise),
    notes: Object.fromEntries(
      notes.map(({ exercise, at, ...n }): [string, NoteView] => [exercise, { ...n, at: at.toISOString() }]),
    ),
    bands: bands.map((b): BandView => ({ ...b, at: b.at.toISOString() })),
  };
}
