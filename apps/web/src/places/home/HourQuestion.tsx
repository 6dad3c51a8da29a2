import { useReader } from './tongue.js';

/** An hour after the session: is it still clearly higher than before. */
export function HourQuestion({ before, answer }: { before: number; answer: (above: boolean) => void }) {
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
