import { say } from '@heathstep/core';
import { useState } from 'react';
import type { CourseView, PlanView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { Changes } from '../../parts/Changes.js';
import { fullDay } from '../../parts/dates.js';
import { SelectField } from '../../parts/fields.js';
import { planChanges } from './planChanges.js';

const told = (plan: PlanView): string =>
  say('version {{number}}, {{words}}', {
    number: plan.number,
    words: plan.givenAt === null ? say('not given') : fullDay(plan.givenAt),
  });

/** Any earlier version of the plan against the one that stands, line by line. */
export function Versions({
  course,
  content,
  plan,
}: {
  course: CourseView;
  content: ClinicContent;
  plan: PlanView;
}) {
  const earlier = course.plans
    .filter((p) => p.status === 'given' && p.number < plan.number)
    .sort((a, b) => b.number - a.number);
  const [chosen, setChosen] = useState('');
  const before = earlier.find((p) => p.id === chosen);
  if (earlier.length === 0) return null;
  return (
    <section aria-label={say('Earlier versions')} className="mt-6 max-w-2xl border-t border-line pt-4">
      <SelectField
        label={say('Compare with an earlier version')}
        className="max-w-xs"
        value={chosen}
        options={[['', say('choose')], ...earlier.map((p) => [p.id, told(p)] as const)]}
        onChange={setChosen}
      />
      {before !== undefined && (
        <Changes
          title={say('Version {{number}} and version {{number2}}', {
            number: before.number,
            number2: plan.number,
          })}
          changes={planChanges(before, plan, content)}
        />
      )}
    </section>
  );
}
