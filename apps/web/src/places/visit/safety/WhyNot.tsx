import { say } from '@heathstep/core';
import { useState } from 'react';
import type { SafetyQuestion } from '@heathstep/core';
import type { LiveVisit } from '../live.js';

const REASONS = [
  'too painful',
  'not possible in this position or place',
  'declined',
  'no instrument here',
] as const;

/** Why tests of a part were left out: one reason for those that have none yet, changed where it was another. */
export function WhyNot({
  live,
  part,
  left,
}: {
  live: LiveVisit;
  part: string;
  left: readonly SafetyQuestion[];
}) {
  const [other, setOther] = useState<string | null>(null);
  const without = left.filter((q) => live.unexplained.includes(q.key));
  const [first] = left;
  const given = without.length === 0 && first !== undefined ? live.store.get(`untested.${first.key}`) : null;
  const put = (reason: string) => {
    for (const q of without.length > 0 ? without : left) live.set(`untested.${q.key}`, reason);
    setOther(null);
  };
  const typed = other?.trim() ?? '';
  return (
    <div
      role="group"
      aria-label={say('Why not tested: {{part}}', { part })}
      className={`mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 rounded px-3 text-sm ${without.length > 0 ? 'bg-hold-wash text-hold-deep' : 'text-ink-2'}`}
    >
      <span className="font-semibold">
        {given === null
          ? say('Why {{words}} not tested?', {
              words: left.length === 1 ? say('was it') : say('were these {{n}}', { n: without.length }),
            })
          : say('Not tested because:')}
      </span>
      {REASONS.map((reason) => (
        <button
          key={reason}
          type="button"
          aria-pressed={given === reason}
          className={`min-h-11 px-1 ${given === reason ? 'font-bold underline' : 'text-action'}`}
          onClick={() => put(reason)}
        >
          {say(reason)}
        </button>
      ))}
      {given !== null && !REASONS.some((r) => r === given) && other === null && <b>{given}</b>}
      {other === null ? (
        <button type="button" className="text-action min-h-11" onClick={() => setOther('')}>
          {say('in own words')}
        </button>
      ) : (
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (typed !== '') put(typed);
          }}
        >
          <input
            // The field was asked for a moment ago.
            autoFocus
            aria-label={say('Reason in own words: {{part}}', { part })}
            className="field min-h-11"
            maxLength={200}
            value={other}
            onChange={(event) => setOther(event.target.value)}
          />
          <button type="submit" className="text-action min-h-11" disabled={typed === ''}>
            {say('Keep')}
          </button>
        </form>
      )}
    </div>
  );
}
