/** A computed statement opened up: what went in, the rule, the sums, and where the rule comes from. */
export interface Why {
  readonly statement: string;
  readonly inputs: readonly { readonly name: string; readonly value: string }[];
  readonly rule: string;
  readonly arithmetic: readonly string[];
  readonly source: string;
  /** Key of the content item whose review status applies, e.g. `measure:some-angle`. */
  readonly reviewKey: string | null;
}
