import { useId } from 'react';
import type { ExaminedPart } from '@heathstep/core';
import { Lines, Outline } from '../../../parts/Drawn.js';
import { type MapView, VIEWS } from '../../../parts/footShapes.js';

const HEIGHT = 76;

/** The view that shows most of a part, a second where it shows much of it; the sole where it has no area of its own. */
export function viewsOf(part: ExaminedPart): readonly { view: MapView; areas: MapView['regions'] }[] {
  const seen = VIEWS.map((view) => ({ view, areas: view.regions.filter((r) => part.areas.includes(r.key)) }));
  const best = seen.filter((v) => v.areas.length > 0).sort((a, b) => b.areas.length - a.areas.length);
  const [first, second] = best;
  if (first === undefined) return seen.slice(0, 1);
  return second !== undefined && second.areas.length > 1 ? [first, second] : [first];
}

/** Where on the foot and leg a part lies. */
export function PartPicture({ part }: { part: ExaminedPart }) {
  const clip = useId();
  return (
    <span className="flex items-end gap-1" aria-hidden>
      {viewsOf(part).map(({ view, areas }) => {
        const [, , width = 130, height = 258] = view.box.split(' ').map(Number);
        return (
          <svg key={view.key} viewBox={view.box} height={HEIGHT} width={(HEIGHT * width) / height}>
            <clipPath id={`${clip}-${view.key}`}>
              {view.outline.map((d) => (
                <path key={d} d={d} />
              ))}
            </clipPath>
            <Outline side="left" paths={view.outline} />
            <Lines side="left" paths={view.lines ?? []} />
            <g clipPath={`url(#${clip}-${view.key})`} fill="var(--color-heather)" fillOpacity="0.55">
              {areas.map((a) => (
                <path key={a.key} d={a.shape} />
              ))}
            </g>
          </svg>
        );
      })}
    </span>
  );
}
