import fc from 'fast-check';
import { dateIn, guessColumns, readPeople, type TableLine } from './peopleTable.js';

const on = { order: 'dmy', today: '2026-11-28', known: [] } as const;
const columns = { name: 0, birthDate: 1, sex: 2, occupation: 3 };
const kinds = (lines: readonly TableLine[]) => lines.map((l) => l.kind);

describe('a table of people', () => {
  it.each([
    ['31.12.1979', 'dmy', '1979-12-31'],
    ['12/31/1979', 'mdy', '1979-12-31'],
    ['1979-12-31', 'dmy', '1979-12-31'],
    ['1979/1/2', 'mdy', '1979-01-02'],
    ['1979-12-31T00:00:00', 'ymd', '1979-12-31'],
    ['31/12/1979', 'mdy', null],
    ['29.02.1979', 'dmy', null],
    ['31.12.79', 'dmy', null],
    ['soon', 'dmy', null],
    ['', 'dmy', null],
  ] as const)('%s in the order %s is %s', (text, order, iso) => {
    expect(dateIn(text, order)).toBe(iso);
  });

  it('finds its columns by their headings, in either language', () => {
    expect(guessColumns(['Vorname', 'Nachname', 'Geburtsdatum', 'Geschlecht'])).toEqual({
      name: 0,
      family: 1,
      birthDate: 2,
      sex: 3,
    });
    expect(guessColumns(['id', 'DOB', 'Full name'])).toEqual({ name: 2, birthDate: 1 });
    expect(guessColumns(['a', 'b'])).toEqual({});
  });

  it('takes a line, with what is missing left empty', () => {
    expect(readPeople([['  Øre   Lund ', '03.02.1971', 'W', 'baker']], columns, on)).toEqual([
      {
        line: 2,
        kind: 'new',
        person: { name: 'Øre Lund', birthDate: '1971-02-03', occupation: 'baker', sex: 'female' },
      },
    ]);
    expect(readPeople([['Bo']], columns, on)).toEqual([
      { line: 2, kind: 'new', person: { name: 'Bo', birthDate: null, occupation: '', sex: null } },
    ]);
  });

  it('says of a wrong line which field, and goes on', () => {
    const lines = readPeople(
      [
        ['', '03.02.1971'],
        [' ', ''],
        ['Bo', '1.1.2031'],
        ['Bo', '', 'x'],
        ['Bo', '1.1.1899'],
        ['Ada', '1.1.1980'],
      ],
      columns,
      on,
    );
    expect(lines.map((l) => (l.kind === 'wrong' ? [l.line, l.field] : l.kind))).toEqual([
      [2, 'name'],
      [4, 'birthDate'],
      [5, 'sex'],
      [6, 'birthDate'],
      'new',
    ]);
  });

  it('finds who is here already, in the clinic or above in the file, whatever the accents', () => {
    const known = [
      { name: 'Øre Lund', birthDate: '1971-02-03' },
      { name: 'Ada Quill', birthDate: null },
    ];
    const rows = [
      ['ORE LUND', '3.2.1971'],
      ['Øre Lund', '4.2.1971'],
      ['Øre Lund', ''],
      ['Ada Quill', '1.1.1980'],
      ['New One', '1.1.1980'],
      ['new one', '1.1.1980'],
    ];
    expect(kinds(readPeople(rows, columns, { ...on, known }))).toEqual([
      'same',
      'new',
      'alike',
      'alike',
      'new',
      'same',
    ]);
  });

  it('tells something of every line, whatever stands in it, and never throws', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.string(), { maxLength: 5 }), { maxLength: 20 }), (rows) => {
        const lines = readPeople(rows, columns, on);
        expect(lines.map((l) => l.line)).toEqual(
          rows.flatMap((cells, i) => (cells.every((c) => c.trim() === '') ? [] : [i + 2])),
        );
        // Taking the same file twice finds everyone who has a date of birth.
        const known = lines.flatMap((l) => (l.kind === 'new' ? [l.person] : []));
        expect(kinds(readPeople(rows, columns, { ...on, known }))).not.toContain('new');
      }),
    );
  });
});
