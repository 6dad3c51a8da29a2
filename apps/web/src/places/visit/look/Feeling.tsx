import { say } from '@heathstep/core';
import { useState } from 'react';
import { BONES, NUMB_SITES, type NumbEntry, type NumbSite } from '@heathstep/contracts';
import { Outline, Spot } from '../../../parts/Drawn.js';
import type { Side } from '@heathstep/core';
import { SideCaption } from '../../../parts/AreaMap.js';
import { SOLE_BOX, SOLE_OUTLINE, SOLE_SPOTS } from '../../../parts/footShapes.js';
import type { LiveVisit } from '../live.js';

/** Ten sites of each foot; a tap goes from felt to missed. */
export function NumbPanel({ live }: { live: LiveVisit }) {
  return (
    <div>
      <p className="text-center text-sm text-ink-2">
        {say(
          '10 g filament, eyes closed, not on callus. Tap: felt, then missed. The ring is the top of the foot.',
        )}
      </p>
      <div className="flex justify-center gap-12">
        <Sites live={live} side="left" />
        <Sites live={live} side="right" />
      </div>
    </div>
  );
}

function Sites({ live, side }: { live: LiveVisit; side: Side }) {
  const key = `look.numb.${side}` as const;
  const entry = live.get(key) ?? { felt: [], missed: [] };
  const put = (next: NumbEntry) => live.set(key, next.felt.length + next.missed.length === 0 ? null : next);
  const tap = (site: NumbSite) => {
    const felt = entry.felt.filter((s) => s !== site);
    const missed = entry.missed.filter((s) => s !== site);
    if (entry.felt.includes(site)) put({ felt, missed: [...missed, site] });
    else if (entry.missed.includes(site)) put({ felt, missed });
    else put({ felt: [...felt, site], missed });
  };
  const tested = entry.felt.length + entry.missed.length;
  return (
    <figure className="w-56 text-center">
      <svg
        viewBox={SOLE_BOX}
        className="mx-auto h-80 w-32 touch-manipulation"
        style={side === 'right' ? { transform: 'scaleX(-1)' } : undefined}
      >
        <Outline side={side} paths={SOLE_OUTLINE} />
        <Spots entry={entry} side={side} tap={tap} />
      </svg>
      <SideCaption side={side} />
      <p className="min-h-10 text-sm" aria-live="polite">
        {tested === 0
          ? say('not tested')
          : say('{{n}} felt of {{tested}} tested{{words}}', {
              n: entry.felt.length,
              tested,
              words:
                entry.missed.length > 0
                  ? say('; missed: {{list}}', {
                      list: entry.missed.map((s) => NUMB_SITES.find(([k]) => k === s)?.[1]).join(', '),
                    })
                  : '',
            })}
      </p>
      <button
        type="button"
        className="text-action min-h-11 text-sm"
        onClick={() =>
          put({
            felt: NUMB_SITES.map(([s]) => s).filter((s) => !entry.missed.includes(s)),
            missed: entry.missed,
          })
        }
      >
        {say('The rest felt, {{side}}', { side: say(side) })}
      </button>
    </figure>
  );
}

/** The spots of one sole, each felt, missed or not tested. */
function Spots({ entry, side, tap }: { entry: NumbEntry; side: Side; tap: (site: NumbSite) => void }) {
  return (
    <>
      {NUMB_SITES.map(([site, name]) => {
        const [x, y] = SOLE_SPOTS[site] ?? [0, 0];
        const state: 'felt' | 'missed' | 'not tested' = entry.felt.includes(site)
          ? 'felt'
          : entry.missed.includes(site)
            ? 'missed'
            : 'not tested';
        return (
          <Spot key={site} label={`${say(name)}, ${say(side)}: ${say(state)}`} onPress={() => tap(site)}>
            <circle cx={x} cy={y} r="19" fill="transparent" />
            <circle
              cx={x}
              cy={y}
              r="10"
              fill={
                state === 'felt'
                  ? `var(--color-${side})`
                  : state === 'missed'
                    ? 'var(--color-ease)'
                    : 'var(--color-paper)'
              }
              stroke={state === 'missed' ? 'var(--color-ease)' : `var(--color-${side})`}
              strokeWidth="2.5"
              strokeDasharray={site === 'dorsum' && state === 'not tested' ? '5 3' : undefined}
            />
            {state === 'missed' && (
              <path
                d={`M${x - 5} ${y - 5} l10 10 m0 -10 l-10 10`}
                stroke="var(--color-paper)"
                strokeWidth="3"
              />
            )}
          </Spot>
        );
      })}
    </>
  );
}

/** Bones that are tender to one finger, with how far along. */
export function TenderPanel({ live }: { live: LiveVisit }) {
  return (
    <div>
      <p className="text-sm text-ink-2">
        {say(
          'One finger along the bone. Under 5 cm of shin, a metatarsal shaft or the heel bone is a safety sign; the safety step says what follows.',
        )}
      </p>
      <div className="mt-1 grid grid-cols-2 gap-8">
        <Bones live={live} side="left" />
        <Bones live={live} side="right" />
      </div>
    </div>
  );
}

function Bones({ live, side }: { live: LiveVisit; side: Side }) {
  const key = `look.tender.${side}` as const;
  const stored = live.get(key);
  const list = stored ?? [];
  return (
    <figure>
      <SideCaption side={side} />
      <ul>
        {BONES.map(([bone, name]) => {
          const entry = list.find((t) => t.bone === bone);
          const rest = list.filter((t) => t.bone !== bone);
          return (
            <li key={bone} className="flex min-h-11 items-center gap-3 border-b border-line-2">
              <button
                type="button"
                aria-pressed={entry !== undefined}
                className={`min-h-11 flex-1 text-left ${entry === undefined ? '' : 'font-semibold text-ease-deep'}`}
                onClick={() => live.set(key, entry === undefined ? [...rest, { bone, cm: null }] : rest)}
              >
                {say(name)}
                <span className="sr-only">{`, ${say(side)}`}</span>
              </button>
              {entry !== undefined && (
                <Length
                  label={say('Length, {{name}}, {{side}}', { name: say(name), side: say(side) })}
                  value={entry.cm}
                  onChange={(cm) => live.set(key, [...rest, { bone, cm }])}
                />
              )}
            </li>
          );
        })}
      </ul>
      <button
        type="button"
        className="text-action min-h-11 text-sm"
        aria-pressed={stored?.length === 0}
        onClick={() => live.set(key, stored?.length === 0 ? null : [])}
      >
        {say('No bone tender, {{side}}', { side: say(side) })}
      </button>
    </figure>
  );
}

function Length({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number | null;
  onChange: (cm: number | null) => void;
}) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const read = (t: string): number | null => {
    const n = Number(t.replace(',', '.'));
    return t.trim() !== '' && n >= 0 && n <= 60 ? n : null;
  };
  const wrong = text.trim() !== '' && read(text) === null;
  return (
    <span className="flex items-center gap-1 text-sm">
      <input
        className="h-10 w-12 border-b-2 border-edge bg-transparent text-center font-semibold"
        inputMode="decimal"
        aria-label={label}
        aria-invalid={wrong}
        value={text}
        maxLength={5}
        onChange={(e) => {
          setText(e.target.value);
          onChange(read(e.target.value));
        }}
      />
      {say('cm')}
      {wrong && (
        <span role="alert" className="text-ease-deep">
          {say('0 to 60')}
        </span>
      )}
    </span>
  );
}
