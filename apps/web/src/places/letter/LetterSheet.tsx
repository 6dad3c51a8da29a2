import { Fragment } from 'react';
import type { LetterContent, LetterRow } from '@heathstep/contracts';
import { changeTone } from '../../parts/Judgement.js';

/** A letter as it is read and printed, on one page where it fits. */
export function LetterSheet({ letter, level: Title }: { letter: LetterContent; level: 'h1' | 'h2' }) {
  const { labels } = letter;
  return (
    <div className="print:text-[9.5pt] print:leading-snug">
      <header className="flex flex-wrap items-end justify-between gap-x-6 border-b-2 border-ink pb-2">
        <Title className="text-3xl print:text-[19pt]">{letter.title}</Title>
        <p className="text-sm sm:text-right">
          {letter.clinic}
          <br />
          {(letter.letterhead ?? []).map((line) => (
            <Fragment key={line}>
              <span data-said-by-others="">{line}</span>
              <br />
            </Fragment>
          ))}
          {letter.day}
        </p>
      </header>
      {letter.to.length > 0 && (
        <p className="my-3 whitespace-pre-line" data-said-by-others="">
          {letter.to.join('\n')}
        </p>
      )}
      <p className="mt-2 text-lg font-semibold">{letter.person}</p>
      {letter.about.map(({ label, text }) => (
        <p key={label}>
          <b>{label}:</b> {text}
        </p>
      ))}
      <Written texts={letter.opening} />
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
      <Written texts={letter.closing} />
      <p className="mt-5 font-semibold">{letter.signed}</p>
      <p className="mt-1 border-t border-line pt-1 text-sm text-ink-2">{letter.notice}</p>
    </div>
  );
}

/** What was written by hand: a paragraph each, single ends of lines kept. */
function Written({ texts }: { texts: readonly string[] }) {
  return (
    <div data-said-by-others="">
      {texts.map((text, i) => (
        <p key={`${String(i)} ${text}`} className="mt-3 whitespace-pre-line">
          {text}
        </p>
      ))}
    </div>
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
