import { addDays, type PainSchool, type PainState, ranOn, shown, whySession, say } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { shortDay } from './dates.js';
import { painRuns } from './painRuns.js';
import { Why } from './Why.js';

/** Three weeks, where nothing else is asked. */
const DAYS = 21;
/** So many columns are too narrow for a mark to be read in. */
const NARROW = 42;

const LOOK: Record<PainState, { readonly colour: string; readonly mark: string; readonly word: string }> = {
  green: { colour: 'var(--color-go)', mark: '', word: say('green') },
  amber: { colour: 'var(--color-hold)', mark: '!', word: say('amber') },
  red: { colour: 'var(--color-ease)', mark: '×', word: say('red') },
  stop: { colour: 'var(--color-ink)', mark: '■', word: say('stop sign') },
  'not-known': { colour: 'transparent', mark: '?', word: say('not known') },
};

type Logged = CourseView['sessions'][number];

/** Something that happened, with the number it is listed by. */
interface StripEvent {
  readonly day: string;
  readonly number: number;
  readonly text: string;
}

interface StripProps {
  readonly course: Pick<CourseView, 'sessions' | 'mornings' | 'done' | 'recorded'> & {
    readonly episode: Pick<CourseView['episode'], 'today'>;
  };
  readonly school: PainSchool;
  readonly count?: number;
  readonly events?: readonly StripEvent[];
}

/**
 * Some days up to today: the pain of the mornings as a line, what was done as bars (slow load, and impact where there is
 * any), and how each session was taken as a marked block beneath.
 */
export function SessionStrip({ course, school, count = DAYS, events = [] }: StripProps) {
  const days = Array.from({ length: count }, (_, i) => addDays(course.episode.today, i - count + 1));
  const on = new Map(course.sessions.map((s) => [s.day, s]));
  const pain = new Map(course.mornings.map((m) => [m.day, m.pain]));
  const ran = (day: string) => ranOn(day, on.get(day)?.runMinutes ?? 0, course.recorded);
  const eventsOn = (day: string) => events.filter((e) => e.day === day);
  const narrow = count > NARROW;
  const grid = {
    gridTemplateColumns: `repeat(${count}, minmax(0, 1fr))`,
    columnGap: narrow ? '1px' : '0.25rem',
  };
  return (
    <div className="mt-3">
      <PainLine days={days} pain={pain} />
      <div className="mr-[6.5rem] grid items-end" style={grid} aria-hidden>
        {days.map((day) => (
          <span key={day} className="h-4 text-center text-xs font-semibold leading-4 text-heather">
            {eventsOn(day)
              .map((e) => e.number)
              .join(' ')}
          </span>
        ))}
      </div>
      <Bars
        days={days}
        grid={grid}
        name={say('minutes under tension')}
        valueOn={(day) => on.get(day)?.tensionMinutes ?? 0}
        colour="bg-ink-3/50"
      />
      <Bars
        days={days}
        grid={grid}
        name={say('landings')}
        valueOn={(day) => on.get(day)?.contacts ?? 0}
        colour="bg-heather/60"
      />
      <Bars days={days} grid={grid} name={say('minutes of running')} valueOn={ran} colour="bg-heather/35" />
      <div className="mr-[6.5rem] mt-1 grid items-end" style={grid}>
        {days.map((day) => (
          <Taken key={day} day={day} session={on.get(day)} school={school} narrow={narrow} />
        ))}
      </div>
      <div className="mt-1 flex justify-between gap-3 text-xs text-ink-2">
        <span>{shortDay(days[0] ?? '')}</span>
        <span>{say('plain green · ! amber · × red · ■ stop sign · ? next morning not known')}</span>
        <span>{say('today')}</span>
      </div>
      <details className="text-sm">
        <summary className="min-h-8 text-ink-2">{say('As a table')}</summary>
        <DayTable days={days} on={on} pain={pain} eventsOn={eventsOn} ran={ran} />
      </details>
    </div>
  );
}

/** Height of the line of pain, in its own units: one for each point of the scale. */
const SCALE = 10;

/** Pain of the mornings, 0 at the bottom and 10 at the top; broken where a morning was not answered. */
function PainLine({ days, pain }: { days: readonly string[]; pain: ReadonlyMap<string, number> }) {
  const runs = painRuns(days, pain);
  if (runs.length === 0) return null;
  const last = runs.at(-1)?.at(-1);
  return (
    <div className="flex items-center gap-2" aria-hidden>
      <svg
        viewBox={`0 0 ${days.length} ${SCALE}`}
        preserveAspectRatio="none"
        className="h-14 min-w-0 flex-1 border-b border-line"
      >
        {[5, 10].map((v) => (
          <path
            key={v}
            d={`M0 ${SCALE - v}H${days.length}`}
            stroke="var(--color-line-2)"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {runs.map((run) => (
          <path
            key={run[0]?.at}
            d={`M${run.map((p) => `${p.at + 0.5} ${SCALE - p.pain}`).join('L')}${run.length === 1 ? 'h0.01' : ''}`}
            fill="none"
            stroke="var(--color-ease)"
            strokeWidth={run.length === 1 ? 5 : 2}
            strokeLinecap="round"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </svg>
      <span className="w-24 shrink-0 text-xs leading-tight text-ease-deep">
        {say('morning pain, {{last}} of 10', { last: shown(last?.pain ?? 0) })}
      </span>
    </div>
  );
}

interface BarsProps {
  readonly days: readonly string[];
  readonly grid: { readonly gridTemplateColumns: string; readonly columnGap: string };
  readonly name: string;
  readonly valueOn: (day: string) => number;
  readonly colour: string;
}

/** A ledger as bars, a day each; nothing where it has none. */
function Bars({ days, grid, name, valueOn, colour }: BarsProps) {
  const most = Math.max(...days.map(valueOn));
  if (most <= 0) return null;
  return (
    <div className="mt-1 flex items-end gap-2" aria-hidden>
      <div className="grid min-w-0 flex-1 items-end border-b border-line" style={grid}>
        {days.map((day) => (
          <div
            key={day}
            className={`rounded-t-sm ${colour}`}
            style={{ height: `${(valueOn(day) / most) * 3}rem` }}
          />
        ))}
      </div>
      <span className="w-24 shrink-0 text-xs leading-tight text-ink-2">
        {say('{{name}}, at most {{most}}', { name, most: shown(most) })}
      </span>
    </div>
  );
}

/** How the session of a day was taken. */
function Taken({
  day,
  session: s,
  school,
  narrow,
}: {
  day: string;
  session: Logged | undefined;
  school: PainSchool;
  narrow: boolean;
}) {
  if (s === undefined) return <div className="h-6 border-b-2 border-line" />;
  const look = LOOK[s.state];
  return (
    <Why
      of={() => whySession(s, school)}
      label={say('{{shortDay}}: {{word}}, {{tensionMinutes}} minutes', {
        shortDay: shortDay(day),
        word: look.word,
        tensionMinutes: shown(s.tensionMinutes),
      })}
      className="block h-6 no-underline"
    >
      <span
        className={`flex h-full items-center justify-center rounded-sm font-bold text-paper ${narrow ? 'text-[0.6rem]' : 'text-sm'} ${s.state === 'not-known' ? 'border-2 border-dashed border-ink-3 !text-ink-2' : ''}`}
        style={{ background: look.colour }}
      >
        {look.mark}
      </span>
    </Why>
  );
}

/** The same in numbers, the newest day first; days on which nothing is known are left out. */
function DayTable({
  days,
  on,
  pain,
  eventsOn,
  ran,
}: {
  days: readonly string[];
  on: ReadonlyMap<string, Logged>;
  pain: ReadonlyMap<string, number>;
  eventsOn: (day: string) => readonly StripEvent[];
  ran: (day: string) => number;
}) {
  const told = days
    .filter((d) => on.has(d) || pain.has(d) || ran(d) > 0 || eventsOn(d).length > 0)
    .toReversed();
  const number = (value: number | undefined) => (value === undefined ? '' : shown(value));
  return (
    <table className="mt-1 w-full text-left">
      <caption className="sr-only">{say('Pain and load by day')}</caption>
      <thead>
        <tr>
          {[
            say('Day'),
            say('Morning pain'),
            say('Minutes'),
            say('Landings'),
            say('Run minutes'),
            say('Taken'),
            say('What happened'),
          ].map((h) => (
            <th key={h} scope="col" className="pr-3 font-normal text-ink-2">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {told.map((day) => {
          const s = on.get(day);
          return (
            <tr key={day} className="border-t border-line-2">
              <th scope="row" className="pr-3 font-normal">
                {shortDay(day)}
              </th>
              <td>{number(pain.get(day))}</td>
              <td>{number(s?.tensionMinutes)}</td>
              <td>{number(s?.contacts)}</td>
              <td>{s === undefined && ran(day) === 0 ? '' : shown(ran(day), 0)}</td>
              <td>{s === undefined ? '' : LOOK[s.state].word}</td>
              <td>
                {eventsOn(day)
                  .map((e) => e.text)
                  .join('; ')}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
