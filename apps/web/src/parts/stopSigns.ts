import type { StopSignText } from '@heathstep/content';
import type { StopSign } from '@heathstep/core';

/** The texts of one grade. */
export const signsOf = (signs: readonly StopSignText[], grade: StopSign): readonly string[] =>
  signs.filter((s) => s.grade === grade).map((s) => s.text);
