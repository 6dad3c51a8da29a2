import { say, shown } from '@heathstep/core';
import { useRef, useState } from 'react';
import { OVERVIEW_STEP_SECONDS, RECORDING_LIMITS } from '@heathstep/core/lab';
import { ChooseFile } from '../../parts/ChooseFile.js';
import type { LookedOver } from './jobs.js';
import { NotTakenError, runJob } from './runJob.js';

/** A file that was looked over, and the stretch of it that is taken. */
export interface ChosenStretch {
  readonly file: File;
  readonly over: LookedOver;
  readonly from: number;
  readonly seconds: number;
}

const tooLarge = (): string =>
  say('Larger than {{mb}} MB: cut it into parts first', {
    mb: Math.round(RECORDING_LIMITS.file / 1024 / 1024),
  });

/** Chooses a recording from a file: looked over as it is read, never held whole; of a long one a stretch is taken. */
export function FromFile({ chosen }: { chosen: (stretch: ChosenStretch) => void }) {
  const [found, setFound] = useState<{ file: File; over: LookedOver } | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  const read = async (file: File): Promise<string | null> => {
    setFound(null);
    if (file.size > RECORDING_LIMITS.file) return tooLarge();
    stop.current?.abort();
    const control = new AbortController();
    stop.current = control;
    setProgress(0);
    try {
      const over = await runJob({ do: 'look-over', file }, { signal: control.signal, progress: setProgress });
      setFound({ file, over });
      if (over.seconds <= RECORDING_LIMITS.seconds) chosen({ file, over, from: 0, seconds: over.seconds });
      return null;
    } catch (error) {
      if (error instanceof DOMException) return null;
      return error instanceof NotTakenError
        ? say('Line {{line}}: {{reason}}', { line: error.line, reason: error.message })
        : say('This file could not be read');
    } finally {
      setProgress(null);
    }
  };
  return (
    <div>
      <ChooseFile
        word={say('Choose a file')}
        label={say('Recording file')}
        accept=".json,.csv,.txt,application/json,text/csv"
        read={read}
      />
      {progress !== null && (
        <div className="flex items-center gap-3 text-sm">
          <progress value={progress} max={1} aria-label={say('Reading the file')} />
          <button type="button" className="text-action min-h-11" onClick={() => stop.current?.abort()}>
            {say('Cancel')}
          </button>
        </div>
      )}
      {found !== null && (
        <div className="mt-2 text-sm">
          <p>
            {say('{{name}}: {{seconds}} s', { name: found.file.name, seconds: shown(found.over.seconds, 0) })}
          </p>
          {found.over.warnings.map((w, i) => (
            <p key={i} className="text-hold-deep">
              {say('Line {{line}}: {{reason}}', { line: w.line, reason: w.reason })}
            </p>
          ))}
          {found.over.seconds > RECORDING_LIMITS.seconds && (
            <Stretch over={found.over} take={(from, seconds) => chosen({ ...found, from, seconds })} />
          )}
        </div>
      )}
    </div>
  );
}

const WIDTH = 600;
const HEIGHT = 60;

/** The whole of a long file as a strip, and the stretch of at most a minute that is taken. */
function Stretch({ over, take }: { over: LookedOver; take: (from: number, seconds: number) => void }) {
  const [from, setFrom] = useState(0);
  const most = Math.max(1, ...over.steps);
  const seconds = Math.min(RECORDING_LIMITS.seconds, over.seconds - from);
  const x = (s: number): number => (s / over.seconds) * WIDTH;
  return (
    <div>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="h-16 w-full"
        role="img"
        aria-label={say('How much happens over the time of the file')}
      >
        <rect x={x(from)} y={0} width={x(seconds)} height={HEIGHT} fill="var(--color-heather-wash)" />
        {over.steps.map((v, i) => (
          <line
            key={i}
            x1={x(i * OVERVIEW_STEP_SECONDS)}
            x2={x(i * OVERVIEW_STEP_SECONDS)}
            y1={HEIGHT}
            y2={HEIGHT - (v / most) * (HEIGHT - 4)}
            stroke="var(--color-ink-2)"
          />
        ))}
      </svg>
      <label className="block">
        {say('From {{from}} s, {{seconds}} s are taken', {
          from: shown(from, 0),
          seconds: shown(seconds, 0),
        })}
        <input
          type="range"
          className="block w-full accent-heather"
          min={0}
          max={Math.max(0, Math.floor(over.seconds - RECORDING_LIMITS.seconds))}
          value={from}
          onChange={(e) => setFrom(Number(e.target.value))}
        />
      </label>
      <button type="button" className="action-quiet mt-1" onClick={() => take(from, seconds)}>
        {say('Take this stretch')}
      </button>
    </div>
  );
}
