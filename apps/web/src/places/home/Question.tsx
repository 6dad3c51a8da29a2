import { useState } from 'react';
import type { HomeAnswer, HomeQuestion, HomeScores } from '@heathstep/core';
import { BigScore, Title } from './pieces.js';
import { Stepper } from './Stepper.js';
import { useReader } from './tongue.js';

/** One question of the home log, large: a score, a yes or no, or a count. */
export function Question({
  question,
  value,
  answer,
  back,
}: {
  question: HomeQuestion;
  value: HomeAnswer;
  answer: (value: HomeAnswer) => void;
  back: () => void;
}) {
  const t = useReader();
  return (
    <div className="flex flex-1 flex-col px-5 pb-6 pt-8">
      <Title>{question.ask}</Title>
      <div className="mt-4">
        {question.kind === 'score' && (
          <BigScore label={question.ask} value={typeof value === 'number' ? value : null} onChange={answer} />
        )}
        {question.kind === 'yes-no' && <YesNo answer={answer} />}
        {question.kind === 'count' && <Count question={question} value={value} answer={answer} />}
      </div>
      <div className="flex-1" />
      <button type="button" className="text-action min-h-12" onClick={back}>
        {t.say('Back')}
      </button>
    </div>
  );
}

function YesNo({ answer }: { answer: (value: boolean) => void }) {
  const t = useReader();
  return (
    <div className="grid grid-cols-2 gap-3">
      <button type="button" className="action-quiet min-h-16 text-xl" onClick={() => answer(false)}>
        {t.say('No')}
      </button>
      <button type="button" className="action-quiet min-h-16 text-xl" onClick={() => answer(true)}>
        {t.say('Yes')}
      </button>
    </div>
  );
}

const MOST = 99;

function Count({
  question,
  value,
  answer,
}: {
  question: HomeQuestion;
  value: HomeAnswer;
  answer: (value: number) => void;
}) {
  const [count, setCount] = useState(typeof value === 'number' ? value : 0);
  return (
    <>
      <Stepper
        label={question.name}
        value={count}
        step={(by) => setCount(Math.min(MOST, Math.max(0, count + by)))}
      />
      <button type="button" className="action mt-6 min-h-16 w-full text-xl" onClick={() => answer(count)}>
        {String(count)}
      </button>
    </>
  );
}

/** Questions one after the other; done when the last is answered. */
export function Questions({
  questions,
  known = {},
  done,
  cancel,
}: {
  questions: readonly HomeQuestion[];
  known?: HomeScores;
  done: (scores: HomeScores) => void;
  cancel: () => void;
}) {
  const [scores, setScores] = useState<HomeScores>({});
  const [at, setAt] = useState(0);
  const question = questions[at];
  if (question === undefined) return null;
  return (
    <Question
      key={question.key}
      question={question}
      value={scores[question.key] ?? known[question.key] ?? null}
      answer={(value) => {
        const all = { ...scores, [question.key]: value };
        if (at + 1 >= questions.length) done(all);
        else {
          setScores(all);
          setAt(at + 1);
        }
      }}
      back={() => (at === 0 ? cancel() : setAt(at - 1))}
    />
  );
}
