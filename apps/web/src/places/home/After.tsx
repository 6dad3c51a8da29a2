import { useState } from 'react';
import type { HomeView, SessionPayload } from '@heathstep/contracts';
import type { HomeQuestion, HomeScores } from '@heathstep/core';
import { type Done, putRight, type Running } from './homeModel.js';
import { Question } from './Question.js';
import { answerText, askedAt, firstUpper } from './questions.js';
import { Stepper } from './Stepper.js';
import { Title } from './pieces.js';
import { useReader } from './tongue.js';

interface AfterProps {
  readonly running: Running;
  /** What was logged before, when this is a correction. */
  readonly known?: SessionPayload;
  readonly view: HomeView;
  readonly save: (payload: SessionPayload) => void;
  readonly back: () => void;
}

/** What is asked about the exercises, one question a screen; sets, repetitions and effort stand below to be put right. */
export function After({ running, known, view, save, back }: AfterProps) {
  const t = useReader();
  const asked = [...askedAt(view, 'before'), ...askedAt(view, 'after')];
  const [scores, setScores] = useState<HomeScores>(known?.scores ?? running.scores);
  const [done, setDone] = useState(running.done);
  const [changing, setChanging] = useState<HomeQuestion | null>(null);
  const open = asked.find((q) => (scores[q.key] ?? null) === null);
  const question = changing ?? (known === undefined ? open : undefined);
  if (question !== undefined)
    return (
      <Question
        key={question.key}
        question={question}
        value={scores[question.key] ?? null}
        answer={(value) => {
          setScores({ ...scores, [question.key]: value });
          setChanging(null);
        }}
        back={changing === null ? back : () => setChanging(null)}
      />
    );
  const change = (exercise: string, field: 'sets' | 'reps' | 'effort', by: number) =>
    setDone(
      done.map((d) => {
        if (d.exercise !== exercise) return d;
        if (field === 'effort') return { ...d, effort: Math.min(10, Math.max(0, (d.effort ?? 5) + by)) };
        const planned = view.items.find((i) => i.exercise.key === exercise)?.prescription.reps ?? 1;
        return putRight(d, field, by, planned);
      }),
    );
  return (
    <div className="flex flex-1 flex-col px-5 pb-6 pt-8">
      <Title>{t.say(known === undefined ? 'Is this right?' : 'Put it right')}</Title>
      <ul className="mt-4">
        {asked.map((q) => (
          <li key={q.key} className="flex items-center justify-between border-b border-line py-2">
            <span>{firstUpper(q.name)}</span>
            <button
              type="button"
              className="text-action min-h-11 min-w-11 text-xl"
              aria-label={t.say('{{question}}: {{answer}}. Change', {
                question: firstUpper(q.name),
                answer: answerText(scores[q.key] ?? null, t),
              })}
              onClick={() => setChanging(q)}
            >
              {(scores[q.key] ?? null) === null ? '?' : answerText(scores[q.key] ?? null, t)}
            </button>
          </li>
        ))}
      </ul>
      <h2 className="mt-6">{t.say('What you did')}</h2>
      <WhatWasDone done={done} view={view} change={change} />
      <div className="flex-1" />
      <button
        type="button"
        className="action mt-6 min-h-16 w-full text-xl"
        disabled={open !== undefined}
        onClick={() => save({ scores: withLater(view, scores), exercises: done })}
      >
        {t.say('Save')}
      </button>
      <button type="button" className="text-action mt-2 min-h-12" onClick={back}>
        {t.say('Back')}
      </button>
    </div>
  );
}

/** Each exercise done, to be put right. */
function WhatWasDone({
  done,
  view,
  change,
}: {
  done: readonly Done[];
  view: HomeView;
  change: (exercise: string, field: 'sets' | 'reps' | 'effort', by: number) => void;
}) {
  const t = useReader();
  return (
    <ul>
      {done.map((d) => {
        const item = view.items.find((i) => i.exercise.key === d.exercise);
        const holds = item?.prescription.holdSeconds !== undefined;
        return (
          <li key={d.exercise} className="border-b border-line py-3">
            <div className="font-head text-lg font-semibold">{item?.exercise.name ?? d.exercise}</div>
            <Stepper label={t.say('Sets')} value={d.sets} step={(by) => change(d.exercise, 'sets', by)} />
            <Stepper
              label={t.say(holds ? 'Holds in a set' : 'Repetitions in a set')}
              value={d.reps}
              step={(by) => change(d.exercise, 'reps', by)}
            />
            <Stepper
              label={t.say('Effort, 0 easy to 10 all you had')}
              value={d.effort}
              step={(by) => change(d.exercise, 'effort', by)}
            />
          </li>
        );
      })}
      {done.length === 0 && (
        <li className="py-2 text-ink-2">{t.say('No exercise finished today. That is noted too.')}</li>
      )}
    </ul>
  );
}

/** What is asked an hour later stays open until then. */
const withLater = (view: HomeView, scores: HomeScores): HomeScores => ({
  ...Object.fromEntries(askedAt(view, 'later').map((q) => [q.key, null])),
  ...scores,
});
