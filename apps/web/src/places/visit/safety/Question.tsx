import { say } from '@heathstep/core';
import type { SafetyAnswer, SafetyQuestion } from '@heathstep/core';
import { RadioRow } from '../../../parts/RadioRow.js';
import type { LiveVisit } from '../live.js';

/** What was answered at the visit before; null where it was not asked. */
export const lastAnswer = (live: LiveVisit, question: string): SafetyAnswer | null =>
  (live.previous?.entries.find((e) => e.key === `safety.${question}`)?.value as SafetyAnswer | undefined) ??
  null;

const PERSON: readonly (readonly [SafetyAnswer, string])[] = [
  ['no', say('No')],
  ['yes', say('Yes')],
];
const SIDES: readonly (readonly [SafetyAnswer, string])[] = [
  ['no', say('No')],
  ['left', 'L'],
  ['both', say('Both')],
  ['right', 'R'],
];
const NOT_TESTED: readonly [SafetyAnswer, string] = ['not-tested', say('Not tested')];

/** Sides are one letter on the screen. */
const SPOKEN: Partial<Record<SafetyAnswer, string>> = { left: say('Left'), right: say('Right') };

const TONE = (value: SafetyAnswer): string => {
  if (value === 'no') return 'bg-line text-ink';
  return value === 'not-tested' ? 'bg-hold-wash text-hold-deep' : 'bg-ease text-paper';
};

/** One question with its answers; a no that does not go with the story says so. */
export function Question({ question, live }: { question: SafetyQuestion; live: LiveVisit }) {
  const key = `safety.${question.key}` as const;
  const answer = live.store.get(key);
  const last = question.kind === 'lasting' ? lastAnswer(live, question.key) : null;
  const scale = question.scope === 'person' ? PERSON : SIDES;
  const words = question.how === 'test' ? [...scale, NOT_TESTED] : scale;
  return (
    <li className="flex items-center gap-4 border-b border-line-2 py-0.5 max-sm:flex-wrap max-sm:gap-y-0">
      <span
        className={`min-w-0 flex-1 max-sm:basis-full ${answer === null ? '' : answer === 'no' || answer === 'not-tested' ? 'text-ink-2' : 'font-semibold'}`}
      >
        {question.text}
        {answer === null && last !== null && (
          <span className="ml-2 text-sm text-ink-3">{say('last time {{last}}', { last: say(last) })}</span>
        )}
        {live.safety.clashes
          .filter((c) => c.question === question.key)
          .map((c) => (
            <span key={c.words} role="note" className="block text-sm font-semibold text-hold-deep">
              {say('No, yet {{words}}', { words: c.words })}
            </span>
          ))}
      </span>
      <RadioRow
        label={question.text}
        value={answer}
        options={words.map(([value, word]) => ({
          value,
          word,
          ...(SPOKEN[value] === undefined ? {} : { label: SPOKEN[value] }),
        }))}
        onChange={(value) => {
          live.set(key, value);
          if (value !== 'not-tested' && live.store.get(`untested.${question.key}`) !== null)
            live.set(`untested.${question.key}`, null);
        }}
        itemClass={(value, chosen) =>
          `min-h-11 min-w-11 px-2 text-sm font-semibold ${chosen ? TONE(value) : 'text-ink-2 hover:bg-heather-wash'}`
        }
      />
    </li>
  );
}
