import { say, shown, type Side, SIDES } from '@heathstep/core';
import type { Cursor } from './cursor.js';
import { Plot } from './Plot.js';
import { lineOf, PLOT, xAt } from './plotting.js';
import type { FootPlay, LabReading, SupportPoint } from './reading.js';

/** The three points each have a dash and a word of their own; the side gives the colour. */
const POINTS: readonly {
  readonly point: SupportPoint;
  readonly word: string;
  readonly dash: string;
  readonly width: number;
}[] = [
  { point: 'inner', word: say('inner ball'), dash: '', width: 2.6 },
  { point: 'outer', word: say('outer ball'), dash: '6 3', width: 2 },
  { point: 'heel', word: say('heel'), dash: '1.5 3', width: 1.6 },
];

/** A short line as a point is drawn, before its word. */
function Key({ dash, width, colour }: { dash: string; width: number; colour: string }) {
  return (
    <svg viewBox="0 0 26 8" className="inline-block h-2 w-7" aria-hidden>
      <line x1="1" x2="25" y1="4" y2="4" stroke={colour} strokeWidth={width} strokeDasharray={dash} />
    </svg>
  );
}

const axisOf = (plays: readonly FootPlay[]): { low: number; high: number } => {
  const most = Math.max(
    20,
    ...plays.flatMap((p) =>
      [...p.shares.inner, ...p.shares.outer, ...p.shares.heel].filter((v) => !Number.isNaN(v)),
    ),
  );
  return { low: 0, high: Math.min(100, Math.ceil(most / 10) * 10) };
};

/** How the load of each foot lies on its three points over time; left beside right, one line of time for both. */
export function OverTime({
  reading,
  other,
  step,
  cursor,
  stacked,
}: {
  reading: LabReading;
  /** Left over right, beside the prints; else left beside right. */
  stacked: boolean;
  /** Another capture of the same task, drawn faintly. */
  other: LabReading | null;
  step: number;
  cursor: Cursor;
}) {
  const of = (r: LabReading | null, side: Side): FootPlay | null =>
    r === null ? null : (r.plays[side][step] ?? r.plays[side][0] ?? null);
  const plays = SIDES.flatMap((s) => [of(reading, s), of(other, s)]).filter((p) => p !== null);
  const axis = axisOf(plays);
  return (
    <section>
      <h3>{say('Load on the three points')}</h3>
      <p className="flex flex-wrap gap-x-4 text-sm text-ink-2">
        {POINTS.map(({ point, word, dash, width }) => (
          <span key={point}>
            <Key dash={dash} width={width} colour="var(--color-ink)" /> {word}
          </span>
        ))}
        {plays.some((p) => p.rises.length > 0) && (
          <span>{say('washed: the way up; the mark: the first head gives up its load')}</span>
        )}
        {other !== null && <span>{say('faint: the other capture')}</span>}
      </p>
      <div
        className={`mt-1 grid grid-cols-2 gap-4 max-sm:grid-cols-1 ${stacked ? 'xl:grid-cols-1 xl:gap-2' : ''}`}
      >
        {SIDES.map((side) => {
          const play = of(reading, side);
          if (play === null)
            return (
              <p key={side} className="text-sm text-ink-2">
                {say('{{side}}: not on the mat', { side: say(side) })}
              </p>
            );
          return (
            <Points
              key={side}
              play={play}
              other={of(other, side)}
              axis={axis}
              cursor={cursor}
              walk={reading.task === 'walk'}
            />
          );
        })}
      </div>
    </section>
  );
}

function Points({
  play,
  other,
  axis,
  cursor,
  walk,
}: {
  play: FootPlay;
  other: FootPlay | null;
  axis: { low: number; high: number };
  cursor: Cursor;
  walk: boolean;
}) {
  const side = play.side;
  const colour = `var(--color-${side})`;
  return (
    <div>
      <div className="text-sm font-semibold" style={{ color: colour }}>
        {side === 'left' ? say('L, left foot') : say('R, right foot')}
      </div>
      <Plot
        label={say('Share of the load on inner ball, outer ball and heel over time, {{side}}', {
          side: say(side),
        })}
        axis={axis}
        unit="%"
        cursor={cursor}
        under={walk ? [say('heel strike'), say('toe-off')] : ['0 s', `${shown(play.seconds, 0)} s`]}
      >
        {play.rises.map((r, i) => (
          <Rising key={i} from={r.from} top={r.top} left={r.left} />
        ))}
        {other !== null &&
          POINTS.map(({ point, dash, width }) => (
            <path
              key={point}
              d={lineOf(other.shares[point], axis)}
              fill="none"
              stroke="var(--color-ink-3)"
              strokeOpacity="0.55"
              strokeWidth={width * 0.7}
              strokeDasharray={dash}
            />
          ))}
        {POINTS.map(({ point, dash, width }) => (
          <path
            key={point}
            d={lineOf(play.shares[point], axis)}
            fill="none"
            stroke={colour}
            strokeWidth={width}
            strokeDasharray={dash}
          />
        ))}
      </Plot>
    </div>
  );
}

/** The way up of a rise, and where the first head gave up its load. */
function Rising({ from, top, left }: { from: number; top: number; left: number | null }) {
  return (
    <g>
      <rect
        x={xAt(from)}
        y={PLOT.top}
        width={Math.max(1, xAt(top) - xAt(from))}
        height={PLOT.height - PLOT.top - PLOT.bottom}
        fill="var(--color-go-wash)"
      />
      {left !== null && <path d={`M${xAt(left) - 4} ${PLOT.top} h8 l-4 7 z`} fill="var(--color-ease)" />}
    </g>
  );
}

/** Where the load of a foot lies at the cursor, for who cannot see the lines. */
export function PointsTable({ reading, step }: { reading: LabReading; step: number }) {
  const tenths = Array.from({ length: 11 }, (_, i) => i / 10);
  return (
    <details className="mt-1 text-sm">
      <summary className="min-h-8 text-ink-2">{say('As a table')}</summary>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={say('Load on the three points')}>
        <table className="mt-1 text-left">
          <thead>
            <tr>
              <th scope="col" className="pr-4">
                {say('Time')}
              </th>
              {SIDES.flatMap((s) =>
                POINTS.map(({ point, word }) => (
                  <th key={`${s}${point}`} scope="col" className="pr-4 font-normal">
                    {say(s)}, {word}
                  </th>
                )),
              )}
            </tr>
          </thead>
          <tbody>
            {tenths.map((share) => (
              <tr key={share} className="border-t border-line-2">
                <td>{shown(share * 100, 0)} %</td>
                {SIDES.flatMap((s) => {
                  const play = reading.plays[s][step] ?? reading.plays[s][0];
                  return POINTS.map(({ point }) => {
                    const v = play?.shares[point][Math.round(share * (play.count - 1))] ?? Number.NaN;
                    return <td key={`${s}${point}`}>{Number.isNaN(v) ? '–' : `${shown(v, 0)} %`}</td>;
                  });
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
