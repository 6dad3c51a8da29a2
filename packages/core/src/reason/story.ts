/** What the story tells that the simple rules here read; a field left out was not asked. */
export interface StoryFacts {
  readonly worstPain?: number | undefined;
  readonly nowPain?: number | undefined;
  readonly firstStepPain?: number | undefined;
  /** Provoked within 5 minutes of activity; first steps by themselves do not count. */
  readonly provokedWithinFiveMinutes?: boolean | undefined;
  /** Minutes until it settles after being provoked. */
  readonly settlesMinutes?: number | undefined;
  readonly nightPain?: boolean | undefined;
  /** Regions of the foot map tapped, e.g. `heel-inner`. */
  readonly regions?: readonly string[] | undefined;
  readonly onset?: 'gradual' | 'sudden' | 'injury' | undefined;
  readonly loadChange?: readonly string[] | undefined;
  readonly character?: readonly string[] | undefined;
  readonly worseWhen?: readonly string[] | undefined;
}
