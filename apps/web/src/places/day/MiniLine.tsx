import { say } from '@heathstep/core';
import type { DayItem } from '@heathstep/contracts';

const WIDTH = 132;
const PATH = 5;
const LOW = 26;

/** The course in the size of a line: stages done, now and to come, and the pain of the last mornings beneath. */
export function MiniLine({ line }: { line: NonNullable<DayItem['line']> }) {
  const { stage, stages, pain } = line;
  const step = WIDTH / stages;
  const x = (i: number) => 2 + (i / Math.max(1, pain.length - 1)) * (WIDTH - 4);
  const y = (score: number) => LOW - (score / 10) * 14;
  const last = pain.at(-1);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 28`}
      className="mt-1 h-7 w-[8.25rem]"
      role="img"
      aria-label={
        last === undefined
          ? say('stage {{stage}} of {{stages}}', { stage: stage + 1, stages })
          : say('stage {{stage}} of {{stages}}, pain this morning or last {{pain}}', {
              stage: stage + 1,
              stages,
              pain: last,
            })
      }
    >
      {Array.from({ length: stages }, (_, i) => (
        <rect
          key={i}
          x={i * step}
          y={i === stage ? PATH - 2.5 : PATH - 1.5}
          width={step - 3}
          height={i === stage ? 5 : 3}
          rx={1.5}
          fill={i < stage ? 'var(--color-ink)' : i === stage ? 'var(--color-heather)' : 'var(--color-line)'}
        />
      ))}
      {pain.length > 1 && (
        <path
          d={pain.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(i).toFixed(1)} ${y(p).toFixed(1)}`).join(' ')}
          fill="none"
          stroke="var(--color-ease)"
          strokeWidth="1.4"
          strokeLinejoin="round"
        />
      )}
    </svg>
  );
}
