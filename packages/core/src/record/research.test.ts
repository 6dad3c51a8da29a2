import fc from 'fast-check';
import { daysBetween } from '../quantity/day.js';
import {
  MOST_SHIFT_DAYS,
  researchTraits,
  type ResearchPerson,
  shiftedDay,
  SMALLEST_GROUP,
} from './research.js';

const people = (count: number, of: Omit<ResearchPerson, 'id'>, from = 0): ResearchPerson[] =>
  Array.from({ length: count }, (_, i) => ({ ...of, id: `p${String(from + i)}` }));

describe('what is told without names', () => {
  it('leaves a complaint of four out, and tells one of five', () => {
    const heel = people(5, { condition: 'heel', sex: 'female', ageYears: 42 });
    const shin = people(4, { condition: 'shin', sex: 'male', ageYears: 20 }, 10);
    const told = researchTraits([...heel, ...shin]);
    expect(told.size).toBe(5);
    expect(told.get('p0 heel')).toEqual({ ageBand: '40-49', sex: 'female' });
  });

  it('keeps back what too few share: first the sex, then the age, then both', () => {
    const told = researchTraits([
      ...people(5, { condition: 'heel', sex: 'female', ageYears: 42 }),
      ...people(3, { condition: 'heel', sex: 'female', ageYears: 31 }, 10),
      ...people(2, { condition: 'heel', sex: 'male', ageYears: 35 }, 20),
      ...people(1, { condition: 'heel', sex: 'male', ageYears: 91 }, 30),
    ]);
    expect(told.get('p10 heel')).toEqual({ ageBand: '30-39', sex: '' });
    expect(told.get('p20 heel')).toEqual({ ageBand: '30-39', sex: '' });
    expect(told.get('p30 heel')).toEqual({ ageBand: '', sex: '' });
  });

  it('never tells an age or a sex that fewer than five of the complaint share', () => {
    const person = fc.record({
      condition: fc.constantFrom('heel', 'shin'),
      sex: fc.constantFrom('female', 'male', null),
      ageYears: fc.option(fc.integer({ min: 5, max: 95 })),
    });
    fc.assert(
      fc.property(fc.array(person, { maxLength: 60 }), (list) => {
        const all = list.map((p, i): ResearchPerson => ({ ...p, id: String(i) }));
        const cells = new Map<string, number>();
        for (const [key, { ageBand, sex }] of researchTraits(all)) {
          const cell = `${key.split(' ')[1] ?? ''} ${ageBand} ${sex}`;
          cells.set(cell, (cells.get(cell) ?? 0) + 1);
        }
        for (const [cell, n] of cells)
          if (!cell.endsWith('  ')) expect([cell, n >= SMALLEST_GROUP]).toEqual([cell, true]);
      }),
    );
  });

  it('moves the days of a person together', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 0, max: 700 }),
        (share, apart) => {
          const first = '2026-01-05';
          const second = new Date(Date.parse(`${first}T00:00:00Z`) + apart * 86_400_000)
            .toISOString()
            .slice(0, 10);
          expect(daysBetween(shiftedDay(first, share), shiftedDay(second, share))).toBe(apart);
          expect(Math.abs(daysBetween(first, shiftedDay(first, share)))).toBeLessThanOrEqual(MOST_SHIFT_DAYS);
        },
      ),
    );
  });
});
