import type { CaptureView, LabMeasure, MeasureEntry, VisitView } from '@heathstep/contracts';
import { labEntry, labEntryKey } from '@heathstep/contracts';
import { type PerSide, SIDES } from '@heathstep/core';
import type { Quantities } from '@heathstep/core/lab';
import { request } from '../../api/client.js';

/** One value on its way into a visit, and what stands there. */
export interface Entering {
  readonly key: string;
  readonly value: MeasureEntry | null;
  readonly baseVersion: number;
  readonly before: unknown;
}

/** The values of a capture as entries of a visit; those out of what is possible are left out. */
export function enteringOf(
  measures: readonly LabMeasure[],
  quantities: Quantities,
  capture: Pick<CaptureView, 'id' | 'side' | 'simulated'>,
  visit: Pick<VisitView, 'entries'>,
): readonly Entering[] {
  return measures.flatMap((m) =>
    SIDES.flatMap((side) => {
      const value = quantities[side][m.source.quantity]?.value;
      if (value === undefined || value < m.measure.allowed.min || value > m.measure.allowed.max) return [];
      const key = labEntryKey(m.measure, side);
      const standing = visit.entries.find((e) => e.key === key);
      return [
        {
          key,
          value: labEntry(m, value, capture),
          baseVersion: standing?.version ?? 0,
          before: standing?.value ?? null,
        },
      ];
    }),
  );
}

/** Saves entries of a visit, all or none. */
export async function enter(visitId: string, entering: readonly Entering[]): Promise<void> {
  await request('PUT', `/api/visits/${visitId}/entries`, {
    entries: entering.map(({ key, value, baseVersion }) => ({
      id: crypto.randomUUID(),
      key,
      baseVersion,
      value,
    })),
  });
}

/** What takes the same entries back to what stood before. */
export const takingBack = (entering: readonly Entering[]): readonly Entering[] =>
  entering.map((e) => ({
    key: e.key,
    value: (e.before ?? null) as MeasureEntry | null,
    baseVersion: e.baseVersion + 1,
    before: e.value,
  }));

/** Both sides of a quantity; null where a side has none. */
export const bothOf = (q: Quantities, name: string): PerSide<number | null> => ({
  left: q.left[name]?.value ?? null,
  right: q.right[name]?.value ?? null,
});
