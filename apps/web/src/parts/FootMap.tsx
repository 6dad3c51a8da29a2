import type { Side } from '@heathstep/core';

/** The left sole as its owner looks down, big toe toward the middle; the right one is its mirror. */
const OUTLINE =
  'M56 292 C34 292 22 272 23 246 C24 220 31 196 27 166 C23 138 12 116 14 88 C15 72 20 60 27 54 C30 50 36 50 39 54 C42 46 51 44 55 51 C59 43 69 42 73 50 C78 43 88 45 90 53 C93 34 112 32 116 50 C119 63 112 78 111 92 C109 126 88 152 86 184 C84 210 91 224 90 250 C89 276 78 292 56 292 Z';

const TOES = [
  { cx: 103, cy: 34, rx: 15, ry: 21 },
  { cx: 79, cy: 34, rx: 9.5, ry: 13 },
  { cx: 61, cy: 38, rx: 8.5, ry: 11.5 },
  { cx: 45, cy: 45, rx: 7.5, ry: 10 },
  { cx: 31, cy: 54, rx: 7, ry: 9 },
];

const REGIONS: readonly { readonly key: string; readonly name: string; readonly shape: string }[] = [
  { key: 'toes', name: 'toes', shape: '' },
  { key: 'forefoot', name: 'ball of the foot', shape: 'M13 50 H117 V112 H13 Z' },
  { key: 'midfoot-outer', name: 'outer border', shape: 'M18 112 H58 V214 H18 Z' },
  { key: 'arch', name: 'arch', shape: 'M58 112 H110 V214 H58 Z' },
  { key: 'heel-inner', name: 'inner heel', shape: 'M66 214 H91 V292 H66 Z' },
  { key: 'heel-centre', name: 'centre of the heel', shape: 'M46 214 H66 V293 H46 Z' },
  { key: 'heel-outer', name: 'outer heel', shape: 'M22 214 H46 V292 H22 Z' },
  { key: 'heel-back', name: 'back of the heel', shape: '' },
];

export const regionName = (key: string): string => REGIONS.find((r) => r.key === key)?.name ?? key;

interface FootMapProps {
  readonly chosen: readonly string[];
  readonly onToggle: (region: string) => void;
}

/** Both soles; tap or press Enter where it hurts. */
export function FootMap({ chosen, onToggle }: FootMapProps) {
  return (
    <div className="flex items-end justify-center gap-6" role="group" aria-label="Where it hurts">
      {(['left', 'right'] as const).map((side) => (
        <figure key={side} className="text-center">
          <Sole side={side} chosen={chosen} onToggle={onToggle} />
          <figcaption className="font-semibold" style={{ color: `var(--color-${side})` }}>
            {side === 'left' ? 'L' : 'R'} <span className="font-normal">{side}</span>
          </figcaption>
        </figure>
      ))}
    </div>
  );
}

function Sole({ side, chosen, onToggle }: FootMapProps & { side: Side }) {
  const id = `sole-${side}`;
  const region = (key: string) => {
    const value = `${side}:${key}`;
    const on = chosen.includes(value);
    return {
      role: 'checkbox',
      'aria-checked': on,
      'aria-label': `${regionName(key)}, ${side}`,
      tabIndex: 0,
      className:
        'cursor-pointer outline-none [&:focus-visible]:stroke-heather [&:focus-visible]:stroke-[3] hover:opacity-80',
      fill: on ? 'var(--color-ease)' : 'transparent',
      onClick: () => onToggle(value),
      onKeyDown: (event: React.KeyboardEvent) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          onToggle(value);
        }
      },
    };
  };
  return (
    <svg
      viewBox="0 0 130 336"
      className="h-80 w-32 touch-manipulation"
      style={side === 'right' ? { transform: 'scaleX(-1)' } : undefined}
    >
      <defs>
        <clipPath id={id}>
          <path d={OUTLINE} />
        </clipPath>
      </defs>
      <path
        d={OUTLINE}
        fill={`var(--color-${side}-wash)`}
        stroke={`var(--color-${side})`}
        strokeWidth="1.5"
      />
      {TOES.map((toe) => (
        <ellipse
          key={toe.cx}
          {...toe}
          fill={`var(--color-${side}-wash)`}
          stroke={`var(--color-${side})`}
          strokeWidth="1.5"
        />
      ))}
      <g clipPath={`url(#${id})`}>
        {REGIONS.filter((r) => r.shape !== '').map((r) => (
          <path
            key={r.key}
            d={r.shape}
            stroke={`var(--color-${side})`}
            strokeOpacity="0.35"
            strokeWidth="1"
            strokeDasharray="2 4"
            {...region(r.key)}
          />
        ))}
      </g>
      <path
        d="M20 62 C14 30 40 16 70 14 C104 6 124 18 120 44 C112 56 92 58 88 52 C70 44 40 52 30 66 Z"
        stroke="none"
        {...region('toes')}
        fillOpacity="0.75"
      />
      <path
        d="M29 303 H83 C82 320 70 330 56 330 C42 330 30 320 29 303 Z"
        strokeWidth="1.5"
        stroke={`var(--color-${side})`}
        {...region('heel-back')}
      />
    </svg>
  );
}
