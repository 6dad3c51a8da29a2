import { say } from '@heathstep/core';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { AreaMap, SideCaption } from './AreaMap.js';
import { placeName, VIEWS, viewOf } from './footShapes.js';

/** Both feet and lower legs in one view at a time, sole first; tap or paint where it hurts. */
export function BodyMap({
  chosen,
  onChange,
  wide = false,
}: {
  /** `side:region`. */
  chosen: readonly string[];
  onChange: (chosen: readonly string[]) => void;
  /** There is room for large side views. */
  wide?: boolean;
}) {
  const [first] = chosen;
  const [view, setView] = useState(() => (first === undefined ? 'sole' : viewOf(first.split(':')[1] ?? '')));
  const shown = VIEWS.find((v) => v.key === view) ?? VIEWS[0];
  if (shown === undefined) return null;
  const change = (value: string, on: boolean) =>
    onChange(on ? [...chosen.filter((c) => c !== value), value] : chosen.filter((c) => c !== value));
  return (
    <Tabs.Root
      value={shown.key}
      onValueChange={setView}
      role="group"
      aria-label={say('Where it hurts')}
      className="@container"
    >
      <Tabs.List
        aria-label={say('View of the foot')}
        className="grid grid-cols-3 @xs:flex @xs:flex-wrap @xs:justify-center"
      >
        {VIEWS.map((v) => {
          const marked = chosen.filter((c) => v.regions.some((r) => r.key === c.split(':')[1])).length;
          return (
            <Tabs.Trigger
              key={v.key}
              value={v.key}
              className="min-h-11 border-b-2 border-transparent px-2 text-sm text-ink-2 data-[state=active]:border-heather data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {v.label}
              {marked > 0 && <b className="text-ease">{` ${marked}`}</b>}
            </Tabs.Trigger>
          );
        })}
      </Tabs.List>
      <Tabs.Content value={shown.key} tabIndex={-1} className="mt-1 flex items-end justify-center gap-6">
        {(['left', 'right'] as const).map((side) => (
          <figure key={side}>
            <AreaMap
              side={side}
              box={shown.box}
              outline={shown.outline}
              areas={shown.regions}
              chosen={chosen.filter((c) => c.startsWith(`${side}:`)).map((c) => c.slice(side.length + 1))}
              onChange={(region, on) => change(`${side}:${region}`, on)}
              {...(shown.lines === undefined ? {} : { lines: shown.lines })}
              className={!shown.fromTheSide ? 'h-72 w-32' : wide ? 'h-72 w-56 max-sm:w-[40vw]' : 'h-56 w-36'}
            />
            <SideCaption side={side} />
          </figure>
        ))}
      </Tabs.Content>
      <p className="mt-1 min-h-6 text-center text-sm font-semibold" aria-live="polite">
        {chosen.map(placeName).join('; ')}
      </p>
    </Tabs.Root>
  );
}
