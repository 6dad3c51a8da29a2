import { say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import type { QuestionView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { keys, useSession } from '../api/queries.js';
import { shortDay } from './dates.js';
import { Refusal, TextArea } from './fields.js';

const keyOf = (episodeId: string) => ['questions', episodeId] as const;

/** What the patient asked from home, each to be answered; quiet where nothing waits. */
export function Questions({ episodeId }: { episodeId: string }) {
  const list = useQuery({
    queryKey: keyOf(episodeId),
    queryFn: () => request<QuestionView[]>('GET', `/api/episodes/${episodeId}/questions`),
  });
  const open = (list.data ?? []).filter((q) => q.answer === null);
  if (open.length === 0) return null;
  return (
    <section aria-label={say('Asked from home')} className="mb-4 rounded bg-hold-wash p-3">
      <h3>
        {open.length === 1
          ? say('A question from home')
          : say('{{n}} questions from home', { n: open.length })}
      </h3>
      <ul>
        {open.map((q) => (
          <Question key={q.id} question={q} episodeId={episodeId} />
        ))}
      </ul>
    </section>
  );
}

function Question({ question, episodeId }: { question: QuestionView; episodeId: string }) {
  const client = useQueryClient();
  const session = useSession();
  const [open, setOpen] = useState(false);
  const [answer, setAnswer] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    setBusy(true);
    setError(null);
    try {
      client.setQueryData(
        keyOf(episodeId),
        await request<QuestionView[]>('POST', `/api/questions/${question.id}/answer`, { answer }),
      );
      await client.invalidateQueries({ queryKey: keys.day });
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
      setBusy(false);
    }
  };
  return (
    <li className="mt-2">
      <p>
        <span className="text-sm text-ink-2">{shortDay(question.day)}</span> {question.text}
      </p>
      {session.data?.user.role === 'assistant' ? (
        <p className="text-sm text-ink-2">{say('A clinician answers.')}</p>
      ) : open ? (
        <form onSubmit={(e) => void send(e)} noValidate>
          <TextArea
            label={say('Answer, as the patient reads it on the phone')}
            maxLength={1000}
            autoFocus
            value={answer}
            onChange={setAnswer}
            error={error?.at('/answer') ?? null}
          />
          <Refusal error={error} />
          <button type="submit" className="action-quiet mt-1" disabled={busy}>
            {say('Send the answer')}
          </button>
        </form>
      ) : (
        <button type="button" className="text-action min-h-11" onClick={() => setOpen(true)}>
          {say('Answer it')}
        </button>
      )}
    </li>
  );
}
