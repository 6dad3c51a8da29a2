import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Volume2, VolumeX, X } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { EpisodeView } from '@heathstep/contracts';
import {
  doseSentence,
  type ExerciseDefinition,
  type FigureDefinition,
  prescribe,
  type Prescription,
  sentenceText,
  type Side,
  say,
} from '@heathstep/core';
import { request } from '../../api/client.js';
import { keys, useContent, useCourse } from '../../api/queries.js';
import { Failed, Loading, NotFound } from '../../parts/Waiting.js';
import { Figure } from '../../parts/Figure.js';
import { type Beat, beatAt, beatsOf, momentOf, wordOf } from '../../parts/pacer/beats.js';
import { usePacerClock } from '../../parts/pacer/pacerClock.js';
import { Ring } from '../../parts/pacer/Ring.js';
import { SideSwitch } from '../../parts/SideSwitch.js';

/** An exercise taught in the room: the figure large, the pacer beside it, and the faults that are seen. */
export function Teach() {
  const { key = '' } = useParams();
  const [query] = useSearchParams();
  const episodeId = query.get('episode');
  return episodeId === null ? (
    <Alone exerciseKey={key} />
  ) : (
    <WithPatient exerciseKey={key} episodeId={episodeId} />
  );
}

function Alone({ exerciseKey }: { exerciseKey: string }) {
  return <Room exerciseKey={exerciseKey} episode={null} />;
}

function WithPatient({ exerciseKey, episodeId }: { exerciseKey: string; episodeId: string }) {
  const course = useCourse(episodeId);
  if (course.data === undefined)
    return course.error === null ? (
      <Loading what={say('the exercise')} />
    ) : (
      <Failed error={course.error} again={() => void course.refetch()} />
    );
  return <Room exerciseKey={exerciseKey} episode={course.data.episode} />;
}

function Room({ exerciseKey, episode }: { exerciseKey: string; episode: EpisodeView | null }) {
  const content = useContent();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what={say('the exercise')} />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  const exercise = content.data.exercises.find((e) => e.key === exerciseKey);
  const figure = content.data.figures.find((f) => f.exercise === exerciseKey);
  if (exercise === undefined || figure === undefined) return <NotFound />;
  return <Lesson exercise={exercise} figure={figure} episode={episode} />;
}

/** Seconds to get ready in the room. */
const READY = 3;

/** The dose of the person's plan where it has the exercise, else the exercise's own; on the side shown. */
function prescribed(exercise: ExerciseDefinition, episode: EpisodeView | null, side: Side): Prescription {
  const items = episode?.draft?.items ?? episode?.plan?.items ?? [];
  const own = prescribe(exercise, { slot: '', sideRule: 'treated', affected: side });
  return { ...(items.find((i) => i.exercise === exercise.key) ?? own), sides: own.sides };
}

/** Writes into the record what was taught and what was seen; the same lesson is never written twice. */
function useKeepTaught(
  episode: EpisodeView | null,
  taught: { exercise: string; side: Side | 'both'; reps: number; faults: readonly string[] },
  done: () => unknown,
) {
  const client = useQueryClient();
  const [id] = useState(() => crypto.randomUUID());
  return useMutation({
    mutationFn: () =>
      request<EpisodeView>('POST', `/api/episodes/${episode?.id ?? ''}/taught`, {
        ...taught,
        id,
        reps: Math.min(300, taught.reps),
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.course(episode?.id ?? '') });
      await done();
    },
  });
}

function Lesson({
  exercise,
  figure,
  episode,
}: {
  exercise: ExerciseDefinition;
  figure: FigureDefinition;
  episode: EpisodeView | null;
}) {
  const navigate = useNavigate();
  const [side, setSide] = useState<Side>(episode?.affected === 'left' ? 'left' : 'right');
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [reps, setReps] = useState(0);
  const [run, setRun] = useState(0);
  const [sound, setSound] = useState(true);
  const both = exercise.laterality === 'together';
  const item = prescribed(exercise, episode, side);
  const back = useCallback(
    () => navigate(episode === null ? `/library/${exercise.key}` : `/episodes/${episode.id}/plan`),
    [navigate, episode, exercise.key],
  );
  const save = useKeepTaught(
    episode,
    { exercise: exercise.key, side: both ? 'both' : side, reps, faults },
    back,
  );
  const nothing = episode === null || (faults.length === 0 && reps === 0);
  const leave = useCallback(() => void back(), [back]);
  const toggle = useCallback(
    (fault: string) =>
      setFaults((now) => (now.includes(fault) ? now.filter((f) => f !== fault) : [...now, fault])),
    [],
  );
  useLessonKeys(exercise, toggle, setSide);
  return (
    <main className="fixed inset-0 z-40 flex flex-col overflow-auto bg-paper px-8 py-5">
      <LessonHead
        title={exercise.name}
        line={`${sentenceText(doseSentence(item, exercise))}${episode === null ? '' : say(' For {{name}}.', { name: episode.person.name })}`}
        side={side}
        setSide={setSide}
        sound={sound}
        setSound={setSound}
        leave={leave}
      />
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1.7fr)_minmax(20rem,1fr)] gap-8 pt-3">
        {run === 0 ? (
          <Waiting
            exercise={exercise}
            figure={figure}
            side={side}
            start={exercise.aim === 'aid' ? null : () => setRun(1)}
          />
        ) : (
          <Paced
            key={`${run}${side}`}
            item={{ ...item, sets: 1 }}
            exercise={exercise}
            figure={figure}
            side={side}
            sound={sound}
            counted={(n) => setReps((before) => before + n)}
            again={() => setRun(run + 1)}
          />
        )}
        <BesideIt
          exercise={exercise}
          faults={faults}
          toggle={toggle}
          kept={episode !== null}
          error={save.error}
          end={
            nothing
              ? { word: say('Close'), disabled: false, press: leave }
              : {
                  word: say('Keep in the record and close'),
                  disabled: save.isPending,
                  press: () => save.mutate(),
                }
          }
        />
      </div>
    </main>
  );
}

/** What is said while it moves: steps, faults seen, when to stop, the cue that follows, and the end of it. */
function BesideIt({
  exercise,
  faults,
  toggle,
  kept,
  error,
  end,
}: {
  exercise: ExerciseDefinition;
  faults: readonly string[];
  toggle: (fault: string) => void;
  /** Whether there is a record to keep it in. */
  kept: boolean;
  error: Error | null;
  end: { readonly word: string; readonly disabled: boolean; readonly press: () => void };
}) {
  const cues = exercise.faults.filter((f) => faults.includes(f.fault)).map((f) => f.fix);
  return (
    <div className="flex flex-col">
      <ol className="list-decimal space-y-1 pl-7 text-2xl">
        {exercise.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      <p className="mt-3 text-lg">
        <b>{say('Should feel:')}</b> {exercise.feel.charAt(0).toLowerCase() + exercise.feel.slice(1)}.
      </p>
      <SeenFaults exercise={exercise} faults={faults} toggle={toggle} />
      <p className="mt-3 text-sm font-semibold text-ease-deep">
        {say('Stop with {{list}}.', { list: exercise.stops.join('; ') })}
      </p>
      <div className="flex-1" />
      {cues.length > 0 && (
        <p className="mt-3 text-lg">
          <b>{say('Cue on the handout:')}</b> {cues.join('; ')}.
        </p>
      )}
      {error !== null && (
        <p role="alert" className="text-ease-deep">
          {say('Not kept: {{message}}. Nothing is lost, try again.', { message: error.message })}
        </p>
      )}
      <button
        type="button"
        className="action mt-3 min-h-14 text-lg"
        disabled={end.disabled}
        onClick={end.press}
      >
        {end.word}
      </button>
      {!kept && faults.length > 0 && (
        <p className="mt-1 text-sm text-ink-2">
          {say('Not kept: opened from the library. Teach from a patient’s plan to keep it.')}
        </p>
      )}
    </div>
  );
}

/** The side by L and R, the faults by their numbers. */
function useLessonKeys(
  exercise: ExerciseDefinition,
  toggle: (fault: string) => void,
  setSide: (side: Side) => void,
): void {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const fault = exercise.faults[Number(e.key) - 1];
      if (fault !== undefined) toggle(fault.fault);
      else if (e.key === 'l' || e.key === 'L') setSide('left');
      else if (e.key === 'r' || e.key === 'R') setSide('right');
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [exercise, toggle, setSide]);
}

function LessonHead({
  title,
  line,
  side,
  setSide,
  sound,
  setSound,
  leave,
}: {
  title: string;
  line: string;
  side: Side;
  setSide: (side: Side) => void;
  sound: boolean;
  setSound: (on: boolean) => void;
  leave: () => void;
}) {
  return (
    <header className="flex items-start gap-6">
      <div className="flex-1">
        <h1 className="text-4xl">{title}</h1>
        <p className="text-lg text-ink-2">{line}</p>
      </div>
      <SideSwitch side={side} onChange={setSide} label={say('Side')} />
      <button
        type="button"
        className="inline-flex size-11 items-center justify-center"
        aria-label={sound ? say('Sound off') : say('Sound on')}
        onClick={() => setSound(!sound)}
      >
        {sound ? <Volume2 aria-hidden /> : <VolumeX aria-hidden />}
      </button>
      <button
        type="button"
        className="inline-flex size-11 items-center justify-center"
        aria-label={say('Leave without keeping')}
        onClick={leave}
      >
        <X aria-hidden />
      </button>
    </header>
  );
}

/** Faults as they are seen; one press each, or its number. */
function SeenFaults({
  exercise,
  faults,
  toggle,
}: {
  exercise: ExerciseDefinition;
  faults: readonly string[];
  toggle: (fault: string) => void;
}) {
  return (
    <>
      <h2 className="mt-4 text-base text-ink-2">{say('Seen just now')}</h2>
      <div className="mt-1 grid gap-1.5">
        {exercise.faults.map((f, i) => (
          <button
            key={f.fault}
            type="button"
            aria-pressed={faults.includes(f.fault)}
            className={`flex min-h-14 items-center gap-3 border-l-4 px-3 text-left text-xl ${faults.includes(f.fault) ? 'border-hold bg-hold-wash font-semibold' : 'border-line hover:bg-ground'}`}
            onClick={() => toggle(f.fault)}
          >
            <kbd className="w-6 font-head text-base text-ink-2">{i + 1}</kbd>
            <span className="flex-1">{say(f.fault)}</span>
            {faults.includes(f.fault) && <span className="text-base font-normal">{f.fix}</span>}
          </button>
        ))}
      </div>
    </>
  );
}

function Waiting({
  exercise,
  figure,
  side,
  start,
}: {
  exercise: ExerciseDefinition;
  figure: FigureDefinition;
  side: Side;
  start: (() => void) | null;
}) {
  return (
    <div className="flex min-h-0 flex-col">
      <Figure
        figure={figure}
        side={side}
        playing
        label={say('{{name}}, drawn on the {{side}}', { name: exercise.name, side: say(side) })}
        className="min-h-0 w-full flex-1"
      />
      {start !== null && (
        <button
          type="button"
          className="action mx-auto mt-3 min-h-14 min-w-64 text-lg"
          onClick={start}
          autoFocus
        >
          {say('Start the pacer')}
        </button>
      )}
    </div>
  );
}

/** Repetitions or holds finished by a second. */
const finishedReps = (beats: readonly Beat[], second: number): number =>
  new Set(
    beats
      .filter((b) => b.rep > 0)
      .map((b) => b.rep)
      .filter((rep) => beats.every((b) => b.rep !== rep || b.endSecond <= second)),
  ).size;

function Paced({
  item,
  exercise,
  figure,
  side,
  sound,
  counted,
  again,
}: {
  item: Prescription;
  exercise: ExerciseDefinition;
  figure: FigureDefinition;
  side: Side;
  sound: boolean;
  counted: (reps: number) => void;
  again: () => void;
}) {
  const [beats] = useState(() => beatsOf([{ item, exercise: { ...exercise, setupSeconds: READY } }]));
  const clock = usePacerClock(beats, sound);
  const [told, setTold] = useState(0);
  const done = finishedReps(beats, clock.second);
  useEffect(() => {
    if (done > told) {
      counted(done - told);
      setTold(done);
    }
  }, [done, told, counted]);
  const beat = beatAt(beats, clock.second) ?? beats[beats.length - 1];
  if (beat === undefined) return null;
  const share = (clock.second - beat.startSecond) / (beat.endSecond - beat.startSecond);
  const left = Math.max(0, Math.ceil(beat.endSecond - clock.second));
  const holds = item.tempo === undefined;
  return (
    <div className="flex min-h-0 flex-col">
      <Figure
        figure={figure}
        side={side}
        label={say('{{name}}, drawn on the {{side}}', { name: exercise.name, side: say(side) })}
        moment={momentOf(beat.kind, share)}
        className="min-h-0 w-full flex-1"
      />
      <div className="flex items-center justify-center gap-8 pt-2">
        <Ring share={share} rest={beat.kind === 'ready'}>
          <span className="font-head text-7xl font-semibold leading-none">
            {holds || beat.kind === 'ready' ? left : beat.rep}
          </span>
          <span className="text-lg text-ink-2">
            {beat.kind === 'ready'
              ? say('seconds')
              : holds
                ? say('hold {{rep}} of {{reps}}', { rep: beat.rep, reps: item.reps })
                : say('of {{reps}}', { reps: item.reps })}
          </span>
        </Ring>
        <p className="min-w-64 font-head text-5xl font-semibold text-heather-deep" aria-live="polite">
          {clock.finished ? say('Done') : wordOf(beat.kind, exercise)}
        </p>
        <button
          type="button"
          className="action min-h-14 min-w-36 text-lg"
          autoFocus
          onClick={clock.finished ? again : clock.running ? clock.pause : clock.go}
        >
          {clock.finished ? say('Again') : clock.running ? say('Pause') : say('Go on')}
        </button>
      </div>
    </div>
  );
}
