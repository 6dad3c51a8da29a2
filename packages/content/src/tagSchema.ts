import { TAGS } from '@heathstep/core';

/** What a tag may be, for every schema that names one; the list itself stands in the core. */
export const TAG_SCHEMA = { $id: 'heathstep/tags', enum: [...TAGS] };
