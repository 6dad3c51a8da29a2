import { useMemo, useRef, useState } from 'react';
import { BODY_MASS, type Computed, type MeasureDefinition } from '@heathstep/core';
import { useSession } from '../../../api/queries.js';
import { forbiddenOn, notNowOf } from '../forbidden.js';
import { SETTLE_MS, useSettled } from '../findings/useSettled.js';
import { columnsOf, type Column, type LiveVisit } from '../live.js';
import { PhotoTool } from '../photo/PhotoTool.js';
import { EMPTY, keyOf, readEntry, swapSides, writeEntry } from './entries.js';
import { Row, type RowActions, type RowProps } from './Row.js';
import { useCoarse } from './useCoarse.js';

const NOTHING = { left: null, right: null, none: null } as const;

function perColumn<T>(measure: MeasureDefinition, of: (side: Column) => T, otherwise: T): Record<Column, T> {
  const result: Record<Column, T> = { left: otherwise, right: otherwise, none: otherwise };
  for (const side of columnsOf(measure)) result[side] = of(side);
  return result;
}

interface Standing extends Pick<
  RowProps,
  'entries' | 'values' | 'before' | 'computed' | 'refusals' | 'unlike'
> {
  readonly refused: boolean;
}

function standingOf(
  live: LiveVisit,
  m: MeasureDefinition,
  entries: Standing['entries'],
  refused: boolean,
): Standing {
  return {
    entries,
    refused,
    values: perColumn(m, (s) => live.value(m, s), null),
    before: perColumn(m, (s) => live.before(m, s), null),
    computed:
      m.computed === null
        ? NOTHING
        : perColumn<Computed | null>(m, (s) => live.readings.computed(m, s), null),
    refusals: perColumn(m, (s) => live.store.refusal(keyOf(m, s)), null),
    unlike: columnsOf(m).some((s) => live.unlike(m, s)),
  };
}

/** Measures as rows, both feet: trials, value, bar, and what they say; the one at hand opens. */
export function Rows({ live, measures }: { live: LiveVisit; measures: readonly MeasureDefinition[] }) {
  const [active, setActive] = useState<string | null>(null);
  const [alternating, setAlternating] = useState(false);
  const [photo, setPhoto] = useState<MeasureDefinition | null>(null);
  const keypad = useCoarse();
  const session = useSession();
  const { store } = live;
  // What the ideas hold back follows typing; what safety switches off is there at once.
  const settled = useSettled(live, SETTLE_MS);
  const notNow = notNowOf(live, settled.reasoning().held);
  const actions = useMemo<RowActions>(
    () => ({
      write: (measure, side, change) =>
        writeEntry(store, measure, side, change(readEntry(store, measure, side))),
      swap: (measure) => swapSides(store, measure),
      activate: setActive,
      openPhoto: setPhoto,
      setAlternating,
    }),
    [store],
  );
  const known = useRef(new Map<string, { entries: Standing['entries']; standing: Standing }>());
  /** What stands in a row, worked out again only when one of its entries is another; a computed row always. */
  const stand = (m: MeasureDefinition): Standing => {
    const entries = perColumn(m, (s) => store.get(keyOf(m, s)) ?? EMPTY, EMPTY);
    const last = known.current.get(m.key);
    const refused = columnsOf(m).some((s) => store.refusal(keyOf(m, s)) !== null);
    const same =
      last !== undefined &&
      columnsOf(m).every((s) => last.entries[s] === entries[s]) &&
      last.standing.refused === refused;
    if (same && m.computed === null) return last.standing;
    const standing = standingOf(live, m, entries, refused);
    known.current.set(m.key, { entries, standing });
    return standing;
  };
  return (
    // A row goes by the room it has: what it says stands below it where the columns would not fit.
    <div className="@container">
      {measures.map((m, row) => (
        <Row
          key={m.key}
          measure={m}
          row={row}
          active={active === m.key}
          alternating={alternating}
          keypad={keypad}
          {...stand(m)}
          forbidden={forbiddenOn(notNow, m)}
          affected={live.affected}
          ageYears={live.ageYears}
          bodyMassKg={m.device === 'dynamometer' ? live.readings.value(BODY_MASS, 'none') : null}
          devicesUrl={session.data?.devicesUrl ?? null}
          actions={actions}
        />
      ))}
      {photo !== null && <PhotoTool live={live} measure={photo} close={() => setPhoto(null)} />}
    </div>
  );
}
