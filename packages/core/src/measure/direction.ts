import type { MeasureDefinition } from './definition.js';

/** How far a value lies outside the measure's band; 0 inside it or when there is none. */
export function distanceOutside(measure: MeasureDefinition, value: number): number {
  if (measure.band === null) return 0;
  return Math.max(measure.band.min - value, value - measure.band.max, 0);
}

/** How much better `b` is than `a`, in the measure's unit: positive better, negative worse. */
export function gain(measure: MeasureDefinition, a: number, b: number): number {
  switch (measure.direction) {
    case 'more':
      return b - a;
    case 'less':
      return a - b;
    case 'target':
      return distanceOutside(measure, a) - distanceOutside(measure, b);
  }
}
