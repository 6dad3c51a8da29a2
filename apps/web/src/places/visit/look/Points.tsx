import { say } from '@heathstep/core';
import {
  POINT_STATES,
  POINTS,
  type PointsEntry,
  pointsReading,
  type Pose,
  POSES,
  type SupportPoint,
} from '@heathstep/contracts';
import { Outline, Spot } from '../../../parts/Drawn.js';
import type { Side } from '@heathstep/core';
import { SOLE_BOX, SOLE_OUTLINE, SOLE_SPOTS } from '../../../parts/footShapes.js';
import type { LiveVisit } from '../live.js';

const FILLS = { down: 1, light: 0.35, lifted: 0 } as const;

/** The three support points of each foot in four tasks; a tap goes from down to light to lifted. */
export function PointsPanel({ live }: { live: LiveVisit }) {
  const readings = (['left', 'right'] as const).flatMap((side) =>
    pointsReading(live.readings.entries, side).map((r) => ({ side, ...r })),
  );
  return (
    <div>
      <div className="grid grid-cols-4 gap-2">
        {POSES.map(([pose, name]) => (
          <div key={pose} className="text-center">
            <div className="text-sm font-semibold">{say(name)}</div>
            <div className="flex justify-center gap-1">
              <Sole live={live} pose={pose} side="left" poseName={say(name)} />
              <Sole live={live} pose={pose} side="right" poseName={say(name)} />
            </div>
            <button
              type="button"
              className="text-action min-h-11 text-sm"
              onClick={() => {
                const all: PointsEntry = { first: 'down', fifth: 'down', heel: 'down' };
                live.store.setMany([
                  [`look.points.${pose}.left`, all],
                  [`look.points.${pose}.right`, all],
                ]);
              }}
            >
              {say('all down')}
            </button>
          </div>
        ))}
      </div>
      <p className="text-sm text-ink-2">
        {say('Full: down. Pale: light. Empty: lifted. Tap a point to change it.')}
      </p>
      <ul className="text-sm" aria-live="polite">
        {readings.map((r) => (
          <li key={`${r.side}-${r.pose}`}>
            <b style={{ color: `var(--color-${r.side})` }}>{say(r.side)}</b>, {r.text}
            {r.tipping && say(': the outer point is lifted, the whole foot tips, which is not pronation')}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Sole({ live, pose, side, poseName }: { live: LiveVisit; pose: Pose; side: Side; poseName: string }) {
  const key = `look.points.${pose}.${side}` as const;
  const points = live.get(key) ?? {};
  const next = (point: SupportPoint) => {
    const now = points[point];
    const at = now === undefined ? 0 : POINT_STATES.indexOf(now) + 1;
    const state = POINT_STATES[at];
    const { [point]: _gone, ...rest } = points;
    const changed = state === undefined ? rest : { ...rest, [point]: state };
    live.set(key, Object.keys(changed).length === 0 ? null : changed);
  };
  return (
    <svg
      viewBox={SOLE_BOX}
      className="h-44 w-[4.4rem] touch-manipulation"
      style={side === 'right' ? { transform: 'scaleX(-1)' } : undefined}
    >
      <Outline side={side} paths={SOLE_OUTLINE} />
      {POINTS.map(([point, name]) => {
        const [x, y] = SOLE_SPOTS[point] ?? [0, 0];
        const state = points[point];
        return (
          <Spot
            key={point}
            label={`${poseName}, ${say(side)}, ${say(name)}: ${say(state ?? 'not looked at')}`}
            onPress={() => next(point)}
          >
            <circle cx={x} cy={y} r="34" fill="transparent" />
            <circle
              cx={x}
              cy={y}
              r="19"
              fill={`var(--color-${side})`}
              fillOpacity={state === undefined ? 0 : FILLS[state]}
              stroke={state === undefined ? 'var(--color-ink-3)' : `var(--color-${side})`}
              strokeWidth="3"
              strokeDasharray={state === undefined ? '4 6' : undefined}
            />
          </Spot>
        );
      })}
    </svg>
  );
}
