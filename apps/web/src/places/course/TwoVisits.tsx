import { useState } from 'react';
import {
  areLike,
  compareValues,
  isImportant,
  type MeasureDefinition,
  ownActivities,
  shown,
  type Column,
  whyChange,
  say,
  sayKey,
} from '@heathstep/core';
import { type CourseView, entriesOf, type VisitView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { ChoiceBlank } from '../../parts/Blank.js';
import { dayHere, shortDay } from '../../parts/dates.js';
import { changeTone } from '../../parts/Judgement.js';
import { Why } from '../../parts/Why.js';
import { measuredAt } from './twoVisits.js';

const nameOf = (v: VisitView): string =>
  say('visit {{number}}, {{day}}', { number: v.number, day: shortDay(v.startedAt) });

/** Any two visits side by side: every measure taken at both with its class of change, and what matters most to the patient. */
export function TwoVisits({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { visits } = course.episode;
  const measured = visits.filter((v) => course.measures.some((m) => m.at.startsWith(dayHere(v.startedAt))));
  const [ids, choose] = useState<readonly [string | null, string | null]>([null, null]);
  const from = measured.find((v) => v.id === ids[0]) ?? measured[0];
  const to = measured.find((v) => v.id === ids[1]) ?? measured.at(-1);
  if (from === undefined || to === undefined || measured.length < 2) return null;
  const options = measured.map((v) => ({ value: v.id, label: nameOf(v) }));
  const activities = ownActivities(
    entriesOf(from.entries).get('story.activities') ?? [],
    entriesOf(to.entries).get('story.activities') ?? [],
  );
  return (
    <div className="mt-6">
      <h2>{say('Two visits side by side')}</h2>
      <p className="text-ink-2">
        <ChoiceBlank
          label={say('the visit before')}
          value={from.id}
          options={options}
          onChange={(v) => v !== null && choose([v, to.id])}
        />{' '}
        <span aria-hidden>→</span>
        <span className="sr-only">{say('then')}</span>{' '}
        <ChoiceBlank
          label={say('the visit after')}
          value={to.id}
          options={options}
          onChange={(v) => v !== null && choose([from.id, v])}
        />
      </p>
      {from === to ? (
        <p className="mt-2 text-ink-2">{say('Choose two visits.')}</p>
      ) : (
        <>
          <Measures course={course} content={content} from={from} to={to} />
          {activities.length > 0 && (
            <>
              <h3 className="mt-4">{say('What matters most, how well it goes of 10')}</h3>
              <ul>
                {activities.map((a) => (
                  <li key={a.text} className="flex gap-3 border-b border-line-2 py-1">
                    <span className="flex-1">{a.text}</span>
                    <span>
                      {a.then === null ? say('not asked') : shown(a.then)} <span aria-hidden>→</span>
                      <span className="sr-only">{say('then')}</span>{' '}
                      <b>{a.now === null ? say('not asked') : shown(a.now)}</b>
                    </span>
                  </li>
                ))}
              </ul>
            </>
          )}
        </>
      )}
    </div>
  );
}

function Measures({
  course,
  content,
  from,
  to,
}: {
  course: CourseView;
  content: ClinicContent;
  from: VisitView;
  to: VisitView;
}) {
  const at = (v: VisitView, m: MeasureDefinition, side: Column) =>
    measuredAt(course.measures, dayHere(v.startedAt), m.key, side);
  const rows = content.measures.flatMap((m) => {
    const columns: readonly Column[] = m.sides === 'single' ? ['none'] : ['left', 'right'];
    const sides = columns.map((side) => ({
      side,
      then: at(from, m, side),
      now: at(to, m, side),
    }));
    return sides.some((s) => s.then !== undefined && s.now !== undefined) ? [{ m, sides }] : [];
  });
  if (rows.length === 0) return <p className="mt-2 text-ink-2">{say('Nothing was measured at both.')}</p>;
  return (
    <table className="mt-2 w-full">
      <thead className="text-left text-sm text-ink-2">
        <tr>
          <th scope="col" className="py-1 font-normal">
            {say('Measure')}
          </th>
          <th scope="col" className="pl-3 font-normal" style={{ color: 'var(--color-left)' }}>
            {say('L left')}
          </th>
          <th scope="col" className="pl-3 font-normal" style={{ color: 'var(--color-right)' }}>
            {say('R right')}
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ m, sides }) => (
          <tr key={m.key} className="border-t border-line-2">
            <th scope="row" className="py-1.5 text-left align-top font-semibold">
              {m.label}
            </th>
            {sides.map(({ side, then, now }) => (
              <td key={side} className="py-1.5 pl-3 align-top" colSpan={side === 'none' ? 2 : 1}>
                <Pair measure={m} then={then} now={now} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

type Taken = CourseView['measures'][number] | undefined;

const valueText = (fact: Taken): string =>
  fact === undefined ? say('not taken') : fact.value === null ? say('unable') : shown(fact.value);

/** Where the error is not known, whether a change is as large as matters to patients; nothing where that is not published. */
function mattersText(measure: MeasureDefinition, then: number, now: number): string {
  const important = isImportant(measure, then, now);
  if (important === null || then === now) return '';
  return `, ${important ? say('enough to matter') : say('less than matters')}`;
}

function Pair({ measure, then, now }: { measure: MeasureDefinition; then: Taken; now: Taken }) {
  if (then === undefined && now === undefined) return <span className="text-ink-3">{say('not taken')}</span>;
  const values = (
    <>
      {valueText(then)} <span aria-hidden>→</span>
      <span className="sr-only">{say('then')}</span> <b>{valueText(now)}</b>{' '}
    </>
  );
  if (then?.value == null || now?.value == null) return <span>{values}</span>;
  if (!areLike(measure, then, now))
    return (
      <span>
        {values}
        <span className="text-sm text-ink-2">{say('taken otherwise')}</span>
      </span>
    );
  const [before, after] = [then.value, now.value];
  const change = compareValues(measure, before, after);
  return (
    <span>
      {values}
      <Why of={() => whyChange(measure, before, after)} className={`text-sm ${changeTone(change.direction)}`}>
        {say(change.direction)}
        {change.class === 'not-known' ? mattersText(measure, before, after) : `, ${sayKey(change.class)}`}
      </Why>
    </span>
  );
}
