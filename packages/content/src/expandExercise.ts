import { phrase } from '@heathstep/core';
import type { DoseRanges, Evidence, ExerciseDefinition, Span, Tag, Variant } from '@heathstep/core';

interface WrittenDose {
  readonly sets: number;
  readonly reps: number;
  readonly hold?: number;
  readonly release?: number;
  readonly tempo?: readonly [number, number, number, number];
  readonly rest: number;
  readonly kg?: number;
  readonly day: number;
  readonly week: number;
}

type WrittenRange = Readonly<Record<'sets' | 'reps' | 'rest' | 'day' | 'week', Span>> &
  Readonly<Partial<Record<'hold' | 'up' | 'top' | 'down' | 'kg', Span>>>;

type Left =
  | 'change'
  | 'changes'
  | 'after'
  | 'equipment'
  | 'surface'
  | 'space'
  | 'breathing'
  | 'tags'
  | 'drivers'
  | 'counted'
  | 'beats'
  | 'loadKind'
  | 'load'
  | 'when'
  | 'loads'
  | 'evidence';

export type WrittenExercise = Omit<
  ExerciseDefinition,
  Left | 'laterality' | 'setupSeconds' | 'dose' | 'range' | 'faults' | 'stops' | 'variants'
> &
  Partial<Pick<ExerciseDefinition, Left>> & {
    readonly sides: 'together' | 'each';
    readonly setup: number;
    readonly dose: WrittenDose;
    readonly range: WrittenRange;
    readonly faults: Readonly<Record<string, string>>;
    readonly stops?: readonly string[];
    readonly variants?: Readonly<Record<string, Omit<Variant, 'key'>>>;
  };

/** Signs to stop that go with everything of a tag. Convention, like the tags themselves. */
const STOPS: Readonly<Partial<Record<Tag, string>>> = {
  'calf-load': 'a snap or sudden weakness in the calf',
  impact: 'pain in one spot of a bone, or a limp',
  'deep-dorsiflexion': 'a pinch at the front of the ankle',
  'forced-extension': 'a sharp catch on top of the big toe joint',
  'pressure-on-sole': 'a bruise, or numbness of the toes',
  'skin-pressure': 'redness that stays, or a blister',
  compression: 'a cold, white or throbbing foot',
  scraping: 'broken skin or a bruise',
  'standing-unsupported': 'dizziness, or a step to catch yourself',
};

const ALWAYS = 'sharp or rising pain';

/** Signs to stop that go with any exercise of these tags. */
export const usualStops = (tags: readonly Tag[]): string[] => [
  ALWAYS,
  ...tags.flatMap((t) => STOPS[t] ?? []),
];

const EVIDENCE: Evidence = {
  statement: 'Starting dose and range within the clinic’s limits',
  source: 'Convention',
  kind: 'convention',
  version: 1,
};

function rangeOf({ sets, reps, hold, up, top, down, rest, kg, day, week }: WrittenRange): DoseRanges {
  return {
    sets,
    reps,
    ...(hold === undefined ? {} : { holdSeconds: hold }),
    ...(up === undefined ? {} : { upSeconds: up }),
    ...(top === undefined ? {} : { topSeconds: top }),
    ...(down === undefined ? {} : { downSeconds: down }),
    restSeconds: rest,
    ...(kg === undefined ? {} : { addedKg: kg }),
    timesPerDay: day,
    daysPerWeek: week,
  };
}

function doseOf({ sets, reps, hold, release, tempo, rest, kg, day, week }: WrittenDose) {
  return {
    sets,
    reps,
    ...(hold === undefined ? {} : { holdSeconds: hold }),
    ...(release === undefined ? {} : { releaseSeconds: release }),
    ...(tempo === undefined
      ? {}
      : {
          tempo: {
            upSeconds: tempo[0],
            topSeconds: tempo[1],
            downSeconds: tempo[2],
            bottomSeconds: tempo[3],
          },
        }),
    restSeconds: rest,
    ...(kg === undefined ? {} : { addedKg: kg }),
    timesPerDay: day,
    daysPerWeek: week,
  };
}

/** A written exercise with everything it left to the rule: nothing needed, any firm floor, reps or holds by its dose. */
export function expandExercise(w: WrittenExercise): ExerciseDefinition {
  const tags = w.tags ?? [];
  const standing = tags.includes('weight-bearing');
  return {
    key: w.key,
    name: w.name,
    aim: w.aim,
    ladder: w.ladder,
    rung: w.rung,
    change: w.change ?? phrase('the start'),
    changes: w.changes ?? [],
    after: w.after ?? [],
    ...(w.abilities === undefined ? {} : { abilities: w.abilities }),
    ...(w.also === undefined ? {} : { also: w.also }),
    laterality: w.sides === 'together' ? 'together' : 'per-side',
    position: w.position,
    equipment: w.equipment ?? [],
    place: w.place,
    surface: w.surface ?? (standing ? 'firm and dry' : 'any'),
    space: w.space ?? 'where you are',
    parts: w.parts,
    moves: w.moves,
    steps: w.steps,
    breathing: w.breathing ?? null,
    feel: w.feel,
    faults: Object.entries(w.faults).map(([fault, fix]) => ({ fault, fix })),
    stops: [...new Set([...usualStops(tags), ...(w.stops ?? [])])],
    tags,
    drivers: w.drivers ?? [],
    setupSeconds: w.setup,
    dose: doseOf(w.dose),
    range: rangeOf(w.range),
    counted: w.counted ?? (w.dose.tempo === undefined ? 'holds' : 'reps'),
    beats: w.beats ?? ['up', 'down'],
    loadKind: w.loadKind ?? (standing ? 'body' : 'none'),
    variants: Object.entries(w.variants ?? {}).map(([key, v]) => ({ key, ...v })),
    load: w.load ?? null,
    loads: w.loads ?? {},
    when: w.when ?? null,
    evidence: w.evidence ?? EVIDENCE,
  };
}
