import type { Comparison, MeasureDefinition } from './definition.js';
import { usualAtAge } from './thresholds.js';

export type Sex = 'female' | 'male';

/** A published median for age and sex. Without a sex the lower and the higher of the two; they are equal when it is known. */
export interface NormRange {
  readonly low: number;
  readonly high: number;
  readonly source: string;
}

/** The published median of a measure for a person; null where there is none, the age is not known, or it is under the youngest band. */
export function medianFor(
  measure: MeasureDefinition,
  ageYears: number | null,
  sex: Sex | null,
): NormRange | null {
  const { norms } = measure;
  if (norms === undefined || ageYears === null) return null;
  const band = [...norms.bands].reverse().find((b) => ageYears >= b.from);
  if (band === undefined) return null;
  const both = sex === null ? [band.female, band.male] : [band[sex]];
  return { low: Math.min(...both), high: Math.max(...both), source: norms.source };
}

/** What is wanted of a person to be as good as is usual at their age and sex. */
export interface UsualLimit {
  readonly op: Comparison;
  /** Without a sex the easier and the harder of two medians; equal where there is one. In the measure's unit. */
  readonly easy: number;
  readonly hard: number;
}

/**
 * At least a share (1 is all) of what is usual: of the published median for age and sex, else of the value by age alone. Null
 * where neither is published, or the age is not known.
 */
export function usualLimit(
  measure: MeasureDefinition,
  { ageYears, sex }: { readonly ageYears?: number | null | undefined; readonly sex?: Sex | null | undefined },
  share: number,
): UsualLimit | null {
  const age = ageYears ?? null;
  const usual = usualAtAge(measure, age);
  const median =
    medianFor(measure, age, sex ?? null) ?? (usual === null ? null : { low: usual, high: usual });
  if (median === null) return null;
  const [low, high] = [median.low * share, median.high * share];
  return measure.direction === 'less'
    ? { op: '<=', easy: high, hard: low }
    : { op: '>=', easy: low, hard: high };
}
