import { useEffect, useId, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import {
  combineTrials,
  compareSides,
  compareValues,
  guardReading,
  type MeasureDefinition,
  shown,
  type Side,
  unitAfter,
  whyChange,
  whySides,
  whyTrials,
} from '@heathstep/core';
import type { MeasureEntry, SkillLevel } from '@heathstep/contracts';
import { ScoreKeys } from '../../parts/Blank.js';
import { PairBar } from '../../parts/PairBar.js';
import { Why } from '../../parts/Why.js';
import { type LiveVisit, SKILLS } from './live.js';

const EMPTY: MeasureEntry = { trials: [], status: 'taken', pain: null };

/** Arrow keys and Enter move between trials; up and down between measures, in the same column. */
function move(event: KeyboardEvent<HTMLInputElement>): void {
  const input = event.currentTarget;
  const list = [...document.querySelectorAll<HTMLInputElement>('input[data-trial]')];
  const at = list.indexOf(input);
  const column = input.dataset['column'];
  const sameColumn = list.filter((i) => i.dataset['column'] === column);
  const atStart = input.selectionStart === 0 && input.selectionEnd === 0;
  const atEnd = input.selectionEnd === input.value.length;
  const allSelected = input.selectionStart === 0 && input.selectionEnd === input.value.length;
  const next: Record<string, HTMLInputElement | undefined> = {
    Enter: list[at + 1],
    ArrowRight: atEnd ? list[at + 1] : undefined,
    ArrowLeft: atStart || allSelected ? list[at - 1] : undefined,
    ArrowDown: sameColumn[sameColumn.indexOf(input) + 1],
    ArrowUp: sameColumn[sameColumn.indexOf(input) - 1],
  };
  const target = next[event.key];
  if (target !== undefined) {
    event.preventDefault();
    target.focus();
    target.select();
  } else if (event.key === 'Enter') event.preventDefault();
}

/** Each measure, both feet: trials, value, bar, and what it says. */
export function Measure({ live }: { live: LiveVisit }) {
  const [active, setActive] = useState<string | null>(null);
  return (
    <div>
      <p className="mb-2 flex flex-wrap gap-x-5 text-sm text-ink-2">
        <span>
          <b style={{ color: 'var(--color-left)' }}>Left</b> and{' '}
          <b style={{ color: 'var(--color-right)' }}>right</b> as the patient looks down
        </span>
        <span>▾ last visit</span>
        <span className="bg-go-wash px-1">wanted</span>
        <span>whiskers: error of the measurement</span>
      </p>
      {live.measures.map((m) => (
        <Row
          key={m.key}
          measure={m}
          live={live}
          active={active === m.key}
          activate={() => setActive(m.key)}
        />
      ))}
      <SkillRows live={live} />
      <Link to={`/episodes/${live.course.episode.id}/visit/conclude`} className="action mt-5">
        On to the conclusion
      </Link>
    </div>
  );
}

function Row({
  measure,
  live,
  active,
  activate,
}: {
  measure: MeasureDefinition;
  live: LiveVisit;
  active: boolean;
  activate: () => void;
}) {
  const before = { left: live.before(measure, 'left'), right: live.before(measure, 'right') };
  const left = live.value(measure, 'left');
  const right = live.value(measure, 'right');
  return (
    <section
      aria-label={measure.label}
      className={`border-b border-line py-2 ${active ? '-mx-5 border-l-4 border-l-heather bg-paper px-5 pl-4' : ''}`}
      onFocus={(event) => {
        // A press on a button opens the row when it is let go: opening on the way down would move the button from under the finger.
        if (event.target.matches('input, :focus-visible')) activate();
      }}
      onClick={activate}
    >
      <div className="grid grid-cols-[9.75rem_6.6rem_3.6rem_minmax(8rem,1fr)_3.6rem_6.6rem_7rem] items-center gap-1.5">
        <div>
          <h3 className="text-[0.95rem] leading-tight">{measure.label}</h3>
          <span className="text-xs text-ink-2">{measure.brief}</span>
        </div>
        <Trials measure={measure} side="left" live={live} />
        <Value measure={measure} side="left" value={left} live={live} />
        <PairBar measure={measure} left={left} right={right} before={before} />
        <Value measure={measure} side="right" value={right} live={live} />
        <Trials measure={measure} side="right" live={live} />
        <Verdict measure={measure} left={left} right={right} before={before} live={live} />
      </div>
      {active && <Details measure={measure} live={live} />}
    </section>
  );
}

const entryOf = (live: LiveVisit, measure: MeasureDefinition, side: Side): MeasureEntry =>
  (live.store.get(`measure.${measure.key}.${side}`) as MeasureEntry | null) ?? EMPTY;

function write(live: LiveVisit, measure: MeasureDefinition, side: Side, entry: MeasureEntry): void {
  const empty = entry.status === 'taken' && entry.pain === null && entry.trials.every((t) => t === null);
  live.set(`measure.${measure.key}.${side}`, empty ? null : entry);
}

const STATUS: Record<MeasureEntry['status'], string> = {
  taken: 'taken',
  'not-done': 'not done',
  unable: 'unable',
  'stopped-by-pain': 'stopped by pain',
};

function Trials({ measure, side, live }: { measure: MeasureDefinition; side: Side; live: LiveVisit }) {
  const entry = entryOf(live, measure, side);
  if (entry.status !== 'taken') {
    return (
      <button
        type="button"
        className="text-action min-h-9 text-sm"
        onClick={() => write(live, measure, side, { ...entry, status: 'taken' })}
        aria-label={`${measure.label}, ${side}: ${STATUS[entry.status]}. Take it instead`}
      >
        {STATUS[entry.status]}
      </button>
    );
  }
  const outliers = combineTrials(measure, entry.trials).outliers;
  return (
    <div
      className={`flex gap-1 ${side === 'left' ? 'justify-end' : ''}`}
      role="group"
      aria-label={`${measure.label}, ${side}`}
    >
      {Array.from({ length: measure.trials.count }, (_, i) => (
        <Trial
          key={i}
          measure={measure}
          side={side}
          index={i}
          value={entry.trials[i] ?? null}
          outlier={outliers.includes(i)}
          confirmed={entry.confirmed === true}
          refusal={live.store.refusal(`measure.${measure.key}.${side}`)}
          onValue={(value) => {
            const trials = Array.from(
              { length: Math.max(measure.trials.count, entry.trials.length) },
              (_, j) => (j === i ? value : (entry.trials[j] ?? null)),
            );
            const { confirmed: _confirmed, ...rest } = entry;
            write(live, measure, side, { ...rest, trials });
          }}
          onConfirm={() => write(live, measure, side, { ...entry, confirmed: true })}
        />
      ))}
    </div>
  );
}

interface TrialProps {
  readonly measure: MeasureDefinition;
  readonly side: Side;
  readonly index: number;
  readonly value: number | null;
  readonly outlier: boolean;
  readonly confirmed: boolean;
  readonly refusal: string | null;
  readonly onValue: (value: number | null) => void;
  readonly onConfirm: () => void;
}

/** One reading. What is typed stays in the field even when it cannot be taken; only possible readings are kept. */
function Trial({ measure, side, index, value, outlier, confirmed, refusal, onValue, onConfirm }: TrialProps) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const noteId = useId();
  const guard = guardReading(measure, text);
  const typed = guard.state === 'fine' || guard.state === 'unusual' ? guard.value : null;
  useEffect(() => {
    setText((now) => {
      const read = guardReading(measure, now);
      const stands = read.state === 'fine' || read.state === 'unusual' ? read.value : null;
      return stands === value || (value === null && read.state === 'impossible')
        ? now
        : value === null
          ? ''
          : String(value);
    });
  }, [value, measure]);
  const asks = guard.state === 'unusual' && !confirmed;
  const wrong = guard.state === 'impossible' ? guard.message : refusal;
  return (
    <span className="relative">
      <input
        data-trial
        data-column={`${side}-${index}`}
        inputMode="decimal"
        autoComplete="off"
        aria-label={`${measure.label}, ${side}, trial ${index + 1}`}
        aria-invalid={wrong !== null}
        aria-describedby={noteId}
        value={text}
        className={`h-10 w-8 border-b-2 bg-transparent text-center text-[0.95rem] font-semibold focus:outline-none ${measure.trials.count === 1 ? 'w-14' : ''} ${wrong !== null ? 'border-ease bg-ease-wash' : outlier || asks ? 'border-hold bg-hold-wash' : 'border-line focus:border-heather'}`}
        onChange={(event) => {
          setText(event.target.value);
          const next = guardReading(measure, event.target.value);
          const reading = next.state === 'fine' || next.state === 'unusual' ? next.value : null;
          if (reading !== value) onValue(reading);
        }}
        onKeyDown={move}
        onFocus={(event) => event.currentTarget.select()}
      />
      <span id={noteId} className="pointer-events-none">
        {wrong !== null && (
          <span
            role="alert"
            className="absolute left-0 top-full z-20 w-56 rounded bg-ease px-2 py-1 text-sm text-paper shadow"
          >
            {wrong}
          </span>
        )}
        {wrong === null && asks && typed !== null && (
          <span className="pointer-events-auto absolute left-0 top-full z-20 w-60 rounded border border-hold bg-hold-wash px-2 py-1 text-sm text-hold-deep shadow">
            {guard.state === 'unusual' ? guard.ask : ''}{' '}
            <button type="button" className="font-bold underline" onClick={onConfirm}>
              Yes, it is
            </button>
          </span>
        )}
        {outlier && (
          <span className="sr-only">This trial differs from the others by more than the error</span>
        )}
      </span>
    </span>
  );
}

function Value({
  measure,
  side,
  value,
  live,
}: {
  measure: MeasureDefinition;
  side: Side;
  value: number | null;
  live: LiveVisit;
}) {
  if (value === null) return <span />;
  const entry = entryOf(live, measure, side);
  return (
    <Why
      of={() => whyTrials(measure, entry.trials)}
      label={`${measure.label}, ${side}: ${shown(value)} ${measure.unitLabel}`}
      className={`${side === 'left' ? '!text-right' : ''} text-[1.35rem] font-bold leading-none no-underline`}
    >
      <span style={{ color: `var(--color-${side})` }}>{shown(value)}</span>
      <span className="text-xs font-normal text-ink-2">{measure.unitLabel}</span>
    </Why>
  );
}

/** The difference and its class, and the change since last time, in words. */
function Verdict({
  measure,
  left,
  right,
  before,
  live,
}: {
  measure: MeasureDefinition;
  left: number | null;
  right: number | null;
  before: { left: number | null; right: number | null };
  live: LiveVisit;
}) {
  const side: Side = live.affected === 'right' ? 'right' : 'left';
  const now = side === 'left' ? left : right;
  const then = before[side];
  const change = now === null || then === null ? null : compareValues(measure, then, now);
  const sides = left === null || right === null ? null : compareSides(measure, left, right, live.affected);
  const unit = unitAfter(measure);
  return (
    <div className="text-sm leading-snug">
      {sides !== null && left !== null && right !== null && (
        <Why
          of={() => whySides(measure, left, right, live.affected)}
          className={
            sides.flagged === true ? 'border-l-4 border-ease pl-1.5 font-semibold' : 'pl-0.5 text-ink-2'
          }
        >
          {measure.sideFlag?.kind === 'symmetry' && sides.symmetryPercent !== null
            ? `${shown(sides.symmetryPercent, 0)} % of ${sides.worseSide === 'left' ? 'right' : 'left'}`
            : `${shown(sides.difference)}${unit} apart`}
        </Why>
      )}
      {change !== null && then !== null && now !== null && (
        <div className="mt-0.5">
          <Why
            of={() => whyChange(measure, then, now)}
            className={
              change.direction === 'better'
                ? 'text-go-deep'
                : change.direction === 'worse'
                  ? 'text-ease-deep'
                  : 'text-ink-2'
            }
          >
            {change.change === 0
              ? 'as last time'
              : `${change.change > 0 ? '+' : ''}${shown(change.change)}${unit} ${change.class === 'not-known' ? '' : change.class.replaceAll('-', ' ')}`}
          </Why>
        </div>
      )}
    </div>
  );
}

function Details({ measure, live }: { measure: MeasureDefinition; live: LiveVisit }) {
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-8 gap-y-2 border-t border-line-2 pt-2">
      {(['left', 'right'] as const).map((side) => {
        const entry = entryOf(live, measure, side);
        return (
          <div key={side}>
            <div className="flex items-center gap-3">
              <span className="text-sm font-semibold" style={{ color: `var(--color-${side})` }}>
                {side === 'left' ? 'L' : 'R'}
              </span>
              {measure.key !== 'first-step-pain' && <span className="text-sm text-ink-2">pain</span>}
              {measure.key !== 'first-step-pain' && (
                <div className="origin-left scale-[0.86]">
                  <ScoreKeys
                    label={`Pain while doing it, ${side}`}
                    low="no pain"
                    high="worst"
                    value={entry.pain}
                    onChange={(pain) => write(live, measure, side, { ...entry, pain })}
                  />
                </div>
              )}
            </div>
            <div
              className="mt-1 flex gap-4 text-sm"
              role="group"
              aria-label={`${measure.label}, ${side}: why there is no value`}
            >
              {(['not-done', 'unable', 'stopped-by-pain'] as const).map((status) => (
                <button
                  key={status}
                  type="button"
                  aria-pressed={entry.status === status}
                  className={`min-h-9 ${entry.status === status ? 'font-bold' : 'text-action'}`}
                  onClick={() =>
                    write(live, measure, side, {
                      ...entry,
                      status: entry.status === status ? 'taken' : status,
                    })
                  }
                >
                  {STATUS[status]}
                </button>
              ))}
            </div>
          </div>
        );
      })}
      <details className="col-span-2 text-sm">
        <summary className="min-h-8 text-ink-2">How it is taken</summary>
        <ol className="list-decimal pl-5">
          {measure.method.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      </details>
    </div>
  );
}

const LEVELS: readonly (readonly [SkillLevel, string])[] = [
  ['none', 'not yet'],
  ['partial', 'partly'],
  ['learned', 'learned'],
];

function SkillRows({ live }: { live: LiveVisit }) {
  return (
    <section aria-label="Control" className="mt-4">
      <h3 className="text-ink-2">Control</h3>
      {SKILLS.map((skill) => (
        <div
          key={skill.key}
          className="grid grid-cols-[minmax(0,1fr)_10.5rem_minmax(0,1fr)] items-center gap-4 border-b border-line py-2"
        >
          <Level skill={skill.key} side="left" live={live} label={skill.label} />
          <div className="text-center">
            <div className="font-head font-semibold">{skill.label}</div>
            <div className="text-xs text-ink-2">{skill.brief}</div>
          </div>
          <Level skill={skill.key} side="right" live={live} label={skill.label} />
        </div>
      ))}
    </section>
  );
}

function Level({ skill, side, live, label }: { skill: string; side: Side; live: LiveVisit; label: string }) {
  const key = `skill.${skill}.${side}`;
  const value = live.store.get(key) as SkillLevel | null;
  const last = live.previous?.entries.find((e) => e.key === key)?.value as SkillLevel | undefined;
  return (
    <div
      className={`flex items-center gap-1 ${side === 'left' ? 'justify-end' : ''}`}
      role="group"
      aria-label={`${label}, ${side}`}
    >
      <span className="mr-1 font-semibold" style={{ color: `var(--color-${side})` }}>
        {side === 'left' ? 'L' : 'R'}
      </span>
      {LEVELS.map(([level, word]) => (
        <button
          key={level}
          type="button"
          aria-pressed={value === level}
          className={`min-h-10 border-b-2 px-2 text-sm font-semibold ${value === level ? 'text-paper' : 'border-line text-ink-2 hover:bg-heather-wash'}`}
          style={
            value === level
              ? { background: `var(--color-${side})`, borderColor: `var(--color-${side})` }
              : undefined
          }
          onClick={() => live.set(key, value === level ? null : level)}
        >
          {word}
          {value === null && last === level ? <span className="font-normal text-ink-3"> ▾</span> : ''}
        </button>
      ))}
    </div>
  );
}
