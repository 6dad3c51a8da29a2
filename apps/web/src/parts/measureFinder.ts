import type { MeasureDefinition } from '@heathstep/core';
import { type Find, finderOf } from './finder.js';

/** Measures by what they are called, where, and how clinicians name and shorten them. */
export const measuresOf = (measures: readonly MeasureDefinition[]): Find<MeasureDefinition> =>
  finderOf(measures, (m) => [m.label, m.brief, m.region, ...m.aliases, ...(m.also ?? [])].join(' '));
