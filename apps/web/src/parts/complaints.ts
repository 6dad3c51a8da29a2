import { say } from '@heathstep/core';
import type { Pathway } from '@heathstep/content';
import type { Affected } from '@heathstep/core';

/** A complaint in words: what it is treated as, and where. */
export function complaintName(
  complaint: { readonly condition: string; readonly affected: Affected },
  pathways: readonly Pathway[],
): string {
  const name = pathways.find((p) => p.key === complaint.condition)?.name ?? '';
  return `${name}, ${complaint.affected === 'both' ? say('both sides') : say(complaint.affected)}`;
}
