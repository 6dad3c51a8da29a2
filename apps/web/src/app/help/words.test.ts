import { finderOf } from '../../parts/finder.js';
import { CHANGES } from './changes.js';
import { WORDS } from './words.js';

const find = finderOf(WORDS, (w) => `${w.word} ${w.also} ${w.means}`);

describe('words of ours', () => {
  it('stand once each, with the clinical word and a meaning', () => {
    expect(new Set(WORDS.map((w) => w.word)).size).toBe(WORDS.length);
    for (const w of WORDS) expect([w.also.length > 2, w.means.endsWith('.')]).toEqual([true, true]);
  });

  it.each([
    ['contraindication', 'Safety switches off'],
    ['exacerbation', 'Flare'],
    ['MDC', 'Error'],
    ['progresion', 'Ladder, rung'],
    ['bilateral', 'Both sides'],
  ])('are found by the clinician’s %s', (asked, word) =>
    expect(find(asked).map((w) => w.word)).toContain(word),
  );
});

it('news stands the newest first, each day once', () => {
  const days = CHANGES.map((c) => c.day);
  expect([...new Set(days)].sort().reverse()).toEqual(days);
  for (const { lines } of CHANGES) expect(lines.length).toBeGreaterThan(0);
});
