import { say } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { HandoutContent, HandoutExercise } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useContent, useCourse } from '../../api/queries.js';
import { drawnSide, Figure } from '../../parts/Figure.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { Blocked } from '../plan/Blocked.js';

/** The plan on paper: one to two pages in large type, in the second person and in the person's language. */
export function Handout() {
  const { episodeId = '' } = useParams();
  const course = useCourse(episodeId);
  const content = useContent();
  const paper = useQuery({
    queryKey: [...keys.course(episodeId), 'handout'],
    queryFn: () => request<HandoutContent>('GET', `/api/episodes/${episodeId}/handout`),
    retry: (count, error) => error instanceof ApiError && error.passing && count < 4,
  });
  if (course.data !== undefined && paper.error instanceof ApiError && paper.error.status === 422) {
    const { plan, heldBack, id } = course.data.episode;
    return <NothingToPrint held={plan === null ? [] : heldBack} episodeId={id} />;
  }
  if (paper.data === undefined || content.data === undefined) {
    const error = paper.error ?? content.error;
    return error === null ? (
      <Loading what={say('the handout')} />
    ) : (
      <Failed error={error} again={() => void paper.refetch()} />
    );
  }
  return <Paper paper={paper.data} figures={content.data.figures} episodeId={episodeId} />;
}

type Figures = ClinicContent['figures'];

function Paper({
  paper,
  figures,
  episodeId,
}: {
  paper: HandoutContent;
  figures: Figures;
  episodeId: string;
}) {
  return (
    <main className="mx-auto w-full max-w-[52rem] bg-paper px-10 py-8 text-[1.05rem] print:max-w-none print:bg-transparent print:p-0 print:text-[12.5pt]">
      <Ways episodeId={episodeId} />
      {paper.held.length > 0 && (
        <p className="no-print mb-4 rounded bg-hold-wash px-3 py-2 text-hold-deep" role="status">
          {say('Held back by safety, not printed: {{list}}.', { list: paper.held.join(', ') })}
        </p>
      )}
      <div lang={paper.language}>
        <header className="flex items-end justify-between border-b-2 border-ink pb-2">
          <h1 className="text-3xl">{paper.title}</h1>
          <p className="text-right text-sm">
            {paper.clinic}
            <br />
            {paper.version}
          </p>
        </header>
        {paper.parts.map((part, i) => (
          <section key={i} className={i === 0 ? '' : 'mt-5'}>
            {part.title !== '' && <h2 className="border-b-2 border-ink pb-1 text-2xl">{part.title}</h2>}
            {part.purpose !== '' && <p>{part.purpose}.</p>}
            <ol
              className="mt-2"
              start={paper.parts.slice(0, i).reduce((sum, p) => sum + p.exercises.length, 1)}
            >
              {part.exercises.map((e, n) => (
                <Exercise
                  key={e.key}
                  exercise={e}
                  number={paper.parts.slice(0, i).reduce((sum, p) => sum + p.exercises.length, n + 1)}
                  labels={paper.labels}
                  figures={figures}
                />
              ))}
            </ol>
            <Beside list={part.beside} title={paper.labels.beside} />
            <Beside list={part.goesOnWhen.map((c) => `${c}.`)} title={paper.labels.goesOn} />
          </section>
        ))}
        <PainAndStop paper={paper} />
        <p className="mt-3 border-t border-line pt-2 text-sm">{paper.notice}</p>
      </div>
    </main>
  );
}

function NothingToPrint({ held, episodeId }: { held: readonly string[]; episodeId: string }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      {held.length > 0 ? (
        <Blocked reasons={held} episodeId={episodeId} />
      ) : (
        <>
          <h1>{say('No plan is given yet')}</h1>
          <Link to={`/episodes/${episodeId}/plan`} className="action mt-5">
            {say('To the plan')}
          </Link>
        </>
      )}
    </main>
  );
}

/** Ways to give it away, and back. */
function Ways({ episodeId }: { episodeId: string }) {
  return (
    <div className="no-print mb-6 flex flex-wrap gap-3">
      <button type="button" className="action" onClick={() => window.print()}>
        {say('Print')}
      </button>
      <a
        href={`/api/episodes/${episodeId}/handout.pdf`}
        target="_blank"
        rel="noreferrer"
        className="action-quiet"
      >
        {say('As a PDF')}
      </a>
      <a
        href={`/api/episodes/${episodeId}/handout.txt`}
        target="_blank"
        rel="noreferrer"
        className="action-quiet"
      >
        {say('As plain text')}
      </a>
      <a href={`/api/episodes/${episodeId}/plan.ics`} className="action-quiet">
        {say('For a calendar')}
      </a>
      <Link to={`/episodes/${episodeId}/plan`} className="action-quiet">
        {say('Back to the plan')}
      </Link>
    </div>
  );
}

function PainAndStop({ paper: { allRight, stop } }: { paper: HandoutContent }) {
  return (
    <section className="mt-3 grid grid-cols-2 gap-6 break-inside-avoid">
      <div>
        <h2>{allRight.title}</h2>
        <p>{allRight.text}</p>
      </div>
      <div>
        <h2>{stop.title}</h2>
        <p>
          <b>{stop.emergency.label}</b> {stop.emergency.signs}.
        </p>
        <p>
          <b>{stop.review.label}</b> {stop.review.signs}.
        </p>
        {stop.notes.map((note) => (
          <p key={note} data-said-by-others="">
            {note}
          </p>
        ))}
      </div>
    </section>
  );
}

/** One exercise, drawn and in words, with a box for each day it is done. */
function Exercise({
  exercise: e,
  number,
  labels,
  figures,
}: {
  exercise: HandoutExercise;
  number: number;
  labels: HandoutContent['labels'];
  figures: Figures;
}) {
  const figure = figures.find((f) => f.exercise === e.key);
  return (
    <li className="grid grid-cols-[2rem_8rem_1fr] gap-x-2 break-inside-avoid border-b border-line py-2.5">
      {e.inTurn !== '' && <p className="col-span-3 mb-1 font-bold">{e.inTurn}</p>}
      <span className="font-head text-2xl font-semibold">{number}</span>
      <span>
        {figure !== undefined && (
          <Figure figure={figure} side={drawnSide(e.sides)} label={e.name} className="h-28 w-32" />
        )}
      </span>
      <div>
        <h2>{e.name}</h2>
        <p className="text-lg font-semibold print:text-[13.5pt]">{e.dose}</p>
        <p>{e.steps}</p>
        <p>
          <b>{labels.feel}</b> {e.feel}.
        </p>
        {e.cue.text !== '' && (
          <p>
            <b>{e.cue.label}</b> {e.cue.text}.
          </p>
        )}
        {e.needs !== '' && (
          <p>
            <b>{labels.needs}</b> {e.needs}.
          </p>
        )}
        <p className="mt-1 flex gap-4 text-sm">
          {labels.weekdays.map(
            (day, i) =>
              e.days[i] === true && (
                <span key={day} className="inline-flex items-center gap-1.5">
                  <span aria-hidden className="size-3.5 rounded-sm border-[1.5px] border-ink" />
                  {day}
                </span>
              ),
          )}
        </p>
      </div>
    </li>
  );
}

function Beside({ list, title }: { list: readonly string[]; title: string }) {
  if (list.length === 0) return null;
  return (
    <section className="mt-3 break-inside-avoid">
      <h2>{title}</h2>
      <ul className="list-disc pl-6">
        {list.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    </section>
  );
}
