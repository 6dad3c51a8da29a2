import type { Pathway } from '@heathstep/content';
import { type Find, finderOf } from '../../parts/finder.js';

/** Pathways by name, gloss or clinical term. */
export const pathwaysOf = (pathways: readonly Pathway[]): Find<Pathway> =>
  finderOf(pathways, (p) => [p.name, p.gloss, ...p.also].join(' '));
