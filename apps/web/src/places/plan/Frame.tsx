import { daysBetween, type StageKey, say } from '@heathstep/core';
import { dayHere } from '../../parts/dates.js';
import { type ReactNode, useState } from 'react';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { StageSheet } from './StageSheet.js';

/** Stages down the left, the plan in the middle, its sums at the right. */
export function Frame({
  course,
  content,
  stage,
  children,
  aside,
}: {
  course: CourseView;
  content: ClinicContent;
  stage: StageKey;
  children: ReactNode;
  aside: ReactNode;
}) {
  const { episode } = course;
  const { protocol } = course;
  const at = protocol.stages.findIndex((s) => s.key === stage);
  const [open, setOpen] = useState<string | null>(null);
  const opened = protocol.stages.find((s) => s.key === open);
  return (
    <div className="grid flex-1 content-start md:grid-cols-[11rem_minmax(0,1fr)] lg:grid-cols-[11rem_minmax(0,1fr)_17rem] lg:content-stretch">
      <nav aria-label={say('Stages')} className="min-w-0 px-5 pt-5 md:pb-5">
        <ol className="max-md:flex max-md:gap-x-5 max-md:overflow-x-auto">
          {protocol.stages.map((s, i) => {
            const span = [...episode.stages].reverse().find((x) => x.stage === s.key);
            const note =
              i < at
                ? span === undefined
                  ? say('left out')
                  : say('done')
                : i === at
                  ? span === undefined
                    ? say('from today')
                    : say('week {{floor}}', {
                        floor: Math.floor(daysBetween(dayHere(span.since), episode.today) / 7) + 1,
                      })
                  : say('{{min}} to {{max}} weeks', { min: s.usualWeeks.min, max: s.usualWeeks.max });
            return (
              <li
                key={s.key}
                aria-current={i === at ? 'step' : undefined}
                className="flex gap-3 pb-3 max-md:shrink-0"
              >
                <span
                  aria-hidden
                  className={`mt-1 w-1.5 shrink-0 ${i < at ? 'bg-ink' : i === at ? 'bg-heather' : 'bg-line'}`}
                />
                <button
                  type="button"
                  className="min-h-14 text-left hover:underline"
                  aria-expanded={open === s.key}
                  onClick={() => setOpen(open === s.key ? null : s.key)}
                >
                  <span
                    className={`block font-head leading-tight ${i === at ? 'font-semibold text-heather-deep' : 'text-ink-2'}`}
                  >
                    {s.name}
                  </span>
                  <span className="text-sm text-ink-2">{note}</span>
                </button>
              </li>
            );
          })}
        </ol>
      </nav>
      <main className="min-w-0 border-line px-5 py-5 max-md:border-t md:border-l md:px-6 lg:border-r">
        {opened !== undefined && (
          <StageSheet course={course} content={content} stage={opened} close={() => setOpen(null)} />
        )}
        {children}
      </main>
      <aside className="min-w-0 bg-paper px-5 py-5 max-lg:border-t max-lg:border-line md:max-lg:col-span-2">
        {aside}
      </aside>
    </div>
  );
}
