import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  combineTrials,
  compareSides,
  compareValues,
  composePlan,
  type ComposeInput,
  doseSentence,
  type Facts,
  guardReading,
  mdcBetween,
  type MeasureDefinition,
  prescriptionProblems,
  prescriptionTime,
  weekLoadOf,
  orThrow,
  readThreshold,
  semAt,
  sentenceText,
  TAGS,
  type Tag,
  withDoseField,
} from '@heathstep/core';
import fc from 'fast-check';
import { contentReport, loadContent, loadContentFrom } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const content = loaded.content;
const heelPain = content.protocols.find((p) => p.key === 'plantar-heel-pain');
const exercise = (key: string) => {
  const found = content.exercises.find((e) => e.key === key);
  if (found === undefined) throw new Error(`no exercise ${key}`);
  return found;
};

describe('shipped content', () => {
  it('has no problems, and at least 16 exercises on the heel pain ladders', () => {
    const report = contentReport(loaded);
    expect(report.problems).toEqual([]);
    const ladders = new Set(heelPain?.stages.flatMap((s) => s.slots.map((slot) => slot.ladder)));
    expect(content.exercises.filter((e) => ladders.has(e.ladder)).length).toBeGreaterThanOrEqual(16);
    expect(report.counts.measures).toBe(report.keys.measures.length);
  });

  it('is frozen to the depths', () => {
    expect(Object.isFrozen(content.exercises[0]?.dose)).toBe(true);
    expect(() => Object.assign(content.measures[0] as object, { label: 'x' })).toThrow(TypeError);
  });

  it('gives every item a source, and says convention where it is one', () => {
    const sources = [
      ...content.measures,
      ...content.exercises,
      ...content.safetyRules,
      ...content.protocols,
    ].map((i) => i.evidence);
    expect(sources.every((e) => e.source.length > 0)).toBe(true);
    expect(sources.filter((e) => e.kind === 'convention').every((e) => /convention/i.test(e.source))).toBe(
      true,
    );
  });
});

describe('bad content', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'heathstep-content-'));
    cpSync(join(__dirname, '..', 'data'), join(folder, 'data'), { recursive: true });
    cpSync(join(__dirname, '..', 'schemas'), join(folder, 'schemas'), { recursive: true });
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  it.each([
    ['measures/range.yaml', 'mdc: 4.5', 'mdc: none', /data\/measures\/range.yaml at \/0\/error.*number/],
    [
      'measures/range.yaml',
      'direction: more',
      'direction: up',
      /data\/measures\/range.yaml at \/0\/direction: must be one of more, less, target/,
    ],
    [
      'measures/pain.yaml',
      '  region: heel',
      '  region: heel\n  colour: red',
      /pain.yaml at \/0: unknown field colour/,
    ],
    [
      'exercises/arch.yaml',
      'ladder: arch',
      'ladder: arches',
      /exercises at doming-seated: there is no ladder arches/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'start: sole-stretch',
      'start: sole-strech',
      /slot before-first-step: there is no exercise sole-strech/,
    ],
    [
      'safety/40-nerve.yaml',
      '- diabetes',
      '- diabetis',
      /safety at diabetis: a rule uses a question that is not there/,
    ],
    ['safety/10-injury.yaml', 'part: heel', 'part: heal', /safety at heel-squeeze: there is no part heal/],
    [
      'safety/10-injury.yaml',
      '    part: heel\n',
      '',
      /safety at heel-squeeze: a test without the part it is made on/,
    ],
    [
      'safety/60-health.yaml',
      '    how: ask\n',
      '    how: ask\n    part: heel\n',
      /only a test has a part and can be spared/,
    ],
    [
      'pathways/pathways.yaml',
      'parts: [heel]',
      'parts: [heal]',
      /pathways at plantar-heel-pain: there is no part heal/,
    ],
    ['ladders/ladders.yaml', 'key: hip', 'key: [hip', /ladders.yaml at line/],
    [
      'protocols/plantar-heel-pain.yaml',
      'drivers: [arch-weak]',
      'drivers: [arch-week]',
      /plantar-heel-pain\/calm: there is no driver arch-week/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'school: { insole: temporary }',
      'school: { insole: permanent }',
      /adjunct insole-temporary: insole has no choice permanent/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'school: { lengthening: stretch-led }',
      'school: { lengthning: stretch-led }',
      /there is no school question lengthning/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'conditions: [plantar-heel-pain]',
      'conditions: [plantar-heal-pain]',
      /protocols at plantar-heel-pain: there is no condition plantar-heal-pain/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'key: build',
      'key: calm',
      /protocols plantar-heel-pain stages at calm: the key is used twice/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'key: day-worst',
      'key: first-steps',
      /home questions at first-steps: the key is used twice/,
    ],
    [
      'protocols/plantar-heel-pain.yaml',
      'unableAt: { measure: single-leg-heel-raise, stage: build',
      'unableAt: { measure: single-leg-heel-raise, stage: bild',
      /there is no stage bild/,
    ],
    [
      'pathways/pathways.yaml',
      'skills: [foot-shortening',
      'skills: [foot-shortning',
      /no skill foot-shortning/,
    ],
    [
      'protocols/by-findings.yaml',
      'drivers: [calf-short]',
      'drivers: []',
      /slot calf-length: is only for drivers and names none/,
    ],
    ['skills/skills.yaml', 'foot-shortening-count', 'foot-shortening-cnt', /no measure foot-shortening-cnt/],
  ])('%s: "%s" as "%s" is refused with file, path and reason', (file, from, to, message) => {
    const path = join(folder, 'data', file);
    writeFileSync(path, readFileSync(path, 'utf8').replace(from, to));
    const result = loadContentFrom(folder);
    expect(result.ok ? '' : result.problems.join('\n')).toMatch(message);
  });
});

const NOW = '2026-04-20T09:00:00Z';
const facts: Facts = { measures: [], sessions: [], skills: {}, stageSince: NOW, affected: 'left' };
const stage = (key: string) => {
  const found = heelPain?.stages.find((s) => s.key === key);
  if (found === undefined) throw new Error(`no stage ${key}`);
  return found;
};
const lookup = (key: string) => content.measures.find((m) => m.key === key);
const base: ComposeInput = {
  stage: stage('build'),
  exercises: content.exercises,
  facts,
  schools: { lengthening: 'loading-led', insole: 'temporary' },
  equipment: ['towel', 'belt', 'ball', 'step', 'hand weight'],
  minutesPerDay: 25,
  tagsOff: { left: [], right: [] },
  drivers: [],
  now: NOW,
};
const keys = (change: Partial<ComposeInput>) =>
  composePlan({ ...base, ...change }, lookup).exercises.map((e) => e.exercise);

describe('filling the slots of a stage', () => {
  it('never goes over the minutes or the number of exercises, and never offers what is switched off', () => {
    const tags: Tag[] = ['weight-bearing', 'barefoot', 'calf-load', 'standing-unsupported'];
    fc.assert(
      fc.property(
        fc.constantFrom('calm', 'build', 'heavy', 'return', 'upkeep'),
        fc.integer({ min: 3, max: 40 }),
        fc.subarray(tags),
        (key, minutesPerDay, off) => {
          const plan = composePlan(
            { ...base, stage: stage(key), minutesPerDay, tagsOff: { left: off, right: [] } },
            lookup,
          );
          expect(plan.minutesPerDay).toBeLessThanOrEqual(minutesPerDay + 1e-9);
          expect(plan.exercises.length).toBeLessThanOrEqual(5);
          for (const p of plan.exercises) {
            expect(exercise(p.exercise).tags.filter((t) => off.includes(t))).toEqual([]);
            expect(prescriptionProblems(p, exercise(p.exercise))).toEqual([]);
          }
        },
      ),
    );
  });

  it('starts on the rung the measures allow', () => {
    const eight = { measure: 'single-leg-heel-raise', side: 'left' as const, value: 8, at: NOW };
    expect(keys({})).toContain('raise-two-legs');
    expect(keys({ facts: { ...facts, measures: [eight] } })).toContain('raise-up-two-down-one');
    expect(keys({ facts: { ...facts, measures: [{ ...eight, value: 7 }] } })).toContain('raise-two-legs');
  });

  it('takes the next easier exercise when equipment is missing, and says so', () => {
    const plan = composePlan({ ...base, minutesPerDay: 40, maxExercises: 8, equipment: [] }, lookup);
    expect(plan.left).toContainEqual({ exercise: 'towel-gather', why: 'needs towel' });
    expect(plan.exercises.map((e) => e.exercise)).toContain('grip-release');
  });

  it('follows the school', () => {
    expect(keys({ schools: { ...base.schools, lengthening: 'stretch-led' } })).toContain(
      'calf-wall-straight',
    );
    expect(keys({})).not.toContain('calf-wall-straight');
  });

  it('moves a slot up for a driver', () => {
    const tight = { minutesPerDay: 17, maxExercises: 3 };
    expect(keys(tight)).not.toContain('calf-wall-bent');
    const plan = composePlan(
      { ...base, ...tight, drivers: [{ key: 'ankle-stiff', because: 'lunge 30' }] },
      lookup,
    );
    expect(plan.exercises.find((e) => e.exercise === 'calf-wall-bent')?.why).toContain('lunge 30');
  });

  it('treats the sore side for dosed loading and both for skill', () => {
    const plan = composePlan(
      {
        ...base,
        minutesPerDay: 40,
        facts: {
          ...facts,
          affected: 'right',
          measures: [{ measure: 'single-leg-heel-raise', side: 'right', value: 12, at: NOW }],
        },
      },
      lookup,
    );
    const sides = Object.fromEntries(plan.exercises.map((e) => [e.exercise, e.sides]));
    expect(sides).toMatchObject({ 'raise-up-two-down-one': 'right', 'doming-seated': 'one-after-other' });
  });

  it('gives nothing when everything is off', () => {
    const plan = composePlan(
      { ...base, stage: stage('upkeep'), tagsOff: { left: TAGS, right: TAGS } },
      lookup,
    );
    expect(plan.exercises).toEqual([]);
    expect(plan.left.every((l) => l.why.startsWith('safety switches off'))).toBe(true);
  });
});

describe('dose sentence', () => {
  const slow = {
    ...exercise('raise-towel-one-leg').dose,
    exercise: 'raise-towel-one-leg',
    slot: 'x',
    sides: 'left' as const,
  };

  it('reads as one plain sentence', () => {
    expect(sentenceText(doseSentence(slow, exercise('raise-towel-one-leg')))).toBe(
      'Left, 3 sets of 12, 3 s up, 2 s hold, 3 s down, with no weight, rest 90 s, once a day, 3 days a week.',
    );
    const stretch = {
      ...exercise('sole-stretch').dose,
      exercise: 'sole-stretch',
      slot: 'x',
      sides: 'right' as const,
    };
    expect(sentenceText(doseSentence(stretch, exercise('sole-stretch')))).toBe(
      'Right, 1 set of 3 holds of 30 s, 2 times a day, every day, before your first step.',
    );
  });

  it('refuses numbers outside the safe range by their field', () => {
    const paths = (p: typeof slow) => prescriptionProblems(p, exercise(p.exercise)).map((i) => i.path);
    expect(paths(slow)).toEqual([]);
    expect(paths({ ...slow, sets: 6, addedKg: 41 })).toEqual(['sets', 'addedKg']);
    expect(paths(withDoseField(slow, 'downSeconds', 9) as typeof slow)).toEqual(['downSeconds']);
  });

  it('totals time and load for the person', () => {
    const calf = content.tissues.find((t) => t.key === 'calf') ?? { key: '', model: 'weights' as const };
    const load = weekLoadOf(slow, exercise(slow.exercise), calf, 80);
    expect(orThrow(prescriptionTime(slow, exercise(slow.exercise))).exerciseSeconds).toBe(
      30 + 3 * 12 * 8 + 2 * 90,
    );
    expect(load?.left).toBeCloseTo((0.5 / 0.19) * 3 * 12 * 8 * 3, 6);
    expect(load?.right).toBe(0);
  });
});

describe('every measure, at and around its limits', () => {
  const { measures } = content;
  const step = (m: MeasureDefinition): number => 10 ** -m.decimals;
  const limits = measures.flatMap((m) => m.thresholds.map((t, i) => [m.key, t.op, t.value, m, i] as const));

  it.each(limits)('%s %s %d begins to hold exactly there', (_key, op, value, m, index) => {
    // Later thresholds are looked at alone: an earlier one may hold as well.
    const alone: MeasureDefinition = { ...m, thresholds: m.thresholds.slice(index, index + 1), byAge: null };
    const inward = op === '>=' || op === '>' ? 1 : -1;
    const holds = (v: number) => readThreshold(alone, v, null) !== null;
    expect(holds(value)).toBe(op === '>=' || op === '<=');
    expect(holds(value + inward * step(m))).toBe(true);
    expect(holds(value - inward * step(m))).toBe(false);
  });

  it.each(limits)('%s %s %d is passed clearly from one standard error on', (_key, op, value, m, index) => {
    const alone: MeasureDefinition = { ...m, thresholds: m.thresholds.slice(index, index + 1), byAge: null };
    const sem = semAt(m, value);
    if (sem === null) return;
    const inward = op === '>=' || op === '>' ? 1 : -1;
    const far = value + inward * sem * 1.5;
    const near = value + inward * Math.min(sem * 0.5, sem - 1e-6);
    expect(readThreshold(alone, far, null)?.margin).toBe('clear');
    expect(readThreshold(alone, near, null)?.margin).toBe('within-error');
  });

  it.each(measures.map((m) => [m.key, m] as const))(
    '%s: trials, change and sides at its own error',
    (_key, m) => {
      const low = m.usual.min;
      const high = m.usual.max;
      const { value } = combineTrials(m, [low, high, null]);
      expect(value).toBeGreaterThanOrEqual(Math.min(low, high));
      expect(value).toBeLessThanOrEqual(Math.max(low, high));
      const mdc = mdcBetween(m, high, high);
      const change = compareValues(m, high, high - (mdc ?? 0));
      if (mdc === null) expect(compareValues(m, low, high).class).toBe('not-known');
      else if (m.error !== null && 'mdc' in m.error) {
        expect(change.class).toBe('real');
        expect(compareValues(m, high, high - mdc * 0.64).class).toBe('within-error');
        expect(compareValues(m, high, high - mdc * 0.66).class).toBe('likely');
      }
      const flag = m.sideFlag;
      if (flag?.kind === 'difference') {
        const at = compareSides(m, low, low + flag.value, 'left').flagged;
        expect(at).toBe(flag.op === '>=');
        expect(compareSides(m, low, low + flag.value + step(m), 'left').flagged).toBe(true);
      } else if (flag?.kind === 'symmetry' && m.direction === 'more') {
        expect(compareSides(m, 100, flag.below, 'left').flagged).toBe(false);
        expect(compareSides(m, 100, flag.below - 1, 'left').flagged).toBe(true);
      }
    },
  );

  it.each(measures.map((m) => [m.key, m] as const))(
    '%s refuses what cannot be and takes its own limits',
    (_key, m) => {
      if (m.computed !== null) return;
      const state = (v: number) => guardReading(m, String(Number(v.toFixed(4)))).state;
      expect(state(m.allowed.max + 1)).toBe('impossible');
      expect(state(m.allowed.min - 1)).toBe('impossible');
      if (m.levels === null) {
        expect(state(m.allowed.max)).not.toBe('impossible');
        expect(state(m.usual.max)).toBe('fine');
        expect(state(m.usual.min)).toBe('fine');
      } else for (const l of m.levels) expect(state(l.value)).toBe('fine');
    },
  );
});
