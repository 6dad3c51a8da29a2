import { rungsOf } from '@heathstep/core';
import { loadContent } from '@heathstep/content';
import { countsOf, FACETS, indexOf, narrowed } from './libraryModel.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { exercises, ladders } = loaded.content;
const index = indexOf(exercises);
const keys = (query: string, chosen = {}) => narrowed(index, query, chosen).map((e) => e.key);

describe('finding an exercise', () => {
  it('takes every word asked for, wherever it is written', () => {
    expect(keys('')).toHaveLength(exercises.length);
    expect(keys('towel gather')).toEqual(['towel-gather', 'towel-gather-push', 'towel-gather-weighted']);
    expect(keys('TOWEL gather weight')).toContain('towel-gather-weighted');
    expect(keys('no such thing')).toEqual([]);
    expect(keys('towl gathr')).toContain('towel-gather');
    expect(keys('heel-toe rock')).toEqual(['heel-toe-rocks']);
  });

  it('narrows by choices that all hold, and leaves out what must be avoided', () => {
    const seated = narrowed(index, '', { position: 'seated' });
    expect(seated.length).toBeGreaterThan(3);
    expect(seated.every((e) => e.position.startsWith('seated'))).toBe(true);
    const safe = narrowed(index, '', { position: 'seated', 'free of': 'barefoot' });
    expect(safe.every((e) => !e.tags.includes('barefoot'))).toBe(true);
    expect(safe.length).toBeLessThan(seated.length);
  });

  it.each(FACETS)('tells for each word of %s how many would be left', (facet) => {
    for (const { word, count } of countsOf(index, '', { position: 'standing' })[facet]) {
      const chosen = { position: 'standing', [facet]: word };
      expect(narrowed(index, '', chosen)).toHaveLength(count);
    }
  });

  it('counts the choice already made as if it were open', () => {
    const counts = countsOf(index, '', { aim: 'balance' }).aim;
    expect(counts.reduce((sum, c) => sum + c.count, 0)).toBe(exercises.length);
  });
});

describe('a ladder', () => {
  it('stands from its lowest rung up, without a gap, and every exercise is on one', () => {
    for (const l of ladders)
      expect(rungsOf(exercises, l.key).map((e) => e.rung)).toEqual(
        rungsOf(exercises, l.key).map((_, i) => i + 1),
      );
    expect(ladders.flatMap((l) => rungsOf(exercises, l.key))).toHaveLength(exercises.length);
  });
});
