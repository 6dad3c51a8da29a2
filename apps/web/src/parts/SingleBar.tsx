import { type MeasureDefinition, semAt, shown, unitAfter, say } from '@heathstep/core';

const WIDTH = 300;
const HEIGHT = 44;

/** One measure without sides: a bar from its zero, the wanted band behind, error whiskers, last visit as a ghost mark. */
export function SingleBar({
  measure,
  value,
  before,
}: {
  measure: MeasureDefinition;
  value: number | null;
  before: number | null;
}) {
  const given = [value, before].filter((v): v is number => v !== null);
  const top = measure.band === null ? measure.usual.max : Math.min(measure.usual.max, measure.band.max * 1.3);
  const min = Math.min(measure.scale === 'signed' ? measure.usual.min : 0, ...given);
  const max = Math.max(top, ...given);
  const at = (v: number): number => ((Math.min(Math.max(v, min), max) - min) / (max - min || 1)) * WIDTH;
  const sem = value === null ? null : semAt(measure, value);
  const zero = at(Math.max(min, 0));
  const label = `${measure.label}: ${value === null ? say('not taken') : `${shown(value)}${unitAfter(measure)}`}${before === null ? '' : say(', last visit {{before}}', { before: shown(before) })}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-11 w-full" role="img" aria-label={label}>
      {measure.band !== null && (
        <rect
          x={at(measure.band.min)}
          y={2}
          width={Math.max(1, at(measure.band.max) - at(measure.band.min))}
          height={HEIGHT - 4}
          fill="var(--color-go-wash)"
        />
      )}
      <line x1={zero} x2={zero} y1={6} y2={HEIGHT - 6} stroke="var(--color-line)" />
      {value !== null && (
        <rect
          x={Math.min(zero, at(value))}
          y={HEIGHT / 2 - 10}
          width={Math.max(1.5, Math.abs(at(value) - zero))}
          height={20}
          rx={1.5}
          fill="var(--color-ink-2)"
        />
      )}
      {value !== null && sem !== null && sem > 0 && (
        <path
          d={`M${at(value - sem)} ${HEIGHT / 2 - 4}v8m0 -4H${at(value + sem)}m0 -4v8`}
          stroke="var(--color-ink)"
          strokeWidth="1.5"
          fill="none"
        />
      )}
      {before !== null && <path d={`M${at(before) - 4} 1 h8 l-4 6 z`} fill="var(--color-ink-3)" />}
    </svg>
  );
}
