import { openAhead, seedOf, type Slip, slipOf } from '@heathstep/core';
import type { Assessed } from '../episodes/assessment.js';
import type { EpisodeRecord } from '../episodes/record.js';

/** The first criterion of the stage that what was measured last puts off; null where all keep to what was told. */
export function slipIn(record: EpisodeRecord, { facts, now, stage, review }: Assessed): Slip | null {
  const ahead = openAhead(stage?.criteria ?? null, review?.criteria?.parts ?? [], {
    facts,
    now,
    lookup: (key) => record.measures.find((m) => m.key === key),
    seed: seedOf(record.row.id),
  });
  for (const criterion of ahead) {
    const slip = slipOf(criterion);
    if (slip !== null) return slip;
  }
  return null;
}
