import { CloudOff } from 'lucide-react';
import { useEffect, useState } from 'react';
import { addDays, doseSentence, isDueOn, restsToday, sentenceText, weekdayOf } from '@heathstep/core';
import { type HomeEntryBody, type HomeView, stoppedText } from '@heathstep/contracts';
import { keep, stored } from '../../api/useEntries.js';
import { longDay } from '../../parts/dates.js';
import { After, HourQuestion } from './After.js';
import {
  asMorning,
  asSession,
  canCorrect,
  type Done,
  entryOf,
  type Running,
  withWaiting,
} from './homeModel.js';
import { useOutbox } from './homeStore.js';
import { Hurts } from './Hurts.js';
import { Pacer } from './Pacer.js';
import { BigScore, FirstStepsPicture } from './pieces.js';

const RUNNING = 'heathstep.home.running';

/** Shown at once when a stop sign was reported here, before the clinic's answer has come back. */
/** What is still done on a day that begins with much pain. */
const EASING: ReadonlySet<string> = new Set(['relief', 'range-static', 'aid']);

type Screen =
  | { readonly at: 'list' }
  | { readonly at: 'before' }
  | { readonly at: 'exercise'; readonly index: number }
  | { readonly at: 'after' }
  | { readonly at: 'hurts'; readonly exercise: string | null; readonly back: Screen }
  | { readonly at: 'morning' }
  | { readonly at: 'correct'; readonly entryId: string };

/** One thing per screen, large: the morning, today's exercises, the pacer, and how it was. */
export function Today({ view: served, refresh }: { view: HomeView; refresh: () => void }) {
  const outbox = useOutbox(refresh);
  const here = outbox.stopNotKnown(served.entries);
  const locked = here !== null;
  const [others, due] = split(locked ? { ...served, items: [] } : served);
  const [screen, setScreen] = useState<Screen>({ at: 'list' });
  const [running, setRunning] = useState<Running | null>(() => {
    const kept = stored<Running | null>(RUNNING, null);
    return kept !== null && kept.day === served.today ? kept : null;
  });
  const rest = running?.before != null && restsToday(served.painSchool, running.before);
  const view: HomeView = {
    ...withWaiting(served, outbox.list),
    items: rest ? due.filter((i) => EASING.has(i.exercise.aim)) : due,
    stopped: locked ? stoppedText([here], served.clinic.emergencyNumber) : served.stopped,
  };
  const [reported, setReported] = useState<string | null>(null);
  useEffect(() => keep(RUNNING, running, running === null), [running]);
  useEffect(() => outbox.forgetKnownStop(served.entries), [outbox, served.entries]);
  useEffect(() => {
    // Newer browsers return a promise here, which an effect must not.
    window.scrollTo(0, 0);
  }, [screen]);
  const session = entryOf(view, 'session', view.today);
  const send = (entry: HomeEntryBody) => outbox.add(entry);
  const begin = (before: number) => {
    setRunning({
      id: running?.id ?? crypto.randomUUID(),
      day: view.today,
      before,
      done: running?.done ?? [],
    });
    setScreen(
      restsToday(view.painSchool, before)
        ? { at: 'list' }
        : { at: 'exercise', index: nextIndex(view, running?.done ?? []) },
    );
  };
  const finished = (done: Done) => {
    const all = [...(running?.done ?? []).filter((d) => d.exercise !== done.exercise), done];
    if (running !== null) setRunning({ ...running, done: all });
    const next = nextIndex(view, all);
    setScreen(next >= view.items.length ? { at: 'after' } : { at: 'exercise', index: next });
  };
  const hurts = (exercise: string | null) =>
    setScreen({ at: 'hurts', exercise, back: screen.at === 'hurts' ? screen.back : screen });

  if (screen.at === 'hurts') {
    return (
      <Hurts
        clinic={view.clinic}
        school={view.painSchool}
        delivery={reported === null ? 'sending' : outbox.delivery(reported)}
        back={() => setScreen(screen.back)}
        report={(payload) => {
          const id = crypto.randomUUID();
          setReported(id);
          send({
            id,
            version: 1,
            kind: 'stop',
            day: view.today,
            payload: { ...payload, exercise: screen.exercise },
          });
          if (payload.grade === 'pause') {
            const index = view.items.findIndex((i) => i.prescription.exercise === screen.exercise);
            setScreen(
              index === -1 || index + 1 >= view.items.length
                ? { at: running === null ? 'list' : 'after' }
                : { at: 'exercise', index: index + 1 },
            );
          }
        }}
        toList={() => setScreen({ at: running === null || session !== null ? 'list' : 'after' })}
      />
    );
  }
  if (screen.at === 'before')
    return (
      <Asking
        title="Before you start: how much does it hurt now?"
        cancel={() => setScreen({ at: 'list' })}
        answer={begin}
      />
    );
  if (screen.at === 'morning')
    return <Morning view={view} send={send} close={() => setScreen({ at: 'list' })} />;
  if (screen.at === 'exercise') {
    const item = view.items[screen.index];
    if (item !== undefined) {
      return (
        <Pacer
          key={item.prescription.exercise}
          item={item.prescription}
          exercise={item.exercise}
          figure={item.figure ?? null}
          cues={item.cues ?? []}
          number={screen.index + 1}
          of={view.items.length}
          finished={finished}
          leave={() => setScreen({ at: 'list' })}
          skip={() =>
            setScreen(
              screen.index + 1 >= view.items.length
                ? { at: 'after' }
                : { at: 'exercise', index: screen.index + 1 },
            )
          }
          hurts={() => hurts(item.prescription.exercise)}
        />
      );
    }
  }
  if (screen.at === 'after' && running !== null) {
    return (
      <After
        running={running}
        view={served}
        save={(payload) => {
          send({ id: running.id, version: 1, kind: 'session', day: running.day, payload });
          setRunning(null);
          setScreen({ at: 'list' });
        }}
        back={() => setScreen({ at: 'list' })}
      />
    );
  }
  if (screen.at === 'correct') {
    const entry = view.entries.find((e) => e.id === screen.entryId);
    if (entry?.kind === 'session') {
      const payload = asSession(entry);
      return (
        <After
          running={{ id: entry.id, day: entry.day, before: payload.before, done: payload.exercises }}
          known={payload}
          view={served}
          save={(next) => {
            send({
              id: entry.id,
              version: entry.version + 1,
              kind: 'session',
              day: entry.day,
              payload: next,
            });
            setScreen({ at: 'list' });
          }}
          back={() => setScreen({ at: 'list' })}
        />
      );
    }
    if (entry?.kind === 'morning') {
      return (
        <Asking
          title={`How much did your first steps hurt on ${longDay(entry.day)}?`}
          cancel={() => setScreen({ at: 'list' })}
          answer={(firstStep) => {
            send({
              id: entry.id,
              version: entry.version + 1,
              kind: 'morning',
              day: entry.day,
              payload: { ...asMorning(entry), firstStep },
            });
            setScreen({ at: 'list' });
          }}
        />
      );
    }
  }
  return (
    <List
      view={view}
      others={others}
      running={running}
      outbox={outbox}
      setScreen={setScreen}
      send={send}
      hurts={() => hurts(null)}
    />
  );
}

/** Exercises of other days, and those due today. */
function split(view: HomeView): [HomeView['items'], HomeView['items']] {
  const today = weekdayOf(view.today);
  const isDue = (i: HomeView['items'][number]) => isDueOn(i.prescription.daysPerWeek, today);
  return [view.items.filter((i) => !isDue(i)), view.items.filter(isDue)];
}

const nextIndex = (view: HomeView, done: readonly Done[]): number => {
  const at = view.items.findIndex((i) => done.every((d) => d.exercise !== i.prescription.exercise));
  return at === -1 ? view.items.length : at;
};

interface ListProps {
  readonly view: HomeView;
  readonly others: HomeView['items'];
  readonly running: Running | null;
  readonly outbox: ReturnType<typeof useOutbox>;
  readonly setScreen: (screen: Screen) => void;
  readonly send: (entry: HomeEntryBody) => void;
  readonly hurts: () => void;
}

function List({ view, others, running, outbox, setScreen, send, hurts }: ListProps) {
  const morning = entryOf(view, 'morning', view.today);
  const session = entryOf(view, 'session', view.today);
  const minutes = Math.max(1, Math.round(view.items.reduce((sum, i) => sum + minutesOf(i), 0)));
  return (
    <>
      <header className="px-5 pt-6">
        <p className="text-ink-2">{longDay(view.today)}</p>
        <h1 className="text-3xl">{`Hello ${view.firstName}`}</h1>
        {view.purpose !== '' && <p className="mt-1">{view.purpose}.</p>}
      </header>
      {outbox.list.length > 0 && (
        <p
          className="mx-5 mt-4 flex items-start gap-2 rounded-lg bg-hold-wash p-3 text-base text-hold-deep"
          role="status"
        >
          <CloudOff className="mt-0.5 size-5 shrink-0" aria-hidden />
          {outbox.lost
            ? 'No connection just now. What you logged is kept on this phone and sent by itself.'
            : 'Sending what you logged.'}
        </p>
      )}
      {outbox.refused !== null && (
        <p className="mx-5 mt-4 rounded-lg bg-ease-wash p-3 text-base text-ease-deep" role="alert">
          {outbox.refused}. If something is wrong, call your clinic: {view.clinic.phone}
        </p>
      )}
      {view.stopped !== null && (
        <section className="mx-5 mt-5 rounded-xl bg-ease-wash p-5" role="alert">
          <h2 className="text-ease-deep">Please stop for now</h2>
          <p className="mt-2">{view.stopped}</p>
          <p className="mt-2">
            {view.clinic.name}:{' '}
            <a className="font-bold underline" href={`tel:${view.clinic.phone.replace(/\s/g, '')}`}>
              {view.clinic.phone}
            </a>
          </p>
        </section>
      )}
      {morning === null && (
        <section className="mx-5 mt-5 rounded-xl bg-heather-wash p-5">
          <h2>This morning</h2>
          <p className="mt-1">How much did your first steps hurt? You can answer until midnight.</p>
          <button
            type="button"
            className="action mt-3 min-h-14 w-full text-lg"
            onClick={() => setScreen({ at: 'morning' })}
          >
            Answer
          </button>
        </section>
      )}
      {session !== null && asSession(session).hourAbove === null && (
        <HourQuestion
          before={asSession(session).before}
          answer={(hourAbove) =>
            send({
              id: session.id,
              version: session.version + 1,
              kind: 'session',
              day: session.day,
              payload: { ...asSession(session), hourAbove },
            })
          }
        />
      )}
      {running?.before != null && restsToday(view.painSchool, running.before) && (
        <p className="mx-5 mt-5 rounded-xl bg-hold-wash p-4 text-hold-deep" role="status">
          {`It hurts ${running.before} of 10 before you start. Today only what eases and moves; leave the rest, and tell your clinic if it is the same tomorrow: ${view.clinic.phone}.`}
        </p>
      )}
      {view.items.length > 0 && (
        <section className="mt-6 px-5">
          <h2 className="flex items-baseline justify-between">
            Today{' '}
            <span className="font-body text-base font-normal text-ink-2">{`${view.items.length} exercises, about ${minutes} min`}</span>
          </h2>
          <ol className="mt-2 border-t border-line">
            {view.items.map(({ prescription, exercise }, i) => {
              const done =
                running?.done.some((d) => d.exercise === exercise.key) === true ||
                (session !== null && asSession(session).exercises.some((d) => d.exercise === exercise.key));
              return (
                <li key={exercise.key} className="border-b border-line py-3">
                  <details>
                    <summary className="flex min-h-11 items-start gap-3">
                      <span
                        aria-hidden
                        className={`mt-1 flex size-7 shrink-0 items-center justify-center rounded-full text-base font-bold ${done ? 'bg-go text-paper' : 'bg-line-2'}`}
                      >
                        {done ? '✓' : i + 1}
                      </span>
                      <span>
                        <span className="block font-head text-xl font-semibold leading-tight">
                          {exercise.name}
                        </span>
                        <span className="text-base">
                          {sentenceText(doseSentence(prescription, exercise))}
                        </span>
                        {done && <span className="sr-only">done</span>}
                      </span>
                    </summary>
                    <ol className="mt-2 list-decimal pl-14">
                      {exercise.steps.map((s) => (
                        <li key={s}>{s}</li>
                      ))}
                    </ol>
                    <p className="mt-1 pl-10">{exercise.feel}.</p>
                  </details>
                </li>
              );
            })}
          </ol>
          {session === null ? (
            <button
              type="button"
              className="action mt-5 min-h-16 w-full text-xl"
              onClick={() =>
                running === null
                  ? setScreen({ at: 'before' })
                  : setScreen(
                      nextIndex(view, running.done) >= view.items.length
                        ? { at: 'after' }
                        : { at: 'exercise', index: nextIndex(view, running.done) },
                    )
              }
            >
              {running === null ? 'Start' : 'Go on'}
            </button>
          ) : (
            <p className="mt-5 rounded-xl bg-go-wash p-4 font-semibold text-go-deep" role="status">
              Done for today. Well kept.
            </p>
          )}
          {running !== null && running.done.length > 0 && session === null && (
            <button
              type="button"
              className="text-action mt-3 min-h-12 w-full"
              onClick={() => setScreen({ at: 'after' })}
            >
              That is enough for today
            </button>
          )}
        </section>
      )}
      {others.length > 0 && (
        <p className="mx-5 mt-4 text-base text-ink-2">
          Not today: {others.map((o) => o.exercise.name.toLowerCase()).join(', ')}.
        </p>
      )}
      {view.items.length + others.length === 0 && view.stopped === null && (
        <p className="mx-5 mt-8">Your clinic has not given you a plan yet. It appears here by itself.</p>
      )}
      <section className="mt-8 px-5">
        <h2>Your first steps</h2>
        <FirstStepsPicture mornings={view.firstSteps} />
      </section>
      <Log view={view} correct={(id) => setScreen({ at: 'correct', entryId: id })} />
      <div className="flex-1" />
      <footer className="sticky bottom-0 mt-8 bg-paper px-5 pb-5 pt-2">
        <button
          type="button"
          className="min-h-14 w-full rounded-xl bg-ease-wash text-lg font-bold text-ease-deep"
          onClick={hurts}
        >
          It hurts, or something is wrong
        </button>
      </footer>
    </>
  );
}

function minutesOf({ prescription, exercise }: HomeView['items'][number]): number {
  const each =
    prescription.tempo === undefined
      ? (prescription.holdSeconds ?? 0) + (prescription.releaseSeconds ?? 0)
      : prescription.tempo.upSeconds +
        prescription.tempo.topSeconds +
        prescription.tempo.downSeconds +
        prescription.tempo.bottomSeconds;
  const sides = prescription.sides === 'one-after-other' || prescription.sides === 'alternating' ? 2 : 1;
  return (
    (exercise.setupSeconds +
      sides *
        (prescription.sets * prescription.reps * each + (prescription.sets - 1) * prescription.restSeconds)) /
    60
  );
}

/** What was logged in the last days; each can be corrected for 48 hours. */
function Log({ view, correct }: { view: HomeView; correct: (id: string) => void }) {
  const [now] = useState(() => Date.now());
  const recent = view.entries.filter(
    (e) => e.kind !== 'stop' && e.day > addDays(view.today, -3) && canCorrect(e, now),
  );
  if (recent.length === 0) return null;
  return (
    <details className="mt-6 px-5">
      <summary className="min-h-11 text-ink-2">What you logged</summary>
      <ul>
        {[...recent].reverse().map((e) => (
          <li key={e.id} className="flex items-center justify-between border-b border-line py-2">
            <span className="text-base">
              {longDay(e.day)}:{' '}
              {e.kind === 'morning'
                ? `first steps ${asMorning(e).firstStep}`
                : `exercises, pain ${asSession(e).before}, ${asSession(e).during}, ${asSession(e).after}`}
            </span>
            <button
              type="button"
              className="text-action min-h-11 px-2 text-base"
              onClick={() => correct(e.id)}
              aria-label={`Correct ${e.kind === 'morning' ? 'the morning' : 'the exercises'} of ${longDay(e.day)}`}
            >
              Correct
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Asking({
  title,
  answer,
  cancel,
}: {
  title: string;
  answer: (score: number) => void;
  cancel: () => void;
}) {
  return (
    <div className="flex flex-1 flex-col px-5 pb-6 pt-8">
      <h1>{title}</h1>
      <div className="mt-6">
        <BigScore label={title} value={null} onChange={answer} />
      </div>
      <div className="flex-1" />
      <button type="button" className="text-action min-h-12" onClick={cancel}>
        Back
      </button>
    </div>
  );
}

function Morning({
  view,
  send,
  close,
}: {
  view: HomeView;
  send: (entry: HomeEntryBody) => void;
  close: () => void;
}) {
  const [firstStep, setFirstStep] = useState<number | null>(null);
  const [id] = useState(() => crypto.randomUUID());
  const save = (first: number, dayWorst: number | null) => {
    send({
      id,
      version: 1,
      kind: 'morning',
      day: view.today,
      payload: view.asksDayWorst ? { firstStep: first, dayWorst } : { firstStep: first },
    });
    close();
  };
  if (firstStep === null)
    return (
      <Asking
        title="How much did your first steps hurt this morning?"
        cancel={close}
        answer={(v) => (view.asksDayWorst ? setFirstStep(v) : save(v, null))}
      />
    );
  return (
    <Asking
      title="And yesterday at its worst?"
      cancel={() => setFirstStep(null)}
      answer={(v) => save(firstStep, v)}
    />
  );
}
