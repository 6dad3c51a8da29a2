import { useEffect, useState } from 'react';
import { type HomeScores, isDueOn, restsToday, weekdayOf } from '@heathstep/core';
import { type HomeEntryBody, type HomeEntryView, type HomeView, stoppedText } from '@heathstep/contracts';
import { keep, stored } from '../../api/kept.js';
import { After } from './After.js';
import {
  asSession,
  type Done,
  entryOf,
  nextIndex,
  roundOf,
  turnsFrom,
  type Running,
  type Screen,
  withWaiting,
} from './homeModel.js';
import { useOutbox } from './homeStore.js';
import { Hurts } from './Hurts.js';
import { List } from './List.js';
import { Pacer } from './Pacer.js';
import { Questions } from './Question.js';
import { answerFor, askedAt, scoresOf } from './questions.js';
import { useReader } from './tongue.js';
import { wasTooMuch } from './tooMuch.js';

const runningKey = (episodeId: string): string => `heathstep.home.running.${episodeId}`;

/** What is still done on a day that begins with much pain. */
const EASING: ReadonlySet<string> = new Set(['relief', 'range-static', 'aid']);

/** Everything the phone's one screen needs of this day. */
function useToday(served: HomeView, refresh: () => void) {
  const t = useReader();
  const outbox = useOutbox(served.episodeId, refresh);
  const ids = served.complaints.map((c) => c.episodeId);
  const here = outbox.stopNotKnown(served.knownStops, ids);
  const locked = here !== null;
  const [others, due] = split(locked ? { ...served, items: [], plan: [] } : served);
  const [screen, setScreen] = useState<Screen>({ at: 'list' });
  const [running, setRunning] = useState<Running | null>(() => {
    const kept = stored<Running | null>(runningKey(served.episodeId), null);
    return kept !== null && kept.day === served.today ? kept : null;
  });
  const began = running === null ? null : answerFor(served, running.scores, 'before');
  const rest = typeof began === 'number' && restsToday(served.painSchool, began);
  const logged = withWaiting(served, outbox.list);
  const tooMuch = wasTooMuch(logged);
  const view: HomeView = {
    ...logged,
    items: rest || tooMuch ? due.filter((i) => EASING.has(i.exercise.aim)) : due,
    stopped: locked ? stoppedText([here], served.clinic.emergencyNumber, t) : served.stopped,
  };
  useEffect(() => keep(runningKey(served.episodeId), running, running === null), [running, served.episodeId]);
  useEffect(
    () =>
      outbox.forgetKnownStops(
        served.knownStops,
        served.complaints.map((c) => c.episodeId),
      ),
    [outbox, served.knownStops, served.complaints],
  );
  useEffect(() => {
    // Newer browsers return a promise here, which an effect must not.
    window.scrollTo(0, 0);
  }, [screen]);
  const toList = () => setScreen({ at: 'list' });
  /** The exercise at an index, or what follows the last one. */
  const goTo = (index: number, after: Screen = { at: 'after' }) =>
    setScreen(index >= view.items.length ? after : { at: 'exercise', index });
  return { served, view, tooMuch, others, outbox, screen, setScreen, running, setRunning, toList, goTo };
}

type Day = ReturnType<typeof useToday>;

/** The exercise someone is at, also while they say what hurts: they go on where it stood. */
function exerciseOf({ screen, view }: Day): number | null {
  const at = screen.at === 'hurts' ? screen.back : screen;
  return at.at === 'exercise' && view.items[at.index] !== undefined ? at.index : null;
}

/** One thing per screen, large: the morning, today's exercises, the pacer, and how it was. */
export function Today({ view: served, refresh }: { view: HomeView; refresh: () => void }) {
  const day = useToday(served, refresh);
  const exercise = exerciseOf(day);
  const asked = day.screen.at === 'hurts';
  return (
    <>
      {exercise !== null && (
        <div className={asked ? 'hidden' : 'contents'}>
          <ExerciseScreen day={day} index={exercise} />
        </div>
      )}
      {(exercise === null || asked) && <OtherScreen day={day} />}
    </>
  );
}

/** Everything but the exercise itself. */
function OtherScreen({ day }: { day: Day }) {
  const [reported, setReported] = useState<string | null>(null);
  const { screen, view } = day;
  switch (screen.at) {
    case 'hurts':
      return <HurtsScreen day={day} at={screen} reported={reported} setReported={setReported} />;
    case 'before':
      return <BeforeScreen day={day} />;
    case 'morning':
      return <MorningScreen day={day} corrected={null} />;
    case 'after':
      return day.running === null ? (
        <ListScreen day={day} />
      ) : (
        <AfterScreen day={day} running={day.running} />
      );
    case 'correct': {
      const entry = view.entries.find((e) => e.id === screen.entryId);
      if (entry?.kind === 'session') return <CorrectedSession day={day} entry={entry} />;
      if (entry?.kind === 'morning') return <MorningScreen day={day} corrected={entry} />;
      return <ListScreen day={day} />;
    }
    default:
      return <ListScreen day={day} />;
  }
}

function hurts(day: Day, exercise: string | null, done: readonly Done[] = []): void {
  const { screen } = day;
  day.setScreen({ at: 'hurts', exercise, done, back: screen.at === 'hurts' ? screen.back : screen });
}

function ListScreen({ day }: { day: Day }) {
  return (
    <List
      view={day.view}
      others={day.others}
      tooMuch={day.tooMuch}
      running={day.running}
      outbox={day.outbox}
      setScreen={day.setScreen}
      send={(entry: HomeEntryBody) => day.outbox.add(entry)}
      hurts={() => hurts(day, null)}
    />
  );
}

function HurtsScreen({
  day,
  at,
  reported,
  setReported,
}: {
  day: Day;
  at: Extract<Screen, { at: 'hurts' }>;
  reported: string | null;
  setReported: (id: string) => void;
}) {
  const { view, running, setScreen } = day;
  const session = entryOf(view, 'session', view.today);
  return (
    <Hurts
      clinic={view.clinic}
      signs={view.stopSigns}
      school={view.painSchool}
      before={at.exercise === null || running === null ? null : painBefore(view, running)}
      delivery={reported === null ? 'sending' : day.outbox.delivery(reported)}
      back={() => setScreen(at.back)}
      report={(payload) => {
        const id = crypto.randomUUID();
        setReported(id);
        day.outbox.add({
          id,
          version: 1,
          kind: 'stop',
          day: view.today,
          payload: { ...payload, exercise: at.exercise },
        });
        if (payload.grade !== 'pause') return;
        const index = view.items.findIndex((i) => i.prescription.exercise === at.exercise);
        const after: Screen = { at: running === null ? 'list' : 'after' };
        const done = [...(running?.done ?? []), ...at.done];
        if (running !== null) day.setRunning({ ...running, done });
        day.goTo(index === -1 ? view.items.length : nextIndex(view, done, index + 1), after);
      }}
      toList={() => setScreen({ at: running === null || session !== null ? 'list' : 'after' })}
    />
  );
}

const painBefore = (view: HomeView, running: Running): number => {
  const before = answerFor(view, running.scores, 'before');
  return typeof before === 'number' ? before : 0;
};

/** What is asked before the first exercise; much pain leaves only what eases. */
function BeforeScreen({ day }: { day: Day }) {
  const { view, running } = day;
  const begin = (scores: HomeScores) => {
    const before = answerFor(view, scores, 'before');
    day.setRunning({
      id: running?.id ?? crypto.randomUUID(),
      day: view.today,
      scores,
      planId: view.planId,
      done: running?.done ?? [],
    });
    if (typeof before === 'number' && restsToday(view.painSchool, before)) day.toList();
    else day.setScreen({ at: 'exercise', index: nextIndex(view, running?.done ?? []) });
  };
  return <Questions questions={askedAt(view, 'before')} done={begin} cancel={day.toList} />;
}

/** The morning of today, or one that is put right. */
function MorningScreen({ day, corrected }: { day: Day; corrected: HomeEntryView | null }) {
  const { view } = day;
  const known = corrected === null ? {} : scoresOf(corrected);
  return (
    <Questions
      questions={askedAt(view, 'morning')}
      {...(corrected === null ? {} : { known })}
      done={(scores) => {
        day.outbox.add({
          id: corrected?.id ?? crypto.randomUUID(),
          version: (corrected?.version ?? 0) + 1,
          kind: 'morning',
          day: corrected?.day ?? view.today,
          payload: { scores: { ...known, ...scores } },
        });
        day.toList();
      }}
      cancel={day.toList}
    />
  );
}

function ExerciseScreen({ day, index }: { day: Day; index: number }) {
  const { view, running } = day;
  const item = view.items[index];
  if (item === undefined) return null;
  const round = roundOf(view);
  const turns = turnsFrom(view, index, running?.done ?? []);
  const [first] = turns;
  const finished = (done: readonly Done[]) => {
    const kept = (running?.done ?? []).filter((d) => done.every((x) => x.exercise !== d.exercise));
    const all = [...kept, ...done];
    if (running !== null) day.setRunning({ ...running, done: all });
    day.goTo(nextIndex(view, all));
  };
  return (
    <Pacer
      key={item.prescription.exercise}
      turns={turns.map((i) => ({
        item: i.prescription,
        exercise: i.exercise,
        figure: i.figure ?? null,
        cues: i.cues ?? [],
      }))}
      number={round.indexOf(first ?? item) + 1}
      of={round.length}
      finished={finished}
      leave={day.toList}
      skip={() =>
        day.goTo(
          nextIndex(view, running?.done ?? [], Math.max(...turns.map((i) => view.items.indexOf(i))) + 1),
        )
      }
      hurts={(exercise, done) => hurts(day, exercise, done)}
    />
  );
}

function AfterScreen({ day, running }: { day: Day; running: Running }) {
  return (
    <After
      running={running}
      view={day.served}
      save={(payload) => {
        day.outbox.add({
          id: running.id,
          version: 1,
          kind: 'session',
          day: running.day,
          ...(running.planId === null ? {} : { planId: running.planId }),
          payload,
        });
        day.setRunning(null);
        day.toList();
      }}
      back={day.toList}
    />
  );
}

/** A session that was logged, put right. */
function CorrectedSession({ day, entry }: { day: Day; entry: HomeEntryView }) {
  const payload = asSession(entry);
  return (
    <After
      running={{
        id: entry.id,
        day: entry.day,
        scores: payload.scores,
        planId: entry.planId,
        done: payload.exercises,
      }}
      known={payload}
      view={day.served}
      save={(next) => {
        day.outbox.add({
          id: entry.id,
          version: entry.version + 1,
          kind: 'session',
          day: entry.day,
          payload: next,
        });
        day.toList();
      }}
      back={day.toList}
    />
  );
}

/** Exercises of other days, and those for today: due, or missed and good to do today. */
function split(view: HomeView): [HomeView['items'], HomeView['items']] {
  const today = weekdayOf(view.today);
  const late = new Set(view.catchUp?.map((c) => c.exercise));
  const isDue = (i: HomeView['items'][number]) => isDueOn(i.prescription, today) || late.has(i.exercise.key);
  return [view.items.filter((i) => !isDue(i)), view.items.filter(isDue)];
}
