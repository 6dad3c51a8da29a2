import { pressureColour } from '@heathstep/core/lab';

/** The scale of pressure as 256 colours, red green blue and opaque. */
function palette(ground: 'light' | 'dark'): Uint8ClampedArray {
  const out = new Uint8ClampedArray(256 * 4);
  for (let i = 0; i < 256; i += 1) out.set([...pressureColour(i / 255, ground), 255], i * 4);
  return out;
}

const made = new Map<'light' | 'dark', Uint8ClampedArray>();

/** The same, made once. */
export function paletteOf(ground: 'light' | 'dark'): Uint8ClampedArray {
  const known = made.get(ground) ?? palette(ground);
  made.set(ground, known);
  return known;
}

/** From this level on a colour hides the ground. */
const SOLID = 24;

/** Levels from 0 to 255 as the pixels of a picture. */
export function pixels(
  into: ImageData,
  levels: Uint8Array,
  from: number,
  colours: Uint8ClampedArray,
): ImageData {
  const { data } = into;
  for (let i = 0; i < data.length / 4; i += 1) {
    const c = (levels[from + i] ?? 0) * 4;
    data[i * 4] = colours[c] ?? 0;
    data[i * 4 + 1] = colours[c + 1] ?? 0;
    data[i * 4 + 2] = colours[c + 2] ?? 0;
    // No pressure is the ground it lies on.
    const level = levels[from + i] ?? 0;
    data[i * 4 + 3] = level >= SOLID ? 255 : (level * 255) / SOLID;
  }
  return into;
}
