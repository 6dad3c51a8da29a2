import { words } from '../../parts/words.js';
import { say } from '@heathstep/core';
import { RadioRow } from '../../parts/RadioRow.js';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MeasureDefinition, MeasureStep, SkillLevel } from '@heathstep/core';
import { Hint } from '../../parts/Hint.js';
import { AddMeasure } from './AddMeasure.js';
import type { LiveVisit } from './live.js';
import { STEP_NAMES, STEPS, type Step } from './progress.js';
import { Rows } from './rows/Rows.js';

export const rowsOf = (live: LiveVisit, step: MeasureStep): MeasureDefinition[] =>
  live.measures.filter((m) => m.step === step);

/** What the bars mean, once at the head of a list of measures. */
export function Legend() {
  return (
    <p className="mb-1 flex flex-wrap gap-x-5 text-sm text-ink-2">
      <span>
        <b style={{ color: 'var(--color-left)' }}>{say('Left')}</b>{' '}
        {words('and {{right}} as the patient looks down', {
          right: <b style={{ color: 'var(--color-right)' }}>{say('right')}</b>,
        })}
      </span>
      <span>{say('▾ last visit')}</span>
      <span className="bg-go-wash px-1">{say('wanted')}</span>
      <span>{say('whiskers: error of the measurement')}</span>
    </p>
  );
}

/** The measures of a step, both feet, with the way to add more and to go on. */
export function MeasureStepView({ live, step }: { live: LiveVisit; step: 'measure' | 'load' }) {
  const measures = rowsOf(live, step);
  return (
    <div>
      <Hint of="line" />
      <Legend />
      {measures.length === 0 && (
        <p className="py-4 text-ink-2">
          {say('Nothing is wanted here at this visit. Any measure can be added.')}
        </p>
      )}
      <Rows live={live} measures={measures} />
      {step === 'load' && live.protocol.stages.length > 0 && <SkillRows live={live} />}
      <AddMeasure live={live} step={step} />
      <Onward live={live} step={step} />
    </div>
  );
}

/** To the next step; or past this one, with the reason. */
export function Onward({ live, step }: { live: LiveVisit; step: Exclude<Step, 'conclude'> }) {
  const next = STEPS[STEPS.indexOf(step) + 1] ?? 'conclude';
  const key = `skip.${step}` as const;
  const skipped = live.get(key);
  const [skipping, setSkipping] = useState(false);
  const [why, setWhy] = useState('');
  return (
    <div className="mt-5 flex flex-wrap items-center gap-5">
      <Link to={`/episodes/${live.course.episode.id}/visit/${next}${live.visitQuery}`} className="action">
        {say('On to {{next}}', { next: STEP_NAMES[next].toLowerCase() })}
      </Link>
      {step !== 'safety' && skipped === null && !live.progress[step].done && !skipping && (
        <button type="button" className="text-action min-h-11" onClick={() => setSkipping(true)}>
          {say('Skip what is left')}
        </button>
      )}
      {skipping && skipped === null && (
        <form
          className="flex items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (why.trim() === '') return;
            live.set(key, why.trim());
            setSkipping(false);
          }}
        >
          <label>
            <span className="text-sm text-ink-2">{say('Why the rest of this step is left out')}</span>
            <input
              className="field"
              value={why}
              maxLength={300}
              onChange={(e) => setWhy(e.target.value)}
              autoFocus
            />
          </label>
          <button type="submit" className="action-quiet" disabled={why.trim() === ''}>
            {say('Skip')}
          </button>
        </form>
      )}
      {skipped !== null && (
        <span className="text-sm text-ink-2">
          {say('Skipped: {{skipped}} ', { skipped })}
          <button type="button" className="text-action min-h-11" onClick={() => live.set(key, null)}>
            {say('take it after all')}
          </button>
        </span>
      )}
    </div>
  );
}

const LEVELS: readonly (readonly [SkillLevel, string])[] = [
  ['none', say('not yet')],
  ['partial', say('partly')],
  ['learned', say('learned')],
];

function SkillRows({ live }: { live: LiveVisit }) {
  if (live.skills.length === 0) return null;
  return (
    <section aria-label={say('Control')} className="mt-4">
      <h3 className="text-ink-2">{say('Control')}</h3>
      {live.skills.map((skill) => (
        <div
          key={skill.key}
          className="grid grid-cols-[minmax(0,1fr)_10.5rem_minmax(0,1fr)] items-center gap-4 border-b border-line py-2 max-md:grid-cols-1 max-md:gap-1"
        >
          <Level skill={skill.key} side="left" live={live} label={skill.label} />
          <div className="text-center max-md:order-first max-md:text-left">
            <div className="font-head font-semibold">{skill.label}</div>
            <div className="text-xs text-ink-2">{skill.brief}</div>
          </div>
          <Level skill={skill.key} side="right" live={live} label={skill.label} />
        </div>
      ))}
    </section>
  );
}

function Level({
  skill,
  side,
  live,
  label,
}: {
  skill: string;
  side: 'left' | 'right';
  live: LiveVisit;
  label: string;
}) {
  const key = `skill.${skill}.${side}` as const;
  const value = live.store.get(key);
  const last = live.previous?.entries.find((e) => e.key === key)?.value as SkillLevel | undefined;
  return (
    <div className={`flex items-center gap-1 ${side === 'left' ? 'md:justify-end' : ''}`}>
      <span className="mr-1 font-semibold" style={{ color: `var(--color-${side})` }} aria-hidden>
        {side === 'left' ? 'L' : 'R'}
      </span>
      <RadioRow
        label={`${label}, ${say(side)}`}
        className="flex gap-1"
        value={value}
        options={LEVELS.map(([level, word]) => ({
          value: level,
          word: (
            <>
              {word}
              {value === null && last === level ? <span className="font-normal text-ink-3"> ▾</span> : ''}
            </>
          ),
        }))}
        onChange={(level) => live.set(key, level)}
        onClear={() => live.set(key, null)}
        itemClass={(_, on) =>
          `min-h-11 border-b-2 px-2 text-sm font-semibold ${on ? 'text-paper' : 'border-edge text-ink-2 hover:bg-heather-wash'}`
        }
        itemStyle={(_, on) =>
          on ? { background: `var(--color-${side})`, borderColor: `var(--color-${side})` } : undefined
        }
      />
    </div>
  );
}
