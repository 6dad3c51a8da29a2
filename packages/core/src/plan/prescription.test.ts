import { heldBack, NOTHING_SAID } from './safety.js';
import { exercise } from '../testing/exercises.js';
import { keepGivable, planProblems } from './check.js';
import { prescribe } from './prescribe.js';
import { type DayPart, type Prescription, prescriptionProblems, sidesFor } from './prescription.js';

const rise = exercise();
const both = exercise({ key: 'rise-both', laterality: 'together' });
const of = (key: string) => [rise, both].find((e) => e.key === key);
const left = prescribe(rise, { slot: 's', sideRule: 'treated', affected: 'left' });

describe('the sides an exercise is done on', () => {
  it.each([
    [rise, 'treated', 'left', 'left'],
    [rise, 'treated', 'both', 'one-after-other'],
    [rise, 'both', 'right', 'one-after-other'],
    [rise, 'treated', 'none', 'one-after-other'],
    [both, 'treated', 'left', 'together'],
  ] as const)('%#', (e, rule, affected, sides) => expect(sidesFor(e, rule, affected)).toBe(sides));
});

describe('a prescription of an exercise', () => {
  it('takes the slot’s numbers as far as the exercise can take them', () => {
    const p = prescribe(rise, {
      slot: 's',
      sideRule: 'treated',
      affected: 'right',
      dose: { sets: 9, reps: 12, holdSeconds: 30, addedKg: 5 },
    });
    expect(p).toMatchObject({ sets: 5, reps: 12, addedKg: 5, sides: 'right', exercise: 'rise' });
    expect(p).not.toHaveProperty('holdSeconds');
  });

  it('gives no weight to an exercise that takes none', () => {
    const { addedKg: _none, ...range } = rise.range;
    const bare = exercise({ range });
    const p = prescribe(bare, { slot: 's', sideRule: 'treated', affected: 'left', dose: { addedKg: 5 } });
    expect(p).not.toHaveProperty('addedKg');
  });

  it.each<[string, Partial<Prescription>, string]>([
    ['too many sets', { sets: 6 }, 'sets'],
    ['half a repetition', { reps: 8.5 }, 'reps'],
    ['too fast', { tempo: { upSeconds: 0.5, topSeconds: 0, downSeconds: 1, bottomSeconds: 0 } }, 'upSeconds'],
    ['more weight than it takes', { addedKg: 21 }, 'addedKg'],
    ['a variant it has not', { variant: 'flying' }, 'variant'],
    ['a hold beside a tempo', { holdSeconds: 10 }, 'holdSeconds'],
    ['a day too many', { daysPerWeek: 8 }, 'daysPerWeek'],
    ['not a number', { sets: Number.NaN }, 'sets'],
    ['a part of the day there is not', { part: 'night' as DayPart }, 'part'],
    ['one part of the day for several times', { part: 'evening', timesPerDay: 2 }, 'part'],
  ])('refuses %s by its field', (_name, change, field) =>
    expect(prescriptionProblems({ ...left, ...change }, rise).map((p) => p.path)).toContain(field),
  );

  it('is given for a part of the day, but not where the exercise has its own', () => {
    const evening = { ...left, part: 'evening' as const };
    expect(prescriptionProblems(evening, rise)).toEqual([]);
    expect(prescriptionProblems(evening, exercise({ when: 'before the first step' }))[0]?.path).toBe('part');
  });

  it('has nothing against its own dose', () => expect(prescriptionProblems(left, rise)).toEqual([]));
});

describe('the items of a plan', () => {
  it('are done only with someone beside where safety asks for that, and it is said', () => {
    const beside = { ...NOTHING_SAID, supervised: { left: ['calf-load'], right: [] } } as const;
    const why = 'only with someone beside, for calf-load: add it when that is so';
    const alone = { ...left, beside: undefined };
    const told = { ...left, beside: true };
    expect(planProblems([alone], of, beside)).toMatchObject([{ path: 'items.0.beside' }]);
    expect(planProblems([{ ...left, beside: false }], of, beside)).toHaveLength(1);
    expect(planProblems([told], of, beside)).toEqual([]);
    expect(keepGivable([alone], of, beside)).toEqual({ kept: [], left: [{ exercise: 'rise', why }] });
    expect(heldBack([alone], of, beside).held).toEqual([{ exercise: 'rise', why }]);
    expect(heldBack([told], of, beside).kept).toEqual([told]);
    // Beside or not, what is switched off stays off, and the other side is not meant.
    const off = { ...beside, tagsOff: { left: ['calf-load'], right: [] } } as const;
    expect(heldBack([told], of, off).kept).toEqual([]);
    expect(heldBack([{ ...alone, sides: 'right' as const }], of, beside).held).toEqual([]);
  });

  const twoFeet = prescribe(both, { slot: 't', sideRule: 'both', affected: 'left' });
  it.each<[string, readonly Prescription[], readonly string[]]>([
    ['fine', [left, twoFeet], []],
    ['twice the same', [left, { ...left, slot: 'u' }], ['items.1.exercise']],
    ['unknown', [{ ...left, exercise: 'fly' }], ['items.0.exercise']],
    ['one foot of an exercise of two', [{ ...twoFeet, sides: 'left' }], ['items.0.sides']],
    ['a number of the second', [left, { ...twoFeet, reps: 99 }], ['items.1.reps']],
  ])('%s', (_name, items, paths) =>
    expect(planProblems(items, of, NOTHING_SAID).map((p) => p.path)).toEqual(paths),
  );

  it('keeps nothing of a side that safety has switched off, and says why; the other side stays', () => {
    const right = { ...left, sides: 'right' as const };
    const off = { ...NOTHING_SAID, tagsOff: { left: ['calf-load'], right: [] } } as const;
    const { kept, left: out } = keepGivable([left, twoFeet], of, off);
    expect(kept).toEqual([]);
    expect(out.map((o) => o.exercise)).toEqual(['rise', 'rise-both']);
    expect(out.every((o) => o.why.length > 5)).toBe(true);
    expect(keepGivable([right], of, off).kept).toEqual([right]);
    expect(planProblems([left], of, off).map((p) => p.path)).toEqual(['items.0.exercise']);
  });

  it('names the field of what cannot be given', () =>
    expect(keepGivable([{ ...left, sets: 12 }], of, NOTHING_SAID).left).toEqual([
      { exercise: 'rise', why: expect.stringMatching(/^sets must be /) as string },
    ]));
});
