import { say } from '@heathstep/core';
import { CALLUS_AREAS, type EntryValue, WEAR_AREAS } from '@heathstep/contracts';
import { type Area, AreaMap, SideCaption } from '../../../parts/AreaMap.js';
import { CALLUS_SHAPES, SHOE, SOLE_BOX, SOLE_OUTLINE, WEAR_SHAPES } from '../../../parts/footShapes.js';
import type { LiveVisit } from '../live.js';

const areasOf = (
  list: readonly (readonly [string, string])[],
  shapes: Readonly<Record<string, string>>,
): Area[] => list.map(([key, name]) => ({ key, name: say(name), shape: shapes[key] ?? '' }));

const CALLUS = areasOf(CALLUS_AREAS, CALLUS_SHAPES);
const WEAR = areasOf(WEAR_AREAS, WEAR_SHAPES);

/** Areas of both sides to mark; looked at and none is an answer too. */
function Marked({
  live,
  entry,
  areas,
  outline,
  none,
}: {
  live: LiveVisit;
  entry: 'callus' | 'wear';
  areas: readonly Area[];
  outline: readonly string[];
  none: string;
}) {
  return (
    <div className="flex justify-center gap-12">
      {(['left', 'right'] as const).map((side) => {
        const key = `look.${entry}.${side}` as const;
        const chosen = live.get(key);
        const change = (area: string, on: boolean) => {
          const rest = (chosen ?? []).filter((a) => a !== area);
          // The areas drawn are those of this entry.
          live.set(key, (on ? [...rest, area] : rest) as EntryValue<typeof key>);
        };
        return (
          <figure key={side} className="w-52 text-center">
            <AreaMap
              side={side}
              box={SOLE_BOX}
              outline={outline}
              areas={areas}
              chosen={chosen ?? []}
              onChange={change}
              className="mx-auto h-72 w-32"
            />
            <SideCaption side={side} />
            <p className="min-h-6 text-sm font-semibold" aria-live="polite">
              {chosen === null
                ? ''
                : chosen.length === 0
                  ? none
                  : chosen.map((c) => areas.find((a) => a.key === c)?.name).join(', ')}
            </p>
            <button
              type="button"
              className="text-action min-h-11 text-sm"
              aria-pressed={chosen?.length === 0}
              onClick={() => live.set(key, chosen?.length === 0 ? null : [])}
            >
              {`${none}, ${say(side)}`}
            </button>
          </figure>
        );
      })}
    </div>
  );
}

export const CallusPanel = ({ live }: { live: LiveVisit }) => (
  <Marked live={live} entry="callus" areas={CALLUS} outline={SOLE_OUTLINE} none={say('No callus')} />
);

/** What the wear of both shoes goes with, where it is a known pattern. */
function wearReading(areas: readonly string[]): string | null {
  if (areas.includes('heel-out') && areas.includes('forefoot-in'))
    return say('Outer heel and inner forefoot: goes with a toed-out walk');
  if (areas.includes('heel-out') && areas.includes('forefoot-out'))
    return say('Outer border: goes with a supinated foot');
  return null;
}

export function WearPanel({ live }: { live: LiveVisit }) {
  const readings = (['left', 'right'] as const).flatMap((side) => {
    const text = wearReading(live.get(`look.wear.${side}`) ?? []);
    return text === null ? [] : [{ side, text }];
  });
  return (
    <div>
      <Marked live={live} entry="wear" areas={WEAR} outline={[SHOE]} none={say('Even wear')} />
      {readings.map(({ side, text }) => (
        <p key={side} className="text-center text-sm">
          <b style={{ color: `var(--color-${side})` }}>{say(side)}</b>
          {say(': {{text}} (convention)', { text })}
        </p>
      ))}
    </div>
  );
}
