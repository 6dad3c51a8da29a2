import { Link } from 'react-router';
import { daysBetween, type FlareSince, type Since, shown, sinceVisit, say } from '@heathstep/core';
import { dayHere, longDay, shortDay } from '../../parts/dates.js';
import { DECISION_WORDS, Judgement, sentence } from '../../parts/Judgement.js';
import { eventText, useEvents } from '../../parts/Events.js';
import { Questions } from '../../parts/Questions.js';
import { SessionStrip } from '../../parts/SessionStrip.js';
import type { LiveVisit } from './live.js';

/** As many days as are told apart on a strip. */
const MOST_DAYS = 28;

/** How a review opens: what the log tells since the visit before, what the rules say of it, and what is to be measured again. */
export function SinceLast({ live }: { live: LiveVisit }) {
  const { course, previous, visit } = live;
  if (visit.kind !== 'review' || visit.signedAt !== null || previous === null || course.plans.length === 0)
    return null;
  const { today } = course.episode;
  const from = dayHere(previous.startedAt);
  const since = sinceVisit(course.sessions, course.mornings, { from, today });
  return (
    <section
      aria-labelledby="since"
      className="mb-8 grid grid-cols-[minmax(0,1fr)_19rem] gap-8 border-b border-line pb-6 max-lg:grid-cols-1"
    >
      <div className="min-w-0">
        <h3 id="since">
          {say('Since visit {{number}}, {{day}}', {
            number: previous.number,
            day: longDay(previous.startedAt),
          })}
        </h3>
        <p className="mt-1">{sinceWords(since)}</p>
        {since.flares.map((f) => (
          <p key={f.day} className="text-ease-deep">
            {flareWords(f)}
          </p>
        ))}
        {course.episode.openStops.map((s) => (
          <p key={s.id} className="font-semibold text-ease-deep">
            {say('Stop sign on {{day}}, still open: {{sign}}', { day: shortDay(s.day), sign: s.sign })}{' '}
            <Link
              className="text-action"
              to={`/episodes/${course.episode.id}/visit/safety${live.visitQuery}`}
            >
              {say('Hear what happened')}
            </Link>
          </p>
        ))}
        <Happened live={live} from={from} />
        <SessionStrip
          course={course}
          school={course.painSchool}
          count={Math.min(MOST_DAYS, Math.max(7, daysBetween(from, today) + 1))}
        />
      </div>
      <div>
        <Questions episodeId={course.episode.id} />
        <Suggested live={live} />
        <MeasureAgain live={live} />
      </div>
    </section>
  );
}

function sinceWords({ days, done, states, mornings }: Since): string {
  const log =
    done === 0
      ? say('Nothing was logged in {{days}} days.', { days })
      : say('Exercises on {{done}} of {{days}} days.', { done, days });
  const amber = states.amber === 0 ? '' : ` ${say('{{n}} amber.', { n: states.amber })}`;
  if (mornings === null) return `${log}${amber}`;
  const { then, now } = mornings;
  return `${log}${amber} ${
    Math.round(then) === Math.round(now)
      ? say('Mornings stayed at about {{now}}.', { now: Math.round(now) })
      : say('Mornings went from about {{then}} to about {{now}}.', {
          then: Math.round(then),
          now: Math.round(now),
        })
  }`;
}

const flareWords = ({ day, before, usual }: FlareSince): string =>
  usual === null
    ? say('Flare on {{day}}: {{before}} minutes a day then and the two days before.', {
        day: shortDay(day),
        before: shown(before, 1),
      })
    : say(
        'Flare on {{day}}: {{before}} minutes a day then and the two days before, {{usual}} on the others.',
        {
          day: shortDay(day),
          before: shown(before, 1),
          usual: shown(usual, 1),
        },
      );

/** What may have bent it beside the treatment. */
function Happened({ live, from }: { live: LiveVisit; from: string }) {
  const events = useEvents(live.course.episode.id).filter((e) => e.day >= from);
  return (
    <>
      {events.map((e) => (
        <p key={e.id}>{`${shortDay(e.day)}: ${eventText(e)}.`}</p>
      ))}
    </>
  );
}

/** What the rules say before anything is measured today. */
function Suggested({ live }: { live: LiveVisit }) {
  const { review } = live.course;
  if (review === null) return null;
  const word = DECISION_WORDS[review.decision];
  return (
    <>
      <h3>{say('By the log so far')}</h3>
      <p className="mt-1">
        <Judgement tone={word?.tone ?? 'unknown'}>{word?.text ?? review.decision}</Judgement>
      </p>
      <ul className="mt-1 text-sm text-ink-2">
        {review.because.slice(0, 3).map((b) => (
          <li key={b}>{sentence(b)}</li>
        ))}
      </ul>
      <p className="mt-1 text-sm text-ink-3">{say('What is measured today counts with it, in Course.')}</p>
    </>
  );
}

function MeasureAgain({ live }: { live: LiveVisit }) {
  const own = live.missingMeasures;
  return (
    <>
      <h3 className="mt-4">{say('To measure again')}</h3>
      <p className="mt-1 text-ink-2">
        {own.length === 0
          ? say('Nothing that the stage asks for is missing.')
          : sentence(own.map((m) => m.label.toLowerCase()).join(', '))}
      </p>
    </>
  );
}
