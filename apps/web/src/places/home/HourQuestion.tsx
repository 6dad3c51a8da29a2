import { useEffect, useState } from 'react';
import { useReader } from './tongue.js';

const HOUR_MS = 3_600_000;

/** Whether an hour has passed since a moment; known again when the phone wakes. */
function useHourPassed(since: string): boolean {
  const due = Date.parse(since) + HOUR_MS;
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const look = () => setNow(Date.now());
    const timer = setTimeout(look, Math.max(0, due - Date.now()));
    document.addEventListener('visibilitychange', look);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [due]);
  return now >= due;
}

/** What is asked an hour after a session, once the hour is over; before that, that it will be. */
export function HourAfter({
  since,
  waiting,
  ...question
}: {
  /** When the session was saved. */
  since: string;
  /** It still waits on this phone, and nobody knows when it ended. */
  waiting: boolean;
  before: number;
  answer: (above: boolean) => void;
}) {
  const t = useReader();
  const passed = useHourPassed(since);
  if (passed || waiting) return <HourQuestion {...question} />;
  return (
    <p className="mx-5 mt-5 text-base text-ink-2" role="status">
      {t.say('An hour after the exercises you are asked here once more how it is.')}
    </p>
  );
}

/** An hour after the session: is it still clearly higher than before. */
function HourQuestion({ before, answer }: { before: number; answer: (above: boolean) => void }) {
  const t = useReader();
  return (
    <section className="mx-5 mt-5 rounded-xl bg-heather-wash p-5">
      <h2>{t.say('An hour after')}</h2>
      <p className="mt-1">
        {t.say(
          'Is your pain still {{limit}} or more? It was {{before}} before you started. Answer when an hour has passed.',
          { limit: before + 2, before },
        )}
      </p>
      <div className="mt-3 grid grid-cols-2 gap-3">
        <button type="button" className="action-quiet min-h-14 text-lg" onClick={() => answer(false)}>
          {t.say('No')}
        </button>
        <button type="button" className="action-quiet min-h-14 text-lg" onClick={() => answer(true)}>
          {t.say('Yes, still')}
        </button>
      </div>
    </section>
  );
}
