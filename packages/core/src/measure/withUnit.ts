import { shown } from '../quantity/statistics.js';
import type { MeasureDefinition } from './definition.js';

/** The unit as it follows a figure: degrees stand close, other units after a space, counts alone. */
export function unitAfter(measure: Pick<MeasureDefinition, 'unitLabel'>): string {
  if (measure.unitLabel === '' || measure.unitLabel === '°') return measure.unitLabel;
  return ` ${measure.unitLabel}`;
}

/** A value as it is read: rounded for showing, with its unit. */
export const withUnit = (
  measure: Pick<MeasureDefinition, 'unitLabel'>,
  value: number,
  decimals = 1,
): string => `${shown(value, decimals)}${unitAfter(measure)}`;
