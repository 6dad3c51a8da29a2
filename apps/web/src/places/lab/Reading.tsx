import { say, shown, SIDES, spoken } from '@heathstep/core';
import { Pause, Play } from 'lucide-react';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { LabMeasure } from '@heathstep/contracts';
import { plainWords } from '@heathstep/core/lab';
import { Cursor, useCursor, usePlaying } from './cursor.js';
import { Numbers } from './Numbers.js';
import { OverTime, PointsTable } from './OverTime.js';
import { Parts } from './Parts.js';
import { Prints } from './Prints.js';
import type { LabReading } from './reading.js';
import { Waves } from './Waves.js';

interface ReadingProps {
  readonly reading: LabReading;
  readonly other: { readonly reading: LabReading; readonly name: string } | null;
  /** The capture before it of the same kind, whose numbers and waves stand behind; null where there is none. */
  readonly last?: LabReading | null;
  readonly name: string;
  readonly measures: readonly LabMeasure[];
  readonly affected: 'left' | 'right' | 'both' | 'none';
  readonly ageYears: number | null;
}

const secondsOf = (r: LabReading, step: number): number =>
  Math.max(0.3, ...SIDES.map((s) => (r.plays[s][step] ?? r.plays[s][0])?.seconds ?? 0));

/** Steps are played slower than they were, so that the eye follows. */
const SLOWER = 4;

/** A capture as it is looked at: prints, loads over time or waves, all with one cursor, and the numbers. */
export function Reading({ reading, other, last = null, name, measures, affected, ageYears }: ReadingProps) {
  const [step, setStep] = useState(0);
  const walk = reading.task === 'walk';
  const seconds = secondsOf(reading, step) * (walk ? SLOWER : 1);
  const cursor = useMemo(() => new Cursor(seconds), [seconds]);
  const [forPatient, setForPatient] = useState(false);
  const hasPrint = SIDES.some((s) => reading.plays[s].length > 0);
  const steps = walk ? Math.max(reading.plays.left.length, reading.plays.right.length) : 0;
  if (forPatient) return <ForPatient reading={reading} cursor={cursor} back={() => setForPatient(false)} />;
  return (
    <div className="space-y-5">
      <Notes reading={reading} />
      {hasPrint && (
        <div
          className={
            other === null ? 'grid gap-x-10 gap-y-4 xl:grid-cols-[25rem_minmax(0,1fr)]' : 'space-y-4'
          }
        >
          <div>
            <div className="flex flex-wrap items-end gap-x-8 gap-y-4">
              <div>
                {other !== null && <p className="text-sm font-semibold">{name}</p>}
                <Prints reading={reading} step={step} cursor={cursor} title={say('Print of both feet')} />
              </div>
              {other !== null && (
                <div className="border-l border-line pl-6">
                  <p className="text-sm font-semibold">{other.name}</p>
                  <Prints
                    reading={other.reading}
                    step={step}
                    cursor={cursor}
                    title={say('Print of the other capture')}
                  />
                </div>
              )}
            </div>
            <div className="no-print mt-3 flex flex-wrap items-center gap-4">
              <Player cursor={cursor} seconds={seconds} slower={walk ? SLOWER : 1} />
              {steps > 1 && <StepChoice step={step} steps={steps} setStep={setStep} />}
              <button type="button" className="text-action min-h-11" onClick={() => setForPatient(true)}>
                {say('For the patient')}
              </button>
            </div>
          </div>
          <div>
            <OverTime
              reading={reading}
              other={other?.reading ?? null}
              step={step}
              cursor={cursor}
              stacked={other === null}
            />
            <PointsTable reading={reading} step={step} />
          </div>
        </div>
      )}
      {!hasPrint && (
        <button type="button" className="text-action min-h-11" onClick={() => setForPatient(true)}>
          {say('For the patient')}
        </button>
      )}
      <Parts reading={reading} />
      <Waves reading={reading} other={other?.reading ?? last} cursor={cursor} />
      <Numbers
        measures={measures}
        reading={reading}
        other={other?.reading ?? last}
        otherIs={other === null ? say('the last one like it') : say('the other capture')}
        affected={affected}
        ageYears={ageYears}
      />
    </div>
  );
}

/** Which of several steps is seen. */
function StepChoice({
  step,
  steps,
  setStep,
}: {
  step: number;
  steps: number;
  setStep: (step: number) => void;
}) {
  return (
    <label className="text-sm text-ink-2">
      {say('Step')}{' '}
      <select
        className="field !inline-block !w-14"
        value={step}
        onChange={(e) => setStep(Number(e.target.value))}
      >
        {Array.from({ length: steps }, (_, i) => (
          <option key={i} value={i}>
            {i + 1}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What makes a capture not usable, or less sure. */
export function Notes({ reading }: { reading: LabReading }) {
  if (reading.notes.length === 0) return null;
  return (
    <ul className="space-y-0.5 text-sm">
      {reading.notes.map((n, i) => (
        <li key={i} className={n.level === 'refuse' ? 'font-semibold text-ease-deep' : 'text-hold-deep'}>
          {n.level === 'refuse' ? say('Not usable: {{text}}', { text: n.text }) : n.text}
        </li>
      ))}
    </ul>
  );
}

/** Plays a capture, or stands at any moment of it; Home shows all of it at once again. */
function Player({ cursor, seconds, slower }: { cursor: Cursor; seconds: number; slower: number }) {
  const { playing, whole } = usePlaying(cursor);
  const range = useRef<HTMLInputElement>(null);
  const told = useRef<HTMLOutputElement>(null);
  const draw = useCallback(() => {
    const share = cursor.share;
    if (range.current !== null) range.current.value = String(share ?? 0);
    if (told.current !== null)
      told.current.textContent =
        share === null ? say('all of it') : `${shown((share * seconds) / slower, slower > 1 ? 2 : 1)} s`;
  }, [cursor, seconds, slower]);
  useCursor(cursor, draw);
  return (
    <div className="flex items-center gap-3">
      <button
        type="button"
        className="action-quiet !px-3"
        aria-label={playing ? say('Pause') : say('Play')}
        onClick={() => (playing ? cursor.pause() : cursor.play())}
      >
        {playing ? <Pause className="size-5" aria-hidden /> : <Play className="size-5" aria-hidden />}
      </button>
      <input
        ref={range}
        type="range"
        min={0}
        max={1}
        step={0.005}
        defaultValue={0}
        className="w-44 accent-heather max-sm:w-36"
        aria-label={say('Moment of the capture')}
        onChange={(e) => {
          // Pausing writes the place back: what was asked for is read first.
          const asked = Number(e.target.value);
          cursor.pause();
          cursor.go(asked);
        }}
      />
      <output ref={told} className="w-16 text-sm" />
      {!whole && (
        <button
          type="button"
          className="text-action min-h-11 whitespace-nowrap text-sm"
          onClick={() => {
            cursor.pause();
            cursor.go(null);
          }}
        >
          {say('All of it')}
        </button>
      )}
      {slower > 1 && <span className="text-sm text-ink-2">{say('{{n}} times slower', { n: slower })}</span>}
    </div>
  );
}

/** The picture for whoever stood there: large, in plain words, without numbers that mean nothing to them. */
function ForPatient({ reading, cursor, back }: { reading: LabReading; cursor: Cursor; back: () => void }) {
  const words = plainWords(reading.kind, reading.task, reading.quantities, spoken());
  const hasPrint = SIDES.some((s) => reading.plays[s].length > 0);
  return (
    <div>
      <button type="button" className="text-action no-print min-h-11" onClick={back}>
        {say('Back to the numbers')}
      </button>
      <div className="mt-2 flex flex-wrap items-start gap-8">
        {hasPrint && <Prints reading={reading} step={0} cursor={cursor} title={say('Print of both feet')} />}
        <div className="max-w-md space-y-3 text-xl leading-snug">
          {words.map((w) => (
            <p key={w}>{w}</p>
          ))}
          <p className="text-base text-ink-2">
            {say('Both feet are never quite alike. Your therapist will tell you what matters for you.')}
          </p>
        </div>
      </div>
    </div>
  );
}
