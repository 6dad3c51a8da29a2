import fc from 'fast-check';
import { firstStep, lunge, raise } from '../testing/measures.js';
import { addDays } from '../quantity/day.js';
import type { MeasuredFact, SessionFact } from '../progress/criteriaTypes.js';
import { chartSvg, roundScale } from './chart.js';
import { firstToLast } from './firstToLast.js';
import { upkeepEnd } from './upkeepEnd.js';

const UPKEEP = { criteria: null, usualWeeks: { min: 12, max: 26 } };
const SINCE = '2026-01-01';
const on = (day: number, state: SessionFact['state'] = 'green'): SessionFact => ({
  at: addDays(SINCE, day),
  state,
});
const ended = (day: number, sessions: readonly SessionFact[], stopsOpen: readonly string[] = []) =>
  upkeepEnd(UPKEEP, { since: SINCE, today: addDays(SINCE, day), sessions, stopsOpen });

describe('Upkeep', () => {
  it.each([
    [83, 'goes-on'],
    [84, 'may-end'],
    [181, 'may-end'],
    [182, 'over'],
  ])('after %i quiet days it %s', (day, state) => {
    expect(ended(day, [on(day - 1)])?.state).toBe(state);
  });

  it('may not end with a red in the last 14 days, and may with one before them', () => {
    expect(ended(100, [on(87, 'red'), on(99)])).toMatchObject({
      state: 'goes-on',
      against: ['1 red session in 14 days'],
    });
    expect(ended(100, [on(86, 'red'), on(99)])?.state).toBe('may-end');
    expect(ended(100, [on(95, 'red'), on(99, 'stop')])?.against).toEqual(['2 red sessions in 14 days']);
  });

  it('is not taken for quiet when nothing was logged, or with a sign open', () => {
    expect(ended(100, [on(80)])).toMatchObject({
      state: 'goes-on',
      against: ['nothing logged for 14 days: ask how it is'],
    });
    expect(ended(100, [on(99)], ['new numbness'])?.against).toEqual(['open: new numbness']);
  });

  it('is over after its longest time whatever speaks against it, and says what does', () => {
    expect(ended(200, [])).toMatchObject({ state: 'over', by: addDays(SINCE, 182) });
    expect(ended(200, [])?.against).toHaveLength(1);
  });

  it('is only of a stage without criteria', () => {
    const stage = { criteria: { all: [] }, usualWeeks: UPKEEP.usualWeeks };
    const of = { since: SINCE, today: SINCE, sessions: [], stopsOpen: [] };
    expect(upkeepEnd(stage, of)).toBeNull();
    expect(upkeepEnd(null, of)).toBeNull();
  });
});

const taken = (
  measure: string,
  side: MeasuredFact['side'],
  day: number,
  value: number | null,
  method?: string,
): MeasuredFact => ({ measure, side, value, at: `${addDays(SINCE, day)}T10:00:00`, method });

describe('From first to last', () => {
  it('has the treated side with its change, and the other side as it is now', () => {
    const facts = [
      taken(lunge.key, 'left', 40, 38),
      taken(lunge.key, 'left', 0, 30),
      taken(lunge.key, 'right', 0, 41),
      taken(lunge.key, 'right', 40, 40),
    ];
    const [row, ...more] = firstToLast(facts, [lunge], 'left');
    expect(more).toEqual([]);
    expect(row).toMatchObject({
      side: 'left',
      first: { day: SINCE, value: 30 },
      last: { value: 38 },
      change: { change: 8, class: 'real', direction: 'better' },
      other: { value: 40 },
    });
  });

  it('has a row for each side where both are treated, and no other side then', () => {
    const facts = [taken(lunge.key, 'left', 0, 30), taken(lunge.key, 'right', 0, 28)];
    expect(firstToLast(facts, [lunge], 'both').map((r) => [r.side, r.other])).toEqual([
      ['left', null],
      ['right', null],
    ]);
  });

  it('compares only what was taken alike, and nothing with the same day', () => {
    const facts = [
      taken(lunge.key, 'left', 0, 30, 'another way'),
      taken(lunge.key, 'left', 40, 35),
      taken(lunge.key, 'left', 40, 38),
    ];
    expect(firstToLast(facts, [lunge], 'left')[0]).toMatchObject({
      first: null,
      last: { value: 38 },
      change: null,
    });
  });

  it('tells unable as unable, with no change worked out of it', () => {
    const facts = [taken(raise.key, 'right', 0, null), taken(raise.key, 'right', 60, 12)];
    expect(firstToLast(facts, [raise], 'right')[0]).toMatchObject({
      first: { value: null },
      last: { value: 12 },
      change: null,
      important: null,
    });
  });

  it('leaves out what was never measured, and keeps the order asked for', () => {
    const facts = [taken(raise.key, 'left', 0, 3), taken(firstStep.key, 'left', 0, 7)];
    expect(firstToLast(facts, [firstStep, lunge, raise], 'left').map((r) => r.measure.key)).toEqual([
      firstStep.key,
      raise.key,
    ]);
  });
});

describe('A chart for paper', () => {
  it.each([
    [0, 10, [0, 5, 10]],
    [22, 38, [20, 25, 30, 35, 40]],
    [0.2, 0.9, [0.2, 0.4, 0.6, 0.8, 1]],
    [5, 5, [4, 6]],
  ])('marks %d to %d in round numbers', (low, high, marks) => {
    const scale = roundScale(low, high);
    if (low === high) {
      expect(scale[0]).toBeLessThanOrEqual(low);
      expect(scale[scale.length - 1]).toBeGreaterThan(high);
    } else expect(scale).toEqual(marks);
  });

  it('always holds its values, in few and rising marks', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        fc.double({ min: 0.01, max: 1e4, noNaN: true }),
        (low, span) => {
          const scale = roundScale(low, low + span);
          const slack = 1e-6 * Math.max(1, Math.abs(low), span);
          expect(scale[0] ?? NaN).toBeLessThanOrEqual(low + slack);
          expect(scale[scale.length - 1] ?? NaN).toBeGreaterThanOrEqual(low + span - slack);
          expect(scale.length).toBeLessThanOrEqual(6);
          expect(scale.toSorted((a, b) => a - b)).toEqual(scale);
        },
      ),
    );
  });

  it('draws each line within its frame, and nothing where there is nothing', () => {
    const frame = { width: 240, height: 100, from: SINCE, to: addDays(SINCE, 40) };
    const svg = chartSvg({
      ...frame,
      lines: [
        {
          colour: '#112233',
          dots: true,
          points: [
            { day: SINCE, value: 30 },
            { day: addDays(SINCE, 40), value: 38 },
          ],
        },
        {
          colour: '#445566',
          broken: true,
          points: [
            { day: SINCE, value: 41 },
            { day: addDays(SINCE, 40), value: 40 },
          ],
        },
      ],
    });
    expect(svg).toMatch(/^<svg [^>]*viewBox="0 0 240 100"/);
    expect(svg?.match(/<circle/g)).toHaveLength(2);
    expect(svg).toContain('stroke-dasharray');
    for (const [, x, y] of svg?.matchAll(/cx="([\d.]+)" cy="([\d.]+)"/g) ?? []) {
      expect(Number(x)).toBeLessThanOrEqual(240);
      expect(Number(y)).toBeLessThanOrEqual(100);
    }
    expect(chartSvg({ ...frame, lines: [{ colour: '#112233', points: [] }] })).toBeNull();
  });
});
