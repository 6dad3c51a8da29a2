import { Check, Octagon, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import {
  compareSides,
  compareValues,
  type MeasureDefinition,
  shown,
  whyIrritability,
  whySides,
  whyStage,
  withUnit,
  say,
  sayKey,
} from '@heathstep/core';
import { pointsReading } from '@heathstep/contracts';
import { LEVEL_WORDS } from '../../parts/levels.js';
import { Why } from '../../parts/Why.js';
import { Ideas } from './findings/Ideas.js';
import { NextTests } from './findings/NextTests.js';
import { SETTLE_MS, useSettled } from './findings/useSettled.js';
import { forbiddenOn, notNowOf } from './forbidden.js';
import { columnsOf, type LiveVisit } from './live.js';
import { readEntry, writeEntry } from './rows/entries.js';

/** What is known now, beside whatever is being entered. */
export function Tally({ live, atOnce = false }: { live: LiveVisit; atOnce?: boolean }) {
  const settled = useSettled(live, atOnce ? 0 : SETTLE_MS);
  const { episode } = live.course;
  const stops =
    live.safety.blocking.length > 0 || live.safety.stops.length > 0 || episode.openStops.length > 0;
  const stage = live.protocol.stages.find((s) => s.key === (episode.stage ?? live.start.stage));
  return (
    <aside aria-label={say('What is known now')} className="bg-paper">
      <div
        className="overflow-y-auto px-4 py-4 md:sticky md:top-[4.5rem] md:max-h-[calc(100dvh-4.5rem)]"
        tabIndex={0}
        role="group"
        aria-label={say('Tally')}
      >
        <SafetyLine live={live} />
        <ToConfirm live={live} />
        <Part title={say('What it looks like')}>
          <Ideas live={settled} most={5} />
          <p className="flex justify-between gap-2 border-t border-line-2 pt-1.5">
            <span>{say('Irritability')}</span>
            <Why of={() => whyIrritability(live.irritability)} className="text-ink-2">
              {sayKey(live.irritability.level)}
            </Why>
          </p>
        </Part>
        {episode.openStops.length === 0 && <NextTests live={settled} />}
        <Differences live={live} />
        <Tipping live={live} />
        <Changes live={live} />
        {stage !== undefined && !(stops && episode.stage === null) && (
          <Part title={episode.stage === null ? say('If you stopped here') : say('Stage now')}>
            {episode.stage === null ? (
              <p>
                {say('Start in')}{' '}
                <Why of={() => whyStage(live.start)} className="font-semibold">
                  {stage.name}
                </Why>
              </p>
            ) : (
              <p className="font-semibold">{stage.name}</p>
            )}
          </Part>
        )}
        <Missing live={live} settled={settled} />
      </div>
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
  const [stop] = safety.stops;
  const [reported] = live.course.episode.openStops;
  const to = `/episodes/${live.course.episode.id}/visit/safety${live.visitQuery}`;
  const missing = safety.unanswered.length;
  const left = safety.notTested.length;
  const clashes = safety.clashes.length;
  const untested = [
    left > 0 ? say(', {{left}} not tested', { left }) : '',
    clashes > 0 ? say(', {{clashes}} unlike the story', { clashes }) : '',
  ].join('');
  const [tone, Icon, text] =
    stop !== undefined
      ? (['text-ease-deep', Octagon, `${LEVEL_WORDS[stop.rule.level]}: ${stop.rule.title}`] as const)
      : reported !== undefined
        ? (['text-ease-deep', Octagon, say('Reported at home: {{sign}}', { sign: reported.sign })] as const)
        : missing > 0
          ? ([
              'text-hold-deep',
              TriangleAlert,
              say('{{missing}} safety {{words}} missing', {
                missing,
                words: missing === 1 ? say('answer') : say('answers'),
              }),
            ] as const)
          : safety.blocking.length > 0
            ? ([
                'text-ease-deep',
                Octagon,
                say('Blocked: {{title}}', { title: safety.blocking[0]?.rule.title ?? '' }),
              ] as const)
            : open.length > 0
              ? ([
                  'text-hold-deep',
                  TriangleAlert,
                  say('Safety answered, {{n}} to mind{{untested}}', { n: open.length, untested }),
                ] as const)
              : untested !== ''
                ? (['text-hold-deep', TriangleAlert, say('Safety asked{{untested}}', { untested })] as const)
                : (['text-go-deep', Check, say('Safety answered, nothing open')] as const);
  return (
    <Link
      to={to}
      className={`mb-3 flex min-h-9 items-center gap-2 font-semibold ${tone} hover:underline`}
      aria-live="polite"
    >
      <Icon className="size-4 shrink-0" aria-hidden />
      <span>
        {text}
        {(stop ?? reported) !== undefined && missing > 0 && (
          <span className="block text-sm font-normal text-ink-2">
            {say('{{missing}} answers missing beside it', { missing })}
          </span>
        )}
      </span>
    </Link>
  );
}

const sideLetter = (side: 'left' | 'right' | 'none') =>
  side === 'none' ? null : <b style={{ color: `var(--color-${side})` }}>{side === 'left' ? ' L' : ' R'}</b>;

/** Odd readings wait here to be confirmed once, wherever they were typed. */
function ToConfirm({ live }: { live: LiveVisit }) {
  if (live.toConfirm.length === 0) return null;
  return (
    <Part title={say('Is it right?')}>
      <ul className="text-sm">
        {live.toConfirm.map(({ measure, side, told }) => (
          <li key={`${measure.key}-${side}`} className="py-0.5">
            <span className="font-semibold">
              {measure.label}
              {sideLetter(side)}
            </span>
            : {told}{' '}
            <button
              type="button"
              className="text-action min-h-9"
              aria-label={say('Yes, {{label}}{{words}} is right', {
                label: measure.label,
                words: side === 'none' ? '' : `, ${say(side)}`,
              })}
              onClick={() =>
                writeEntry(live.store, measure, side, {
                  ...readEntry(live.store, measure, side),
                  confirmed: true,
                })
              }
            >
              {say('Yes')}
            </button>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** How far past its own threshold a difference is; for the order only. */
function weight(m: MeasureDefinition, difference: number, symmetry: number | null): number {
  const flag = m.sideFlag;
  if (flag === null) return 0;
  return flag.kind === 'difference'
    ? difference / flag.value
    : (100 - (symmetry ?? 100)) / (100 - flag.below);
}

/** The differences that pass their own measure's threshold, furthest past it first. */
function Differences({ live }: { live: LiveVisit }) {
  const rows = live.measures
    .flatMap((m) => {
      const left = live.value(m, 'left');
      const right = live.value(m, 'right');
      if (m.sides === 'single' || left === null || right === null) return [];
      const sides = compareSides(m, left, right, live.affected);
      return sides.flagged === true ? [{ m, left, right, sides }] : [];
    })
    .sort(
      (a, b) =>
        weight(b.m, b.sides.difference, b.sides.symmetryPercent) -
        weight(a.m, a.sides.difference, a.sides.symmetryPercent),
    );
  if (rows.length === 0) return null;
  return (
    <Part title={say('Sides differ')}>
      <ul>
        {rows.slice(0, 6).map(({ m, left, right, sides }) => (
          <li key={m.key} className="flex justify-between gap-2 py-0.5">
            <span>{m.label}</span>
            <Why
              of={() => whySides(m, left, right, live.affected)}
              className="whitespace-nowrap font-semibold"
            >
              <span
                style={{ color: sides.worseSide === 'none' ? undefined : `var(--color-${sides.worseSide})` }}
              >
                {m.levels !== null
                  ? m.levels.find((l) => l.value === (sides.worseSide === 'left' ? left : right))?.word
                  : m.sideFlag?.kind === 'symmetry' && sides.symmetryPercent !== null
                    ? `${shown(sides.symmetryPercent, 0)} %`
                    : withUnit(m, sides.difference, Math.max(1, m.decimals))}
                {sides.worseSide === 'none' ? '' : sides.worseSide === 'left' ? ' L' : ' R'}
              </span>
            </Why>
          </li>
        ))}
        {rows.length > 6 && (
          <li className="text-sm text-ink-2">{say('and {{n}} more', { n: rows.length - 6 })}</li>
        )}
      </ul>
    </Part>
  );
}

function Tipping({ live }: { live: LiveVisit }) {
  const tipping = (['left', 'right'] as const).flatMap((side) =>
    pointsReading(live.readings.entries, side)
      .filter((r) => r.tipping)
      .map((r) => ({ side, ...r })),
  );
  if (tipping.length === 0) return null;
  return (
    <Part title={say('The foot tips')}>
      <ul className="text-sm">
        {tipping.map((t) => (
          <li key={`${t.side}-${t.pose}`}>
            <b style={{ color: `var(--color-${t.side})` }}>{t.side === 'left' ? 'L' : 'R'}</b> {t.text}
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** Changes since the last visit that exceed the error, on either side. */
function Changes({ live }: { live: LiveVisit }) {
  const rows = live.measures.flatMap((m) =>
    columnsOf(m).flatMap((side) => {
      const now = live.value(m, side);
      const then = live.before(m, side);
      if (now === null || then === null) return [];
      const change = compareValues(m, then, now);
      return change.direction === 'same' || change.class === 'not-known' ? [] : [{ m, side, change }];
    }),
  );
  if (rows.length === 0) return null;
  return (
    <Part title={say('Changed beyond error')}>
      <ul>
        {rows.map(({ m, side, change }) => (
          <li key={`${m.key}-${side}`} className="flex justify-between gap-2 py-0.5">
            <span>
              {m.label}
              {sideLetter(side)}
            </span>
            <span
              className={`font-semibold ${change.direction === 'better' ? 'text-go-deep' : 'text-ease-deep'}`}
            >
              {change.change > 0 ? '+' : ''}
              {shown(change.change)} {say(change.class)}
            </span>
          </li>
        ))}
      </ul>
    </Part>
  );
}

const MOST_MISSING = 9;

/** What the plan's criteria need comes first, then the rest of the set. */
function Missing({ live, settled }: { live: LiveVisit; settled: LiveVisit }) {
  const notNow = notNowOf(live, settled.reasoning().held);
  const may = (m: MeasureDefinition) => forbiddenOn(notNow, m) === null;
  const needed = live.missingForCriteria.filter(may);
  const rest = live.missingMeasures.filter((m) => !needed.includes(m)).filter(may);
  if (needed.length + rest.length === 0) return null;
  return (
    <Part title={say('Still wanted')}>
      {needed.length > 0 && <p className="text-sm font-semibold">{say('For the criteria of this stage')}</p>}
      <ul className="text-sm text-ink-2">
        {[...needed, ...rest].slice(0, MOST_MISSING).map((m) => (
          <li key={m.key}>{m.label}</li>
        ))}
        {needed.length + rest.length > MOST_MISSING && (
          <li>{say('and {{n}} more', { n: needed.length + rest.length - MOST_MISSING })}</li>
        )}
      </ul>
    </Part>
  );
}
