import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useId, useState } from 'react';
import { LONGEST_QUESTION, type HomeView, type QuestionView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { useReader } from './tongue.js';

const key = ['home', 'questions'] as const;

/** A question to the clinic that can wait, and the answers to those before; what cannot wait has its own way. */
export function Ask({ view }: { view: HomeView }) {
  const t = useReader();
  const client = useQueryClient();
  const asked = useQuery({
    queryKey: key,
    queryFn: () => request<QuestionView[]>('GET', '/api/home/questions'),
  });
  const [id, setId] = useState(() => crypto.randomUUID());
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const noteId = useId();
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (busy || text.trim() === '') return;
    setBusy(true);
    setWrong(null);
    try {
      client.setQueryData(key, await request<QuestionView[]>('POST', '/api/home/questions', { id, text }));
      setText('');
      setId(crypto.randomUUID());
    } catch (failure) {
      setWrong(
        failure instanceof ApiError && !failure.passing
          ? t.say('That was not sent. Please tell your clinic at your visit or call: {{phone}}.', {
              phone: view.clinic.phone,
            })
          : t.say('No connection just now. What you typed is kept here; send it again in a moment.'),
      );
    }
    setBusy(false);
  };
  return (
    <details className="mt-8 px-5">
      <summary className="min-h-12 content-center font-bold">{t.say('Ask your clinic')}</summary>
      <form onSubmit={(e) => void send(e)}>
        <p id={noteId} className="text-base text-ink-2">
          {t.say(
            'Your clinic reads this when it looks at your day, not at once. If something is wrong or gets worse, press “It hurts, or something is wrong” below or call {{phone}}.',
            { phone: view.clinic.phone },
          )}
        </p>
        <textarea
          className="field mt-2 min-h-24 w-full text-lg"
          aria-label={t.say('Your question')}
          aria-describedby={noteId}
          maxLength={LONGEST_QUESTION}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {wrong !== null && (
          <p role="alert" className="text-ease-deep">
            {wrong}
          </p>
        )}
        <button
          type="submit"
          className="action-quiet mt-2 min-h-14 w-full text-lg"
          disabled={busy || text.trim() === ''}
        >
          {t.say('Send')}
        </button>
      </form>
      <ul className="mt-4">
        {(asked.data ?? []).map((q) => (
          <li key={q.id} className="border-t border-line py-3">
            <p>
              <span className="text-base text-ink-2">{t.shortDay(q.day)}</span> {q.text}
            </p>
            {q.answer === null ? (
              <p className="text-base text-ink-2">{t.say('Not answered yet.')}</p>
            ) : (
              <p className="mt-1 border-l-2 border-heather pl-3">
                <span className="block text-base text-ink-2">
                  {t.say('Answer from {{name}}, {{day}}', {
                    name: q.answer.by,
                    day: t.shortDay(q.answer.day),
                  })}
                </span>
                {q.answer.text}
              </p>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
