import { say, shown, SIDES } from '@heathstep/core';
import { secondsLeft } from '@heathstep/core/lab';
import { useEffect, useRef } from 'react';
import { useShownTheme } from '../../parts/theme.js';
import type { LiveSeen } from './live.js';
import { paletteOf, pixels } from './palette.js';

const PHASES = {
  countdown: say('Counting down'),
  waiting: say('Step on the mat and stand still'),
  recording: say('Recording'),
  done: say('Done'),
  broken: say('Broken off'),
} as const;

/** What an instrument reads now, and how far the capture is. */
export function LiveView({ seen }: { seen: LiveSeen }) {
  const { session } = seen;
  const left = secondsLeft(session);
  return (
    <div className="space-y-3">
      <div className="flex items-baseline gap-5">
        <div className="text-5xl font-bold leading-none" aria-hidden>
          {left === null ? '–' : Math.ceil(left)}
        </div>
        <div>
          <div role="status" className="text-lg font-semibold">
            {PHASES[session.phase]}
            {session.plan.crossings > 0 && session.phase === 'recording'
              ? say(', {{n}} of {{of}} steps', { n: session.crossings, of: session.plan.crossings })
              : ''}
          </div>
          <div className="text-sm text-ink-2">
            {seen.device}
            {seen.simulated ? `. ${say('Simulated: no measurement')}` : ''}
          </div>
        </div>
      </div>
      {seen.picture !== null && <MatPicture picture={seen.picture} newton={seen.newton} />}
      {seen.angles !== null && (
        <dl className="flex gap-8">
          {SIDES.map((s) => (
            <div key={s}>
              <dt className="text-sm" style={{ color: `var(--color-${s})` }}>
                {s === 'left' ? say('L, heel under the shin') : say('R, heel under the shin')}
              </dt>
              <dd className="text-3xl font-bold">
                {seen.angles?.[s] == null ? say('none') : `${shown(seen.angles[s] ?? 0, 0)}°`}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}

function MatPicture({ picture, newton }: { picture: NonNullable<LiveSeen['picture']>; newton: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useShownTheme();
  const { columns, rows, cells, topKpa } = picture;
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (ctx == null) return;
    // The far rows above, as the patient looks ahead.
    const turned = new Uint8Array(cells.length);
    for (let r = 0; r < rows; r += 1)
      turned.set(cells.subarray(r * columns, (r + 1) * columns), (rows - 1 - r) * columns);
    ctx.putImageData(pixels(ctx.createImageData(columns, rows), turned, 0, paletteOf(theme)), 0, 0);
  }, [cells, columns, rows, theme]);
  return (
    <div>
      <canvas
        ref={canvas}
        width={columns}
        height={rows}
        className="w-full max-w-xl rounded-md border border-line"
        role="img"
        aria-label={say('The mat now')}
      />
      <p className="text-sm text-ink-2">
        {say('{{newton}} N on the mat as it tells it; darkest {{top}} kPa', {
          newton: shown(newton, 0),
          top: topKpa,
        })}
      </p>
    </div>
  );
}
