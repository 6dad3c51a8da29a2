import { say } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import type { Brings as Bring } from '@heathstep/core';
import type { CourseView, PlanView } from '@heathstep/contracts';
import { request } from '../../api/client.js';

const few = (n: number, one: string): string =>
  say('{{n}} more {{one}}{{words}}', { n, one, words: n === 1 ? '' : 's' });

function moreOf({ what, more }: Bring): string {
  if (what === 'equipment') return `A ${String(more)}`;
  const one = { minutes: say('minute'), days: say('day'), exercises: say('exercise') }[what];
  const text = few(Number(more), one);
  return what === 'minutes' ? say('{{text}} a day', { text }) : text;
}

function bringsText(bring: Bring, nameOf: (exercise: string) => string): string {
  const parts = [
    ...bring.exercises.map((e) => nameOf(e).toLowerCase()),
    ...(bring.sets > 0 ? [few(bring.sets, say('set'))] : []),
  ];
  return parts.join(', ');
}

/** What a little more would put into the plan, so that it can be asked for. */
export function Brings({
  course,
  draft,
  nameOf,
}: {
  course: CourseView;
  draft: PlanView;
  nameOf: (exercise: string) => string;
}) {
  const { minutesPerDay, equipment, schools } = course.episode;
  const brings = useQuery({
    queryKey: ['brings', draft.id, minutesPerDay, equipment, schools],
    queryFn: () => request<readonly Bring[]>('GET', `/api/plans/${draft.id}/brings`),
  });
  const list = brings.data ?? [];
  if (list.length === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>{say('A little more would bring')}</h3>
      <ul className="mt-1 text-sm">
        {list.map((b) => (
          <li key={`${b.what}-${b.more}`} className="py-1">
            <span className="font-semibold">{moreOf(b)}</span>
            <span className="block text-ink-2">{bringsText(b, nameOf)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
