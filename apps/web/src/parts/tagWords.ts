import { say } from '@heathstep/core';
import type { Tag } from '@heathstep/core';

/** What a tag is called where it is read. */
export const TAG_WORDS: Readonly<Record<Tag, string>> = {
  'weight-bearing': say('standing and walking'),
  'calf-load': say('load on the calf'),
  'push-off': say('pushing off the forefoot'),
  barefoot: say('barefoot'),
  'forced-extension': say('toes bent up by force'),
  impact: say('hops, jumps and running'),
  'deep-dorsiflexion': say('deep ankle bend'),
  'standing-unsupported': say('standing without support'),
  'pressure-on-sole': say('pressure on the sole'),
  'skin-pressure': say('spacers, tape, splint'),
  compression: say('compression'),
  heat: say('heat'),
  scraping: say('scraping'),
  'heavy-load': say('heavy load'),
  'single-leg-raise': say('heel raises on one leg'),
  'end-range': say('stretch at the end of range'),
  prone: say('lying face down'),
  'floor-transfer': say('getting down to the floor'),
  'step-edge': say('standing on a step edge'),
  'eyes-closed': say('eyes closed'),
};

export const tagList = (tags: readonly Tag[]): string => tags.map((t) => TAG_WORDS[t]).join(', ');
