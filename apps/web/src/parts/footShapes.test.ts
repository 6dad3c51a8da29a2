import { loadContent } from '@heathstep/content';
import { CALLUS_SHAPES, placeName, regionName, SOLE_OUTLINE, viewOf, VIEWS } from './footShapes.js';

type Point = readonly [x: number, y: number];

const at = (a: number, b: number, c: number, d: number, t: number): number =>
  a * (1 - t) ** 3 + 3 * b * t * (1 - t) ** 2 + 3 * c * t ** 2 * (1 - t) + d * t ** 3;

/** A path as a polygon; a half turn `a` is taken as the half of an ellipse that it is here. */
function polygon(d: string): Point[] {
  const tokens = d.match(/[A-Za-z]|-?\d+(?:\.\d+)?/g) ?? [];
  const out: Point[] = [];
  let i = 0;
  let command = '';
  const number = () => Number(tokens[i++]);
  while (i < tokens.length) {
    if (/[A-Za-z]/.test(tokens[i] ?? '')) command = tokens[i++] ?? '';
    const [x, y] = out.at(-1) ?? [0, 0];
    if (command === 'M' || command === 'L') out.push([number(), number()]);
    else if (command === 'H') out.push([number(), y]);
    else if (command === 'V') out.push([x, number()]);
    else if (command === 'C') {
      const [ax, ay, bx, by, ex, ey] = [number(), number(), number(), number(), number(), number()];
      for (let s = 1; s <= 16; s += 1) out.push([at(x, ax, bx, ex, s / 16), at(y, ay, by, ey, s / 16)]);
    } else if (command === 'a') {
      const [rx, ry, , , , dx] = [number(), number(), number(), number(), number(), number(), number()];
      const turn = dx > 0 ? Math.PI : 0;
      for (let s = 1; s <= 16; s += 1) {
        const angle = turn - (Math.PI * s) / 16;
        out.push([x + dx / 2 + rx * Math.cos(angle), y + ry * Math.sin(angle)]);
      }
    } else if (command !== 'Z') throw new Error(`no such command here: ${command}`);
  }
  return out;
}

const within = (points: readonly Point[], [x, y]: Point): boolean =>
  points.reduce((inside, [bx, by], i) => {
    const [ax, ay] = points.at(i - 1) ?? [0, 0];
    return ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax ? !inside : inside;
  }, false);

const grid = (box: string): Point[] => {
  const [, , width = 0, height = 0] = box.split(' ').map(Number);
  return Array.from({ length: Math.ceil(height / 3) }, (_, r) =>
    Array.from({ length: Math.ceil(width / 3) }, (__, c): Point => [c * 3 + 1.3, r * 3 + 1.7]),
  ).flat();
};

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { findings } = loaded.content;

describe('the drawn foot', () => {
  it.each(VIEWS.map((v) => [v.key, v] as const))(
    '%s: every place within the outline is one area and not two',
    (_key, view) => {
      const outline = view.outline.map(polygon);
      // The leg and the heel behind it are no part of the foot seen from above.
      const limit = view.key === 'top' ? 208 : Infinity;
      const areas = view.regions.map((r) => [r.key, polygon(r.shape)] as const);
      const inside = grid(view.box).filter((p) => p[1] < limit && outline.some((o) => within(o, p)));
      expect(inside.length).toBeGreaterThan(500);
      const counted = inside.map((p) => [p, areas.filter(([, a]) => within(a, p)).map(([k]) => k)] as const);
      expect(counted.filter(([, keys]) => keys.length !== 1)).toEqual([]);
    },
  );

  it.each(VIEWS.flatMap((v) => v.regions.map((r) => [`${v.key}, ${r.key}`, v, r] as const)))(
    '%s is large enough to be met with a finger',
    (_name, view, region) => {
      const outline = view.outline.map(polygon);
      const area = polygon(region.shape);
      const met = grid(view.box).filter((p) => within(area, p) && outline.some((o) => within(o, p)));
      const ends = (values: readonly number[]) => (Math.min(...values) + Math.max(...values)) / 2;
      const centre: Point = [ends(area.map(([x]) => x)), ends(area.map(([, y]) => y))];
      // Whoever points by other means than a finger points at the middle.
      const about = [
        [0, 0],
        [2, 0],
        [-2, 0],
        [0, 2],
        [0, -2],
      ].map(([x = 0, y = 0]): Point => [centre[0] + x, centre[1] + y]);
      expect(about.filter((p) => !within(area, p) || !outline.some((o) => within(o, p)))).toEqual([]);
      const long = (values: readonly number[]) => Math.max(...values) - Math.min(...values);
      expect(met.length * 9).toBeGreaterThan(600);
      expect(Math.max(long(met.map(([x]) => x)), long(met.map(([, y]) => y)))).toBeGreaterThan(36);
      expect(Math.min(long(met.map(([x]) => x)), long(met.map(([, y]) => y)))).toBeGreaterThan(17);
    },
  );

  it('shows the outer side with the toes to the left and the inner side with the toes to the right, of a left foot', () => {
    const middle = (view: string, key: string): number => {
      const region = VIEWS.find((v) => v.key === view)?.regions.find((r) => r.key === key);
      const xs = polygon(region?.shape ?? '').map(([x]) => x);
      return (Math.min(...xs) + Math.max(...xs)) / 2;
    };
    expect(middle('outer', 'outer-forefoot')).toBeLessThan(middle('outer', 'heel-side-outer'));
    expect(middle('inner', 'inner-forefoot')).toBeGreaterThan(middle('inner', 'heel-side-inner'));
    expect(middle('sole', 'arch')).toBeGreaterThan(middle('sole', 'midfoot-outer'));
    expect(middle('top', 'top-forefoot-inner')).toBeGreaterThan(middle('top', 'top-forefoot'));
  });

  it.each(findings.flatMap((f) => (f.picture === null ? [] : [[f.key, f.picture] as const])))(
    'what %s presses lies on the foot or the leg',
    (_key, picture) => {
      const view = VIEWS.find((v) => v.key === picture.view);
      const outline = (view?.outline ?? []).map(polygon);
      // Above the cut of the leg, or beside the skin by a finger's breadth, is off the drawing.
      expect(picture.press.filter(([x, y]) => !outline.some((o) => within(o, [x, y])))).toEqual([]);
    },
  );

  it('draws callus under the sole only', () => {
    const outline = SOLE_OUTLINE.map(polygon);
    const off = Object.entries(CALLUS_SHAPES).filter(([, d]) => {
      const points = polygon(d);
      const [x, y] = [0, 1].map((k) => points.reduce((sum, p) => sum + (p[k] ?? 0), 0) / points.length);
      return !outline.some((o) => within(o, [x ?? 0, y ?? 0]));
    });
    expect(off.map(([key]) => key)).toEqual([]);
  });

  it('names a place with its side, and finds the view it is drawn on', () => {
    expect(placeName('left:heel-inner')).toBe('inner heel, left');
    expect(regionName('navicular')).toBe('navicular');
    expect(viewOf('ankle-outer-front')).toBe('outer');
    expect(viewOf('somewhere else')).toBe('sole');
  });
});
