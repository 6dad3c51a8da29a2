import type { MeasureDefinition } from '@heathstep/core';

/** What a measure is where its file does not say otherwise. Nothing that makes it safer or more certain is taken for granted. */
const USUAL = {
  aliases: [],
  sides: 'each',
  trials: { count: 1, combine: 'mean' },
  band: null,
  scale: 'ratio',
  error: null,
  important: null,
  sideFlag: null,
  thresholds: [],
  positions: ['as described'],
  setup: null,
  tool: null,
  device: null,
  photo: null,
  lab: [],
  levels: null,
  computed: null,
  byAge: null,
  painless: false,
} as const satisfies Partial<MeasureDefinition>;

type Left = keyof typeof USUAL | 'usual' | 'unitLabel';

/** A measure as it is written: what follows from the rules above may be left out. */
export type WrittenMeasure = Omit<MeasureDefinition, Left> & Partial<Pick<MeasureDefinition, Left>>;

/**
 * The measure that is meant: each on both feet, one trial, pain asked with it, an error that is not known, the usual as
 * wide as the allowed, the unit shown as it is written.
 */
export const expandMeasure = (w: WrittenMeasure): MeasureDefinition => ({
  ...USUAL,
  usual: w.allowed,
  unitLabel: w.unit,
  ...w,
});
