import type { MeasureDefinition } from './definition.js';

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
