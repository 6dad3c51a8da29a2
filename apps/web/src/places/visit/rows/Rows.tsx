import { useMemo, useState } from 'react';
import type { Computed, MeasureDefinition } from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import { useSession } from '../../../api/queries.js';
import { columnsOf, type Column, type LiveVisit } from '../live.js';
import { PhotoTool } from '../photo/PhotoTool.js';
import { EMPTY, keyOf, swapSides, writeEntry } from './entries.js';
import { Row, type RowActions } from './Row.js';
import { useCoarse } from './useCoarse.js';

const NOTHING = { left: null, right: null, none: null } as const;

function perColumn<T>(measure: MeasureDefinition, of: (side: Column) => T, otherwise: T): Record<Column, T> {
  const result: Record<Column, T> = { left: otherwise, right: otherwise, none: otherwise };
  for (const side of columnsOf(measure)) result[side] = of(side);
  return result;
}

/** Measures as rows, both feet: trials, value, bar, and what they say; the one at hand opens. */
export function Rows({ live, measures }: { live: LiveVisit; measures: readonly MeasureDefinition[] }) {
  const [active, setActive] = useState<string | null>(null);
  const [alternating, setAlternating] = useState(false);
  const [photo, setPhoto] = useState<MeasureDefinition | null>(null);
  const keypad = useCoarse();
  const session = useSession();
  const { store } = live;
  const actions = useMemo<RowActions>(
    () => ({
      write: (measure, side, entry) => writeEntry(store, measure, side, entry),
      swap: (measure) => swapSides(store, measure),
      activate: setActive,
      openPhoto: setPhoto,
      setAlternating,
    }),
    [store],
  );
  return (
    <>
      {measures.map((m, row) => (
        <Row
          key={m.key}
          measure={m}
          row={row}
          active={active === m.key}
          alternating={alternating}
          keypad={keypad}
          entries={perColumn(m, (s) => (store.get(keyOf(m, s)) as MeasureEntry | null) ?? EMPTY, EMPTY)}
          values={perColumn(m, (s) => live.value(m, s), null)}
          before={perColumn(m, (s) => live.before(m, s), null)}
          computed={
            m.computed === null
              ? NOTHING
              : perColumn<Computed | null>(m, (s) => live.readings.computed(m, s), null)
          }
          refusals={perColumn(m, (s) => store.refusal(keyOf(m, s)), null)}
          unlike={columnsOf(m).some((s) => live.unlike(m, s))}
          affected={live.affected}
          ageYears={live.ageYears}
          bodyMassKg={m.device === 'dynamometer' ? live.readings.value('body-mass', 'none') : null}
          devicesUrl={session.data?.devicesUrl ?? null}
          actions={actions}
        />
      ))}
      {photo !== null && <PhotoTool live={live} measure={photo} close={() => setPhoto(null)} />}
    </>
  );
}
