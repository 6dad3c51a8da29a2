/** Red, green and blue, 0 to 255. */
export type Rgb = readonly [r: number, g: number, b: number];

/**
 * Our scale of pressure: paper, straw, heather, peat on light ground, and the other way round on dark. Each step is darker
 * than the one before (lighter on dark ground), so that it reads in grey and to every kind of colour vision.
 */
const LIGHT: readonly Rgb[] = [
  [247, 242, 232],
  [238, 214, 150],
  [212, 158, 122],
  [150, 90, 128],
  [84, 48, 96],
  [34, 22, 34],
];
const DARK: readonly Rgb[] = [
  [34, 30, 34],
  [84, 56, 98],
  [152, 96, 132],
  [212, 158, 122],
  [240, 216, 156],
  [255, 250, 238],
];

/** The colour of a share of the highest pressure shown, 0 to 1; outside it, that of the nearer end. */
export function pressureColour(share: number, ground: 'light' | 'dark'): Rgb {
  const stops = ground === 'light' ? LIGHT : DARK;
  const at = Math.min(1, Math.max(0, share)) * (stops.length - 1);
  const i = Math.min(stops.length - 2, Math.floor(at));
  const [a, b] = [stops[i] as Rgb, stops[i + 1] as Rgb];
  const mix = (k: 0 | 1 | 2): number => Math.round(a[k] + (b[k] - a[k]) * (at - i));
  return [mix(0), mix(1), mix(2)];
}

/** How light a colour is to the eye, 0 to 1, as a grey print shows it. */
export const lightness = ([r, g, b]: Rgb): number => (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255;

/** The top of a scale that holds a pressure: a round number of kPa. */
export function scaleTop(kpa: number): number {
  const steps = [50, 100, 150, 200, 300, 400, 500, 600, 800, 1000, 1200];
  return steps.find((s) => kpa <= s) ?? Math.ceil(kpa / 500) * 500;
}
