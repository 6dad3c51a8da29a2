import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { useUndoKeys } from '../../parts/useUndoKeys.js';
import { useNavigate } from 'react-router';
import type { CourseView, PlanView } from '@heathstep/contracts';
import {
  type ComposedExercise,
  followRound,
  type Stage,
  withBeyond,
  withinRange,
  say,
} from '@heathstep/core';
import { useArrival } from '../../parts/useArrival.js';
import { ApiError, request } from '../../api/client.js';
import type { DocumentStore, Versioned } from '../../api/documentStore.js';
import { sentDocument, useDocument } from '../../api/useDocument.js';
import { type ClinicContent, keys, useSession } from '../../api/queries.js';
import { SaveState, SaveTrouble } from '../../parts/SaveState.js';
import { Hint } from '../../parts/Hint.js';
import { AddExercise } from './AddExercise.js';
import { Frame } from './Frame.js';
import { Week } from './Week.js';
import { Lines } from './Lines.js';
import { Adjuncts, LeftOut } from './Beside.js';
import { AboutProtocol } from './AboutProtocol.js';
import { Confirm } from './Confirm.js';
import { Brings } from './Brings.js';
import { Blocked } from './Blocked.js';
import { allSteps, planModel, type PlanModel } from './planModel.js';
import { OverWeeks } from './OverWeeks.js';
import { Settings } from './Settings.js';
import { AddRoutine, KeepRoutine } from './Routines.js';
import { Sums } from './Sums.js';
import { useDraft } from './useDraft.js';

type Items = readonly ComposedExercise[];

const key = (planId: string): string => `heathstep.plan.${planId}`;

const readPlan = (plan: PlanView): Versioned<Items> => ({ value: plan.items, version: plan.version });

const useItems = (plan: PlanView): DocumentStore<Items> =>
  useDocument<Items>(key(plan.id), readPlan(plan), (items, version) =>
    sentDocument(() => request<PlanView>('PUT', `/api/plans/${plan.id}`, { version, items }), readPlan),
  );

/** A plan after an edit: rounds hold, and what leaves one has its own safe dose again. */
const edited = (before: Items, after: Items, content: ClinicContent): Items =>
  followRound(before, after, (item) => {
    const exercise = content.exercises.find((e) => e.key === item.exercise);
    return exercise === undefined ? item : withinRange(item, exercise);
  }).map((item) => {
    const exercise = content.exercises.find((e) => e.key === item.exercise);
    return exercise === undefined ? item : withBeyond(item, exercise);
  });

/** The plan being made: doses edited in place, sums following, given when it is right. */
export function Draft({
  course,
  content,
  draft,
  blocked,
}: {
  course: CourseView;
  content: ClinicContent;
  draft: PlanView;
  blocked: readonly string[];
}) {
  const store = useItems(draft);
  const stage = draft.madeOf;
  const model = planModel(store.value, course, content, stage);
  const change = (items: Items) => store.set(edited(store.value, items, content));
  const [asking, setAsking] = useState(false);
  // More than the planner's own: a copy of what the patient has, or changed since.
  const byHand =
    course.episode.plan !== null || draft.version > 1 || store.canUndo || store.status !== 'saved';
  return (
    <Frame
      course={course}
      content={content}
      stage={draft.stage}
      aside={
        <Aside
          course={course}
          content={content}
          draft={draft}
          stage={stage}
          store={store}
          model={model}
          blocked={blocked}
          {...(byHand ? { askFirst: () => setAsking(true) } : {})}
        />
      }
    >
      <DraftHead
        number={draft.number}
        store={store}
        change={change}
        steps={{
          easier: allSteps(model, -1, { course, content, stage }),
          harder: allSteps(model, 1, { course, content, stage }),
        }}
      />
      <Settings course={course} draft={draft} byHand={byHand} asking={asking} ask={setAsking} />
      {blocked.length > 0 && (
        <div className="my-4">
          <Blocked reasons={blocked} episodeId={course.episode.id} />
        </div>
      )}
      <Hint of="dose" />
      <Lines
        model={model}
        course={course}
        content={content}
        stage={stage}
        previous={course.episode.plan?.items ?? null}
        onChange={change}
        errors={store.errors}
      />
      {model.lines.length > 0 && (
        <Week
          model={model}
          modelOf={(items) => planModel(items, course, content, stage)}
          onChange={change}
          episode={course.episode}
        />
      )}
      {model.lines.length === 0 && (
        <p className="py-6 text-ink-2">
          {say(
            'No exercise fits. The reasons stand at the right; more minutes, other equipment or a safety result may change that.',
          )}
        </p>
      )}
      <AddMore course={course} content={content} model={model} store={store} />
      <OverWeeks course={course} planned={draft.stage} />
    </Frame>
  );
}

/** What is added by hand: an exercise, or a ready set of them. */
function AddMore({
  course,
  content,
  model,
  store,
}: {
  course: CourseView;
  content: ClinicContent;
  model: PlanModel;
  store: DocumentStore<Items>;
}) {
  const [adding, setAdding] = useState<'exercise' | 'routine' | null>(null);
  const close = () => setAdding(null);
  const add = (items: Items) => {
    store.set([...store.value, ...items]);
    close();
  };
  if (adding === 'exercise')
    return (
      <AddExercise
        course={course}
        content={content}
        lines={model.lines}
        add={(item) => add([item])}
        close={close}
      />
    );
  if (adding === 'routine')
    return <AddRoutine course={course} content={content} items={store.value} add={add} close={close} />;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-6">
      <button type="button" className="text-action min-h-11" onClick={() => setAdding('exercise')}>
        {say('Add an exercise')}
      </button>
      <button type="button" className="text-action min-h-11" onClick={() => setAdding('routine')}>
        {say('Add a routine')}
      </button>
      <KeepRoutine items={store.value} />
    </div>
  );
}

/** Which draft it is, whether it is saved, one step back, and what to do when someone else changed it. */
function DraftHead({
  number,
  store,
  change,
  steps,
}: {
  number: number;
  store: DocumentStore<Items>;
  change: (items: Items) => void;
  /** The plan with every exercise a rung down, and up. */
  steps: { readonly easier: Items; readonly harder: Items };
}) {
  const back = useCallback(() => store.undo(), [store]);
  const again = useCallback(() => store.redo(), [store]);
  useUndoKeys(back, again);
  const same = (items: Items) => items.every((item, i) => item.exercise === store.value[i]?.exercise);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2>{say('At home, from today')}</h2>
        <span className="text-sm text-ink-2">{say('draft of version {{number}}', { number })}</span>
        <div className="flex-1" />
        {(['easier', 'harder'] as const).map((way) => (
          <button
            key={way}
            type="button"
            className="text-action text-sm disabled:opacity-50"
            disabled={same(steps[way])}
            onClick={() => change(steps[way])}
          >
            {say('All {{way}}', { way: say(way) })}
          </button>
        ))}
        <button
          type="button"
          className="text-action text-sm disabled:opacity-50"
          disabled={!store.canUndo}
          onClick={() => store.undo()}
        >
          {say('Undo')}
        </button>
        <button
          type="button"
          className="text-action text-sm disabled:opacity-50"
          disabled={!store.canRedo}
          onClick={() => store.redo()}
        >
          {say('Redo')}
        </button>
        <SaveState status={store.status} />
      </div>
      <SaveTrouble status={store.status} retry={() => store.retry()} />
      {store.status === 'conflict' && (
        <p className="mt-2 flex gap-4 rounded bg-hold-wash px-3 py-2 text-sm" role="alert">
          {say('Someone else changed this plan.')}
          <button type="button" className="text-action" onClick={() => store.resolve('mine')}>
            {say('Keep mine')}
          </button>
          <button type="button" className="text-action" onClick={() => store.resolve('theirs')}>
            {say('Keep theirs')}
          </button>
        </p>
      )}
    </>
  );
}

interface AsideProps {
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly draft: PlanView;
  readonly stage: Stage;
  readonly store: DocumentStore<Items>;
  readonly model: ReturnType<typeof planModel>;
  readonly blocked: readonly string[];
  /** Shows what filling anew would change, where that would lose something. */
  readonly askFirst?: () => void;
}

function Aside({ course, content, draft, stage, store, model, blocked, askFirst }: AsideProps) {
  const { episode } = course;
  const client = useQueryClient();
  const session = useSession();
  const navigate = useNavigate();
  const refill = useDraft(course);
  const give = useMutation({
    mutationFn: async () => {
      await store.flush();
      return request<PlanView>('POST', `/api/plans/${draft.id}/give`, { version: store.version });
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.course(episode.id) });
      await navigate(`/episodes/${episode.id}/plan`);
    },
  });
  const arrival = useArrival();
  const first = episode.person.name.split(' ')[0] ?? '';
  const mayGive = session.data?.user.role !== 'assistant';
  const nameOf = (exercise: string) => content.exercises.find((e) => e.key === exercise)?.name ?? exercise;
  return (
    <>
      <Sums model={model} course={course} stage={stage} />
      <div ref={arrival} tabIndex={-1} className="mt-5 border-t border-line pt-4">
        {mayGive ? (
          <button
            type="button"
            className="action w-full"
            disabled={
              blocked.length > 0 || store.status !== 'saved' || model.lines.length === 0 || give.isPending
            }
            onClick={() => give.mutate()}
          >
            {say('Give to {{first}}', { first })}
          </button>
        ) : (
          <p className="text-sm text-ink-2">{say('A clinician gives the plan.')}</p>
        )}
        {give.error instanceof ApiError && (
          <p role="alert" className="mt-2 text-sm text-ease-deep">
            {[give.error.message, ...(give.error.problem.errors ?? []).map((e) => e.detail)].join('. ')}
          </p>
        )}
        <button
          type="button"
          className="text-action mt-3 min-h-9 text-sm"
          disabled={refill.isPending}
          onClick={askFirst ?? (() => refill.mutate({ stage: draft.stage, from: 'stage' }))}
        >
          {say('Fill the stage anew')}
        </button>
        <p className="mt-3 text-xs text-ink-3">
          {say('Protocol version {{version}}. Check against local rules; the decision is yours.', {
            version: course.protocol.version,
          })}
        </p>
      </div>
      <LeftOut
        left={draft.left
          .filter((l) => model.lines.every((line) => line.exercise.key !== l.exercise))
          .map((l) => ({ name: nameOf(l.exercise), why: l.why }))}
      />
      <Confirm course={course} content={content} />
      <Brings course={course} draft={draft} nameOf={nameOf} />
      <Adjuncts course={course} stage={stage} />
      <AboutProtocol protocol={course.protocol} />
    </>
  );
}
