import { ReadFile } from '../../../parts/ReadFile.js';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ProtocolView } from '@heathstep/contracts';
import {
  composePlan,
  type ProtocolDefinition,
  type ProtocolFile,
  shown,
  type Stage,
  writeProtocol,
  say,
} from '@heathstep/core';
import { ApiError, request } from '../../../api/client.js';
import { type ClinicContent, keys } from '../../../api/queries.js';
import { Refusal } from '../../../parts/fields.js';
import { useUndoKeys } from '../../../parts/useUndoKeys.js';
import { RadioRow } from '../../../parts/RadioRow.js';
import { Changes } from '../../../parts/Changes.js';
import { keepDraft, keptDraft } from './protocolDraft.js';
import { withStage } from './protocolEdit.js';
import { changesBetween } from './protocolLines.js';
import { StageEditor } from './StageEditor.js';
import { WholeEditor } from './WholeEditor.js';

interface EditorProps {
  readonly view: ProtocolView;
  readonly content: ClinicContent;
  readonly close: () => void;
}

const UNDO_STEPS = 100;
/** What is chosen to change what holds for every stage; no stage has this key. */
const WHOLE = '';

/** What is being changed, kept on this device until it is saved; every step can be taken back and taken again. */
function useEdited({ shipped, published, draft }: ProtocolView) {
  const [kept] = useState(() => keptDraft(shipped.key));
  const [edition, setEdition] = useState(kept?.edition ?? draft?.edition ?? 0);
  const [now, setNow] = useState<ProtocolDefinition>(
    kept?.protocol ?? draft?.definition ?? published?.definition ?? shipped,
  );
  const [before, setBefore] = useState<readonly ProtocolDefinition[]>([]);
  const [after, setAfter] = useState<readonly ProtocolDefinition[]>([]);
  const [unsaved, setUnsaved] = useState(kept !== null);
  const show = (protocol: ProtocolDefinition) => {
    setNow(protocol);
    setUnsaved(true);
    keepDraft(shipped.key, { edition, protocol });
  };
  return {
    now,
    edition,
    unsaved,
    change: (next: ProtocolDefinition) => {
      setBefore([...before.slice(-UNDO_STEPS), now]);
      setAfter([]);
      show(next);
    },
    undo:
      before.length === 0
        ? null
        : () => {
            setAfter([now, ...after]);
            setBefore(before.slice(0, -1));
            show(before.at(-1) ?? now);
          },
    redo:
      after.length === 0
        ? null
        : () => {
            setBefore([...before, now]);
            setAfter(after.slice(1));
            show(after[0] ?? now);
          },
    saved: (as: number, protocol: ProtocolDefinition) => {
      setEdition(as);
      setNow(protocol);
      setUnsaved(false);
      setBefore([]);
      setAfter([]);
      keepDraft(shipped.key, null);
    },
  };
}

/** Changes a protocol stage by stage; what it would fill for someone, and what differs, follows each change. */
export function ProtocolEditor({ view, content, close }: EditorProps) {
  const edited = useEdited(view);
  const { now } = edited;
  const [at, setAt] = useState<string>(now.stages[0]?.key ?? '');
  const stage = now.stages.find((s) => s.key === at) ?? now.stages[0];
  const send = useSaving(view, edited, close);
  useUndoKeys(
    () => edited.undo?.(),
    () => edited.redo?.(),
  );
  if (stage === undefined) return null;
  return (
    <div className="mt-4 grid grid-cols-[minmax(0,1fr)_20rem] gap-8">
      <div>
        <RadioRow
          label={say('Stage')}
          className="flex flex-wrap gap-1 border-b border-line"
          value={at === WHOLE ? WHOLE : stage.key}
          options={[
            { value: WHOLE, word: say('All stages') },
            ...now.stages.map((s) => ({ value: s.key as string, word: s.name })),
          ]}
          onChange={setAt}
          itemClass={(_, on) =>
            `min-h-11 border-b-2 px-3 ${on ? 'border-heather font-semibold text-heather-deep' : 'border-transparent text-ink-2'}`
          }
        />
        {at === WHOLE ? (
          <WholeEditor protocol={now} change={(change) => edited.change({ ...now, ...change })} />
        ) : (
          <StageEditor
            key={stage.key}
            stage={stage}
            protocol={now}
            content={content}
            change={(change) => edited.change(withStage(now, stage.key, change))}
          />
        )}
      </div>
      <aside aria-label={say('The draft')} className="sticky top-4 max-h-[92dvh] self-start overflow-y-auto">
        <div className="flex flex-wrap gap-3">
          <button type="button" className="action" disabled={send.busy} onClick={() => void send.save()}>
            {say('Save the draft')}
          </button>
          <button
            type="button"
            className="text-action min-h-11"
            disabled={edited.undo === null}
            onClick={() => edited.undo?.()}
          >
            {say('Undo')}
          </button>
          <button
            type="button"
            className="text-action min-h-11"
            disabled={edited.redo === null}
            onClick={() => edited.redo?.()}
          >
            {say('Redo')}
          </button>
        </div>
        <div className="flex flex-wrap gap-4 text-sm">
          <button type="button" className="text-action min-h-11" onClick={close}>
            {say('To the page')}
          </button>
          <ImportProtocol take={(file) => void send.save(file)} />
          <button type="button" className="text-action min-h-11" onClick={() => void send.discard()}>
            {say('Discard the draft')}
          </button>
        </div>
        <p className="min-h-5 text-sm text-ink-2" role="status">
          {edited.unsaved ? say('Changed on this device, not saved yet.') : ''}
        </p>
        <Refused error={send.error} protocol={now} />
        <SampleFilled stage={stage} protocol={now} content={content} />
        <Changes
          title={say('Changed against what is used now')}
          changes={changesBetween(view.published?.definition ?? view.shipped, now, content)}
        />
      </aside>
    </div>
  );
}

function useSaving(view: ProtocolView, edited: ReturnType<typeof useEdited>, close: () => void) {
  const client = useQueryClient();
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const path = `/api/library/protocols/${view.shipped.key}/draft`;
  const run = async (what: () => Promise<void>) => {
    setBusy(true);
    setError(null);
    try {
      await what();
      await client.invalidateQueries({ queryKey: keys.protocols });
    } catch (failure) {
      if (!(failure instanceof ApiError)) throw failure;
      setError(failure);
    }
    setBusy(false);
  };
  return {
    error,
    busy,
    /** Sends a file, the one in the editor where none is given; what is wrong with it comes back by its place. */
    save: (file: ProtocolFile = writeProtocol(edited.now)) =>
      run(async () => {
        const made = await request<ProtocolView>('PUT', path, { edition: edited.edition, file });
        if (made.draft !== null) edited.saved(made.draft.edition, made.draft.definition);
      }),
    discard: () =>
      run(async () => {
        await request('DELETE', path);
        keepDraft(view.shipped.key, null);
        close();
      }),
  };
}

/** What the check refused, each by the stage and slot it is in. */
function Refused({ error, protocol }: { error: ApiError | null; protocol: ProtocolDefinition }) {
  const place = (pointer: string): string => {
    const [, stage, slot] = /stages\/(\d+)(?:\/slots\/(\d+))?/.exec(pointer) ?? [];
    const at = protocol.stages[Number(stage)];
    const of = slot === undefined ? '' : `, ${at?.slots[Number(slot)]?.purpose.toLowerCase() ?? ''}`;
    return at === undefined ? '' : `${at.name}${of}: `;
  };
  const errors = error?.problem.errors ?? [];
  return (
    <>
      <Refusal error={error} />
      {errors.length > 0 && (
        <ul role="alert" className="text-sm text-ease-deep">
          {errors.map((e) => (
            <li key={`${e.pointer}${e.detail}`}>{`${place(e.pointer)}${e.detail}`}</li>
          ))}
        </ul>
      )}
    </>
  );
}

const SAMPLE = { minutesPerDay: 20, equipment: ['towel', 'belt', 'step', 'band'] } as const;

/** The stage as it would be filled for someone of whom nothing is measured yet. */
function SampleFilled({
  stage,
  protocol,
  content,
}: {
  stage: Stage;
  protocol: ProtocolDefinition;
  content: ClinicContent;
}) {
  const now = new Date().toISOString();
  const plan = composePlan(
    {
      stage,
      exercises: content.exercises,
      facts: { measures: [], sessions: [], skills: {}, stageSince: now, affected: 'left' },
      schools: Object.fromEntries(protocol.schools.map((s) => [s.key, s.default])),
      ...SAMPLE,
      tagsOff: { left: [], right: [] },
      drivers: [],
      now,
    },
    (key) => content.measures.find((m) => m.key === key),
  );
  const nameOf = (key: string) => content.exercises.find((e) => e.key === key)?.name ?? key;
  return (
    <section aria-label={say('Filled for someone')} className="mt-3 rounded-lg bg-paper p-4">
      <h2 className="text-lg">{say('Filled for someone')}</h2>
      <p className="text-sm text-ink-2">
        {say('Left side, nothing measured yet, {{minutesPerDay}} min a day, {{list}}.', {
          minutesPerDay: SAMPLE.minutesPerDay,
          list: SAMPLE.equipment.join(', '),
        })}
      </p>
      <ol className="mt-1 list-decimal pl-5 text-sm">
        {plan.exercises.map((e) => (
          <li key={e.exercise}>
            {say('{{nameOf}}, {{value}} min', {
              nameOf: nameOf(e.exercise),
              value: shown(plan.minutes[e.exercise] ?? 0),
            })}
          </li>
        ))}
      </ol>
      {plan.left.length > 0 && (
        <ul className="mt-1 text-sm text-ink-2">
          {plan.left.map((l) => (
            <li key={l.exercise}>
              {say('Not {{nameOf}}: {{why}}', { nameOf: nameOf(l.exercise).toLowerCase(), why: l.why })}
            </li>
          ))}
        </ul>
      )}
      {plan.warnings.map((w) => (
        <p key={w} className="mt-1 text-sm text-hold-deep">
          {w}.
        </p>
      ))}
    </section>
  );
}

/** Takes a protocol file as the draft; it is checked before anything of it is shown or kept. */
function ImportProtocol({ take }: { take: (file: ProtocolFile) => void }) {
  return (
    <ReadFile
      word={say('Import a file')}
      label={say('Protocol file')}
      mostBytes={500_000}
      format="heathstep protocol"
      refusal={say('This file is not a protocol exported from here.')}
      take={(file) => take(file as ProtocolFile)}
    />
  );
}
