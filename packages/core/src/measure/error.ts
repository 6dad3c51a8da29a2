import type { MeasureDefinition } from './definition.js';

/** MDC at 95 % is 1.96 x sqrt(2) x SEM. */
export const MDC_PER_SEM = 2.77;

/** 80 % change limit in SEM: 1.28 x sqrt(2). */
export const LIKELY_SEMS = 1.81;

/** MDC between two values in the measure's unit; a percentage is of the mean of the two. Null when not known. */
export function mdcBetween(measure: MeasureDefinition, a: number, b: number): number | null {
  const { error } = measure;
  if (error === null) return null;
  if ('mdc' in error) return error.mdc;
  return (Math.abs((a + b) / 2) * error.mdcPercent) / 100;
}

/** Standard error of measurement at a value, in the measure's unit. Null when not known. */
export function semAt(measure: MeasureDefinition, value: number): number | null {
  const mdc = mdcBetween(measure, value, value);
  return mdc === null ? null : mdc / MDC_PER_SEM;
}
