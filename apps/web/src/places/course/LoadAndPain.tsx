import { memo, useMemo, useState } from 'react';
import { type PainSchool, say } from '@heathstep/core';
import type { CourseView, EventView } from '@heathstep/contracts';
import { TableLink } from '../../parts/TableLink.js';
import { ChoiceBlank } from '../../parts/Blank.js';
import { eventText } from '../../parts/Events.js';
import { SessionStrip } from '../../parts/SessionStrip.js';

/** Drawn once for a course, not again when its forecasts are there. */
const Strip = memo(SessionStrip);

const LENGTHS: readonly { readonly value: string; readonly label: string }[] = [
  { value: '21', label: say('3 weeks') },
  { value: '42', label: say('6 weeks') },
  { value: '84', label: say('12 weeks') },
];

/** Pain against what was done by day, and how much of what is planned was done by week. */
export function LoadAndPain({
  course,
  school,
  events,
}: {
  course: CourseView;
  school: PainSchool;
  events: readonly EventView[];
}) {
  const [length, setLength] = useState('21');
  const marks = useMemo(
    () => events.map((e, i) => ({ day: e.day, number: i + 1, text: eventText(e) })),
    [events],
  );
  return (
    <div className="mt-6">
      <h2>
        {say('What was done, and how it was taken')},{' '}
        <ChoiceBlank
          label={say('how many weeks')}
          value={length}
          options={LENGTHS}
          onChange={(next) => next !== null && setLength(next)}
        />
      </h2>
      <Done done={course.done} />
      <Strip course={course} school={school} count={Number(length)} events={marks} />
      <p className="text-sm">
        <TableLink href={`/api/episodes/${course.episode.id}/log.csv`}>
          {say('All of it as a table (CSV)')}
        </TableLink>
      </p>
    </div>
  );
}

/** Days of each week on which something was done, beside what is planned. */
function Done({ done: { planned, weeks } }: { done: CourseView['done'] }) {
  if (planned === null || planned === 0 || weeks.length === 0) return null;
  const list = weeks.join(', ');
  return (
    <p className="text-sm text-ink-2">
      {planned === 1
        ? say('Planned on 1 day a week; done week by week: {{list}}.', { list })
        : say('Planned on {{planned}} days a week; done week by week: {{list}}.', { planned, list })}
    </p>
  );
}
