import { Volume2, VolumeX } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { ExerciseDefinition, FigureDefinition, Prescription } from '@heathstep/core';
import { doseSentence, sentenceText, variantOf } from '@heathstep/core';
import { drawnSide, Figure } from '../../parts/Figure.js';
import { Stepper } from './Stepper.js';
import { type Beat, beatAt, beatsOf, momentOf, wordOf } from '../../parts/pacer/beats.js';
import { type PacerClock, usePacerClock } from '../../parts/pacer/pacerClock.js';
import { Ring } from '../../parts/pacer/Ring.js';
import { type Done, progressAt, putRight } from './homeModel.js';
import { ElevenKeys, Title } from './pieces.js';
import { useReader } from './tongue.js';
import { useWakeLock } from './wakeLock.js';

/** One of what is done in turn. */
interface Turn {
  readonly item: Prescription;
  readonly exercise: ExerciseDefinition;
  readonly figure: FigureDefinition | null;
  /** Faults seen when it was taught. */
  readonly cues: readonly string[];
}

interface PacerProps {
  /** An exercise, or those of a round; at least one. */
  readonly turns: readonly Turn[];
  readonly number: number;
  readonly of: number;
  readonly finished: (done: readonly Done[]) => void;
  readonly leave: () => void;
  readonly skip: () => void;
  /** What hurts, and what of a round was done before it did. */
  readonly hurts: (exercise: string, done: readonly Done[]) => void;
}

/** The exercise with the faults first that were seen when it was taught: their fixes are the patient's own cue. */
const ownFirst = (turn: Turn): Turn => {
  const seen = (f: { readonly fault: string }) => turn.cues.includes(f.fault);
  const { faults } = turn.exercise;
  return {
    ...turn,
    exercise: { ...turn.exercise, faults: [...faults.filter(seen), ...faults.filter((f) => !seen(f))] },
  };
};

/** How far each of what is done in turn has come. */
interface Came {
  readonly sets: number;
  readonly reps: number;
}

/** Introduces the exercise, or each of a round, paces it, then takes what was done and how hard it was. */
export function Pacer({ turns: given, number, of, finished, leave, skip, hurts }: PacerProps) {
  const t = useReader();
  // A round is what it was when it began, whatever arrives meanwhile.
  const [turns] = useState(() => given.map(ownFirst));
  const [stage, setStage] = useState<'intro' | 'run' | 'done'>('intro');
  const [at, setAt] = useState(0);
  const [came, setCame] = useState<readonly Came[]>([]);
  const [done, setDone] = useState<readonly Done[]>([]);
  const turn = turns[at];
  if (turn === undefined) return null;
  const { item, exercise } = turn;
  const others = turns.filter((o) => o !== turn).map((o) => t.inside(o.exercise.name));
  const show = (index: number) => {
    setAt(index);
    window.scrollTo(0, 0);
  };
  const begin = () => {
    if (exercise.aim === 'aid') finished([{ exercise: exercise.key, sets: 1, reps: 1, effort: null }]);
    else if (at + 1 < turns.length) show(at + 1);
    else {
      setStage('run');
      show(0);
    }
  };
  return (
    <div className="flex flex-1 flex-col px-5 pb-5 pt-5">
      <div className="flex items-center gap-3">
        <Dots number={number + (stage === 'run' ? 0 : at)} of={of} />
        <span className="text-base text-ink-2">
          {t.say('{{number}} of {{of}}', { number: number + (stage === 'run' ? 0 : at), of })}
        </span>
      </div>
      {stage !== 'run' && (
        <Title key={`${stage} ${exercise.key}`} className="mt-4 text-3xl">
          {exercise.name}
        </Title>
      )}
      {stage !== 'run' && others.length > 0 && (
        <p className="mt-1 text-base text-heather-deep">
          {t.say('In a round with {{list}}', { list: others.join(', ') })}
        </p>
      )}
      {stage === 'intro' && (
        <Intro
          key={exercise.key}
          item={item}
          exercise={exercise}
          figure={turn.figure}
          more={at + 1 < turns.length}
          start={begin}
          leave={leave}
          skip={skip}
        />
      )}
      {stage === 'run' && (
        <Run
          turns={turns}
          stop={(list) => {
            setCame(list);
            setStage('done');
            show(0);
          }}
          hurts={hurts}
        />
      )}
      {stage === 'done' && (
        <Finish
          key={exercise.key}
          item={item}
          result={came[at] ?? { sets: 0, reps: 0 }}
          save={(sets, reps, effort) => {
            const all = [...done, { exercise: exercise.key, sets, reps, effort }];
            if (at + 1 === turns.length) finished(all);
            else {
              setDone(all);
              show(at + 1);
            }
          }}
        />
      )}
    </div>
  );
}

/** How far the day has come. */
function Dots({ number, of }: { number: number; of: number }) {
  return (
    <div className="flex flex-1 gap-1.5" aria-hidden>
      {Array.from({ length: of }, (_, i) => (
        <span
          key={i}
          className={`h-1.5 flex-1 rounded-full ${i + 1 < number ? 'bg-ink' : i + 1 === number ? 'bg-heather' : 'bg-line'}`}
        />
      ))}
    </div>
  );
}

function Intro({
  item,
  exercise,
  figure,
  more,
  start,
  leave,
  skip,
}: {
  item: Prescription;
  exercise: ExerciseDefinition;
  figure: FigureDefinition | null;
  /** Whether another of the round is introduced after it. */
  more: boolean;
  start: () => void;
  leave: () => void;
  skip: () => void;
}) {
  const t = useReader();
  const way = variantOf(item, exercise);
  return (
    <>
      <p className="mt-1 font-semibold">{sentenceText(doseSentence(item, exercise, t))}</p>
      {figure !== null && (
        <Figure
          figure={figure}
          side={drawnSide(item.sides)}
          label={t.say('{{name}}, drawn', { name: exercise.name })}
          playing
          className="mt-3 h-60 w-full"
        />
      )}
      <ol className="mt-4 list-decimal space-y-1 pl-6 text-xl">
        {exercise.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
        {way !== null && <li>{way.how}</li>}
      </ol>
      <p className="mt-4">
        <b>{t.say('You should feel:')}</b> {t.inside(exercise.feel)}.
      </p>
      <ul className="mt-3 space-y-1">
        {exercise.faults.map((f) => (
          <li key={f.fault}>
            <b>{t.say('If {{fault}}:', { fault: f.fault })}</b> {f.fix}.
          </li>
        ))}
      </ul>
      {exercise.equipment.length > 0 && (
        <p className="mt-3 text-ink-2">{`${t.say('You need:')} ${exercise.equipment.join(', ')}.`}</p>
      )}
      <div className="flex-1" />
      <button type="button" className="action mt-6 min-h-16 w-full text-xl" onClick={start}>
        {more ? t.say('Next') : t.say(exercise.aim === 'aid' ? 'Done for today' : 'Start')}
      </button>
      <div className="mt-2 flex justify-between">
        <button type="button" className="text-action min-h-12" onClick={leave}>
          {t.say('Back to today')}
        </button>
        <button type="button" className="text-action min-h-12" onClick={skip}>
          {t.say('Not this one today')}
        </button>
      </div>
    </>
  );
}

function Run({
  turns,
  stop,
  hurts,
}: {
  turns: readonly Turn[];
  stop: (came: readonly Came[]) => void;
  hurts: PacerProps['hurts'];
}) {
  const t = useReader();
  const [beats] = useState(() => beatsOf(turns));
  const [sound, setSound] = useState(true);
  const clock: PacerClock = usePacerClock(beats, sound);
  useWakeLock();
  const { finished } = clock;
  useEffect(() => {
    if (finished) stop(turns.map(({ item }) => ({ sets: item.sets, reps: item.reps })));
  }, [finished, stop, turns]);
  const beat = beatAt(beats, clock.second) ?? beats[beats.length - 1];
  const turn = turns[beat?.turn ?? 0];
  if (beat === undefined || turn === undefined) return null;
  const { item, exercise, figure } = turn;
  const between = beat.kind === 'rest' || beat.kind === 'ready';
  const side = beat.side === 'both' ? null : beat.side;
  const soFar = () => turns.map((of, i) => progressAt(beats, clock.second, of.item, i));
  return (
    <>
      <Title className="mt-4 text-3xl">{exercise.name}</Title>
      <p className="mt-1">
        {between && turns.length > 1 && <b>{t.say('Next')}: </b>}
        {side !== null && (
          <b style={{ color: `var(--color-${side})` }}>
            {t.say(side === 'left' ? 'L Left foot' : 'R Right foot')},{' '}
          </b>
        )}
        {t.say(turns.length > 1 ? 'round {{set}} of {{sets}}' : 'set {{set}} of {{sets}}', {
          set: beat.set,
          sets: item.sets,
        })}
      </p>
      {figure !== null && (
        <Figure
          figure={figure}
          side={side ?? drawnSide(item.sides)}
          label={t.say('{{name}}, drawn', { name: exercise.name })}
          moment={momentOf(
            beat.kind,
            (clock.second - beat.startSecond) / (beat.endSecond - beat.startSecond),
          )}
          className="mt-2 h-[19dvh] w-full"
        />
      )}
      <BeatNow beat={beat} second={clock.second} item={item} exercise={exercise} />
      <p className="mt-3 border-t border-line pt-3 text-xl">
        {exercise.faults[0] === undefined
          ? exercise.feel
          : `${exercise.faults[0].fix.charAt(0).toUpperCase()}${exercise.faults[0].fix.slice(1)}`}
      </p>
      <div className="flex-1" />
      <Controls
        clock={clock}
        sound={sound}
        setSound={setSound}
        next={between ? beat.endSecond : null}
        end={() => stop(soFar())}
        hurts={() => hurts(exercise.key, doneBefore(turns, soFar(), exercise.key))}
      />
    </>
  );
}

/** What of a round was done before something else of it hurt. */
const doneBefore = (turns: readonly Turn[], came: readonly Came[], hurting: string): readonly Done[] =>
  turns.flatMap(({ exercise: { key } }, i) => {
    const { sets, reps } = came[i] ?? { sets: 0, reps: 0 };
    return key === hurting || sets === 0 ? [] : [{ exercise: key, sets, reps, effort: null }];
  });

/** Where the beat is: the ring, the count or the seconds left, and the word for what moves. */
function BeatNow({
  beat,
  second,
  item,
  exercise,
}: {
  beat: Beat;
  second: number;
  item: Prescription;
  exercise: ExerciseDefinition;
}) {
  const t = useReader();
  const left = Math.max(0, Math.ceil(beat.endSecond - second));
  const between = beat.kind === 'rest' || beat.kind === 'ready';
  const holds = item.tempo === undefined;
  return (
    <div className="mt-3 flex flex-col items-center">
      <Ring share={(second - beat.startSecond) / (beat.endSecond - beat.startSecond)} rest={between}>
        <span className="font-head text-7xl font-semibold leading-none">
          {between ? left : holds ? left : beat.rep}
        </span>
        <span className="text-lg text-ink-2">
          {between
            ? t.say('seconds')
            : t.say(holds ? 'hold {{rep}} of {{reps}}' : 'of {{reps}}', { rep: beat.rep, reps: item.reps })}
        </span>
      </Ring>
      <p className="mt-4 font-head text-4xl font-semibold text-heather-deep" aria-live="polite">
        {wordOf(beat.kind, exercise, t)}
      </p>
      <p className="h-8 text-xl text-ink-2" aria-hidden>
        {between || holds ? '' : left}
      </p>
    </div>
  );
}

function Controls({
  clock,
  sound,
  setSound,
  next,
  end,
  hurts,
}: {
  clock: PacerClock;
  sound: boolean;
  setSound: (on: boolean) => void;
  /** Where a wait ends that can be cut short; null while working. */
  next: number | null;
  end: () => void;
  hurts: () => void;
}) {
  const t = useReader();
  return (
    <>
      <div className="mt-5 flex items-center justify-between">
        <button
          type="button"
          className="text-action inline-flex min-h-12 items-center gap-2"
          aria-pressed={sound}
          onClick={() => setSound(!sound)}
        >
          {sound ? <Volume2 className="size-5" aria-hidden /> : <VolumeX className="size-5" aria-hidden />}
          {t.say(sound ? 'Sound on' : 'Sound off')}
        </button>
        {next !== null && (
          <button type="button" className="text-action min-h-12" onClick={() => clock.jump(next)}>
            {t.say('Go now')}
          </button>
        )}
        <button type="button" className="text-action min-h-12" onClick={end}>
          {t.say('End here')}
        </button>
      </div>
      <div className="sticky bottom-0 mt-2 grid grid-cols-2 gap-3 bg-paper py-2">
        <button
          type="button"
          className="min-h-16 rounded-xl bg-ease-wash text-lg font-bold text-ease-deep"
          onClick={() => {
            clock.pause();
            hurts();
          }}
        >
          {t.say('It hurts')}
        </button>
        <button
          type="button"
          className="action min-h-16 !rounded-xl text-lg"
          onClick={clock.running ? clock.pause : clock.go}
        >
          {t.say(clock.running ? 'Pause' : 'Go on')}
        </button>
      </div>
    </>
  );
}

function Finish({
  item,
  result,
  save,
}: {
  item: Prescription;
  result: { sets: number; reps: number };
  save: (sets: number, reps: number, effort: number | null) => void;
}) {
  const t = useReader();
  const [{ sets, reps }, setDone] = useState(result);
  const change = (field: 'sets' | 'reps', by: number) => setDone((d) => putRight(d, field, by, item.reps));
  return (
    <>
      <p className="mt-3 text-xl">{t.say('What did you do?')}</p>
      <div className="mt-2">
        <Stepper
          label={t.say(item.round === undefined ? 'Sets' : 'Rounds')}
          value={sets}
          step={(by) => change('sets', by)}
        />
        <Stepper
          label={t.say(item.tempo === undefined ? 'Holds in a set' : 'Repetitions in a set')}
          value={reps}
          step={(by) => change('reps', by)}
        />
      </div>
      <p className="mt-6 text-xl">{t.say('How hard was it?')}</p>
      <ElevenKeys
        label={t.say('Effort, 0 easy to 10 all you had')}
        nameOf={(n) => t.say('Effort {{n}}', { n })}
        wordOf={(n) => t.say(n === 0 ? 'easy' : n === 5 ? 'medium' : n === 10 ? 'all I had' : '')}
        onChange={(n) => save(sets, reps, n)}
      />
    </>
  );
}
