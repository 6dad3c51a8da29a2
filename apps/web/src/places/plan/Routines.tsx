import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useId, useState } from 'react';
import type { CourseView } from '@heathstep/contracts';
import {
  type ComposedExercise,
  fillRoutine,
  prescriptionTime,
  type RoutineDefinition,
  shown,
  say,
} from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useSession } from '../../api/queries.js';

type Items = readonly ComposedExercise[];

/** The most a plan can have. */
const MOST = 12;

interface RoutinesProps {
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly items: Items;
  readonly add: (items: Items) => void;
  readonly close: () => void;
}

/** Ready short sets to put beside what the plan has, each with what safety leaves of it and what it takes. */
export function AddRoutine({ course, content, items, add, close }: RoutinesProps) {
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label={say('Add a routine')}>
      <button type="button" className="text-action float-right min-h-11" onClick={close}>
        {say('Close')}
      </button>
      <p className="text-sm text-ink-2">
        {say(
          'Counted as relief or upkeep: doing one alone is no session of the plan, and nothing in it is raised.',
        )}
      </p>
      <ul className="mt-2">
        {content.routines.map((routine) => (
          <Routine
            key={routine.key}
            routine={routine}
            course={course}
            content={content}
            items={items}
            add={add}
          />
        ))}
      </ul>
    </section>
  );
}

function Routine({
  routine,
  course,
  content,
  items,
  add,
}: Omit<RoutinesProps, 'close'> & { readonly routine: RoutineDefinition }) {
  const { episode } = course;
  const exerciseOf = (key: string) => content.exercises.find((e) => e.key === key);
  const filled = fillRoutine(routine, {
    exerciseOf,
    affected: episode.affected,
    tagsOff: episode.tagsOff,
    supervised: episode.supervised,
    taken: [
      ...items.map((i) => i.exercise),
      ...episode.elsewhere.flatMap((c) => c.plan?.exercises.map((e) => e.key) ?? []),
    ],
    rounds: items.flatMap((i) => i.round?.key ?? []),
  });
  const seconds = filled.items.reduce((sum, item) => {
    const exercise = exerciseOf(item.exercise);
    const time = exercise === undefined ? null : prescriptionTime(item, exercise);
    return sum + (time?.ok === true ? time.value.daySeconds : 0);
  }, 0);
  const over = items.length + filled.items.length > MOST;
  const can = filled.items.length > 0 && !over;
  const own = content.ownRoutines.find((o) => o.key === routine.key);
  return (
    <li className="flex flex-wrap items-start gap-x-5 gap-y-1 border-b border-line-2 py-3">
      <div className="min-w-0 flex-1">
        <h3>{routine.name}</h3>
        <p className="text-sm text-ink-2">
          {own === undefined ? `${routine.purpose}.` : say('Kept by {{by}}.', { by: own.by })}{' '}
          {filled.items.map((i) => exerciseOf(i.exercise)?.name ?? i.exercise).join('; ')}
        </p>
        {routine.mind !== '' && <p className="text-sm">{`${routine.mind}.`}</p>}
        {filled.left.length > 0 && (
          <p className="text-sm text-hold-deep">
            {say('Left out: {{list}}.', {
              list: filled.left
                .map((l) => `${exerciseOf(l.exercise)?.name ?? l.exercise}, ${l.why}`)
                .join('; '),
            })}
          </p>
        )}
        {over && (
          <p className="text-sm text-hold-deep">
            {say('A plan has at most {{most}} exercises.', { most: MOST })}
          </p>
        )}
      </div>
      <span className="pt-0.5 font-semibold">{say('{{seconds}} min', { seconds: shown(seconds / 60) })}</span>
      <div className="flex flex-col items-end">
        <button
          type="button"
          className="text-action min-h-9 disabled:opacity-50"
          disabled={!can}
          aria-label={say('Add {{name}}', { name: routine.name })}
          onClick={() => add(filled.items)}
        >
          {say('Add')}
        </button>
        {own !== undefined && <PutAside id={own.id} name={routine.name} />}
      </div>
    </li>
  );
}

/** A routine of the clinic's own that is offered no more; plans that have it keep it. */
function PutAside({ id, name }: { id: string; name: string }) {
  const client = useQueryClient();
  const aside = useMutation({
    mutationFn: () => request('PUT', `/api/library/routines/${id}`, { retired: true }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.content }),
  });
  return (
    <button
      type="button"
      className="min-h-9 text-sm text-ink-2 hover:text-ease-deep"
      aria-label={say('Put {{name}} aside', { name })}
      disabled={aside.isPending}
      onClick={() => aside.mutate()}
    >
      {say('Put aside')}
    </button>
  );
}

/** Keeps what stands in the plan as a ready set for anyone of the clinic. */
export function KeepRoutine({ items }: { items: Items }) {
  const client = useQueryClient();
  const session = useSession();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [id, setId] = useState(() => crypto.randomUUID());
  const errorId = useId();
  const save = useMutation({
    mutationFn: () =>
      request('POST', '/api/library/routines', {
        id,
        name: name.trim(),
        items: items.map(({ why: _why, ...item }) => item),
      }),
    onSuccess: async () => {
      setId(crypto.randomUUID());
      setName('');
      setOpen(false);
      await client.invalidateQueries({ queryKey: keys.content });
    },
  });
  if (session.data?.user.role === 'assistant' || items.length === 0) return null;
  if (!open)
    return (
      <>
        <button type="button" className="text-action min-h-11" onClick={() => setOpen(true)}>
          {say('Keep as a routine')}
        </button>
        {save.isSuccess && (
          <span role="status" className="text-sm text-go-deep">
            {say('Kept: it stands under Add a routine.')}
          </span>
        )}
      </>
    );
  const error = save.error instanceof ApiError ? save.error : null;
  const told =
    error === null ? '' : (error.at('/name') ?? error.problem.errors?.[0]?.detail ?? error.message);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  return (
    <form className="flex flex-wrap items-end gap-3" onSubmit={submit} noValidate>
      <label>
        <span className="block text-sm text-ink-2">{say('Name of the routine')}</span>
        <input
          className="field w-56"
          value={name}
          maxLength={80}
          autoFocus
          aria-invalid={told !== ''}
          aria-describedby={errorId}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <button type="submit" className="text-action min-h-11" disabled={save.isPending}>
        {say('Keep')}
      </button>
      <button type="button" className="min-h-11 text-ink-2" onClick={() => setOpen(false)}>
        {say('Not now')}
      </button>
      <p id={errorId} role="alert" className="w-full text-sm text-ease-deep">
        {told}
      </p>
    </form>
  );
}
