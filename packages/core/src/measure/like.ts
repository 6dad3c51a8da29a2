import { say } from '../quantity/tongue.js';
import type { MeasureDefinition } from './definition.js';

/** How one value was taken; what is left out is the measure's usual way. */
export interface Taken {
  readonly method?: string | undefined;
  readonly position?: string | undefined;
  /** `self` when the patient measured; a value one takes of oneself reads differently. */
  readonly by?: 'another' | 'self' | undefined;
}

/** Method, position and taker of a value, the measure's usual ones filled in. */
export function takenHow(measure: MeasureDefinition, taken: Taken): Required<Record<keyof Taken, string>> {
  return {
    method: taken.method ?? measure.methods[0] ?? '',
    position: taken.position ?? measure.positions[0] ?? '',
    by: taken.by ?? 'another',
  };
}

/** Two values may only be compared when method, position and taker are the same. */
export function areLike(measure: MeasureDefinition, a: Taken, b: Taken): boolean {
  const [x, y] = [takenHow(measure, a), takenHow(measure, b)];
  return x.method === y.method && x.position === y.position && x.by === y.by;
}

/** What differs between two values, in words; empty when they are alike. */
export function unlikeness(measure: MeasureDefinition, a: Taken, b: Taken): string {
  const [x, y] = [takenHow(measure, a), takenHow(measure, b)];
  return [
    x.method === y.method ? '' : say('{{method}} and {{method2}}', { method: x.method, method2: y.method }),
    x.position === y.position
      ? ''
      : say('{{position}} and {{position2}}', { position: x.position, position2: y.position }),
    x.by === y.by ? '' : say('measured by another and by oneself'),
  ]
    .filter((t) => t !== '')
    .join(', ');
}
