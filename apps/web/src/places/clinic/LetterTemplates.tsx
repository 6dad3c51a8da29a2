import {
  LETTER_GAPS,
  LETTER_KIND_WORDS,
  LETTER_PART_WORDS,
  LETTER_PARTS,
  type LetterPart,
  LONGEST_LETTER_TEXT,
  say,
} from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import type { LetterTemplateView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { momentText } from '../../parts/dates.js';
import { Refusal, Several, TextArea } from '../../parts/fields.js';
import { Failed, Loading } from '../../parts/Waiting.js';

const templatesKey = ['letter-templates'] as const;

/** What the letters of the clinic begin with, a form for each kind. */
export function LetterTemplates() {
  const templates = useQuery({
    queryKey: templatesKey,
    queryFn: () => request<readonly LetterTemplateView[]>('GET', '/api/clinic/letters'),
  });
  if (templates.data === undefined)
    return templates.error === null ? (
      <Loading what={say('the letters')} />
    ) : (
      <Failed error={templates.error} again={() => void templates.refetch()} />
    );
  return (
    <>
      <p className="mt-4 max-w-2xl text-ink-2">
        {say(
          'A letter that is begun takes this text; what is in double braces is filled from the record. Letters that are begun already stay as they are.',
        )}
      </p>
      <p className="mt-1 text-sm text-ink-2">{say('May be filled:')}</p>
      <p className="font-mono text-sm text-ink-2" data-said-by-others="">
        {LETTER_GAPS.map((g) => `{{${g}}}`).join(' ')}
      </p>
      {templates.data.map((t) => (
        <Template key={`${t.letter} ${String(t.version)}`} of={t} />
      ))}
    </>
  );
}

function Template({ of: standing }: { of: LetterTemplateView }) {
  const client = useQueryClient();
  const [text, setText] = useState({
    opening: standing.opening,
    closing: standing.closing,
    shows: standing.shows,
  });
  const save = useMutation({
    mutationFn: () =>
      request<readonly LetterTemplateView[]>('PUT', `/api/clinic/letters/${standing.letter}`, {
        version: standing.version,
        ...text,
      }),
    onSuccess: (list) => client.setQueryData(templatesKey, list),
  });
  const wrong = save.error instanceof ApiError ? save.error : null;
  const set = (change: Partial<typeof text>): void => {
    save.reset();
    setText({ ...text, ...change });
  };
  const name = say(LETTER_KIND_WORDS[standing.letter]);
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  const same =
    text.opening === standing.opening &&
    text.closing === standing.closing &&
    text.shows.join() === standing.shows.join();
  return (
    <form
      aria-label={name}
      className="mt-6 grid max-w-4xl gap-4 border-t border-line pt-4"
      onSubmit={submit}
      noValidate
    >
      <h2>
        {name}{' '}
        <span className="text-sm font-normal text-ink-2">
          {standing.at === null
            ? say('as it comes with the application')
            : say('changed {{at}} by {{by}}', { at: momentText(standing.at), by: standing.by ?? '' })}
        </span>
      </h2>
      <TextArea
        label={say('Above what the record shows')}
        rows={6}
        maxLength={LONGEST_LETTER_TEXT}
        value={text.opening}
        error={wrong?.at('/opening') ?? null}
        onChange={(opening) => set({ opening })}
      />
      <Several
        label={say('Of the record')}
        options={LETTER_PARTS.map((p) => [p, say(LETTER_PART_WORDS[p])] as const)}
        value={text.shows}
        onChange={(shows) => set({ shows: LETTER_PARTS.filter((p): p is LetterPart => shows.includes(p)) })}
        error={wrong?.at('/shows') ?? null}
      />
      <TextArea
        label={say('Below it')}
        rows={5}
        maxLength={LONGEST_LETTER_TEXT}
        value={text.closing}
        error={wrong?.at('/closing') ?? null}
        onChange={(closing) => set({ closing })}
      />
      <div>
        <button type="submit" className="action" disabled={save.isPending || same}>
          {say('Keep')}
        </button>
        <Refusal error={wrong} />
      </div>
    </form>
  );
}
