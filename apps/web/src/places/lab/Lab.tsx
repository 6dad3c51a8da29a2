import { LAB_TASK_WORDS, LAB_TASKS, say } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { type CaptureView, type CourseView, labMeasures } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, queryClient } from '../../api/queries.js';
import { dayHere, longDay, momentText } from '../../parts/dates.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { SelectField } from '../../parts/fields.js';
import { OfEpisode } from '../../parts/OfEpisode.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { IntoVisit } from './IntoVisit.js';
import { NewCapture } from './NewCapture.js';
import { Reading } from './Reading.js';
import { NotTakenError, runJob } from './runJob.js';
import { TurningNote } from './TurningNote.js';
import { useReading } from './useReading.js';
import { captureWords, INSTRUMENT_WORDS } from './words.js';

const captureKeys = (episodeId: string) => ['captures', episodeId] as const;

/** The foot lab of a complaint: captures of mat and motion pair, taken, looked at and compared. */
export function Lab() {
  return (
    <OfEpisode what={say('the foot lab')}>
      {(course, content) => <Place course={course} content={content} />}
    </OfEpisode>
  );
}

function Place({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const [params, setParams] = useSearchParams();
  const captures = useQuery({
    queryKey: captureKeys(episode.id),
    queryFn: () => request<CaptureView[]>('GET', `/api/episodes/${episode.id}/captures`),
  });
  const [taking, setTaking] = useState(false);
  const [discarded, setDiscarded] = useState<CaptureView | null>(null);
  const condition = content.pathways.find((c) => c.key === episode.condition)?.name ?? '';
  const put = (list: readonly CaptureView[]): void => {
    // A list that was asked for before, and comes after, would take away what was just kept.
    void queryClient.cancelQueries({ queryKey: captureKeys(episode.id) });
    queryClient.setQueryData(captureKeys(episode.id), list);
  };
  const open = (id: string | null, other: string | null = null): void => {
    setTaking(false);
    setParams(
      { ...(id === null ? {} : { capture: id }), ...(other === null ? {} : { with: other }) },
      { replace: true },
    );
  };
  const list = captures.data ?? [];
  const chosen = list.find((c) => c.id === params.get('capture')) ?? list[0] ?? null;
  const other = list.find((c) => c.id === params.get('with')) ?? null;
  const discard = async (c: CaptureView): Promise<void> => {
    put(await request<CaptureView[]>('DELETE', `/api/captures/${c.id}`));
    setDiscarded(c);
    open(null);
  };
  const takeBack = async (c: CaptureView): Promise<void> => {
    put(await request<CaptureView[]>('POST', `/api/captures/${c.id}/keep`, {}));
    setDiscarded(null);
    open(c.id);
  };
  return (
    <>
      <EpisodeHead episode={episode} condition={condition} />
      <main className="grid flex-1 content-start md:grid-cols-[15.5rem_minmax(0,1fr)] print:block">
        <aside className="no-print border-line px-5 py-4 max-md:border-b md:border-r">
          <button type="button" className="action w-full" onClick={() => setTaking(true)}>
            {say('New capture')}
          </button>
          {discarded !== null && (
            <p className="mt-2 text-sm" role="status">
              {say('Discarded: {{words}}.', { words: captureWords(discarded) })}{' '}
              <button type="button" className="text-action" onClick={() => void takeBack(discarded)}>
                {say('Take back')}
              </button>
            </p>
          )}
          <List captures={list} chosen={taking ? null : chosen} open={(id) => open(id)} />
        </aside>
        <div className="min-w-0 px-6 py-4">
          {captures.data === undefined && captures.error !== null ? (
            <Failed error={captures.error} again={() => void captures.refetch()} />
          ) : captures.data === undefined ? (
            <Loading what={say('the captures')} />
          ) : taking || (list.length === 0 && discarded === null) ? (
            <NewCapture
              episode={episode}
              content={content}
              captures={list}
              kept={(all, id) => {
                put(all);
                open(id);
              }}
              leave={() => setTaking(false)}
            />
          ) : chosen === null ? (
            <p className="text-ink-2">{say('No capture is left.')}</p>
          ) : (
            <Shown
              key={chosen.id}
              course={course}
              content={content}
              capture={chosen}
              other={
                other !== null && other.kind === chosen.kind && other.task === chosen.task ? other : null
              }
              captures={list}
              compare={(id) => open(chosen.id, id)}
              discard={() => void discard(chosen)}
            />
          )}
        </div>
      </main>
    </>
  );
}

/** Captures by day, the newest first. */
function List({
  captures,
  chosen,
  open,
}: {
  captures: readonly CaptureView[];
  chosen: CaptureView | null;
  open: (id: string) => void;
}) {
  const [task, setTask] = useState('');
  const shown = captures.filter((c) => task === '' || c.task === task);
  const days = [...new Set(shown.map((c) => dayHere(c.at)))];
  const tasks = LAB_TASKS.filter((t) => captures.some((c) => c.task === t));
  return (
    <nav aria-label={say('Captures')} className="mt-4 max-md:max-h-56 max-md:overflow-y-auto">
      {tasks.length > 1 && (
        <SelectField
          label={say('Show')}
          value={task}
          onChange={setTask}
          options={[
            ['', say('everything')] as const,
            ...tasks.map((t) => [t, say(LAB_TASK_WORDS[t])] as const),
          ]}
        />
      )}
      {days.map((day) => (
        <section key={day} className="mt-3">
          <h3 className="text-sm text-ink-2">{longDay(day)}</h3>
          <ul>
            {shown
              .filter((c) => dayHere(c.at) === day)
              .map((c) => (
                <li key={c.id} className="seen-when-near">
                  <button
                    type="button"
                    className={`w-full border-l-2 py-1.5 pl-2.5 text-left ${c.id === chosen?.id ? 'border-heather font-semibold' : 'border-transparent hover:border-line'}`}
                    aria-current={c.id === chosen?.id ? 'true' : undefined}
                    onClick={() => open(c.id)}
                  >
                    <span className="block">{captureWords(c)}</span>
                    <span className="block text-sm font-normal text-ink-2">
                      {INSTRUMENT_WORDS[c.kind]}
                      {c.note === '' ? '' : `, ${c.note}`}
                    </span>
                  </button>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

interface ShownProps {
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly capture: CaptureView;
  readonly other: CaptureView | null;
  readonly captures: readonly CaptureView[];
  readonly compare: (id: string | null) => void;
  readonly discard: () => void;
}

/** One capture, beside another where one is chosen. */
function Shown({ course, content, capture, other, captures, compare, discard }: ShownProps) {
  const { episode } = course;
  const { query, progress } = useReading(capture);
  const beside = useReading(other);
  // The one before of the same kind stands behind the numbers where no other is chosen.
  const before =
    captures.find(
      (c) =>
        c.at < capture.at &&
        c.kind === capture.kind &&
        c.task === capture.task &&
        c.side === capture.side &&
        c.wearing === capture.wearing,
    ) ?? null;
  const last = useReading(other === null ? before : null);
  const alike = captures.filter(
    (c) => c.id !== capture.id && c.kind === capture.kind && c.task === capture.task,
  );
  const measures = labMeasures(content.measures, capture.kind, capture.task);
  const reading = query.data;
  return (
    <article>
      <header className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 border-b border-line pb-3">
        <div>
          <h2>{captureWords(capture)}</h2>
          <p className="text-sm text-ink-2">
            {momentText(capture.at)}, {capture.by}. {capture.device}
            {capture.from === 'file' ? `, ${say('from a file')}` : ''}
            {capture.note === '' ? '' : `. ${capture.note}`}
          </p>
          {capture.simulated && (
            <p className="text-sm text-hold-deep">
              {say('Simulated: no measurement, and marked so wherever it goes')}
            </p>
          )}
        </div>
        <div className="no-print w-64">
          {alike.length > 0 && (
            <SelectField
              label={say('Beside')}
              value={other?.id ?? ''}
              onChange={(id) => compare(id === '' ? null : id)}
              options={[
                ['', say('nothing')] as const,
                ...alike.map((c) => [c.id, `${captureWords(c)}, ${momentText(c.at)}`] as const),
              ]}
            />
          )}
        </div>
      </header>
      <div className="mt-4">
        {reading === undefined ? (
          query.error === null ? (
            <p role="status" className="flex items-center gap-3">
              {say('Working it out')} <progress value={progress} max={1} aria-label={say('Working it out')} />
            </p>
          ) : (
            <Unread error={query.error} again={() => void query.refetch()} />
          )
        ) : (
          <>
            <Reading
              reading={reading}
              other={
                other === null || beside.query.data === undefined
                  ? null
                  : { reading: beside.query.data, name: `${captureWords(other)}, ${momentText(other.at)}` }
              }
              last={last.query.data ?? null}
              name={`${captureWords(capture)}, ${momentText(capture.at)}`}
              measures={measures}
              affected={episode.affected}
              ageYears={episode.person.ageYears}
            />
            <TurningNote capture={capture} reading={reading} captures={captures} />
            <IntoVisit course={course} capture={capture} reading={reading} measures={measures} />
            <Files capture={capture} discard={discard} />
          </>
        )}
      </div>
    </article>
  );
}

function Unread({ error, again }: { error: Error; again: () => void }) {
  const said =
    error instanceof NotTakenError
      ? say('Line {{line}}: {{reason}}', { line: error.line, reason: error.message })
      : error.message;
  return (
    <p role="alert" className="text-ease-deep">
      {said}{' '}
      <button type="button" className="text-action min-h-11" onClick={again}>
        {say('Try again')}
      </button>
    </p>
  );
}

/** The capture as paper, as files, and put aside. */
function Files({ capture, discard }: { capture: CaptureView; discard: () => void }) {
  const [error, setError] = useState<string | null>(null);
  const save = async (as: 'json' | 'csv'): Promise<void> => {
    setError(null);
    try {
      const url = `/api/captures/${capture.id}/recording`;
      const blob =
        as === 'csv'
          ? await runJob({ do: 'csv', url, frames: capture.seconds * 100 })
          : await (await fetch(url, { credentials: 'same-origin' })).blob();
      const link = document.createElement('a');
      link.href = URL.createObjectURL(blob);
      link.download = `${capture.kind}-${capture.task}-${dayHere(capture.at)}.${as}`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    } catch (failure) {
      setError(
        failure instanceof ApiError || failure instanceof Error
          ? failure.message
          : say('It could not be saved'),
      );
    }
  };
  return (
    <footer className="no-print mt-6 flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-line pt-3 text-sm">
      <a
        className="text-action min-h-11 py-2.5"
        href={`/api/captures/${capture.id}/page.pdf`}
        target="_blank"
        rel="noreferrer"
      >
        {say('As a page (PDF)')}
      </a>
      <button type="button" className="text-action min-h-11" onClick={() => window.print()}>
        {say('Print')}
      </button>
      <button type="button" className="text-action min-h-11" onClick={() => void save('csv')}>
        {say('Save as CSV')}
      </button>
      <button type="button" className="text-action min-h-11" onClick={() => void save('json')}>
        {say('Save as JSON')}
      </button>
      <button type="button" className="text-action min-h-11" onClick={discard}>
        {say('Discard')}
      </button>
      {error !== null && (
        <span role="alert" className="text-ease-deep">
          {error}
        </span>
      )}
    </footer>
  );
}
