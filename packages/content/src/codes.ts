import type { ContentBundle } from './bundle.js';

/** One concept in a terminology of others. */
export interface ForeignCode {
  readonly system: 'loinc' | 'snomed';
  readonly code: string;
  readonly display: string;
}

/** How others code what we name, for exchange; nothing is decided by it. By our own keys. */
export interface ForeignCodes {
  /** How far they have been checked. */
  readonly status: string;
  /** UCUM by our unit. */
  readonly units: Readonly<Record<string, string>>;
  readonly conditions: Readonly<Record<string, ForeignCode>>;
  readonly measures: Readonly<Record<string, ForeignCode>>;
  /** Of entries of the story. */
  readonly answers: Readonly<Record<string, ForeignCode>>;
  /** Safety questions whose yes states a medicine or an allergy. */
  readonly statements: Readonly<
    Record<
      string,
      { readonly as: 'medication' | 'allergy'; readonly when: 'now' | 'before'; readonly text: string }
    >
  >;
}

/** What is coded and not there, and units that have no code: in words. */
export function strayCodes(
  codes: ForeignCodes,
  there: Pick<ContentBundle, 'measures' | 'pathways' | 'safetyQuestions'>,
): string[] {
  const missing = (what: string, keys: readonly string[], known: readonly { readonly key: string }[]) =>
    keys
      .filter((key) => known.every((k) => k.key !== key))
      .map((key) => `the code of a ${what} ${key}, which is not there`);
  return [
    ...missing('measure', Object.keys(codes.measures), there.measures),
    ...missing('condition', Object.keys(codes.conditions), there.pathways),
    ...missing('safety question', Object.keys(codes.statements), there.safetyQuestions),
    ...there.measures
      .filter((m) => codes.units[m.unit] === undefined)
      .map((m) => `the unit ${m.unit} of ${m.key} has no UCUM code`),
  ];
}
