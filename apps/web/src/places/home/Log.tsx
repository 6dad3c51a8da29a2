import { useState } from 'react';
import { addDays } from '@heathstep/core';
import type { HomeView } from '@heathstep/contracts';
import { canCorrect } from './homeModel.js';
import { logLine } from './questions.js';
import { useReader } from './tongue.js';

/** What was logged in the last days; each can be corrected for 48 hours. */
export function Log({ view, correct }: { view: HomeView; correct: (id: string) => void }) {
  const t = useReader();
  const [now] = useState(() => Date.now());
  const recent = view.entries.filter(
    (e) => e.kind !== 'stop' && e.day > addDays(view.today, -3) && canCorrect(e, now),
  );
  if (recent.length === 0) return null;
  return (
    <details className="mt-6 px-5">
      <summary className="min-h-11 text-ink-2">{t.say('What you logged')}</summary>
      <ul>
        {[...recent].reverse().map((e) => (
          <li key={e.id} className="flex items-center justify-between border-b border-line py-2">
            <span className="text-base">
              {t.longDay(e.day)}: {logLine(view, e, t)}
            </span>
            <button
              type="button"
              className="text-action min-h-11 px-2 text-base"
              onClick={() => correct(e.id)}
              aria-label={t.say(
                e.kind === 'morning' ? 'Correct the morning of {{day}}' : 'Correct the exercises of {{day}}',
                { day: t.longDay(e.day) },
              )}
            >
              {t.say('Correct')}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
