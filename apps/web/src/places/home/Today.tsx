import { useEffect, useState } from 'react';
import { type HomeScores, isDueOn, restsToday, weekdayOf } from '@heathstep/core';
import { type HomeEntryBody, type HomeView, stoppedText } from '@heathstep/contracts';
import { keep, stored } from '../../api/useEntries.js';
import { After } from './After.js';
import {
  asSession,
  type Done,
  entryOf,
  nextIndex,
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

const runningKey = (episodeId: string): string => `heathstep.home.running.${episodeId}`;

/** What is still done on a day that begins with much pain. */
const EASING: ReadonlySet<string> = new Set(['relief', 'range-static', 'aid']);

/** One thing per screen, large: the morning, today's exercises, the pacer, and how it was. */
export function Today({ view: served, refresh }: { view: HomeView; refresh: () => void }) {
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
  const view: HomeView = {
    ...withWaiting(served, outbox.list),
    items: rest ? due.filter((i) => EASING.has(i.exercise.aim)) : due,
    stopped: locked ? stoppedText([here], served.clinic.emergencyNumber) : served.stopped,
  };
  const [reported, setReported] = useState<string | null>(null);
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
  const session = entryOf(view, 'session', view.today);
  const send = (entry: HomeEntryBody) => outbox.add(entry);
  const begin = (scores: HomeScores) => {
    const before = answerFor(view, scores, 'before');
    setRunning({
      id: running?.id ?? crypto.randomUUID(),
      day: view.today,
      scores,
      planId: view.planId,
      done: running?.done ?? [],
    });
    setScreen(
      typeof before === 'number' && restsToday(view.painSchool, before)
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
        signs={view.stopSigns}
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
      <Questions questions={askedAt(view, 'before')} done={begin} cancel={() => setScreen({ at: 'list' })} />
    );
  if (screen.at === 'morning')
    return (
      <Questions
        questions={askedAt(view, 'morning')}
        done={(scores) => {
          send({
            id: crypto.randomUUID(),
            version: 1,
            kind: 'morning',
            day: view.today,
            payload: { scores },
          });
          setScreen({ at: 'list' });
        }}
        cancel={() => setScreen({ at: 'list' })}
      />
    );
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
          send({
            id: running.id,
            version: 1,
            kind: 'session',
            day: running.day,
            ...(running.planId === null ? {} : { planId: running.planId }),
            payload,
          });
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
          running={{
            id: entry.id,
            day: entry.day,
            scores: payload.scores,
            planId: entry.planId,
            done: payload.exercises,
          }}
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
    if (entry?.kind === 'morning')
      return (
        <Questions
          questions={askedAt(view, 'morning')}
          known={scoresOf(entry)}
          done={(scores) => {
            send({
              id: entry.id,
              version: entry.version + 1,
              kind: 'morning',
              day: entry.day,
              payload: { scores: { ...scoresOf(entry), ...scores } },
            });
            setScreen({ at: 'list' });
          }}
          cancel={() => setScreen({ at: 'list' })}
        />
      );
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
