import { say, shown } from '@heathstep/core';
import type { Quartiles } from '@heathstep/contracts';

const WIDTH = 240;

/** Weeks of the middle half of some people with their middle, over what is usual. */
export function Range({
  spread,
  usual,
  most,
}: {
  spread: Quartiles | null;
  usual: { readonly min: number; readonly max: number };
  most: number;
}) {
  const x = (weeks: number): number => (Math.min(most, weeks) / most) * WIDTH;
  const words =
    spread === null
      ? say('usually {{min}} to {{max}}', usual)
      : say('{{middle}}, half between {{low}} and {{high}}; usually {{min}} to {{max}}', {
          ...usual,
          middle: shown(spread.middle, 1),
          low: shown(spread.low, 1),
          high: shown(spread.high, 1),
        });
  return (
    <>
      <svg viewBox={`0 0 ${WIDTH} 14`} className="h-3.5 w-full" aria-hidden preserveAspectRatio="none">
        <rect
          x={x(usual.min)}
          y={1}
          width={Math.max(2, x(usual.max) - x(usual.min))}
          height={12}
          fill="var(--color-line)"
        />
        {spread !== null && (
          <>
            <rect
              x={x(spread.low)}
              y={4}
              width={Math.max(2, x(spread.high) - x(spread.low))}
              height={6}
              fill="var(--color-heather)"
              opacity={0.6}
            />
            <rect x={x(spread.middle) - 1.5} y={1} width={3} height={12} fill="var(--color-heather-deep)" />
          </>
        )}
      </svg>
      <span className="block text-sm text-ink-2">{words}</span>
    </>
  );
}
