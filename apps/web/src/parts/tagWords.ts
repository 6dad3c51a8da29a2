import type { Tag } from '@heathstep/core';

/** What a tag is called where it is read. */
export const TAG_WORDS: Readonly<Record<Tag, string>> = {
  'weight-bearing': 'standing and walking',
  'calf-load': 'load on the calf',
  'push-off': 'pushing off the forefoot',
  barefoot: 'barefoot',
  'forced-extension': 'toes bent up by force',
  impact: 'hops, jumps and running',
  'deep-dorsiflexion': 'deep ankle bend',
  'standing-unsupported': 'standing without support',
  'pressure-on-sole': 'pressure on the sole',
  'skin-pressure': 'spacers, tape, splint',
  compression: 'compression',
  heat: 'heat',
  scraping: 'scraping',
  'heavy-load': 'heavy load',
  'single-leg-raise': 'heel raises on one leg',
  'end-range': 'stretch at the end of range',
  prone: 'lying face down',
  'floor-transfer': 'getting down to the floor',
  'step-edge': 'standing on a step edge',
  'eyes-closed': 'eyes closed',
};

export const tagList = (tags: readonly Tag[]): string => tags.map((t) => TAG_WORDS[t]).join(', ');
