import { addDays, adjunctSpans, daysBetween, type StageKey, say } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { type Stretch, stretchesOf } from '../../parts/courseStretches.js';
import { longDay, shortDay } from '../../parts/dates.js';

/** Days to a share of the whole, in percent. */
interface Along {
  readonly at: (day: string) => number;
  readonly width: (from: string, to: string) => number;
}

function alongOf(first: string, last: string): Along {
  const whole = Math.max(1, daysBetween(first, last));
  const at = (day: string) => Math.min(100, Math.max(0, (daysBetween(first, day) / whole) * 100));
  return { at, width: (from, to) => Math.max(0.5, at(to) - at(from)) };
}

const ROW = 'grid grid-cols-[7rem_minmax(0,1fr)] sm:grid-cols-[11rem_minmax(0,1fr)] items-center gap-3 py-1';

/** A stage as a bar: sure until its earliest usual end, fading to its latest. */
function StageBar({ stretch: s, along, today }: { stretch: Stretch; along: Along; today: string }) {
  const [earliest, latest] = s.usually;
  const colour = s.kind === 'now' ? 'bg-heather' : s.kind === 'done' ? 'bg-ink' : 'bg-ink-3';
  const sure = s.kind === 'done' ? s.to : earliest;
  return (
    <span className="relative block h-4" aria-hidden>
      <span
        className={`absolute inset-y-1 ${colour}`}
        style={{ left: `${along.at(s.from)}%`, width: `${along.width(s.from, sure)}%` }}
      />
      {s.kind !== 'done' && (
        <span
          className={`absolute inset-y-1 opacity-30 ${colour}`}
          style={{ left: `${along.at(sure)}%`, width: `${along.width(sure, latest)}%` }}
        />
      )}
      <Today along={along} today={today} />
    </span>
  );
}

function Today({ along, today }: { along: Along; today: string }) {
  return (
    <span className="absolute inset-y-0 w-0.5 bg-ease" style={{ left: `${along.at(today)}%` }} aria-hidden />
  );
}

/** The stages with their usual spread and, under them, what is worn or left off, from when to when. */
export function OverWeeks({
  course,
  planned = null,
}: {
  course: CourseView;
  /** The stage of a draft. */
  planned?: StageKey | null;
}) {
  const { episode, protocol } = course;
  const list = stretchesOf(episode, protocol, planned);
  const otherwise = planned !== null && episode.stage !== null && planned !== episode.stage;
  const spans = adjunctSpans(list, protocol.stages, episode.schools);
  const [first] = list;
  if (first === undefined) return null;
  const last = list.map((s) => s.usually[1]).reduce((a, b) => (a > b ? a : b), addDays(first.from, 28));
  const along = alongOf(first.from, last);
  return (
    <section aria-label={say('Over the weeks')} className="mt-8 border-t border-line pt-4">
      <h3>{say('Over the weeks')}</h3>
      <p className="text-sm text-ink-2">
        {say(
          'Stages as long as they usually take, pale where they may end sooner or later; a criterion ends them, not the calendar. The line is today.',
        )}
        {otherwise && say(' Drawn as it goes once this draft is given.')}
      </p>
      <ol className="mt-2 text-sm">
        {list.map((s) => (
          <li key={s.key} className={ROW}>
            <span>
              <b>{s.name}</b> <span className="block text-ink-2">{s.note}</span>
            </span>
            <StageBar stretch={s} along={along} today={episode.today} />
          </li>
        ))}
      </ol>
      <div className={`${ROW} text-xs text-ink-2`} aria-hidden>
        <span />
        <span className="flex justify-between border-t border-line pt-0.5">
          {[0, 0.25, 0.5, 0.75, 1].map((share) => (
            <span key={share}>
              {shortDay(addDays(first.from, Math.round(daysBetween(first.from, last) * share)))}
            </span>
          ))}
        </span>
      </div>
      {spans.length > 0 && (
        <ul
          className="mt-2 border-t border-line-2 pt-1 text-sm"
          aria-label={say('Beside the exercises, over the weeks')}
        >
          {spans.map((s) => {
            const less = s.lessFrom !== null && s.lessFrom < s.to ? s.lessFrom : null;
            const strong = less === null || less < s.from ? s.to : less;
            const words = say('{{shortDay}} to {{words}}{{words2}}', {
              shortDay: shortDay(s.from),
              words: s.ends ? shortDay(s.to) : say('the end'),
              words2: less === null ? '' : say(', less from {{shortDay}}', { shortDay: shortDay(less) }),
            });
            return (
              <li
                key={`${s.adjunct.key}-${s.from}`}
                className={ROW}
                title={say('From {{longDay}}', { longDay: longDay(s.from) })}
              >
                <span>
                  {s.adjunct.text} <span className="block text-ink-2">{words}</span>
                </span>
                <span className="relative block h-3" aria-hidden>
                  <span
                    className="absolute inset-y-0.5 bg-heather-deep"
                    style={{ left: `${along.at(s.from)}%`, width: `${along.width(s.from, strong)}%` }}
                  />
                  {less !== null && (
                    <span
                      className="absolute inset-y-0.5 bg-heather-deep opacity-35"
                      style={{ left: `${along.at(strong)}%`, width: `${along.width(strong, s.to)}%` }}
                    />
                  )}
                  <Today along={along} today={episode.today} />
                </span>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
