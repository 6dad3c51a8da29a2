import fc from 'fast-check';
import { guessMeasurementColumns, type MeasuredPerson, readMeasurements } from './measurementTable.js';
import { factorTo } from './units.js';

const LUNGE = {
  key: 'lunge',
  label: 'Lunge, knee bent',
  also: ['WBLT'],
  aliases: ['lu'],
  sides: 'each' as const,
  unit: 'cm',
  unitLabel: 'cm',
  allowed: { min: 0, max: 30 },
  trials: { count: 3, combine: 'mean' as const },
  decimals: 1,
};
const STANDS = {
  ...LUNGE,
  key: 'sit-to-stand',
  label: 'Sit to stand',
  also: [],
  aliases: [],
  sides: 'single' as const,
  unit: 's',
  unitLabel: 's',
  allowed: { min: 0, max: 300 },
};

const complaint = (id: string, more: object = {}) => ({
  id,
  condition: 'plantar-heel-pain',
  name: 'Plantar heel pain',
  open: true,
  firstVisit: null,
  have: new Set<string>(),
  ...more,
});
const someone = (
  name: string,
  complaints: MeasuredPerson['complaints'],
  birthDate: string | null = '1980-05-01',
) => ({
  id: name,
  name,
  birthDate,
  complaints,
});
const HEADS = ['person', 'date of birth', 'complaint', 'day', 'measure', 'side', 'value', 'unit'];
const COLUMNS = guessMeasurementColumns(HEADS);
const read = (people: readonly MeasuredPerson[], ...rows: string[][]) =>
  readMeasurements(rows, COLUMNS, { order: 'dmy', today: '2026-11-28', people, measures: [LUNGE, STANDS] });
const BRAM = someone('Bram Øhre', [complaint('e1')]);
const row = (change: Partial<Record<(typeof HEADS)[number], string>> = {}) =>
  HEADS.map(
    (h) =>
      change[h] ??
      { person: 'bram ohre', day: '3.2.2025', measure: 'wblt', side: 'L', value: '9,5', unit: '' }[h] ??
      '',
  );

describe('a table of measurements', () => {
  it('finds its columns by their headings, those of the clinic’s own table too', () => {
    expect(COLUMNS).toEqual({
      person: 0,
      birthDate: 1,
      complaint: 2,
      day: 3,
      measure: 4,
      side: 5,
      value: 6,
      unit: 7,
    });
    expect(guessMeasurementColumns(['Patient', 'Datum', 'Test', 'Seite', 'Wert'])).toEqual({
      person: 0,
      day: 1,
      measure: 2,
      side: 3,
      value: 4,
    });
  });

  it('is read as people write: names without their strokes, terms of the field, commas, trials, units of others', () => {
    expect(read([BRAM], row())).toEqual([
      {
        line: 2,
        kind: 'new',
        person: 'Bram Øhre',
        episodeId: 'e1',
        day: '2025-02-03',
        measure: 'lunge',
        label: 'Lunge, knee bent',
        side: 'left',
        trials: [9.5],
        text: '9.5 cm',
      },
    ]);
    expect(read([BRAM], row({ value: '95 / 98 101', unit: 'mm', side: 'rechts' }))[0]).toMatchObject({
      side: 'right',
      trials: [9.5, 9.8, 10.1],
    });
    expect(read([BRAM], row({ measure: 'Sit to stand', side: '', value: '12.5' }))[0]).toMatchObject({
      side: 'none',
    });
  });

  const TWO = [complaint('e1'), complaint('e2', { condition: 'ankle-sprain', name: 'Ankle sprain' })];
  it.each([
    ['a stranger', [BRAM], { person: 'Nobody' }, 'person'],
    ['two of a name', [BRAM, someone('Bram Øhre', [complaint('e9')], '1999-01-01')], {}, 'person'],
    ['a date of birth that is none', [BRAM], { 'date of birth': '31.2.1980' }, 'birthDate'],
    ['another date of birth', [BRAM], { 'date of birth': '1.1.1990' }, 'person'],
    ['nobody’s complaint', [someone('Bram Øhre', [])], {}, 'complaint'],
    ['two complaints', [someone('Bram Øhre', TWO)], {}, 'complaint'],
    ['a complaint they do not have', [BRAM], { complaint: 'bunion' }, 'complaint'],
    ['a day to come', [BRAM], { day: '1.1.2030' }, 'day'],
    ['no day', [BRAM], { day: '' }, 'day'],
    [
      'a day since the first visit',
      [someone('Bram Øhre', [complaint('e1', { firstVisit: '2025-02-03' })])],
      {},
      'day',
    ],
    ['no measure', [BRAM], { measure: 'shoe size' }, 'measure'],
    ['no side', [BRAM], { side: '' }, 'side'],
    ['both sides', [BRAM], { side: 'both' }, 'side'],
    ['a side of what has none', [BRAM], { measure: 'sit to stand', side: 'left' }, 'side'],
    ['words for a number', [BRAM], { value: 'good' }, 'value'],
    ['no number', [BRAM], { value: '' }, 'value'],
    ['more than can be', [BRAM], { value: '31' }, 'value'],
    ['too many trials', [BRAM], { value: '1 2 3 4 5 6 7' }, 'value'],
    ['a unit of something else', [BRAM], { unit: 'kg' }, 'unit'],
  ] as const)('leaves out %s, by its field', (_what, people, change, field) => {
    expect(read(people, row(change))).toMatchObject([{ line: 2, kind: 'wrong', field }]);
  });

  it('takes the one that is meant: by date of birth, by complaint, the open one where others are closed', () => {
    const other = someone('Bram Øhre', [complaint('e9')], '1999-01-01');
    expect(read([BRAM, other], row({ 'date of birth': '1.1.1999' }))[0]).toMatchObject({ episodeId: 'e9' });
    expect(read([someone('Bram Øhre', TWO)], row({ complaint: 'ankle sprain' }))[0]).toMatchObject({
      episodeId: 'e2',
    });
    const closed = [complaint('e1', { open: false }), complaint('e3')];
    expect(read([someone('Bram Øhre', closed)], row())[0]).toMatchObject({ episodeId: 'e3' });
  });

  it('takes nothing twice: not what is here, nor what stands above', () => {
    const have = someone('Bram Øhre', [complaint('e1', { have: new Set(['lunge left 2025-02-03']) })]);
    expect(
      read([have], row(), row({ side: 'R' }), row({ side: 'R', value: '8' })).map((l) => l.kind),
    ).toEqual(['same', 'new', 'same']);
    expect(
      read(
        [BRAM],
        HEADS.map(() => ' '),
      ),
    ).toEqual([]);
  });
});

describe('units of others', () => {
  it.each([
    ['cm', 'mm', 0.1],
    ['mm', 'in', 25.4],
    ['kg', 'N', 0.10197],
    ['N', 'kg', 9.80665],
    ['N', 'lbf', 4.44822],
    ['deg', 'rad', 57.29578],
    ['m/s', 'km/h', 0.27778],
    ['s', '', 1],
    ['index', 'index', 1],
  ])('%s of %s is %f', (ours, theirs, factor) => {
    expect(factorTo(ours, theirs)).toBeCloseTo(factor, 4);
  });

  it('are refused where they measure something else, and there and back is the same', () => {
    expect(factorTo('cm', 'kg')).toBeNull();
    expect(factorTo('index', 'cm')).toBeNull();
    fc.assert(
      fc.property(
        fc.constantFrom(['mm', 'cm'], ['kg', 'N'], ['s', 'min'], ['min', 'h']),
        ([a = '', b = '']) => {
          expect((factorTo(a, b) ?? 0) * (factorTo(b, a) ?? 0)).toBeCloseTo(1, 6);
        },
      ),
    );
  });
});
