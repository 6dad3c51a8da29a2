import { LAB_TASK_WORDS, LAB_TASKS, type LabTask, type RecordingKind, say, sayKey } from '@heathstep/core';
import { CAPTURE_PLANS, MAT_MISTAKES, MOTION_MISTAKES } from '@heathstep/core/lab';
import { useEffect, useRef, useState } from 'react';
import {
  CAPTURE_WEARING,
  CAPTURE_WEARING_WORDS,
  type CaptureView,
  type CaptureWearing,
  type EpisodeView,
  labMeasures,
} from '@heathstep/contracts';
import { ApiError, upload } from '../../api/client.js';
import { type ClinicContent, queryClient, useSession } from '../../api/queries.js';
import { dayHere } from '../../parts/dates.js';
import { SelectField, TextField } from '../../parts/fields.js';
import { type ChosenStretch, FromFile } from './FromFile.js';
import { LiveView } from './LiveView.js';
import { isUsable, type LabQuestion, type LabReading } from './reading.js';
import { Notes, Reading } from './Reading.js';
import { NotTakenError, runJob } from './runJob.js';
import { besideFor, notNow } from './notNow.js';
import { useLive } from './useLive.js';
import { INSTRUMENT_WORDS } from './words.js';

interface Choice {
  readonly kind: RecordingKind;
  readonly task: LabTask;
  readonly side: 'left' | 'right' | 'both';
  readonly wearing: CaptureWearing;
  readonly note: string;
}

const FIRST_CHOICE: Choice = {
  kind: 'pressure-mat',
  task: 'stance',
  side: 'both',
  wearing: 'barefoot',
  note: '',
};

/** A capture that is worked out and not yet kept. */
interface Fresh {
  readonly reading: LabReading;
  readonly packed: Blob;
  readonly from: 'device' | 'file';
  readonly choice: Choice;
  readonly factor: number | null;
}

const oneLegged = (task: LabTask): boolean => task === 'balance';

/** The mat's factor of a stance of this day, for tasks in which the weight is never whole on it. */
const factorOf = (captures: readonly CaptureView[], today: string): number | null =>
  captures.find(
    (c) => c.kind === 'pressure-mat' && c.task === 'stance' && c.factor !== null && dayHere(c.at) === today,
  )?.factor ?? null;

/** Which made-up person stands on a simulated instrument: the one that stood there before, else one of one's own. */
function whoOf(episodeId: string, captures: readonly CaptureView[]): number {
  const before = captures.map((c) => /made-up person (\d+)/.exec(c.device)?.[1]).find((n) => n !== undefined);
  return before === undefined ? (Number.parseInt(episodeId.slice(0, 6), 16) % 900) + 1 : Number(before);
}

interface NewCaptureProps {
  readonly episode: EpisodeView;
  readonly content: ClinicContent;
  readonly captures: readonly CaptureView[];
  readonly kept: (captures: readonly CaptureView[], id: string) => void;
  readonly leave: () => void;
}

/** How far the working out of a stretch is, and its ending before that: by hand, by another, or with the page. */
function useWorking() {
  const [progress, setProgress] = useState<number | null>(null);
  const control = useRef<AbortController | null>(null);
  useEffect(() => () => control.current?.abort(), []);
  const end = (): void => setProgress(null);
  return {
    progress,
    end,
    begin: (): { signal: AbortSignal; progress: (share: number) => void } => {
      control.current?.abort();
      control.current = new AbortController();
      setProgress(0);
      return { signal: control.current.signal, progress: setProgress };
    },
    cancel: (): void => {
      control.current?.abort();
      end();
    },
  };
}

/** What is chosen, the instrument or file it comes from, and what came of it. */
function useCapturing({ episode, captures }: Pick<NewCaptureProps, 'episode' | 'captures'>) {
  const session = useSession();
  const live = useLive();
  const [choice, setChoice] = useState<Choice>(FIRST_CHOICE);
  const [who, setWho] = useState(() => String(whoOf(episode.id, captures)));
  const [mistake, setMistake] = useState('');
  const [fresh, setFresh] = useState<Fresh | null>(null);
  const [fileError, setFileError] = useState<string | null>(null);
  const working = useWorking();
  const factor = factorOf(captures, episode.today);
  const question: LabQuestion = {
    task: choice.task,
    side: choice.side,
    massKg: episode.bodyMassKg,
    factor,
  };
  const base = session.data?.devicesUrl ?? null;
  const start = (): void => {
    if (base === null) return;
    setFresh(null);
    live.start({
      base,
      kind: choice.kind,
      task: choice.task,
      question,
      who: Math.max(1, Math.round(Number(who)) || 1),
      mistakes: mistake === '' ? [] : [mistake],
    });
  };
  const fromFile = async ({ file, from, seconds, over }: ChosenStretch): Promise<void> => {
    setFileError(null);
    const chosen = choiceOfFile(choice, over.header);
    setChoice(chosen);
    const { task, side } = chosen;
    try {
      const done = await runJob(
        { do: 'stretch', file, from, seconds, question: { ...question, task, side } },
        working.begin(),
      );
      if (done.packed !== null)
        setFresh({ reading: done.reading, packed: done.packed, from: 'file', choice: chosen, factor });
    } catch (error) {
      // Ended by who asked for it: nothing is wrong, and nothing is kept.
      if (error instanceof DOMException) return;
      setFileError(
        error instanceof NotTakenError
          ? say('Line {{line}}: {{reason}}', { line: error.line, reason: error.message })
          : say('This file could not be read'),
      );
    }
    working.end();
  };
  const { state } = live;
  const worked: Fresh | null =
    fresh ?? (state.at === 'done' ? { ...state, from: 'device', choice, factor } : null);
  const again = (): void => {
    setFresh(null);
    live.leave();
  };
  const simulated = { who, setWho, mistake, setMistake };
  return { choice, setChoice, base, live, worked, again, start, fromFile, fileError, working, simulated };
}

/** What a file says of itself goes before what was chosen. */
function choiceOfFile(choice: Choice, header: ChosenStretch['over']['header']): Choice {
  const { kind } = header;
  const task = header.task ?? choice.task;
  return {
    ...choice,
    kind,
    task: CAPTURE_PLANS[kind][task] === undefined ? 'walk' : task,
    side: header.side ?? choice.side,
  };
}

/** Takes a capture: what, from an instrument or a file, then kept or discarded. */
export function NewCapture({ episode, content, captures, kept, leave }: NewCaptureProps) {
  const capturing = useCapturing({ episode, captures });
  const { choice, live, worked } = capturing;
  const { state } = live;
  if (worked !== null)
    return (
      <Worked
        fresh={worked}
        episode={episode}
        content={content}
        kept={kept}
        again={capturing.again}
        leave={leave}
      />
    );
  if (state.at === 'running')
    return (
      <section aria-label={say('Capture')} className="space-y-4">
        <LiveView seen={state.seen} />
        <div className="flex gap-3">
          <button type="button" className="action" onClick={live.stop}>
            {say('Stop')}
          </button>
          <button type="button" className="text-action min-h-11" onClick={live.leave}>
            {say('Leave it')}
          </button>
        </div>
      </section>
    );
  const beside = besideFor(choice.task, choice.side, content, episode.supervised);
  const off = notNow(choice.task, choice.side, content, episode);
  return (
    <section aria-label={say('New capture')} className="max-w-3xl space-y-4">
      <h2>{say('New capture')}</h2>
      {captures.length === 0 && (
        <p className="text-ink-2">
          {say(
            'Nothing is captured yet. A stance on the mat comes first: by it and the weight the mat is set right for the day.',
          )}
        </p>
      )}
      <Choices choice={choice} setChoice={capturing.setChoice} content={content} episode={episode} />
      {off !== null && (
        <p role="alert" className="font-semibold text-ease-deep">
          {off}
        </p>
      )}
      {beside !== null && <p className="font-semibold text-hold-deep">{beside}</p>}
      {episode.bodyMassKg === null && choice.kind === 'pressure-mat' && (
        <p className="text-sm text-hold-deep">
          {say(
            'The body mass is not known: it is asked in the story of a visit. Shares are right without it; newton and kPa are not set right.',
          )}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-4">
        <button
          type="button"
          className="action"
          disabled={
            capturing.base === null || off !== null || state.at === 'connecting' || state.at === 'working'
          }
          onClick={capturing.start}
        >
          {state.at === 'connecting'
            ? say('Connecting')
            : state.at === 'working'
              ? say('Working it out')
              : say('Start')}
        </button>
        <span className="text-sm text-ink-2">{say('or')}</span>
        <FromFile chosen={(s) => void capturing.fromFile(s)} />
        <button type="button" className="text-action min-h-11" onClick={leave}>
          {say('Leave it')}
        </button>
      </div>
      <Troubles capturing={capturing} />
      <Simulated kind={choice.kind} {...capturing.simulated} />
    </section>
  );
}

/** What keeps a capture from being taken, each with the next step. */
function Troubles({ capturing }: { capturing: ReturnType<typeof useCapturing> }) {
  const { working, fileError, base, live } = capturing;
  const { state } = live;
  return (
    <>
      {working.progress !== null && (
        <div role="status" className="flex items-center gap-3 text-sm">
          <span>{say('Working it out')}</span>
          <progress value={working.progress} max={1} aria-label={say('Working it out')} />
          <button type="button" className="text-action min-h-11" onClick={working.cancel}>
            {say('Cancel')}
          </button>
        </div>
      )}
      {fileError !== null && (
        <p role="alert" className="text-ease-deep">
          {fileError}
        </p>
      )}
      {base === null && <p className="text-sm text-ink-2">{say('No device service on this machine.')}</p>}
      {state.at === 'failed' && (
        <p role="alert" className="text-ease-deep">
          {say('The instrument did not answer. Is it on, and its service started?')}
        </p>
      )}
      {state.at === 'broken' && (
        <p role="alert" className="text-ease-deep">
          {say('Broken off: {{reason}}. Nothing of it is kept.', { reason: state.reason })}
        </p>
      )}
    </>
  );
}

function Choices({
  choice,
  setChoice,
  content,
  episode,
}: {
  choice: Choice;
  setChoice: (c: Choice) => void;
  content: ClinicContent;
  episode: EpisodeView;
}) {
  const tasks = LAB_TASKS.filter((t) => CAPTURE_PLANS[choice.kind][t] !== undefined);
  const kind = (value: string): void => {
    const next: RecordingKind = value === 'motion-pair' ? 'motion-pair' : 'pressure-mat';
    const task = CAPTURE_PLANS[next][choice.task] === undefined ? 'walk' : choice.task;
    setChoice({ ...choice, kind: next, task });
  };
  const chooseTask = (task: LabTask): void =>
    setChoice({
      ...choice,
      task,
      // One leg stands: the one that is treated, unless both are.
      side: oneLegged(task)
        ? episode.affected === 'right'
          ? 'right'
          : 'left'
        : task === 'raise'
          ? choice.side
          : 'both',
    });
  const sides =
    choice.task === 'balance'
      ? (['left', 'right'] as const)
      : choice.task === 'raise'
        ? (['both', 'left', 'right'] as const)
        : (['both'] as const);
  return (
    <div className="grid grid-cols-2 gap-4 max-sm:grid-cols-1">
      <SelectField
        label={say('Instrument')}
        value={choice.kind}
        onChange={kind}
        options={(['pressure-mat', 'motion-pair'] as const).map((k) => [k, INSTRUMENT_WORDS[k]] as const)}
      />
      <SelectField
        label={say('What is done')}
        value={choice.task}
        onChange={(t) => chooseTask(LAB_TASKS.find((k) => k === t) ?? 'stance')}
        options={tasks.map((t) => {
          const off = notNow(t, 'both', content, episode);
          return [
            t,
            off === null ? say(LAB_TASK_WORDS[t]) : `${say(LAB_TASK_WORDS[t])} (${say('not now')})`,
          ] as const;
        })}
      />
      <SelectField
        label={say('Which foot')}
        value={choice.side}
        onChange={(s) => setChoice({ ...choice, side: s === 'left' || s === 'right' ? s : 'both' })}
        options={sides.map((s) => [s, s === 'both' ? say('both feet') : say(s)] as const)}
      />
      <SelectField
        label={say('On the foot')}
        value={choice.wearing}
        onChange={(w) =>
          setChoice({ ...choice, wearing: CAPTURE_WEARING.find((k) => k === w) ?? 'barefoot' })
        }
        options={CAPTURE_WEARING.map((w) => [w, say(CAPTURE_WEARING_WORDS[w])] as const)}
      />
      <TextField
        label={say('Note')}
        wide
        value={choice.note}
        maxLength={200}
        onChange={(note) => setChoice({ ...choice, note })}
        hint={say('which insole, which cue; optional')}
      />
    </div>
  );
}

/** A simulated instrument can be given another made-up person, and go wrong on purpose; a real one takes no notice. */
function Simulated({
  kind,
  who,
  setWho,
  mistake,
  setMistake,
}: {
  kind: RecordingKind;
  who: string;
  setWho: (v: string) => void;
  mistake: string;
  setMistake: (v: string) => void;
}) {
  const mistakes = kind === 'pressure-mat' ? MAT_MISTAKES : MOTION_MISTAKES;
  return (
    <details className="text-sm">
      <summary className="min-h-8 text-ink-2">{say('With a simulated instrument')}</summary>
      <div className="mt-1 grid max-w-md grid-cols-2 gap-4">
        <TextField
          label={say('Made-up person, number')}
          type="number"
          min={1}
          value={who}
          onChange={setWho}
        />
        <SelectField
          label={say('play a mistake')}
          value={(mistakes as readonly string[]).includes(mistake) ? mistake : ''}
          onChange={setMistake}
          options={[['', say('none')] as const, ...mistakes.map((m) => [m, sayKey(m)] as const)]}
        />
      </div>
    </details>
  );
}

/** A capture that is worked out: looked at, then kept, taken again or left. */
function Worked({
  fresh,
  episode,
  content,
  kept,
  again,
  leave,
}: Pick<NewCaptureProps, 'episode' | 'content' | 'kept' | 'leave'> & { fresh: Fresh; again: () => void }) {
  const [id] = useState(() => crypto.randomUUID());
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const { reading, packed, from, choice } = fresh;
  const usable = isUsable(reading);
  const keepIt = async (): Promise<void> => {
    setBusy(true);
    setError(null);
    const factor = choice.kind === 'pressure-mat' && reading.weighed ? reading.factor : fresh.factor;
    const query = new URLSearchParams({
      task: choice.task,
      side: choice.side,
      wearing: choice.wearing,
      from,
      note: choice.note,
      ...(episode.bodyMassKg === null ? {} : { mass: String(Math.round(episode.bodyMassKg * 10) / 10) }),
      ...(factor === null ? {} : { factor: factor.toFixed(6) }),
    });
    try {
      const captures = await upload<CaptureView[]>(
        `/api/episodes/${episode.id}/captures/${id}?${query.toString()}`,
        packed,
      );
      queryClient.setQueryData(['reading', id], reading);
      kept(captures, id);
    } catch (failure) {
      setError(
        failure instanceof ApiError
          ? (failure.problem.errors?.[0]?.detail ?? failure.message)
          : say('It could not be kept'),
      );
      setBusy(false);
    }
  };
  return (
    <section aria-label={say('Capture')} className="space-y-4">
      <h2>{usable ? say('Keep this capture?') : say('This capture cannot be used')}</h2>
      {!usable && <Notes reading={reading} />}
      <div className="flex flex-wrap gap-3">
        <button type="button" className="action" disabled={!usable || busy} onClick={() => void keepIt()}>
          {say('Keep')}
        </button>
        <button type="button" className="action-quiet" onClick={again}>
          {say('Capture again')}
        </button>
        <button type="button" className="text-action min-h-11" onClick={leave}>
          {say('Discard')}
        </button>
      </div>
      {error !== null && (
        <p role="alert" className="text-ease-deep">
          {error}
        </p>
      )}
      {usable && (
        <Reading
          reading={reading}
          other={null}
          name=""
          measures={labMeasures(content.measures, choice.kind, choice.task)}
          affected={episode.affected}
          ageYears={episode.person.ageYears}
        />
      )}
    </section>
  );
}
