import type { WrittenExercise } from '@heathstep/content';

/** What is typed, as it is typed; numbers are read when it is sent. */
export interface Typed {
  readonly text: Readonly<Record<TextField, string>>;
  readonly lists: Readonly<Record<ListField, readonly string[]>>;
  readonly range: Readonly<Record<RangeField, readonly [min: string, max: string]>>;
  /** Said by what it was made from and not changed here. */
  readonly kept: Pick<WrittenExercise, 'variants' | 'load' | 'loads' | 'when' | 'abilities' | 'also'>;
}

export type TextField =
  | 'name'
  | 'aim'
  | 'sides'
  | 'position'
  | 'place'
  | 'surface'
  | 'space'
  | 'moves'
  | 'steps'
  | 'breathing'
  | 'feel'
  | 'faults'
  | 'stops'
  | 'setup'
  | 'sets'
  | 'reps'
  | 'way'
  | 'up'
  | 'top'
  | 'down'
  | 'pause'
  | 'hold'
  | 'release'
  | 'rest'
  | 'kg'
  | 'day'
  | 'week'
  | 'counted'
  | 'out'
  | 'back'
  | 'loadKind'
  | 'change'
  | 'statement'
  | 'source'
  | 'kind';
export type ListField = 'equipment' | 'parts' | 'tags' | 'drivers' | 'after' | 'changes';
const RANGES = ['sets', 'reps', 'hold', 'up', 'top', 'down', 'rest', 'kg', 'day', 'week'] as const;
export type RangeField = (typeof RANGES)[number];

const shown = (v: number | undefined): string => (v === undefined ? '' : String(v));

/** Each fault on a line of its own, what helps after a colon. */
const faultLines = (faults: Readonly<Record<string, string>>): string =>
  Object.entries(faults)
    .map(([fault, fix]) => `${fault}: ${fix}`)
    .join('\n');

export function typedFrom(w: WrittenExercise): Typed {
  const { dose, range } = w;
  return {
    text: {
      name: w.name,
      aim: w.aim,
      sides: w.sides,
      position: w.position,
      place: w.place,
      surface: w.surface ?? '',
      space: w.space ?? '',
      moves: w.moves,
      steps: w.steps.join('\n'),
      breathing: w.breathing ?? '',
      feel: w.feel,
      faults: faultLines(w.faults),
      stops: (w.stops ?? []).join('\n'),
      setup: shown(w.setup),
      sets: shown(dose.sets),
      reps: shown(dose.reps),
      way: dose.tempo === undefined ? 'hold' : 'tempo',
      up: shown(dose.tempo?.[0]),
      top: shown(dose.tempo?.[1]),
      down: shown(dose.tempo?.[2]),
      pause: shown(dose.tempo?.[3]),
      hold: shown(dose.hold),
      release: shown(dose.release),
      rest: shown(dose.rest),
      kg: shown(dose.kg),
      day: shown(dose.day),
      week: shown(dose.week),
      counted: w.counted ?? '',
      out: w.beats?.[0] ?? '',
      back: w.beats?.[1] ?? '',
      loadKind: w.loadKind ?? '',
      change: w.change ?? '',
      statement: w.evidence?.statement ?? '',
      source: w.evidence?.source ?? '',
      kind: w.evidence?.kind ?? 'convention',
    },
    lists: {
      equipment: w.equipment ?? [],
      parts: w.parts,
      tags: w.tags ?? [],
      drivers: w.drivers ?? [],
      after: w.after ?? [],
      changes: w.changes ?? [],
    },
    range: Object.fromEntries(
      RANGES.map((k) => [k, [shown(range[k]?.[0]), shown(range[k]?.[1])]]),
    ) as unknown as Typed['range'],
    kept: {
      variants: w.variants,
      load: w.load,
      loads: w.loads,
      when: w.when,
      abilities: w.abilities,
      also: w.also,
    },
  };
}

const number = (text: string): number | string => {
  const value = Number(text.replace(',', '.'));
  return text.trim() === '' || Number.isNaN(value) ? text : value;
};
const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '');

const said = <T>(key: string, value: T, empty: boolean): Record<string, T> => (empty ? {} : { [key]: value });

/** As it is sent: what is no number stays what was typed, so that the answer names its field. */
export function writtenFrom({ text: t, lists, range, kept }: Typed): object {
  const tempo = t.way === 'tempo';
  const ranges = RANGES.filter((k) =>
    tempo ? k !== 'hold' : k !== 'up' && k !== 'top' && k !== 'down',
  ).filter((k) => range[k].some((v) => v.trim() !== ''));
  return {
    key: 'own',
    ladder: 'own',
    rung: 1,
    ...Object.fromEntries(Object.entries(kept).filter(([, v]) => v !== undefined)),
    ...(lists.changes.length === 0 || lists.after.length === 0 ? {} : { changes: lists.changes }),
    name: t.name.trim(),
    aim: t.aim,
    sides: t.sides,
    ...said('change', t.change.trim(), t.change.trim() === ''),
    ...said('after', lists.after, lists.after.length === 0),
    position: t.position.trim(),
    ...said('equipment', lists.equipment, lists.equipment.length === 0),
    place: t.place.trim(),
    ...said('surface', t.surface.trim(), t.surface.trim() === ''),
    ...said('space', t.space.trim(), t.space.trim() === ''),
    parts: lists.parts,
    moves: t.moves.trim(),
    steps: linesOf(t.steps),
    ...said('breathing', t.breathing.trim(), t.breathing.trim() === ''),
    feel: t.feel.trim(),
    faults: Object.fromEntries(
      linesOf(t.faults).map((l) => {
        const [fault = '', ...fix] = l.split(':');
        return [fault.trim(), fix.join(':').trim()];
      }),
    ),
    ...said('stops', linesOf(t.stops), linesOf(t.stops).length === 0),
    tags: lists.tags,
    drivers: lists.drivers,
    setup: number(t.setup),
    dose: {
      sets: number(t.sets),
      reps: number(t.reps),
      ...(tempo
        ? { tempo: [t.up, t.top, t.down, t.pause].map((v) => number(v.trim() === '' ? '0' : v)) }
        : { hold: number(t.hold), ...said('release', number(t.release), t.release.trim() === '') }),
      rest: number(t.rest),
      ...said('kg', number(t.kg), t.kg.trim() === ''),
      day: number(t.day),
      week: number(t.week),
    },
    range: Object.fromEntries(ranges.map((k) => [k, range[k].map(number)])),
    ...said('counted', t.counted, t.counted === ''),
    ...(t.out.trim() === '' || t.back.trim() === '' ? {} : { beats: [t.out.trim(), t.back.trim()] }),
    ...said('loadKind', t.loadKind, t.loadKind === ''),
    ...(t.source.trim() === ''
      ? {}
      : {
          evidence: {
            statement: t.statement.trim() === '' ? t.source.trim() : t.statement.trim(),
            source: t.source.trim(),
            kind: t.kind,
            version: 1,
          },
        }),
  };
}

/** An exercise of which only what most have is said. */
export const BLANK: WrittenExercise = {
  key: 'own',
  name: '',
  aim: 'strength',
  ladder: 'own',
  rung: 1,
  sides: 'each',
  position: 'standing',
  place: 'a wall or worktop within reach',
  parts: [],
  moves: '',
  steps: [],
  feel: '',
  faults: {},
  setup: 10,
  dose: { sets: 2, reps: 10, tempo: [2, 1, 3, 0], rest: 45, day: 1, week: 4 },
  range: {
    sets: [1, 3],
    reps: [5, 20],
    up: [1, 4],
    top: [0, 5],
    down: [1, 6],
    rest: [30, 120],
    day: [1, 2],
    week: [2, 7],
  },
};
