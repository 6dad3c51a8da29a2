import fc from 'fast-check';
import { fillLetter, LETTER_GAPS, openGaps, paragraphs, unknownGaps } from './letter.js';

const VALUES = Object.fromEntries(LETTER_GAPS.map((g) => [g, `<${g}>`])) as Record<
  (typeof LETTER_GAPS)[number],
  string
>;

describe('a template of a letter', () => {
  it('has its gaps filled, with or without spaces, as often as they stand', () => {
    expect(fillLetter('{{person}}, born {{ born }}: {{person}}', VALUES)).toBe(
      '<person>, born <born>: <person>',
    );
  });

  it('leaves what it does not know to be seen, and names it once', () => {
    expect(fillLetter('Dear {{doctor}}', VALUES)).toBe('Dear {{doctor}}');
    expect(unknownGaps('{{doctor}} {{person}} {{doctor}} {{}}')).toEqual(['doctor', '']);
    expect(openGaps('Dear {{doctor}}, about {{ person }}')).toEqual(['{{doctor}}', '{{ person }}']);
  });

  it('never lets what is filled in be read as a gap of its own or as a pattern', () => {
    const odd = { ...VALUES, person: '$& {{born}} $1' };
    expect(fillLetter('{{person}}', odd)).toBe('$& {{born}} $1');
  });

  it('is parted by empty lines; single ends of lines stay', () => {
    expect(paragraphs('\r\nDear\r\ncolleague\r\n \r\n\r\nText.\n')).toEqual(['Dear\ncolleague', 'Text.']);
    expect(paragraphs('  ')).toEqual([]);
  });

  it('with known gaps only has none open once it is filled', () => {
    const gap = fc.constantFrom(...LETTER_GAPS).map((g) => `{{${g}}}`);
    const plain = fc.string().filter((s) => !/[{}]/.test(s));
    fc.assert(
      fc.property(fc.array(fc.oneof(gap, plain)), (parts) => {
        const text = parts.join('');
        expect(unknownGaps(text)).toEqual([]);
        expect(openGaps(fillLetter(text, VALUES))).toEqual([]);
      }),
    );
  });
});
