import { Check, Octagon, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import {
  compareSides,
  compareValues,
  shown,
  type Side,
  whyHeelPain,
  whyIrritability,
  whySides,
  whyStage,
  withUnit,
} from '@heathstep/core';
import { Why } from '../../parts/Why.js';
import { RANK_WORDS } from './Conclude.js';
import type { LiveVisit } from './live.js';

/** What is known now, beside whatever is being entered. */
export function Tally({ live }: { live: LiveVisit }) {
  const { episode } = live.course;
  const stage = live.protocol.stages.find((s) => s.key === (episode.stage ?? live.start.stage));
  return (
    <aside aria-label="What is known now" className="bg-paper px-4 py-4">
      <SafetyLine live={live} />
      <Part title="What it looks like">
        <p className="flex justify-between gap-2">
          <span className="font-semibold">{live.conditionName}</span>
          <Why of={() => whyHeelPain(live.idea)} className="text-ink-2">
            {RANK_WORDS[live.idea.rank]}
          </Why>
        </p>
        <p className="mt-1 flex justify-between gap-2">
          <span>Irritability</span>
          <Why of={() => whyIrritability(live.irritability)} className="text-ink-2">
            {live.irritability.level.replaceAll('-', ' ')}
          </Why>
        </p>
      </Part>
      <Differences live={live} />
      <Changes live={live} />
      <Part title={episode.stage === null ? 'If you stopped here' : 'Stage now'}>
        {episode.stage === null ? (
          <p>
            Start in{' '}
            <Why of={() => whyStage(live.start)} className="font-semibold">
              {stage?.name ?? ''}
            </Why>
          </p>
        ) : (
          <p className="font-semibold">{stage?.name}</p>
        )}
      </Part>
      {live.missingMeasures.length > 0 && (
        <Part title="Still wanted">
          <ul className="text-sm text-ink-2">
            {live.missingMeasures.map((m) => (
              <li key={m.key}>{m.label}</li>
            ))}
          </ul>
        </Part>
      )}
    </aside>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="border-t border-line py-3">
      <h3 className="mb-1.5">{title}</h3>
      {children}
    </section>
  );
}

function SafetyLine({ live }: { live: LiveVisit }) {
  const { safety } = live;
  const open = safety.triggered.filter((t) => t.status === 'open');
  const blocked = safety.unanswered.length === 0 && safety.blockedBecause.length > 0;
  const to = `/episodes/${live.course.episode.id}/visit/safety`;
  const [tone, Icon, text] = blocked
    ? (['text-ease-deep', Octagon, `Blocked: ${open[0]?.rule.title ?? ''}`] as const)
    : safety.unanswered.length > 0
      ? (['text-hold-deep', TriangleAlert, `${safety.unanswered.length} safety answers missing`] as const)
      : open.length > 0
        ? (['text-hold-deep', TriangleAlert, `Safety answered, ${open.length} to mind`] as const)
        : (['text-go-deep', Check, 'Safety answered, nothing open'] as const);
  return (
    <Link
      to={to}
      className={`mb-3 flex min-h-9 items-center gap-2 font-semibold ${tone} hover:underline`}
      aria-live="polite"
    >
      <Icon className="size-4 shrink-0" aria-hidden />
      {text}
    </Link>
  );
}

/** The differences that pass their own measure's threshold, largest share first. */
function Differences({ live }: { live: LiveVisit }) {
  const rows = live.measures.flatMap((m) => {
    const left = live.value(m, 'left');
    const right = live.value(m, 'right');
    if (left === null || right === null) return [];
    const sides = compareSides(m, left, right, live.affected);
    return sides.flagged === true ? [{ m, left, right, sides }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <Part title="Sides differ">
      <ul>
        {rows.map(({ m, left, right, sides }) => (
          <li key={m.key} className="flex justify-between gap-2 py-0.5">
            <span>{m.label}</span>
            <Why
              of={() => whySides(m, left, right, live.affected)}
              className="whitespace-nowrap font-semibold"
            >
              <span
                style={{ color: sides.worseSide === 'none' ? undefined : `var(--color-${sides.worseSide})` }}
              >
                {m.sideFlag?.kind === 'symmetry' && sides.symmetryPercent !== null
                  ? `${shown(sides.symmetryPercent, 0)} %`
                  : withUnit(m, sides.difference)}{' '}
                {sides.worseSide === 'left' ? 'L' : 'R'}
              </span>
            </Why>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** Changes since the last visit that exceed the error, on either side. */
function Changes({ live }: { live: LiveVisit }) {
  const rows = live.measures.flatMap((m) =>
    (['left', 'right'] as const).flatMap((side: Side) => {
      const now = live.value(m, side);
      const then = live.before(m, side);
      if (now === null || then === null) return [];
      const change = compareValues(m, then, now);
      return change.direction === 'same' || change.class === 'not-known' ? [] : [{ m, side, change }];
    }),
  );
  if (rows.length === 0) return null;
  return (
    <Part title="Changed beyond error">
      <ul>
        {rows.map(({ m, side, change }) => (
          <li key={`${m.key}-${side}`} className="flex justify-between gap-2 py-0.5">
            <span>
              {m.label}, <span style={{ color: `var(--color-${side})` }}>{side === 'left' ? 'L' : 'R'}</span>
            </span>
            <span
              className={`font-semibold ${change.direction === 'better' ? 'text-go-deep' : 'text-ease-deep'}`}
            >
              {change.change > 0 ? '+' : ''}
              {shown(change.change)} {change.class}
            </span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
