import { say } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { LetterContent, LetterRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { changeTone } from '../../parts/Judgement.js';
import { Failed, Loading } from '../../parts/Waiting.js';

/** The letter of a course on one page: of one that is closed the discharge, of one under way how it goes. */
export function CourseLetter() {
  const { episodeId = '' } = useParams();
  const letter = useQuery({
    queryKey: [...keys.course(episodeId), 'letter'],
    queryFn: () => request<LetterContent>('GET', `/api/episodes/${episodeId}/letter`),
    retry: (count, error) => error instanceof ApiError && error.passing && count < 4,
  });
  if (letter.data === undefined)
    return letter.error === null ? (
      <Loading what={say('the letter')} />
    ) : (
      <Failed error={letter.error} again={() => void letter.refetch()} />
    );
  return <Sheet letter={letter.data} episodeId={episodeId} />;
}

function Sheet({ letter, episodeId }: { letter: LetterContent; episodeId: string }) {
  const { labels } = letter;
  return (
    <main className="mx-auto w-full max-w-[52rem] bg-paper px-10 py-8 max-sm:px-5 print:max-w-none print:bg-transparent print:p-0 print:text-[9.5pt] print:leading-snug">
      <div className="no-print mb-6 flex flex-wrap gap-3">
        <button type="button" className="action" onClick={() => window.print()}>
          {say('Print')}
        </button>
        <a
          href={`/api/episodes/${episodeId}/letter.pdf`}
          target="_blank"
          rel="noreferrer"
          className="action-quiet"
        >
          {say('As a PDF')}
        </a>
        <Link to={`/episodes/${episodeId}/course`} className="action-quiet">
          {say('Back to the course')}
        </Link>
      </div>
      <header className="flex flex-wrap items-end justify-between gap-x-6 border-b-2 border-ink pb-2">
        <h1 className="text-3xl print:text-[19pt]">{letter.title}</h1>
        <p className="text-sm sm:text-right">
          {letter.clinic}
          <br />
          {letter.day}
        </p>
      </header>
      <p className="mt-2 text-lg font-semibold">{letter.person}</p>
      {letter.about.map(({ label, text }) => (
        <p key={label}>
          <b>{label}:</b> {text}
        </p>
      ))}
      {letter.open.length > 0 && (
        <section className="mt-3 text-ease-deep">
          <h2>{labels.open}</h2>
          {letter.open.map((text) => (
            <p key={text} className="font-semibold">
              {text}
            </p>
          ))}
        </section>
      )}
      <Measured letter={letter} />
      {letter.charts.length > 0 && (
        <div className="mt-4 grid grid-cols-2 gap-6 break-inside-avoid max-sm:grid-cols-1">
          {letter.charts.map(({ title, alt, svg }) => (
            <figure key={title}>
              <figcaption className="text-sm text-ink-2">{title}</figcaption>
              {/* Drawn for paper: its colours are those of the paper, by night too. */}
              <img
                className="w-full rounded"
                style={{ background: '#fff' }}
                alt={alt}
                src={`data:image/svg+xml,${encodeURIComponent(svg)}`}
              />
            </figure>
          ))}
        </div>
      )}
      {letter.parts.map(({ title, lines }) => (
        <section key={title} className="mt-3 break-inside-avoid">
          <h2>{title}</h2>
          {lines.map((text) => (
            <p key={text}>{text}</p>
          ))}
        </section>
      ))}
      <p className="mt-5 font-semibold">{letter.signed}</p>
      <p className="mt-1 border-t border-line pt-1 text-sm text-ink-2">{letter.notice}</p>
    </main>
  );
}

function Measured({ letter: { rows, more, labels } }: { letter: LetterContent }) {
  if (rows.length === 0) return null;
  return (
    <section className="mt-4">
      <h2>{labels.measured}</h2>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={labels.measured}>
        <table className="mt-1 w-full text-[0.92em]">
          <thead className="text-left text-ink-2">
            <tr>
              {[labels.measure, labels.side, labels.first, labels.last, labels.change, labels.other].map(
                (h) => (
                  <th key={h} scope="col" className="py-1 pr-3 font-normal">
                    {h}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <Row key={`${r.measure} ${r.side}`} row={r} />
            ))}
          </tbody>
        </table>
      </div>
      {more > 0 && <p className="text-sm text-ink-2">{labels.more}</p>}
    </section>
  );
}

function Row({ row: r }: { row: LetterRow }) {
  return (
    <tr className="border-t border-line-2 align-top">
      <th scope="row" className="py-1 pr-3 text-left font-semibold">
        {r.measure}
      </th>
      <td
        className="py-1 pr-3 font-semibold"
        style={r.side === 'none' ? undefined : { color: `var(--color-${r.side})` }}
      >
        {r.sideText}
      </td>
      <td className="py-1 pr-3">{r.first}</td>
      <td className="py-1 pr-3">{r.last}</td>
      <td className={`py-1 pr-3 ${r.direction === null ? '' : changeTone(r.direction)}`}>{r.change}</td>
      <td className="py-1">{r.other}</td>
    </tr>
  );
}
