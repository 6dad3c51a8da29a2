import fc from 'fast-check';
import { folded, hasWords, searchable } from './words.js';

describe('words that are looked for', () => {
  it.each([
    ['Ørjan Håkonsen', 'orjan hakonsen'],
    ['Łucja Żak', 'lucja zak'],
    ['Weiß', 'weiss'],
    ['Æsa Þórs', 'aesa thors'],
    ['İpek', 'ipek'],
  ])('%s is found as %s', (text, plain) => expect(folded(text)).toBe(plain));

  it.each([
    ['Tomas Fell', 'fell tom', true],
    ['Tomas Fell', 'ell', false],
    ['Ankle dorsiflexion, knee bent', 'flexion', true],
    ['Ankle dorsiflexion, knee bent', 'bent dorsi', true],
    ['Heel raise', 'raise toe', false],
    ['1984 03 02 2 3', '2.3.1984', true],
    ['1984 03 02 2 3', '02/03/1984', true],
    ['Anything', '  ', true],
  ])('of "%s", "%s": %s', (text, asked, found) =>
    expect(hasWords(searchable(text), searchable(asked))).toBe(found),
  );

  it('finds a text by any of its own words, in any order', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const words = searchable(text).split(' ').reverse().join(' ');
        expect(hasWords(searchable(text), searchable(words))).toBe(true);
      }),
    );
  });
});
