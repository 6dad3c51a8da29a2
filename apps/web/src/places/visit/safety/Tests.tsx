import { goOn, openPlace } from '../../../parts/goOn.js';
import { say } from '@heathstep/core';
import { useState } from 'react';
import type { ExaminedPart, SafetyAnswer, SafetyQuestion } from '@heathstep/core';
import type { LiveVisit } from '../live.js';
import { PartPicture } from './PartPicture.js';
import { Question } from './Question.js';
import { WhyNot } from './WhyNot.js';

/** What must be felt, squeezed or measured, by part of the body. Not tested is never a no, and says why. */
export function Tests({ live }: { live: LiveVisit }) {
  const [also, setAlso] = useState<ReadonlySet<string>>(new Set());
  const shown = new Set([...live.safety.asked, ...also]);
  const tests = live.content.safetyQuestions.filter((q) => q.how === 'test' && shown.has(q.key));
  const spared = live.content.safetyQuestions.filter(
    (q) => live.safety.spared.includes(q.key) && !also.has(q.key),
  );
  return (
    <section aria-label={say('To feel, squeeze and measure')}>
      <h3 className="mt-8 text-lg">{say('To feel, squeeze and measure')}</h3>
      {live.content.bodyParts.map((part) => (
        <Part key={part.key} part={part} live={live} tests={tests.filter((q) => q.part === part.key)} />
      ))}
      {spared.length > 0 && (
        <details className="mt-3 text-ink-2">
          <summary className="flex min-h-11 cursor-pointer items-center gap-2">
            {say(
              '{{n}} more {{words}} not called for by what is known. Not tested is not the same as not there.',
              { n: spared.length, words: spared.length === 1 ? say('test is') : say('tests are') },
            )}
            <span className="text-action text-sm">{say('Show them')}</span>
          </summary>
          <ul className="pl-4">
            {spared.map((q) => (
              <li key={q.key} className="flex items-center gap-4 border-b border-line-2">
                <span className="min-w-0 flex-1">{q.text}</span>
                <button
                  type="button"
                  className="text-action min-h-11 text-sm whitespace-nowrap"
                  aria-label={say('Test it: {{text}}', { text: q.text })}
                  onClick={() => setAlso(new Set([...also, q.key]))}
                >
                  {say('Test it')}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function Part({
  part,
  live,
  tests,
}: {
  part: ExaminedPart;
  live: LiveVisit;
  tests: readonly SafetyQuestion[];
}) {
  if (tests.length === 0) return null;
  const open = tests.filter((q) => live.store.get(`safety.${q.key}`) === null);
  const left = tests.filter((q) => live.store.get(`safety.${q.key}`) === 'not-tested');
  const press = (text: string, answer: SafetyAnswer) => (
    <button
      type="button"
      className="text-action min-h-11 text-sm"
      aria-label={`${text}: ${part.name}`}
      onClick={(event) => {
        open.forEach((q) => live.set(`safety.${q.key}`, answer));
        // A test that was left out wants to say why.
        if (answer === 'no') goOn(event, 'section');
      }}
    >
      {text}
    </button>
  );
  return (
    <section className="mb-5 flex gap-4" aria-label={part.name} {...openPlace(open.length > 0)}>
      <div className="hidden w-28 shrink-0 justify-center pt-2 sm:flex">
        <PartPicture part={part} />
      </div>
      <div className="min-w-0 flex-1">
        <div className="flex flex-wrap items-baseline gap-x-4 border-b border-line">
          <h4 className="font-semibold">{part.name}</h4>
          <span className="text-sm text-ink-2">
            {open.length === 0 ? say('answered') : say('{{n}} to test', { n: open.length })}
          </span>
          <div className="flex-1" />
          {open.length > 0 && (
            <span className="flex gap-4">
              {press(
                open.length === 1
                  ? say('Tested, not found')
                  : say('Tested {{n}}, none found', { n: open.length }),
                'no',
              )}
              {press(say('Not tested'), 'not-tested')}
            </span>
          )}
        </div>
        <ul>
          {tests.map((q) => (
            <Question key={q.key} question={q} live={live} />
          ))}
        </ul>
        {left.length > 0 && <WhyNot live={live} part={part.name} left={left} />}
      </div>
    </section>
  );
}
