import { say, shown, unitAfter, whyChange } from '@heathstep/core';
import { type CourseView, entriesOf, retestsOf } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { fullDay } from '../../parts/dates.js';
import { changeTone } from '../../parts/Judgement.js';
import { Why } from '../../parts/Why.js';

/** What a re-test within the newest visit showed: an exercise that helps at once is the better choice. */
export function TriedToday({ course, content }: { course: CourseView; content: ClinicContent }) {
  const visit = course.episode.visits.at(-1);
  if (visit === undefined) return null;
  const list = retestsOf(entriesOf(visit.entries), content.measures);
  if (list.length === 0) return null;
  return (
    <section aria-label={say('Tried within the visit')} className="mt-4 text-sm">
      <h3 className="text-sm">
        {say('Tried within the visit of {{day}}', { day: fullDay(visit.startedAt) })}
      </h3>
      <ul>
        {list.map(({ measure, side, before, after, change }) => (
          <li key={`${measure.key} ${side}`}>
            {measure.label}
            {side === 'none' ? '' : `, ${say(side)}`}: {shown(before)} <span aria-hidden>→</span>
            <span className="sr-only">{say('then')}</span>{' '}
            <b>
              {shown(after)}
              {unitAfter(measure)}
            </b>{' '}
            <Why of={() => whyChange(measure, before, after)} className={changeTone(change.direction)}>
              {say(change.direction)}
            </Why>
          </li>
        ))}
      </ul>
    </section>
  );
}
