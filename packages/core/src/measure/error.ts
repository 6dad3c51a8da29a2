import type { MeasureDefinition } from './definition.js';

/** MDC at 95 % is 1.96 x sqrt(2) x SEM. */
export const MDC_PER_SEM = 2.77;

/** 80 % change limit in SEM: 1.28 x sqrt(2). */
export const LIKELY_SEMS = 1.81;

/** MDC between two values in the measure's unit; a percentage is of the mean of the two. Left out, the method is the usual one. Null when not known. */
export function mdcBetween(measure: MeasureDefinition, a: number, b: number, method?: string): number | null {
  const { error } = measure;
  if (error === null) return null;
  const own = method === undefined ? undefined : error.byMethod?.[method];
  if ('mdc' in error) return own ?? error.mdc;
  return (Math.abs((a + b) / 2) * (own ?? error.mdcPercent)) / 100;
}

/** Standard error of measurement at a value, in the measure's unit. Null when not known. */
export function semAt(measure: MeasureDefinition, value: number, method?: string): number | null {
  const mdc = mdcBetween(measure, value, value, method);
  return mdc === null ? null : mdc / MDC_PER_SEM;
}
