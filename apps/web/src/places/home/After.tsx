import { useState } from 'react';
import type { HomeView, SessionPayload } from '@heathstep/contracts';
import type { Running } from './homeModel.js';
import { BigScore } from './pieces.js';

interface AfterProps {
  readonly running: Running;
  /** What was logged before, when this is a correction. */
  readonly known?: SessionPayload;
  readonly view: HomeView;
  readonly save: (payload: SessionPayload) => void;
  readonly back: () => void;
}

const TITLES = {
  before: 'How much did it hurt before you started?',
  during: 'How much did it hurt at its highest, while you did it?',
  after: 'And how much now, after?',
} as const;

/** Pain before, highest and after, one question a screen; sets, repetitions and effort stand below to be put right. */
export function After({ running, known, view, save, back }: AfterProps) {
  const [scores, setScores] = useState<{
    before: number | null;
    during: number | null;
    after: number | null;
  }>({
    before: running.before,
    during: known === undefined ? null : known.during,
    after: known === undefined ? null : known.after,
  });
  const [done, setDone] = useState(running.done);
  const [step, setStep] = useState<'before' | 'during' | 'after' | 'check'>(
    known !== undefined ? 'check' : running.before === null ? 'before' : 'during',
  );
  if (step !== 'check') {
    const next = { before: 'during', during: 'after', after: 'check' } as const;
    return (
      <div className="flex flex-1 flex-col px-5 pb-6 pt-8">
        <h1>{TITLES[step]}</h1>
        <div className="mt-6">
          <BigScore
            label={TITLES[step]}
            value={scores[step]}
            onChange={(v) => {
              setScores({ ...scores, [step]: v });
              setStep(known === undefined ? next[step] : 'check');
            }}
          />
        </div>
        <div className="flex-1" />
        <button type="button" className="text-action min-h-12" onClick={back}>
          Back
        </button>
      </div>
    );
  }
  const change = (exercise: string, field: 'sets' | 'reps' | 'effort', by: number) =>
    setDone(
      done.map((d) =>
        d.exercise === exercise
          ? { ...d, [field]: Math.min(field === 'effort' ? 10 : 999, Math.max(0, (d[field] ?? 5) + by)) }
          : d,
      ),
    );
  return (
    <div className="flex flex-1 flex-col px-5 pb-6 pt-8">
      <h1>{known === undefined ? 'Is this right?' : 'Put it right'}</h1>
      <ul className="mt-4">
        {(['before', 'during', 'after'] as const).map((field) => (
          <li key={field} className="flex items-center justify-between border-b border-line py-2">
            <span>{{ before: 'Pain before', during: 'Highest pain', after: 'Pain after' }[field]}</span>
            <button
              type="button"
              className="text-action min-h-11 min-w-11 text-xl"
              aria-label={`${field}: ${scores[field] ?? 'not answered'}. Change`}
              onClick={() => setStep(field)}
            >
              {scores[field] ?? '?'}
            </button>
          </li>
        ))}
      </ul>
      <h2 className="mt-6">What you did</h2>
      <ul>
        {done.map((d) => {
          const item = view.items.find((i) => i.exercise.key === d.exercise);
          const holds = item?.prescription.holdSeconds !== undefined;
          return (
            <li key={d.exercise} className="border-b border-line py-3">
              <div className="font-head text-lg font-semibold">{item?.exercise.name ?? d.exercise}</div>
              <Stepper label="Sets" value={d.sets} step={(by) => change(d.exercise, 'sets', by)} />
              <Stepper
                label={holds ? 'Holds in a set' : 'Repetitions in a set'}
                value={d.reps}
                step={(by) => change(d.exercise, 'reps', by)}
              />
              <Stepper
                label="Effort, 0 easy to 10 all you had"
                value={d.effort}
                step={(by) => change(d.exercise, 'effort', by)}
              />
            </li>
          );
        })}
        {done.length === 0 && (
          <li className="py-2 text-ink-2">No exercise finished today. That is noted too.</li>
        )}
      </ul>
      <div className="flex-1" />
      <button
        type="button"
        className="action mt-6 min-h-16 w-full text-xl"
        disabled={scores.before === null || scores.during === null || scores.after === null}
        onClick={() => {
          const { before, during, after } = scores;
          if (before === null || during === null || after === null) return;
          save({ before, during, after, hourAbove: known?.hourAbove ?? null, exercises: done });
        }}
      >
        Save
      </button>
      <button type="button" className="text-action mt-2 min-h-12" onClick={back}>
        Back
      </button>
    </div>
  );
}

export function Stepper({
  label,
  value,
  step,
}: {
  label: string;
  value: number | null;
  step: (by: number) => void;
}) {
  return (
    <div className="flex items-center justify-between py-1" role="group" aria-label={label}>
      <span className="text-base">{label}</span>
      <span className="flex items-center gap-3">
        <button
          type="button"
          className="size-11 rounded-lg border-2 border-line text-2xl leading-none"
          aria-label={`${label}: one less`}
          onClick={() => step(-1)}
        >
          −
        </button>
        <span className="min-w-8 text-center text-xl font-bold" aria-live="polite">
          {value ?? '–'}
        </span>
        <button
          type="button"
          className="size-11 rounded-lg border-2 border-line text-2xl leading-none"
          aria-label={`${label}: one more`}
          onClick={() => step(1)}
        >
          +
        </button>
      </span>
    </div>
  );
}

/** An hour after the session: is it still clearly higher than before. */
export function HourQuestion({ before, answer }: { before: number; answer: (above: boolean) => void }) {
  return (
    <section className="mx-5 mt-5 rounded-xl bg-heather-wash p-5">
      <h2>An hour after</h2>
      <p className="mt-1">{`Is your pain still ${before + 2} or more? It was ${before} before you started. Answer when an hour has passed.`}</p>
      <div className="mt-3 grid grid-cols-2 gap-3">
        <button type="button" className="action-quiet min-h-14 text-lg" onClick={() => answer(false)}>
          No
        </button>
        <button type="button" className="action-quiet min-h-14 text-lg" onClick={() => answer(true)}>
          Yes, still
        </button>
      </div>
    </section>
  );
}
