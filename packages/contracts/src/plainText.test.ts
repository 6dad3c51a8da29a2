import fc from 'fast-check';
import { DEEPEST, plain, plainValue, unkeepable } from './plainText.js';

describe('text that can be kept', () => {
  it.each([
    ['Ålesund, 34°', 'Ålesund, 34°'],
    ['a\u0000b', 'ab'],
    ['half \ud83d of one', 'half \ufffd of one'],
    ['\ud83e\uddb6 whole', '\ud83e\uddb6 whole'],
  ])('%j is kept as %j', (typed, kept) => expect(plain(typed)).toBe(kept));

  it('is what everything comes to, and then nothing of it is refused', () =>
    fc.assert(
      fc.property(fc.jsonValue(), fc.string({ unit: 'binary' }), (value, text) => {
        const made = plainValue({ value, [`k${text}`]: [text, { text }] });
        expect(unkeepable(made)).toEqual([]);
      }),
    ));

  it('is told by its pointer where it is not', () => {
    expect(unkeepable({ entries: [{ value: 'fine' }, { value: 'a\u0000' }] }).map((p) => p.pointer)).toEqual([
      '/entries/1/value',
    ]);
    expect(unkeepable({ 'a\u0000': 1 })).toHaveLength(1);
    expect(unkeepable('x')).toEqual([]);
    expect(unkeepable(null)).toEqual([]);
  });

  it('is not looked for in what is nested without end, which is refused whole', () => {
    const nested = (depth: number) => {
      let value: unknown = 1;
      for (let i = 0; i < depth; i += 1) value = [value];
      return value;
    };
    expect(unkeepable(nested(DEEPEST))).toEqual([]);
    expect(unkeepable(nested(DEEPEST + 1))).toHaveLength(1);
    expect(unkeepable(nested(200_000))).toHaveLength(1);
  });
});
