import { addDays, type Adjunct, besideOf, type Stage, say } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { dayHere, longDay } from '../../parts/dates.js';

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

export function LeftOut({ left }: { left: readonly { readonly name: string; readonly why: string }[] }) {
  if (left.length === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>{say('Left out, and why')}</h3>
      <ul className="mt-1 text-sm">
        {left.map((l) => (
          <li key={l.name} className="py-1">
            <span className="font-semibold">{l.name}</span>
            <span className="block text-ink-2">{l.why}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A day some weeks into the protocol, from its first stage on; today where none was begun. */
function weekDay(course: CourseView, week: number): string {
  const [first] = course.episode.stages;
  return addDays(first === undefined ? course.episode.today : dayHere(first.since), week * 7);
}

/** When something beside the exercises grows less, with its dates. */
function weaningText(a: Adjunct, course: CourseView): string {
  if (a.weaning === null) return '';
  const { fromWeek, goneByWeek, text } = a.weaning;
  const gone =
    goneByWeek === undefined
      ? ''
      : say(', gone by {{longDay}}', { longDay: longDay(weekDay(course, goneByWeek)) });
  return say('{{text}}. From {{longDay}}{{gone}}.', {
    text,
    longDay: longDay(weekDay(course, fromWeek)),
    gone,
  });
}

/** Brace, lift, insole and what else stands beside the exercises, each with its dose and its end. */
export function Adjuncts({ course, stage }: { course: CourseView; stage: Stage }) {
  const list = besideOf(stage, course.episode.schools);
  if (list.length === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>{say('Beside the exercises')}</h3>
      <ul className="mt-1 text-sm">
        {list.map((a) => (
          <li key={a.key} className="py-1">
            {a.dose === null ? `${a.text}.` : `${a.text}: ${lowerFirst(a.dose)}.`}
            <span className="block text-ink-2">{a.reason}.</span>
            {a.weaning !== null && <span className="block text-ink-2">{weaningText(a, course)}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}
