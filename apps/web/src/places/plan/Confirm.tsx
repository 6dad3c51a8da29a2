import { say } from '@heathstep/core';
import { confirmationsOf, type ConfirmationState, type CourseView } from '@heathstep/contracts';
import { Check, CircleDashed } from 'lucide-react';
import { Link } from 'react-router';
import type { ClinicContent } from '../../api/queries.js';
import { dayHere, longDay } from '../../parts/dates.js';

const WORDS: Readonly<Record<ConfirmationState, string>> = {
  confirmed: say('confirmed'),
  against: say('answered otherwise'),
  'too-old': say('too old, look again'),
  open: say('not confirmed yet'),
  yourself: say('not part of a visit: make sure before you give the plan'),
};

const TONES: Readonly<Record<ConfirmationState, string>> = {
  confirmed: 'text-ink-2',
  against: 'text-ease-deep font-semibold',
  'too-old': 'text-hold-deep',
  open: 'text-hold-deep',
  yourself: 'text-hold-deep',
};

/** What the protocol wants confirmed before it starts, with what the visits show of it. */
export function Confirm({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode, protocol } = course;
  const list = confirmationsOf(protocol, episode.visits, {
    findings: content.findings,
    measures: content.measures,
    affected: episode.affected,
    day: episode.today,
    localDayOf: dayHere,
  });
  if (list.length === 0) return null;
  const open = list.filter((c) => c.state !== 'confirmed' && c.state !== 'yourself').length;
  return (
    <section className="mt-5 border-t border-line pt-4 text-sm">
      <h3>{say('Confirmed first')}</h3>
      <ul className="mt-1">
        {list.map((c) => (
          <li key={c.key} className="flex items-start gap-2 py-1">
            {c.state === 'confirmed' ? (
              <Check className="mt-0.5 size-4 shrink-0 text-go-deep" aria-hidden />
            ) : (
              <CircleDashed
                className={`mt-0.5 size-4 shrink-0 ${c.state === 'against' ? 'text-ease-deep' : 'text-hold-deep'}`}
                aria-hidden
              />
            )}
            <span>
              {c.text}
              <span className={`block ${TONES[c.state]}`}>
                {`${WORDS[c.state]}${c.on === null ? '' : `, ${longDay(c.on)}`}`}
              </span>
            </span>
          </li>
        ))}
      </ul>
      {open > 0 && (
        <Link
          to={`/episodes/${episode.id}/visit/feel`}
          className="text-action inline-flex min-h-11 items-center"
        >
          {say('To the findings')}
        </Link>
      )}
    </section>
  );
}
