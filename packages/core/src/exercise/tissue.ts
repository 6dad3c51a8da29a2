/** Something that is loaded and has its own ledger over the week. */
export interface TissueDefinition {
  readonly key: string;
  readonly name: string;
  /** What the numbers are, as they stand in the sum: `body weights in the calf tendon`. */
  readonly unit: string;
  /**
   * `heel-raise`: the static lever of the forefoot about the ankle, from legs and slope of an exercise. `weights`: what an
   * exercise says of this tissue, in body weights. Both rank exercises, neither is a safe limit.
   */
  readonly model: 'heel-raise' | 'weights';
  readonly source: string;
}
