import { say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { ExerciseFile } from '@heathstep/content';
import type { ExerciseDefinition, FigureDefinition } from '@heathstep/core';
import { ApiError, request } from '../../../api/client.js';
import { type ClinicContent, keys, useContent } from '../../../api/queries.js';
import { Failed, Loading, NotFound } from '../../../parts/Waiting.js';
import { Composer } from './Composer.js';
import { DoseForm } from './DoseForm.js';
import { errorsAt } from './errorsAt.js';
import { SetAside } from '../../../parts/SetAside.js';
import { dropDraft, keepDraft, setDraftAside, storedDraft } from './draft.js';
import { BLANK, type Typed, typedFrom, writtenFrom } from './typed.js';
import { WordsForm } from './WordsForm.js';

/** Makes or changes an exercise of the clinic's own: its words, its dose, and its figure. */
export function Editor() {
  const { key } = useParams();
  const [query] = useSearchParams();
  const content = useContent();
  const from = key ?? query.get('from');
  const file = useQuery({
    queryKey: ['exercise-file', from],
    queryFn: () => request<ExerciseFile>('GET', `/api/library/exercises/${from ?? ''}/file`),
    enabled: from !== null,
    staleTime: Infinity,
    gcTime: 0,
  });
  if (content.data === undefined || (from !== null && file.data === undefined)) {
    const error = content.error ?? file.error;
    if (error instanceof ApiError && error.status === 404) return <NotFound />;
    return error === null ? (
      <Loading what={say('the exercise')} />
    ) : (
      <Failed error={error} again={() => void file.refetch()} />
    );
  }
  const own = content.data.ownExercises.find((o) => o.key === key);
  if (key !== undefined && own === undefined) return <NotFound />;
  const slot = key ?? (from === null ? undefined : `from-${from}`);
  return (
    <SetAside what={say('The draft of an exercise')} aside={() => setDraftAside(slot)}>
      <Form
        key={`${from ?? ''}${own?.version ?? 0}`}
        content={content.data}
        start={file.data ?? null}
        own={own ?? null}
        slot={slot}
      />
    </SetAside>
  );
}

interface Begun {
  readonly id: string;
  readonly typed: Typed;
  readonly figure: FigureDefinition;
}

const stands = (content: ClinicContent, key: string): boolean =>
  content.exercises.find((e) => e.key === key)?.position === 'standing';

/** A figure to begin with where there is none yet: someone standing. */
function firstFigure(content: ClinicContent): FigureDefinition {
  const { exercise: _of, ...figure } = content.figures.find((f) => stands(content, f.exercise)) ??
    content.figures[0] ?? { exercise: '' };
  return figure as FigureDefinition;
}

/** Where the form begins: what was left here unsaved, else the exercise it is made from, else almost nothing. */
function begin(
  content: ClinicContent,
  start: ExerciseFile | null,
  own: { readonly id: string } | null,
  slot: string | undefined,
): Begun {
  const kept = storedDraft(slot);
  const keptFile = kept?.file as Partial<ExerciseFile & { typed: Typed }> | undefined;
  if (kept !== null && keptFile?.typed !== undefined && keptFile.figure !== undefined)
    return { id: kept.id, typed: keptFile.typed, figure: keptFile.figure };
  const given = start ?? (keptFile?.exercise === undefined ? null : (keptFile as ExerciseFile));
  const id = own?.id ?? kept?.id ?? crypto.randomUUID();
  if (given === null) return { id, typed: typedFrom(BLANK), figure: firstFigure(content) };
  const name =
    start === null || own !== null
      ? given.exercise.name
      : say('{{name}}, our way', { name: given.exercise.name });
  return { id, typed: typedFrom({ ...BLANK, ...given.exercise, name }), figure: given.figure };
}

function Form({
  content,
  start,
  own,
  slot,
}: {
  content: ClinicContent;
  start: ExerciseFile | null;
  own: { readonly id: string; readonly version: number; readonly retired: boolean } | null;
  slot: string | undefined;
}) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [begun] = useState(() => begin(content, start, own, slot));
  const [typed, setTyped] = useState(begun.typed);
  const [figure, setFigure] = useState(begun.figure);
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const hold = (nextTyped: Typed, nextFigure: FigureDefinition) => {
    setTyped(nextTyped);
    setFigure(nextFigure);
    keepDraft({ id: begun.id, file: { typed: nextTyped, figure: nextFigure } }, slot);
  };
  const send = async (retired: boolean) => {
    setBusy(true);
    setError(null);
    const file = { format: 'heathstep exercise', version: 1, exercise: writtenFrom(typed), figure };
    try {
      const made = await request<ExerciseDefinition>('POST', '/api/library/exercises', {
        id: begun.id,
        version: own?.version ?? 0,
        retired,
        file: { ...file, figure: { ...figure, exercise: 'own' } },
      });
      dropDraft(slot);
      await client.invalidateQueries({ queryKey: keys.content });
      await navigate(`/library/${made.key}`);
    } catch (failure) {
      if (!(failure instanceof ApiError)) throw failure;
      setError(failure);
      setBusy(false);
      window.scrollTo(0, 0);
    }
  };
  const leave = async () => {
    dropDraft(slot);
    await navigate(own === null ? '/library' : `/library/${slot ?? ''}`);
  };
  return (
    <main className="px-6 py-5">
      <EditorHead own={own} begun={begun} leave={leave} busy={busy} send={send} />
      {error !== null && <Problems error={error} />}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] gap-8">
        <Composer
          figure={figure}
          content={content}
          onChange={(next) => hold(typed, next)}
          error={errorsAt(error, '/file/figure')}
        />
        <div>
          <WordsForm typed={typed} content={content} error={error} onChange={(next) => hold(next, figure)} />
          <DoseForm typed={typed} error={error} onChange={(next) => hold(next, figure)} />
        </div>
      </div>
      <p className="mt-4 text-sm text-ink-2">
        {say(
          'Kept as not reviewed; the lead reviews each version on its page. What is typed stays on this device until it is kept.',
        )}{' '}
        <Link to="/library" className="text-action">
          {say('All exercises')}
        </Link>
      </p>
    </main>
  );
}

/** What is made or changed, and the ways out of it. */
function EditorHead({
  own,
  begun,
  leave,
  busy,
  send,
}: {
  own: { readonly id: string; readonly version: number; readonly retired: boolean } | null;
  begun: Begun;
  leave: () => Promise<void>;
  busy: boolean;
  send: (retired: boolean) => Promise<void>;
}) {
  return (
    <div className="flex items-baseline gap-6">
      <h1 className="flex-1">
        {own === null
          ? say('An exercise of our own')
          : say('Change {{name}}', { name: begun.typed.text.name })}
      </h1>
      <button type="button" className="text-action min-h-11" onClick={() => void leave()}>
        {say('Leave without keeping')}
      </button>
      {own !== null && (
        <button
          type="button"
          className="action-quiet min-h-11"
          disabled={busy}
          onClick={() => void send(!own.retired)}
        >
          {own.retired ? say('Offer again') : say('Put aside')}
        </button>
      )}
      <button
        type="button"
        className="action min-h-11"
        disabled={busy}
        onClick={() => void send(own?.retired ?? false)}
      >
        {own === null ? say('Keep') : say('Keep as version {{version}}', { version: own.version + 1 })}
      </button>
    </div>
  );
}

function Problems({ error }: { error: ApiError }) {
  const told = error.problem.errors ?? [];
  return (
    <div role="alert" className="mt-2 border-l-4 border-ease bg-ease-wash px-3 py-2 text-ease-deep">
      {error.passing
        ? say('{{message}}. What you typed is still here; try again.', { message: error.message })
        : error.status === 409
          ? say(
              'Someone else changed this exercise since you opened it. What you typed is still here; open it again in another window to compare.',
            )
          : told.length === 0
            ? error.message
            : say('Not kept yet: {{list}}.', {
                list: [...new Set(told.map((e) => `${fieldOf(e.pointer)} ${e.detail}`))]
                  .slice(0, 5)
                  .join('; '),
              })}
    </div>
  );
}

const fieldOf = (pointer: string): string =>
  pointer
    .replace(/^\/file\/(exercise\/)?/, '')
    .replaceAll('/', ' ')
    .replaceAll('-', ' ');
