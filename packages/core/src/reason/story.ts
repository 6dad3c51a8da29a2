/** What the story tells of how irritable it is; a field left out was not asked. */
export interface StoryFacts {
  /** 0 to 10. */
  readonly worstPain?: number | undefined;
  /** Provoked within 5 minutes of activity; first steps by themselves do not count. */
  readonly provokedWithinFiveMinutes?: boolean | undefined;
  /** Minutes until it settles after being provoked. */
  readonly settlesMinutes?: number | undefined;
  readonly nightPain?: boolean | undefined;
}
