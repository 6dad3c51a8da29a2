import { loadContent } from '@heathstep/content';
import { VIEWS } from '../../../parts/footShapes.js';
import { viewsOf } from './PartPicture.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { bodyParts } = loaded.content;
const drawn = [...new Set(VIEWS.flatMap((v) => v.regions.map((r) => r.key)))];

describe('parts of the body that are examined', () => {
  it.each(drawn)('pain drawn at %s concerns a part, so that what is felt there is asked', (area) => {
    expect(bodyParts.filter((p) => p.areas.includes(area)).map((p) => p.key)).not.toEqual([]);
  });

  it.each(bodyParts.map((p) => [p.key, p] as const))(
    '%s lies on areas that are drawn, and is shown',
    (_key, p) => {
      expect(p.areas.filter((a) => !drawn.includes(a))).toEqual([]);
      const views = viewsOf(p);
      expect(views.length).toBeGreaterThan(0);
      expect(views.length).toBeLessThanOrEqual(2);
      if (p.areas.length > 0) expect(views.every((v) => v.areas.length > 0)).toBe(true);
    },
  );
});
