import { combineTrials, say, shown } from '@heathstep/core';
import { type CourseView, entriesOf, entriesOfKind } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { fullDay } from '../../parts/dates.js';

/** What was measured before the first visit here, as a table brought it: to be read, and judged by nothing. */
export function Earlier({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { earlier } = course.episode;
  if (earlier.length === 0) return null;
  const lines = earlier.flatMap((v) =>
    entriesOfKind(entriesOf(v.entries), 'measure').flatMap(({ name, side, value }) => {
      const measure = content.measures.find((m) => m.key === name);
      const taken = measure === undefined ? null : combineTrials(measure, value.trials).value;
      return measure === undefined || taken === null ? [] : [{ day: v.startedAt, measure, side, taken }];
    }),
  );
  return (
    <section aria-label={say('Measured before')} className="mt-6 text-sm">
      <h2>{say('Measured before the first visit, from a table')}</h2>
      <p className="text-ink-2">
        {say('Taken elsewhere, by whom and how is not known: no criterion, trend or decision goes by it.')}
      </p>
      <ul>
        {lines.map(({ day, measure, side, taken }) => (
          <li
            key={`${day} ${measure.key} ${side}`}
            className="flex flex-wrap gap-x-3 border-b border-line-2 py-1"
          >
            <span className="w-24 font-semibold">{fullDay(day)}</span>
            <span className="min-w-0 flex-1">{measure.label}</span>
            {side !== 'none' && (
              <span className="font-semibold" style={{ color: `var(--color-${side})` }}>
                {say(side)}
              </span>
            )}
            <span className="tabular-nums">
              {`${shown(taken, measure.decimals)} ${measure.unitLabel}`.trim()}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
