import type { Facts, MeasuredFact } from '../progress/criteriaTypes.js';
import { lookup } from '../testing/measures.js';
import { tooEarly } from './ability.js';

const NOW = '2026-03-20T10:00:00';
const raises = (side: 'left' | 'right', value: number, at = NOW): MeasuredFact => ({
  measure: 'single-leg-heel-raise',
  side,
  value,
  at,
});
const facts = (measures: readonly MeasuredFact[]): Facts => ({
  measures,
  sessions: [],
  skills: {},
  stageSince: '2026-03-01T09:00:00',
  affected: 'left',
  ageYears: 70,
  sex: 'female',
});
const hop = { abilities: [{ measure: 'single-leg-heel-raise', atLeast: 10 }] };
const judge = (measures: readonly MeasuredFact[], sides: Parameters<typeof tooEarly>[1] = 'left') =>
  tooEarly(hop, sides, { facts: facts(measures), now: NOW }, lookup);

describe('an exercise that asks for an ability', () => {
  it.each([
    [0, true],
    [9, true],
    [10, false],
    [25, false],
  ])('with %d raises it is too early: %s', (value, early) => {
    expect(judge([raises('left', value)]) !== null).toBe(early);
  });

  it('says what was measured, on which side', () => {
    expect(judge([raises('left', 3)])).toMatch(/^too early: .*at least 10.*left.*3/);
  });

  it('looks at every side it is done on, not only the treated one', () => {
    const other = [raises('left', 20), raises('right', 2)];
    expect(judge(other)).toBeNull();
    expect(judge(other, 'together')).toMatch(/right/);
    expect(judge(other, 'one-after-other')).toMatch(/right/);
  });

  it('bars nothing by what was never measured, or long ago', () => {
    expect(judge([])).toBeNull();
    expect(judge([raises('left', 3, '2025-10-01T10:00:00')])).toBeNull();
    expect(tooEarly({}, 'left', { facts: facts([raises('left', 0)]), now: NOW }, lookup)).toBeNull();
  });
});
