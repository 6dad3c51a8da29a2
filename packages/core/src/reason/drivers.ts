import type { Tag } from '../exercise/definition.js';
import type { DriverDefinition } from './definition.js';
import type { Known } from './known.js';
import type { Column } from './sign.js';

export interface Driver {
  readonly key: string;
  readonly label: string;
  readonly side: Column;
  /** `clear`, or `possible` when it hangs on a value within its error or something that tells it apart is not known. */
  readonly strength: 'clear' | 'possible';
  readonly because: string;
  /** What it adds to a plan. */
  readonly adds: string;
  /** What safety switches off of what it would add: it waits. */
  readonly waitsFor: readonly Tag[];
}

/** What keeps it going: each driver whose sign is present, on the given sides and for the person. Not known says nothing. */
export function findDrivers(
  definitions: readonly DriverDefinition[],
  known: Known,
  sides: readonly Column[],
  tagsOff: (side: Column) => readonly Tag[] = () => [],
): Driver[] {
  const found = definitions.flatMap((d) => {
    const columns = d.scope === 'person' ? (['none'] as const) : sides;
    return columns.flatMap((side): Driver[] => {
      const sign = known.readSign(d.when, side);
      if (sign.state !== 'present') return [];
      const surer = d.surer === null ? null : known.readSign(d.surer, side);
      const other = d.unless === null ? null : known.readSign(d.unless, side);
      if (other?.state === 'present' && surer?.state !== 'present') return [];
      const sure = !sign.weak && (surer === null || (surer.state === 'present' && !surer.weak));
      const because = [...sign.because, ...(surer?.state === 'present' ? surer.because : [])];
      const off = tagsOff(side);
      return [
        {
          key: d.key,
          label: d.label,
          side,
          strength: sure ? 'clear' : 'possible',
          because: [...new Set(because)].join('; '),
          adds: d.adds,
          waitsFor: d.tags.filter((t) => off.includes(t)),
        },
      ];
    });
  });
  // Clear ones first; within them the order of the table, simplest to change first.
  return [...found.filter((d) => d.strength === 'clear'), ...found.filter((d) => d.strength === 'possible')];
}
