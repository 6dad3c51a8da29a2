import { addDays, type PainSchool, type PainState, shown, whySession, say } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { shortDay } from './dates.js';
import { Why } from './Why.js';

/** Three weeks, where nothing else is asked. */
const DAYS = 21;

const LOOK: Record<PainState, { readonly colour: string; readonly mark: string; readonly word: string }> = {
  green: { colour: 'var(--color-go)', mark: '', word: say('green') },
  amber: { colour: 'var(--color-hold)', mark: '!', word: say('amber') },
  red: { colour: 'var(--color-ease)', mark: '×', word: say('red') },
  stop: { colour: 'var(--color-ink)', mark: '■', word: say('stop sign') },
  'not-known': { colour: 'transparent', mark: '?', word: say('not known') },
};

/** Some days of sessions up to today: what was done as a bar, how it was taken as a marked block beneath. */
export function SessionStrip({
  course,
  school,
  count = DAYS,
}: {
  course: CourseView;
  school: PainSchool;
  count?: number;
}) {
  const days = Array.from({ length: count }, (_, i) => addDays(course.episode.today, i - count + 1));
  const on = new Map(course.sessions.map((s) => [s.day, s]));
  const most = Math.max(1, ...course.sessions.map((s) => s.tensionMinutes));
  return (
    <div className="mt-6">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2>{say('What was done, and how it was taken')}</h2>
        <span className="text-sm text-ink-2">{say('minutes under tension')}</span>
      </div>
      <div
        className="mt-3 grid items-end gap-1"
        style={{ gridTemplateColumns: `repeat(${count}, minmax(0, 1fr))` }}
      >
        {days.map((day) => {
          const s = on.get(day);
          return (
            <div
              key={day}
              aria-hidden
              className="rounded-t-sm bg-ink-3/50"
              style={{ height: `${((s?.tensionMinutes ?? 0) / most) * 4.5}rem` }}
            />
          );
        })}
        {days.map((day) => {
          const s = on.get(day);
          if (s === undefined) return <div key={day} className="h-6 border-b-2 border-line" />;
          const look = LOOK[s.state];
          return (
            <Why
              key={day}
              of={() => whySession(s, school)}
              label={say('{{shortDay}}: {{word}}, {{tensionMinutes}} minutes', {
                shortDay: shortDay(day),
                word: look.word,
                tensionMinutes: shown(s.tensionMinutes),
              })}
              className="block h-6 no-underline"
            >
              <span
                className={`flex h-full items-center justify-center rounded-sm text-sm font-bold text-paper ${s.state === 'not-known' ? 'border-2 border-dashed border-ink-3 !text-ink-2' : ''}`}
                style={{ background: look.colour }}
              >
                {look.mark}
              </span>
            </Why>
          );
        })}
      </div>
      <div className="mt-1 flex justify-between text-xs text-ink-2">
        <span>{shortDay(days[0] ?? '')}</span>
        <span>{say('plain green · ! amber · × red · ■ stop sign · ? next morning not known')}</span>
        <span>{say('today')}</span>
      </div>
    </div>
  );
}
