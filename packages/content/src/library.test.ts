import {
  computeDose,
  doseSentence,
  type ExerciseDefinition,
  prescriptionProblems,
  prescriptionTotals,
  weekLoadOf,
  risesOf,
  rungsOf,
  sentenceText,
  sidesFor,
  toDoseInput,
} from '@heathstep/core';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { exercises, ladders, drivers } = loaded.content;
const each = exercises.map((e) => [e.key, e] as const);
const prescribed = (e: ExerciseDefinition) => ({
  ...e.dose,
  exercise: e.key,
  slot: '',
  sides: sidesFor(e, 'treated', 'left'),
});
const sentenceOf = (key: string) => {
  const e = exercises.find((x) => x.key === key);
  if (e === undefined) throw new Error(key);
  return sentenceText(doseSentence(prescribed(e), e));
};

describe('the library of exercises', () => {
  it('has at least 110 exercises and aids, each on a ladder', () => {
    expect(exercises.length).toBeGreaterThanOrEqual(110);
    expect(ladders.flatMap((l) => rungsOf(exercises, l.key))).toHaveLength(exercises.length);
  });

  it.each([
    'toe-control',
    'toe-lift',
    'gather',
    'pick-up',
    'arch',
    'toe-press',
    'ankle-range',
    'calf-range',
    'soleus-range',
    'toe-range',
    'forefoot-glide',
    'sole-range',
    'hip-range',
    'sole-relief',
    'soft-tissue',
    'calf-relief',
    'band',
    'heel-raise',
    'raise-control',
    'calf-knee',
    'tiptoe',
    'shin',
    'squat',
    'balance',
    'hip',
    'return',
    'run',
    'dance',
    'spacers',
    'aids',
  ])('has the ladder %s', (key) => {
    expect(rungsOf(exercises, key).length).toBeGreaterThan(0);
  });

  it.each(each)('%s says what it is, how it feels, what goes wrong and when to stop', (_key, e) => {
    for (const text of [
      e.name,
      e.position,
      e.place,
      e.surface,
      e.space,
      e.moves,
      e.feel,
      e.change,
      e.evidence.source,
    ])
      expect(text.trim()).not.toBe('');
    expect(e.steps.length).toBeGreaterThanOrEqual(2);
    expect(e.faults.length).toBeGreaterThanOrEqual(1);
    expect(e.stops).toContain('sharp or rising pain');
    expect(e.parts.length).toBeGreaterThanOrEqual(1);
    expect(
      e.rung === 1 || ladders.find((l) => l.key === e.ladder)?.set === true || e.changes.length > 0,
    ).toBe(true);
  });

  it.each(each)('%s has a dose that can be laid out', (_key, e) => {
    expect(computeDose(toDoseInput(prescribed(e), e)).ok).toBe(true);
  });

  it('carries what it loads with in a field that says so', () => {
    for (const e of exercises.filter((x) => x.range.addedKg !== undefined))
      expect(e.loadKind).toMatch(/ weight$/);
    for (const e of exercises.filter((x) => x.equipment.includes('band'))) expect(e.loadKind).toBe('band');
  });

  it('names its exercises and shows its steps only once', () => {
    expect(new Set(exercises.map((e) => e.name.toLowerCase())).size).toBe(exercises.length);
    expect(new Set(exercises.map((e) => e.steps.join('/'))).size).toBe(exercises.length);
  });

  it('serves every driver', () => {
    const served = new Set(exercises.flatMap((e) => e.drivers));
    expect(drivers.map((d) => d.key).filter((k) => !served.has(k))).toEqual([]);
  });

  it('leads from ladder to ladder where one is built on another', () => {
    const rises = risesOf(exercises, (l) => ladders.find((x) => x.key === l)?.set !== true);
    const across = rises.filter((r) => r.across).map((r) => `${r.from} > ${r.to}`);
    expect(across).toContain('raise-two-legs > raise-turned');
    expect(across).toContain('pogo > walk-run');
  });

  it.each([
    ['toe-spread', 'Left, 1 set of 10 holds of 2 s, once a day, every day.'],
    ['towel-gather', 'Left, 2 sets of 20 pulls, 1 s pull, 1 s let go, rest 45 s, once a day, 5 days a week.'],
    ['band-out', 'Left, 2 sets of 12, 2 s out, 1 s hold, 3 s back, rest 45 s, once a day, 4 days a week.'],
    ['pick-up', 'Left, 1 set of 8 pieces, held 3 s, once a day, 6 days a week.'],
    ['spacers-seated', 'Both feet together, 15 min, once a day, every day.'],
    ['walk-run', '4 times 1 min run, 4 min walk, once a day, 3 days a week.'],
  ])('%s is told as: %s', (key, words) => {
    expect(sentenceOf(key)).toBe(words);
  });

  it('tells the variant that is prescribed, and refuses one the exercise does not have', () => {
    const wall = exercises.find((e) => e.key === 'calf-wall-straight');
    if (wall === undefined) throw new Error('no wall stretch');
    const turned = { ...prescribed(wall), variant: 'turned-in' };
    expect(sentenceText(doseSentence(turned, wall))).toBe(
      'Left, toes a little in, 1 set of 3 holds of 45 s, once a day, every day.',
    );
    expect(prescriptionProblems(turned, wall)).toEqual([]);
    expect(prescriptionProblems({ ...turned, variant: 'upside-down' }, wall).map((p) => p.path)).toEqual([
      'variant',
    ]);
  });

  it('takes of an aid the time to put it on, not the hours it is worn', () => {
    const splint = exercises.find((e) => e.key === 'night-splint');
    if (splint === undefined) throw new Error('no splint');
    const totals = prescriptionTotals(prescribed(splint), splint);
    expect(totals.ok && totals.value.daySeconds).toBe(60);
    const calf = { key: 'calf', model: 'heel-raise' } as const;
    expect(weekLoadOf(prescribed(splint), splint, calf, 70)).toBeNull();
  });
});
