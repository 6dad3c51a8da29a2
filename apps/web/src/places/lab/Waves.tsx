import { say, shown, SIDES } from '@heathstep/core';
import { useState } from 'react';
import { keep, stored } from '../../api/kept.js';
import { SelectField } from '../../parts/fields.js';
import type { Cursor } from './cursor.js';
import { Plot } from './Plot.js';
import { bandOf, lineOf, PLOT, xAt, yAt } from './plotting.js';
import type { LabReading, WaveSeen } from './reading.js';

/** What the waves are held against. */
type Band = 'none' | 'usual' | 'other-capture';

const KEPT = 'heathstep.lab.band';
const isBand = (v: unknown): v is Band => v === 'none' || v === 'usual' || v === 'other-capture';

const ease = (x: number): number => (1 - Math.cos(Math.PI * Math.min(1, Math.max(0, x)))) / 2;

/** A usual walk: 2 degrees outward at contact, 6 inward at 38 %, 5 outward at toe-off, and 3 to either side. Convention. */
const USUAL = Array.from({ length: 101 }, (_, i) => {
  const s = i / 100;
  return s <= 0.38 ? -2 + 8 * ease(s / 0.38) : 6 - 11 * ease((s - 0.38) / 0.62);
});
const USUAL_WIDTH = 3;

interface Seen {
  readonly side: 'left' | 'right';
  readonly wave: WaveSeen;
  readonly before: WaveSeen | null;
}

/** Room for all waves with their spread. */
function axisOf(seen: readonly Seen[]): { low: number; high: number } {
  const values = seen.flatMap(({ wave, before }) => [
    ...wave.mean.map((v, i) => v + (wave.spread[i] ?? 0)),
    ...wave.mean.map((v, i) => v - (wave.spread[i] ?? 0)),
    ...(before?.mean ?? []),
  ]);
  return {
    low: Math.floor((Math.min(-6, ...values) - 1) / 2) * 2,
    high: Math.ceil((Math.max(8, ...values) + 1) / 2) * 2,
  };
}

/** The turning of the heel under the shin over a step, both feet over each other, with a band and the other capture. */
export function Waves({
  reading,
  other,
  cursor,
}: {
  reading: LabReading;
  other: LabReading | null;
  cursor: Cursor;
}) {
  const [band, setBand] = useState<Band>(() => {
    const kept = stored<unknown>(KEPT, 'usual');
    return isBand(kept) ? kept : 'usual';
  });
  const seen = SIDES.flatMap((side) => {
    const wave = reading.waves[side];
    return wave === null ? [] : [{ side, wave, before: other?.waves[side] ?? null }];
  });
  if (seen.length === 0) return null;
  const axis = axisOf(seen);
  const choose = (value: string): void => {
    if (!isBand(value)) return;
    setBand(value);
    keep(KEPT, value, value === 'usual');
  };
  return (
    <section className="max-w-3xl">
      <div className="flex flex-wrap items-end justify-between gap-x-6">
        <div>
          <h3>{say('Heel under the shin, step by step')}</h3>
          <p className="text-sm text-ink-2">
            {seen.map(({ side, wave }) => (
              <span key={side} className="mr-4" style={{ color: `var(--color-${side})` }}>
                <b>{side === 'left' ? 'L' : 'R'}</b>{' '}
                {say('{{side}}, {{n}} steps', { side: say(side), n: wave.steps })}
              </span>
            ))}
            {say('inward is up; the wash around a line is one spread, dotted is at rest')}
          </p>
        </div>
        <SelectField
          label={say('Held against')}
          value={band}
          onChange={choose}
          options={[
            ['usual', say('a usual walk (convention)')],
            ['other-capture', say('the last or other capture')],
            ['none', say('nothing')],
          ]}
        />
      </div>
      <Plot
        label={say('Heel under the shin over the time on the ground, degrees, both feet')}
        axis={axis}
        unit="°"
        cursor={cursor}
        under={[say('heel strike'), say('toe-off')]}
      >
        {band === 'usual' && (
          <path
            d={bandOf(
              USUAL.map((v) => v - USUAL_WIDTH),
              USUAL.map((v) => v + USUAL_WIDTH),
              axis,
            )}
            fill="var(--color-go-wash)"
          />
        )}
        <line x1={xAt(0)} x2={xAt(1)} y1={yAt(axis, 0)} y2={yAt(axis, 0)} stroke="var(--color-line)" />
        {seen.map(({ side, wave, before }) => (
          <Wave
            key={side}
            side={side}
            wave={wave}
            before={band === 'other-capture' ? before : null}
            axis={axis}
          />
        ))}
      </Plot>
      {band === 'other-capture' && other === null && (
        <p className="text-sm text-ink-2">{say('No other capture is chosen.')}</p>
      )}
      <WaveTable reading={reading} />
    </section>
  );
}

function Wave({
  side,
  wave,
  before,
  axis,
}: {
  side: 'left' | 'right';
  wave: WaveSeen;
  before: WaveSeen | null;
  axis: { low: number; high: number };
}) {
  const colour = `var(--color-${side})`;
  const low = wave.mean.map((v, i) => v - (wave.spread[i] ?? 0));
  const high = wave.mean.map((v, i) => v + (wave.spread[i] ?? 0));
  return (
    <g>
      <path d={bandOf(low, high, axis)} fill={colour} fillOpacity="0.14" />
      {before !== null && (
        <path
          d={lineOf(before.mean, axis)}
          fill="none"
          stroke={colour}
          strokeWidth="1.4"
          strokeDasharray="3 4"
        />
      )}
      <path d={lineOf(wave.mean, axis)} fill="none" stroke={colour} strokeWidth="2.6" />
      {wave.heelOff !== null && (
        <g>
          <line
            x1={xAt(wave.heelOff / 100)}
            x2={xAt(wave.heelOff / 100)}
            y1={PLOT.height - PLOT.bottom - 12}
            y2={PLOT.height - PLOT.bottom}
            stroke={colour}
            strokeWidth="2.5"
          />
          <text
            x={xAt(wave.heelOff / 100) + (side === 'left' ? -4 : 4)}
            // One above the other: both heels often leave at about the same time.
            y={PLOT.height - PLOT.bottom - (side === 'left' ? 11 : 1)}
            textAnchor={side === 'left' ? 'end' : 'start'}
            fontSize="10"
            fill={colour}
          >
            {side === 'left' ? say('L heel up') : say('R heel up')}
          </text>
        </g>
      )}
      {wave.rest !== null && (
        <line
          x1={xAt(0)}
          x2={xAt(1)}
          y1={yAt(axis, wave.rest)}
          y2={yAt(axis, wave.rest)}
          stroke={colour}
          strokeDasharray="1 4"
        />
      )}
    </g>
  );
}

function WaveTable({ reading }: { reading: LabReading }) {
  return (
    <details className="text-sm">
      <summary className="min-h-8 text-ink-2">{say('As a table')}</summary>
      <table className="mt-1 text-left">
        <caption className="sr-only">{say('Heel under the shin, step by step')}</caption>
        <thead>
          <tr>
            <th scope="col" className="pr-4">
              {say('Time')}
            </th>
            {SIDES.map((s) => (
              <th key={s} scope="col" className="pr-4 font-normal">
                {say(s)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: 11 }, (_, i) => i * 10).map((at) => (
            <tr key={at} className="border-t border-line-2">
              <td>{at} %</td>
              {SIDES.map((s) => {
                const v = reading.waves[s]?.mean[at];
                return <td key={s}>{v === undefined ? '–' : `${shown(v, 1)}°`}</td>;
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
