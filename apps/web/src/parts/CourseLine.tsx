import {
  addDays,
  daysBetween,
  homeQuestions,
  type ProtocolDefinition,
  say,
  type When,
} from '@heathstep/core';
import { Link } from 'react-router';
import type { EpisodeView } from '@heathstep/contracts';
import { type Stretch, stretchesOf } from './courseStretches.js';
import { dayHere, shortDay } from './dates.js';
import { labelRows, type Placed } from './labelRows.js';

const WIDTH = 1200;

/** Where a day and a score lie on the drawing. */
interface Scale {
  readonly first: string;
  readonly weeks: number;
  readonly x: (day: string) => number;
  readonly y: (score: number) => number;
}

function scaleOf(from: string, to: string): Scale {
  const span = Math.max(1, daysBetween(from, to));
  return {
    first: from,
    weeks: Math.ceil(span / 7),
    x: (day) => 12 + (daysBetween(from, day) / span) * (WIDTH - 24),
    y: (score) => 128 - score * 4.4,
  };
}

const NAME_COLOURS: Readonly<Record<Stretch['kind'], string>> = {
  now: 'var(--color-heather-deep)',
  done: 'var(--color-ink)',
  ahead: 'var(--color-ink-3)',
};
const BAR_COLOURS: Readonly<Record<Stretch['kind'], string>> = {
  now: 'var(--color-heather-wash)',
  done: 'var(--color-ink)',
  ahead: 'var(--color-line)',
};

/** About how wide a letter of the name and of the note is drawn. */
const NAME_LETTER = 9;
const NOTE_LETTER = 6.8;
const LABEL_GAP = 14;
const ROW = 42;

const labelWidth = (s: Stretch): number =>
  Math.max(s.name.length * NAME_LETTER, s.note.length * NOTE_LETTER) + LABEL_GAP;

/** A stretch's name and how long, above the path; a thin line leads down from a higher row. */
function StretchName({
  stretch: s,
  placed,
  rows,
  from,
}: {
  stretch: Stretch;
  placed: Placed;
  rows: number;
  from: number;
}) {
  const top = (rows - 1 - placed.row) * ROW;
  return (
    <g>
      {placed.row > 0 && (
        <line
          x1={from}
          x2={from}
          y1={top + 8}
          y2={(rows - 1) * ROW + 48}
          stroke="var(--color-line)"
          strokeWidth="1.5"
        />
      )}
      <text
        x={placed.at + 4}
        y={top + 18}
        fontFamily="var(--font-head)"
        fontSize="16"
        fontWeight="650"
        fill={NAME_COLOURS[s.kind]}
      >
        {s.name}
      </text>
      <text x={placed.at + 4} y={top + 36} fontSize="13" fill="var(--color-ink-2)">
        {s.note}
      </text>
    </g>
  );
}

function StretchBar({ stretch: s, scale: { x }, today }: { stretch: Stretch; scale: Scale; today: string }) {
  return (
    <g>
      <rect
        x={x(s.from)}
        y={48}
        width={Math.max(2, x(s.to) - x(s.from) - 5)}
        height={8}
        rx={1}
        fill={BAR_COLOURS[s.kind]}
      />
      {s.kind === 'now' && (
        <rect
          x={x(s.from)}
          y={48}
          width={Math.max(2, x(today) - x(s.from))}
          height={8}
          fill="var(--color-heather)"
        />
      )}
    </g>
  );
}

/** When the stage is likely left by its trends: a band on the path that fades away from its middle. */
function Leaves({ when, scale: { x }, today }: { when: When; scale: Scale; today: string }) {
  const { medianDate, lowDate, highDate } = when;
  if (medianDate === null) return null;
  const end = WIDTH - 12;
  const at = (day: string) => Math.min(end, x(day));
  const [low, middle, high] = [at(lowDate ?? today), at(medianDate), highDate === null ? end : at(highDate)];
  const width = Math.max(4, high - low);
  const name = Math.min(WIDTH - 60, Math.max(60, middle));
  return (
    <g>
      <defs>
        <linearGradient id="leaves" x1="0" x2="1">
          <stop offset="0" stopColor="var(--color-heather)" stopOpacity="0.08" />
          <stop offset={(middle - low) / width} stopColor="var(--color-heather)" stopOpacity="0.6" />
          <stop offset="1" stopColor="var(--color-heather)" stopOpacity="0.04" />
        </linearGradient>
      </defs>
      <rect x={low} y={44} width={width} height={16} rx={8} fill="url(#leaves)" />
      <line x1={middle} x2={middle} y1={42} y2={62} stroke="var(--color-heather-deep)" strokeWidth="2" />
      {Math.abs(name - x(today)) > 90 && (
        <text x={name} y={78} textAnchor="middle" fontSize="13" fill="var(--color-heather-deep)">
          {say('about {{day}}', { day: shortDay(medianDate) })}
        </text>
      )}
    </g>
  );
}

/** Visits as ticks on the path, and today. */
function Marks({ episode, scale: { x } }: { episode: EpisodeView; scale: Scale }) {
  return (
    <>
      {episode.visits.map((v) => (
        <Link
          key={v.id}
          to={`/episodes/${episode.id}/visit/story${v.signedAt === null ? '' : `?of=${v.id}`}`}
          aria-label={say('Visit {{number}}, {{shortDay}}', {
            number: v.number,
            shortDay: shortDay(v.startedAt),
          })}
          className="course-visit"
        >
          <circle cx={x(dayHere(v.startedAt))} cy={52} r={16} fill="transparent" />
          <circle
            cx={x(dayHere(v.startedAt))}
            cy={52}
            r={6.5}
            fill="var(--color-ground)"
            stroke="var(--color-ink)"
            strokeWidth="2.5"
          >
            <title>
              {say('Visit {{number}}, {{shortDay}}', { number: v.number, shortDay: shortDay(v.startedAt) })}
            </title>
          </circle>
        </Link>
      ))}
      <circle
        cx={x(episode.today)}
        cy={52}
        r={8}
        fill="var(--color-heather)"
        stroke="var(--color-ground)"
        strokeWidth="2.5"
      />
      <text
        x={Math.min(WIDTH - 32, Math.max(32, x(episode.today)))}
        y={78}
        textAnchor="middle"
        fontSize="13"
        fontWeight="650"
        fill="var(--color-ink)"
      >
        {say('today')}
      </text>
    </>
  );
}

type Pains = readonly { readonly day: string; readonly pain: number }[];

/** From how near the end the trace's name stands before it, not after. */
const PAIN_NAME = 190;

/** The morning's pain as a thin trace over its zero line. */
function PainTrace({ pain, name, scale: { first, x, y } }: { pain: Pains; name: string; scale: Scale }) {
  const trace = pain
    .filter((p) => p.day >= first)
    .map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.day).toFixed(1)} ${y(p.pain).toFixed(1)}`);
  const last = pain[pain.length - 1];
  const atEnd = last !== undefined && x(last.day) > WIDTH - PAIN_NAME;
  return (
    <>
      <line x1={12} x2={WIDTH - 12} y1={y(0)} y2={y(0)} stroke="var(--color-line)" />
      <path
        d={trace.join(' ')}
        fill="none"
        stroke="var(--color-ease)"
        strokeWidth="1.8"
        strokeLinejoin="round"
      />
      {last !== undefined && (
        <text
          x={atEnd ? x(last.day) - 4 : x(last.day) + 10}
          y={y(last.pain) + (atEnd ? -8 : 4)}
          textAnchor={atEnd ? 'end' : 'start'}
          fontSize="13"
          fontWeight="650"
          fill="var(--color-ease-deep)"
        >
          {name}, {last.pain}
        </text>
      )}
    </>
  );
}

function Weeks({ scale: { first, weeks, x, y } }: { scale: Scale }) {
  const every = weeks > 24 ? 4 : 2;
  return Array.from({ length: Math.floor(weeks / every) + 1 }, (_, i) => i * every).map((week) => {
    const at = x(addDays(first, week * 7));
    return (
      <g key={week}>
        <line x1={at} x2={at} y1={y(0)} y2={y(0) + 6} stroke="var(--color-line)" strokeWidth="1.5" />
        <text
          x={at}
          y={y(0) + 22}
          textAnchor={week === 0 ? 'start' : 'middle'}
          fontSize="12.5"
          fill="var(--color-ink-3)"
        >
          {week === 0 ? say('week 0') : week}
        </text>
      </g>
    );
  });
}

/** The episode as one path: stretches, visits as ticks, today, and beneath it the morning's pain as a thin trace. */
export function CourseLine({
  episode,
  protocol,
  pain,
  leaves = null,
}: {
  episode: EpisodeView;
  protocol: ProtocolDefinition;
  pain: Pains;
  /** When the stage is likely left; null where it cannot be told. */
  leaves?: When | null;
}) {
  const morningName = homeQuestions(protocol).find((q) => q.role === 'morning')?.name ?? '';
  const list = stretchesOf(episode, protocol);
  const [first] = list;
  const last = list[list.length - 1];
  if (first === undefined || last === undefined) return null;
  const scale = scaleOf(first.from, last.to);
  const placed = labelRows(
    list.map((s) => ({ at: scale.x(s.from), width: labelWidth(s) })),
    WIDTH,
  );
  const rows = Math.max(...placed.map((p) => p.row)) + 1;
  const higher = (rows - 1) * ROW;
  return (
    <div className="w-full overflow-x-auto">
      <svg
        viewBox={`0 0 ${WIDTH} ${160 + higher}`}
        className="min-w-[52rem] w-full"
        role="group"
        aria-label={list.map((s) => `${s.name}, ${s.note}`).join('; ')}
      >
        {list.map((s, i) => (
          <StretchName
            key={s.key}
            stretch={s}
            placed={placed[i] ?? { row: 0, at: scale.x(s.from) }}
            rows={rows}
            from={scale.x(s.from) + 1}
          />
        ))}
        <g transform={`translate(0 ${higher})`}>
          {list.map((s) => (
            <StretchBar key={s.key} stretch={s} scale={scale} today={episode.today} />
          ))}
          {leaves !== null && <Leaves when={leaves} scale={scale} today={episode.today} />}
          <Marks episode={episode} scale={scale} />
          <PainTrace pain={pain} name={say(morningName)} scale={scale} />
          <Weeks scale={scale} />
        </g>
      </svg>
    </div>
  );
}
