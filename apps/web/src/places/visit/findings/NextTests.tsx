import { aboutMinutes, answeredIn } from './listing.js';
import { Link, useParams } from 'react-router';
import { whyNext, say } from '@heathstep/core';
import { sentence } from '../../../parts/Judgement.js';
import { Why } from '../../../parts/Why.js';
import type { LiveVisit } from '../live.js';
import { STEP_NAMES, STEPS } from '../progress.js';

const MOST = 3;

/** The questions and tests that would tell most for the minute they take. */
export function NextTests({ live }: { live: LiveVisit }) {
  const { step: now } = useParams();
  const { next } = live.reasoning();
  const nameOf = (key: string) => live.content.conditions.find((c) => c.key === key)?.name ?? key;
  const first = next.slice(0, MOST).flatMap((n) => {
    const finding = live.content.findings.find((f) => f.key === n.finding);
    return finding === undefined ? [] : [{ n, finding }];
  });
  if (first.length === 0) return null;
  return (
    <section className="border-t border-line py-3" aria-label={say('Most telling next')}>
      <h3 className="mb-1.5">{say('Most telling next')}</h3>
      <ul className="text-sm">
        {first.map(({ n, finding }) => (
          <li key={`${n.finding}.${n.side}`} className="flex items-center justify-between gap-2 py-0.5">
            <span>
              {(n.side === 'both' ? (['left', 'right'] as const) : n.side === 'none' ? [] : [n.side]).map(
                (side) => (
                  <b key={side} style={{ color: `var(--color-${side})` }}>
                    {side === 'left' ? 'L ' : 'R '}
                  </b>
                ),
              )}
              {finding.name}
              <span className="block text-ink-2">{sentence(n.why)}</span>
            </span>
            <Why
              of={() => whyNext(n, finding, nameOf)}
              className="min-h-[24px] min-w-[24px] shrink-0 text-ink-2"
              label={say('{{name}}: why next', { name: finding.name })}
            >
              {aboutMinutes(finding.minutes)}
            </Why>
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap gap-x-4">
        {STEPS.filter((step) => step !== now && first.some((f) => answeredIn(f.finding) === step)).map(
          (step) => (
            <Link
              key={step}
              className="text-action inline-block text-sm"
              to={`/episodes/${live.course.episode.id}/visit/${step}${live.visitQuery}`}
            >
              {say('Answer in {{step}}', { step: STEP_NAMES[step] })}
            </Link>
          ),
        )}
      </p>
    </section>
  );
}
