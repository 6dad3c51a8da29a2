/** What a made-up instrument of the lab can get wrong; apart from what makes it, so that a page needs no more than the words. */
export const MAT_MISTAKES = [
  'dead-cells',
  'stuck-cells',
  'saturated',
  'drift',
  'half-off',
  'turned',
  'overlap',
  'lost-frames',
  'helper-leans',
  'rubbish',
  'breaks-off',
] as const;
export type MatMistake = (typeof MAT_MISTAKES)[number];

export const MOTION_MISTAKES = [
  'slipped',
  'drift',
  'missed-contact',
  'lost-frames',
  'rubbish',
  'breaks-off',
  'one-leg',
] as const;
export type MotionMistake = (typeof MOTION_MISTAKES)[number];
