import { loadContent } from './index.js';
import { derivedTags } from './testing/derivedTags.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

describe('tags of exercises', () => {
  it('say everything that figure and fields show the exercise to do', () => {
    const missing = content.exercises.flatMap((e) => {
      const f = content.figures.find((x) => x.exercise === e.key);
      if (f === undefined) return [`${e.key}: no figure`];
      const lacks = derivedTags(e, f).filter((t) => !e.tags.includes(t));
      return lacks.length === 0 ? [] : [`${e.key}: ${lacks.join(', ')}`];
    });
    expect(missing).toEqual([]);
  });
});
