import { CloudOff, CloudUpload } from 'lucide-react';
import { useState } from 'react';
import { request } from '../../api/client.js';
import { besideText, restsToday, secondsOn, weekdayOf } from '@heathstep/core';
import type { HomeEntryBody, HomeView } from '@heathstep/contracts';
import { drawnSide, Figure } from '../../parts/Figure.js';
import { HourAfter } from './HourQuestion.js';
import { asSession, entryOf, isDone, nextIndex, roundOf, type Running, type Screen } from './homeModel.js';
import type { useOutbox } from './homeStore.js';
import { Log } from './Log.js';
import { Ask } from './Ask.js';
import { MorningsPicture, Title } from './pieces.js';
import { answerFor, askedAt, questionFor, scoresOf } from './questions.js';
import { useReader } from './tongue.js';

interface ListProps {
  readonly view: HomeView;
  readonly others: HomeView['items'];
  /** A session of today hurt more than it should. */
  readonly tooMuch: boolean;
  readonly running: Running | null;
  readonly outbox: ReturnType<typeof useOutbox>;
  readonly setScreen: (screen: Screen) => void;
  readonly send: (entry: HomeEntryBody) => void;
  readonly hurts: () => void;
}

/** The day: the morning, what is due, how it went, and the way to say that something is wrong. */
export function List(props: ListProps) {
  const { view, others, setScreen, hurts } = props;
  const t = useReader();
  return (
    <>
      <header className="px-5 pt-6">
        <p className="text-ink-2">{t.longDay(view.today)}</p>
        <Title className="text-3xl">{t.say('Hello {{name}}', { name: view.firstName })}</Title>
        {view.purpose !== '' && <p className="mt-1">{view.purpose}.</p>}
      </header>
      <Notices {...props} />
      <Asked {...props} />
      {view.items.length > 0 && <Due {...props} />}
      {view.plan.length > 0 && view.stopped === null && (
        <a
          className="text-action mx-5 mt-2 inline-flex min-h-12 items-center text-base"
          href="/api/home/plan.ics"
        >
          {t.say('Put the days in my calendar')}
        </a>
      )}
      {others.length > 0 && (
        <p className="mx-5 mt-4 text-base text-ink-2">
          {t.say('Not today: {{list}}.', { list: others.map((o) => t.inside(o.exercise.name)).join(', ') })}
        </p>
      )}
      {view.plan.length + others.length === 0 && view.stopped === null && (
        <p className="mx-5 mt-8">
          {t.say('Your clinic has not given you a plan yet. It appears here by itself.')}
        </p>
      )}
      {view.beside.length > 0 && view.stopped === null && (
        <section className="mt-6 px-5">
          <h2>{t.say('Beside the exercises')}</h2>
          <ul className="mt-1 list-disc pl-6">
            {view.beside.map((b) => (
              <li key={b.key}>{besideText(b, t)}</li>
            ))}
          </ul>
        </section>
      )}
      <GoesOn view={view} />
      <section className="mt-8 px-5">
        <h2>{t.say('Your mornings')}</h2>
        <MorningsPicture name={questionFor(view, 'morning')?.name ?? ''} mornings={view.mornings} />
      </section>
      <Ask view={view} />
      <Log view={view} correct={(id) => setScreen({ at: 'correct', entryId: id })} />
      <SignOut waiting={props.outbox.list.length > 0} />
      <div className="flex-1" />
      <footer className="sticky bottom-0 mt-8 bg-paper px-5 pb-5 pt-2">
        <Waits outbox={props.outbox} />
        <button
          type="button"
          className="min-h-14 w-full rounded-xl bg-ease-wash text-lg font-bold text-ease-deep"
          onClick={hurts}
        >
          {t.say('It hurts, or something is wrong')}
        </button>
      </footer>
    </>
  );
}

/** Ends the opening on this phone, once nothing waits to be sent; the link and its code open it again. */
function SignOut({ waiting }: { waiting: boolean }) {
  const t = useReader();
  const [lost, setLost] = useState(false);
  const end = () =>
    request('DELETE', '/api/home/session').then(
      () => window.location.reload(),
      () => setLost(true),
    );
  return (
    <p className="mt-6 px-5 text-base text-ink-2">
      <button
        type="button"
        className="text-action min-h-11 disabled:opacity-50"
        disabled={waiting}
        onClick={() => void end()}
      >
        {t.say('Sign out on this phone')}
      </button>
      <span role="status" className="block">
        {waiting
          ? t.say('Something you logged waits to be sent first.')
          : lost
            ? t.say('No connection just now. Try again in a moment.')
            : ''}
      </span>
    </p>
  );
}

/** What the next stage waits for; closed until it is asked, so that the day stays short. */
function GoesOn({ view }: { view: HomeView }) {
  const t = useReader();
  // A page kept on the phone from before this was sent has none.
  const list = (view.goesOnWhen as HomeView['goesOnWhen'] | undefined) ?? [];
  if (list.length === 0 || view.stopped !== null) return null;
  return (
    <details className="mt-6 px-5">
      <summary className="min-h-12 content-center font-bold">
        {t.say('You go on to the next stage when')}
      </summary>
      <ul className="list-disc pl-6">
        {list.map((c) => (
          <li key={c}>{`${c}.`}</li>
        ))}
      </ul>
      <p className="mt-1 text-base text-ink-2">{t.say('Your physiotherapist decides it with you.')}</p>
    </details>
  );
}

/** What waits to be sent. It stands at the bottom, where nothing moves under a thumb when it comes and goes. */
function Waits({ outbox }: Pick<ListProps, 'outbox'>) {
  const t = useReader();
  const Sign = outbox.lost ? CloudOff : CloudUpload;
  return (
    <div role="status">
      {outbox.list.length > 0 && (
        <p className="mb-2 flex items-start gap-2 rounded-lg bg-hold-wash p-3 text-base text-hold-deep">
          <Sign className="mt-0.5 size-5 shrink-0" aria-hidden />
          {outbox.lost
            ? t.say('No connection just now. What you logged is kept on this phone and sent by itself.')
            : t.say('Sending what you logged.')}
        </p>
      )}
    </div>
  );
}

/** What was refused, and a stop. */
function Notices({ view, outbox }: ListProps) {
  const t = useReader();
  return (
    <>
      {outbox.refused !== null && (
        <p className="mx-5 mt-4 rounded-lg bg-ease-wash p-3 text-base text-ease-deep" role="alert">
          {`${outbox.refused}. ${t.say('If something is wrong, call your clinic: {{phone}}', { phone: view.clinic.phone })}`}
        </p>
      )}
      {view.stopped !== null && (
        <section className="mx-5 mt-5 rounded-xl bg-ease-wash p-5" role="alert">
          <h2 className="text-ease-deep">{t.say('Please stop for now')}</h2>
          <p className="mt-2">{view.stopped}</p>
          <p className="mt-2">
            {view.clinic.name}:{' '}
            <a className="font-bold underline" href={`tel:${view.clinic.phone.replace(/\s/g, '')}`}>
              {view.clinic.phone}
            </a>
          </p>
        </section>
      )}
    </>
  );
}

/** What is asked today: the morning, the hour after, and what pain before the start means. */
function Asked({ view, running, tooMuch, outbox, setScreen, send }: ListProps) {
  const t = useReader();
  const morning = entryOf(view, 'morning', view.today);
  const session = entryOf(view, 'session', view.today);
  const [morningAsked] = askedAt(view, 'morning');
  const before = session === null ? null : answerFor(view, scoresOf(session), 'before');
  const later = questionFor(view, 'hour-above');
  const now = running === null ? null : answerFor(view, running.scores, 'before');
  return (
    <>
      {morning === null && morningAsked !== undefined && (
        <section className="mx-5 mt-5 rounded-xl bg-heather-wash p-5">
          <h2>{t.say('This morning')}</h2>
          <p className="mt-1">{`${morningAsked.ask} ${t.say('You can answer until midnight.')}`}</p>
          <button
            type="button"
            className="action mt-3 min-h-14 w-full text-lg"
            onClick={() => setScreen({ at: 'morning' })}
          >
            {t.say('Answer')}
          </button>
        </section>
      )}
      {session !== null &&
        later !== undefined &&
        typeof before === 'number' &&
        (scoresOf(session)[later.key] ?? null) === null && (
          <HourAfter
            key={session.id}
            since={session.at}
            waiting={outbox.list.some((e) => e.id === session.id)}
            before={before}
            answer={(above) =>
              send({
                id: session.id,
                version: session.version + 1,
                kind: 'session',
                day: session.day,
                payload: { ...asSession(session), scores: { ...scoresOf(session), [later.key]: above } },
              })
            }
          />
        )}
      {tooMuch && view.stopped === null && (
        <p className="mx-5 mt-5 rounded-xl bg-hold-wash p-4 text-hold-deep" role="status">
          {t.say(
            'The exercises hurt more than they should. Today only what eases and moves is left; tell your clinic if it is the same tomorrow: {{phone}}.',
            { phone: view.clinic.phone },
          )}
        </p>
      )}
      {typeof now === 'number' && restsToday(view.painSchool, now) && (
        <p className="mx-5 mt-5 rounded-xl bg-hold-wash p-4 text-hold-deep" role="status">
          {t.say(
            'It hurts {{n}} of 10 before you start. Today only what eases and moves; leave the rest, and tell your clinic if it is the same tomorrow: {{phone}}.',
            { n: now, phone: view.clinic.phone },
          )}
        </p>
      )}
    </>
  );
}

/** Today's exercises and the one button of the day. */
function Due({ view, running, setScreen }: ListProps) {
  const t = useReader();
  const session = entryOf(view, 'session', view.today);
  const late = view.catchUp ?? [];
  const round = roundOf(view);
  const seconds = session === null ? secondsToday(view) : secondsOfRound(view);
  const minutes = Math.max(1, Math.round(seconds / 60));
  const count = session === null || round.length === 0 ? view.items.length : round.length;
  const next = nextIndex(view, running?.done ?? []);
  const start = () => {
    if (running === null) setScreen({ at: 'before' });
    else setScreen(next >= view.items.length ? { at: 'after' } : { at: 'exercise', index: next });
  };
  return (
    <section className="mt-6 px-5">
      <h2 className="flex items-baseline justify-between">
        {t.say('Today')}{' '}
        <span className="font-body text-base font-normal text-ink-2">
          {t.say(
            count === 1
              ? '{{count}} exercise, about {{minutes}} min'
              : '{{count}} exercises, about {{minutes}} min',
            { count, minutes },
          )}
        </span>
      </h2>
      {session === null ? (
        <button type="button" className="action mt-3 min-h-16 w-full text-xl" onClick={start}>
          {t.say(running === null ? 'Start' : 'Go on')}
        </button>
      ) : (
        <p className="mt-3 rounded-xl bg-go-wash p-4 font-semibold text-go-deep" role="status">
          {round.length === 0
            ? t.say('Done for today. Well kept.')
            : t.say('Done for now. Later today again: {{list}}.', {
                list: round.map((i) => t.inside(i.exercise.name)).join(', '),
              })}
        </p>
      )}
      {session !== null && round.length > 0 && (
        <button type="button" className="action mt-3 min-h-14 w-full text-lg" onClick={start}>
          {t.say(running === null ? 'Once more' : 'Go on')}
        </button>
      )}
      {late.length > 0 && session === null && (
        <p className="mt-3 text-base text-ink-2">
          {t.say(
            'What you missed and fits in today is in the list. The rest is let go: no need to make up for it.',
          )}
        </p>
      )}
      <ol className="mt-4 border-t border-line">
        {view.items.map((item, i) => {
          const { exercise } = item;
          return (
            <DueItem
              key={exercise.key}
              item={item}
              planned={view.plan.find((p) => p.key === exercise.key) ?? null}
              number={i + 1}
              done={isDone(view, running, item)}
              from={late.find((c) => c.exercise === exercise.key)?.from ?? null}
            />
          );
        })}
      </ol>
      {running !== null && running.done.length > 0 && (
        <button
          type="button"
          className="text-action mt-3 min-h-12 w-full"
          onClick={() => setScreen({ at: 'after' })}
        >
          {t.say('That is enough for today')}
        </button>
      )}
    </section>
  );
}

/** Seconds of all that is for today, what was missed included. */
const secondsToday = (view: HomeView): number =>
  secondsOn(view.plan, weekdayOf(view.today)) +
  view.plan
    .filter((p) => view.catchUp?.some((c) => c.exercise === p.key) === true)
    .reduce((sum, p) => sum + p.daySeconds, 0);

/** Seconds of the round to come alone; of the whole day where none is. */
function secondsOfRound(view: HomeView): number {
  const round = roundOf(view);
  if (round.length === 0) return secondsToday(view);
  return round.reduce((sum, i) => {
    const planned = view.plan.find((p) => p.key === i.exercise.key);
    return sum + (planned?.daySeconds ?? 0) / i.prescription.timesPerDay;
  }, 0);
}

function DueItem({
  item: { exercise, figure, prescription },
  planned,
  number,
  done,
  from,
}: {
  item: HomeView['items'][number];
  planned: HomeView['plan'][number] | null;
  number: number;
  done: boolean;
  /** The day it was due and missed. */
  from: string | null;
}) {
  const t = useReader();
  return (
    <li className="border-b border-line py-3">
      {/* A page kept on the phone from before rounds has none. */}
      {(planned?.inTurn ?? '') !== '' && (
        <p className="mb-2 text-base font-bold text-heather-deep">{planned?.inTurn}</p>
      )}
      <details>
        <summary className="flex min-h-11 items-start gap-3 after:hidden">
          <span
            aria-hidden
            className={`mt-1 flex size-7 shrink-0 items-center justify-center rounded-full text-base font-bold ${done ? 'bg-go text-paper' : 'bg-line-2'}`}
          >
            {done ? '✓' : number}
          </span>
          <span className="min-w-0 flex-1">
            <span className="block font-head text-xl font-semibold leading-tight">{exercise.name}</span>
            <span className="text-base">{planned?.dose ?? ''}</span>
            {from !== null && (
              <span className="block text-base text-ink-2">
                {t.say('from {{day}}', { day: t.weekday(from) })}
              </span>
            )}
            {done && <span className="sr-only">{t.say('done')}</span>}
          </span>
          {figure != null && (
            <span className="block h-16 w-20 shrink-0" aria-hidden>
              <Figure
                figure={figure}
                side={drawnSide(prescription.sides)}
                lazy
                label=""
                className="size-full"
              />
            </span>
          )}
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
}
