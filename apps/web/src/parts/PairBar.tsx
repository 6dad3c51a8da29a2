import { type MeasureDefinition, semAt, shown, unitAfter, say } from '@heathstep/core';

const WIDTH = 300;
const HEIGHT = 44;
const SPINE = 46;
const REACH = (WIDTH - SPINE) / 2;

interface PairBarProps {
  readonly measure: MeasureDefinition;
  readonly left: number | null;
  readonly right: number | null;
  readonly before: { readonly left: number | null; readonly right: number | null };
  /** What `before` is, where it is not the last visit. */
  readonly beforeIs?: string;
}

/** From the least to the most a bar shows: past what is wanted, and far enough to hold every value given. */
function scaleOf({ measure, left, right, before }: PairBarProps): { min: number; max: number } {
  const values = [left, right, before.left, before.right].filter((v): v is number => v !== null);
  const top =
    measure.scale === 'signed'
      ? measure.usual.max
      : measure.direction === 'less' || measure.band === null
        ? measure.usual.max
        : measure.band.max * 1.15;
  return {
    min: Math.min(measure.scale === 'signed' ? measure.usual.min : 0, ...values),
    max: Math.max(top, ...values),
  };
}

/** One measure, both feet: bars growing outward from a spine, the wanted band behind, error whiskers, last visit as a ghost mark. */
export function PairBar(props: PairBarProps) {
  const { measure, left, right, before } = props;
  const { min, max } = scaleOf(props);
  const along = (value: number): number => (Math.min(Math.max(value, min), max) - min) / (max - min || 1);
  const difference = left === null || right === null ? null : Math.abs(left - right);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-11 w-full"
      role="img"
      aria-label={describe(props, difference)}
    >
      {measure.band !== null &&
        (['left', 'right'] as const).map((side) => {
          const a = place(side, along(measure.band?.min ?? 0));
          const b = place(side, along(measure.band?.max ?? 0));
          const inner = side === 'left' ? Math.max(a, b) : Math.min(a, b);
          const wantedEdge =
            measure.direction === 'less' ? (side === 'left' ? Math.min(a, b) : Math.max(a, b)) : inner;
          return (
            <g key={side}>
              <rect
                x={Math.min(a, b)}
                y={2}
                width={Math.abs(a - b)}
                height={HEIGHT - 4}
                fill="var(--color-go-wash)"
              />
              <line
                x1={wantedEdge}
                x2={wantedEdge}
                y1={2}
                y2={HEIGHT - 2}
                stroke="var(--color-go)"
                strokeWidth="1.5"
                strokeDasharray="2 3"
              />
            </g>
          );
        })}
      <line x1={REACH} x2={REACH} y1={6} y2={HEIGHT - 6} stroke="var(--color-line)" />
      <line x1={REACH + SPINE} x2={REACH + SPINE} y1={6} y2={HEIGHT - 6} stroke="var(--color-line)" />
      <Bar side="left" value={left} measure={measure} along={along} />
      <Bar side="right" value={right} measure={measure} along={along} />
      {(['left', 'right'] as const).map((side) => {
        const then = before[side];
        if (then === null) return null;
        const x = place(side, along(then));
        return <path key={side} d={`M${x - 4} 1 h8 l-4 6 z`} fill="var(--color-ink-3)" />;
      })}
      <text
        x={WIDTH / 2}
        y={HEIGHT / 2 + 5}
        textAnchor="middle"
        fontSize="14"
        fontWeight="650"
        fill="var(--color-ink)"
      >
        {difference === null ? '' : shown(difference, Math.max(1, measure.decimals))}
      </text>
    </svg>
  );
}

const place = (side: 'left' | 'right', share: number): number =>
  side === 'left' ? REACH - share * REACH : REACH + SPINE + share * REACH;

function Bar({
  side,
  value,
  measure,
  along,
}: {
  side: 'left' | 'right';
  value: number | null;
  measure: MeasureDefinition;
  along: (value: number) => number;
}) {
  if (value === null) return null;
  const zero = place(side, along(measure.scale === 'signed' ? 0 : -Infinity));
  const end = place(side, along(value));
  const sem = semAt(measure, value);
  const mid = HEIGHT / 2;
  return (
    <g>
      <rect
        x={Math.min(zero, end)}
        y={mid - 10}
        width={Math.max(Math.abs(end - zero), 1.5)}
        height={20}
        rx={1.5}
        fill={`var(--color-${side})`}
      />
      {sem !== null && sem > 0 && (
        <g stroke="var(--color-ink)" strokeWidth="1.5">
          <line x1={place(side, along(value - sem))} x2={place(side, along(value + sem))} y1={mid} y2={mid} />
          <line
            x1={place(side, along(value - sem))}
            x2={place(side, along(value - sem))}
            y1={mid - 4}
            y2={mid + 4}
          />
          <line
            x1={place(side, along(value + sem))}
            x2={place(side, along(value + sem))}
            y1={mid - 4}
            y2={mid + 4}
          />
        </g>
      )}
    </g>
  );
}

function describe(
  { measure, left, right, before, beforeIs = say('last visit') }: PairBarProps,
  difference: number | null,
): string {
  const unit = unitAfter(measure);
  const side = (name: string, now: number | null, then: number | null) =>
    `${name} ${now === null ? say('not taken') : `${shown(now)}${unit}`}${then === null ? '' : `, ${beforeIs} ${shown(then)}`}`;
  return `${measure.label}: ${side(say('left'), left, before.left)}; ${side(say('right'), right, before.right)}${difference === null ? '' : say('; {{difference}}{{unit}} apart', { difference: shown(difference), unit })}`;
}
