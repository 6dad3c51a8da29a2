import type { Criterion, CriterionPart, Facts, MeasuredFact } from '../progress/criteriaTypes.js';
import { addDays } from '../quantity/day.js';
import { measure } from '../testing/measures.js';
import { whyForecast } from '../why/forecast.js';
import { criteriaAhead, lastOf, openAhead } from './criteria.js';
import type { Forecast } from './forecast.js';

const START = '2026-01-05';
const NOW = `${addDays(START, 42)}T12:00:00`;
const MEASURES = [
  measure({ key: 'raises', label: 'Raises', direction: 'more', error: { mdc: 2.77, source: '' } }),
  measure({ key: 'seconds', label: 'Seconds', direction: 'less', error: { mdc: 2.77, source: '' } }),
  measure({
    key: 'ache',
    label: 'Ache',
    region: 'pain',
    direction: 'less',
    error: null,
    allowed: { min: 0, max: 10 },
  }),
  measure({ key: 'unknown-error', label: 'No error', direction: 'more', error: null }),
  measure({ key: 'middle', label: 'Middle', direction: 'target', error: { mdc: 2, source: '' } }),
];
const lookup = (key: string) => MEASURES.find((m) => m.key === key);

const takes = (key: string, side: MeasuredFact['side'], ...values: (number | null)[]): MeasuredFact[] =>
  values.map((value, i) => ({ measure: key, side, value, at: `${addDays(START, i * 14)}T10:00:00` }));

const facts = (measures: readonly MeasuredFact[], change: Partial<Facts> = {}): Facts => ({
  measures,
  sessions: [],
  skills: {},
  stageSince: START,
  affected: 'left',
  ageYears: 40,
  sex: 'female',
  ...change,
});

const ahead = (criteria: Criterion | null, of: Facts) =>
  criteriaAhead(criteria, { facts: of, now: NOW, lookup, seed: 1 });

const treated = (key: string, op: '>=' | '<=', value: number): Criterion => ({
  measure: key,
  side: 'treated',
  op,
  value,
});

describe('criteria that a trend leads to', () => {
  it('are those of measures on the treated side, each with its series and its error', () => {
    const [only] = ahead(treated('raises', '>=', 20), facts(takes('raises', 'left', 8, 12, 15)));
    expect(only?.text).toContain('Raises');
    expect(only?.inputs).toHaveLength(1);
    expect(only?.inputs[0]).toMatchObject({ threshold: 20, direction: 'more', sem: 1 });
    expect(only?.inputs[0]?.series.map((p) => p.value).toSorted((a, b) => a - b)).toEqual([8, 12, 15]);
  });

  it('a share of the other side has its floor too, which alone counts with both sides treated', () => {
    const criterion: Criterion = { symmetry: 'raises', min: 90, floor: 5 };
    const both = [...takes('raises', 'left', 1, 2, 3), ...takes('raises', 'right', 2, 3, 4)];
    const [one] = ahead(criterion, facts(both));
    expect(one?.inputs.map((i) => [i.as, i.side, i.threshold])).toEqual([
      ['share', 'left', 90],
      ['measured', 'left', 5],
    ]);
    const [two] = ahead(criterion, facts(both, { affected: 'both' }));
    expect(two?.inputs.map((i) => [i.as, i.side, i.threshold])).toEqual([
      ['measured', 'left', 5],
      ['measured', 'right', 5],
    ]);
  });

  it('are open only while they are not met and no other way is', () => {
    const criteria: Criterion = { all: [treated('raises', '>=', 20), treated('seconds', '<=', 9)] };
    const of = facts([...takes('raises', 'left', 8, 12, 15), ...takes('seconds', 'left', 14, 12, 11)]);
    const on = { facts: of, now: NOW, lookup, seed: 1 };
    const [raises, seconds] = criteriaAhead(criteria, on).map((a) => a.text);
    const part = (text: string | undefined, state: CriterionPart['state'], spare = false): CriterionPart => ({
      text: text ?? '',
      state,
      because: '',
      ...(spare ? { spare: true as const } : {}),
    });
    const open = (...parts: CriterionPart[]) => openAhead(criteria, parts, on).map((a) => a.text);
    expect(open(part(raises, 'not-met'), part(seconds, 'not-met'))).toEqual([raises, seconds]);
    expect(open(part(raises, 'met'), part(seconds, 'not-met', true))).toEqual([]);
    expect(open(part(raises, 'not-known'), part(seconds, 'met-within-error'))).toEqual([]);
    expect(open()).toEqual([]);
  });

  it('are looked for wherever they stand in an expression; the log and the days lead nowhere', () => {
    const criteria: Criterion = {
      all: [
        { any: [treated('raises', '>=', 20), treated('seconds', '<=', 9)] },
        { noRed: 7 },
        { pain: 'during', max: 3, days: 5 },
        { minDays: 14 },
      ],
    };
    const of = facts([...takes('raises', 'left', 8, 12), ...takes('seconds', 'left', 14, 12)]);
    expect(ahead(criteria, of).map((a) => a.inputs[0]?.direction)).toEqual(['more', 'less']);
    expect(ahead(null, of)).toEqual([]);
  });

  it('are asked of each side where both are treated', () => {
    const of = facts([...takes('raises', 'left', 8, 9), ...takes('raises', 'right', 12, 13)], {
      affected: 'both',
    });
    expect(ahead(treated('raises', '>=', 20), of)[0]?.inputs.map((i) => i.series.length)).toEqual([2, 2]);
  });

  it('count unable as the worst value, and pain with its own unrest', () => {
    const of = facts([...takes('raises', 'left', null, 4), ...takes('ache', 'left', 6, 5, 4)]);
    expect(ahead(treated('raises', '>=', 20), of)[0]?.inputs[0]?.series).toHaveLength(2);
    expect(ahead(treated('ache', '<=', 2), of)[0]?.inputs[0]?.sem).toBe(1);
  });

  it('are a share of the other side where that is asked, the wrong way round where less is better', () => {
    const of = facts([...takes('raises', 'left', 8, 12), ...takes('raises', 'right', 20, 20)]);
    const [share] = ahead({ symmetry: 'raises', min: 90 }, of);
    expect(share?.inputs[0]?.series.map((p) => p.value).toSorted((a, b) => a - b)).toEqual([40, 60]);
    expect(share?.inputs[0]).toMatchObject({ threshold: 90, direction: 'more' });
    const slow = facts([...takes('seconds', 'left', 20), ...takes('seconds', 'right', 10)]);
    expect(ahead({ symmetry: 'seconds', min: 90 }, slow)[0]?.inputs[0]?.series.map((p) => p.value)).toEqual([
      50,
    ]);
  });

  it.each<[string, Criterion, Partial<Facts>]>([
    ['of a measure without a known error', treated('unknown-error', '>=', 3), {}],
    ['of a band with two edges', treated('middle', '>=', 3), {}],
    ['of a measure that is none', treated('nothing', '>=', 3), {}],
    ['that was never taken', treated('seconds', '<=', 3), {}],
    ['of the other side', { measure: 'raises', side: 'other', op: '>=', value: 20 }, {}],
    ['between two treated sides', { symmetry: 'raises', min: 90 }, { affected: 'both' }],
  ])('are not told %s', (_, criterion, change) => {
    const of = facts(
      [
        ...takes('raises', 'left', 8, 12),
        ...takes('raises', 'right', 20, 20),
        ...takes('unknown-error', 'left', 1, 2),
        ...takes('middle', 'left', 1, 2),
      ],
      change,
    );
    expect(ahead(criterion, of)).toEqual([]);
  });

  it('say what they were made on', () => {
    const [only] = ahead(treated('raises', '>=', 20), facts(takes('raises', 'left', 8, 12, 15)));
    if (only === undefined) throw new Error('nothing ahead');
    const why = whyForecast(only);
    expect(why.inputs.map((i) => [i.name, i.value])).toEqual([
      ['2026-01-05', '8'],
      ['2026-01-19', '12'],
      ['2026-02-02', '15'],
    ]);
    expect(why.arithmetic).toEqual(['wanted 20, error of a value 1']);
  });
});

describe('when all of some are met', () => {
  const on = (
    medianDate: string | null,
    lowDate: string | null = null,
    highDate: string | null = null,
  ): Forecast => ({
    medianDate,
    lowDate,
    highDate,
    share: 1,
    band: [],
  });

  it('is the latest of them, and never where one of them is not in sight', () => {
    const [one, two] = [on('2026-02-01', '2026-01-20', '2026-03-01'), on('2026-02-10', '2026-01-10', null)];
    expect(lastOf([one, two])).toEqual({ medianDate: '2026-02-10', lowDate: '2026-01-20', highDate: null });
    expect(lastOf([one, on(null)])?.medianDate).toBeNull();
    expect(lastOf([])).toBeNull();
  });
});
