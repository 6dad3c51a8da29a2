export type EvidenceKind =
  | 'guideline'
  | 'trial'
  | 'reliability study'
  | 'cohort study'
  | 'modelling study'
  | 'review'
  | 'convention';

/** Where a threshold, rule or protocol stage comes from. The review status is each clinic's own and kept beside it. */
export interface Evidence {
  readonly statement: string;
  readonly source: string;
  readonly kind: EvidenceKind;
  readonly version: number;
}
