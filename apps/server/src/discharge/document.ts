import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import type { LetterChart, LetterContent, LetterRow } from '@heathstep/contracts';
import { filled } from '@heathstep/core';
import { FONT, heading, INK, LINE, p, runs } from '../handout/document.js';

type Margins = [number, number, number, number];

const RUST = '#8c2f1b';

const cell = (text: string, style: object = {}): TableCell => ({ text: runs(text), ...style });

const row = (r: LetterRow): TableCell[] => [
  cell(r.measure, { bold: true }),
  cell(r.sideText),
  cell(r.first),
  cell(r.last),
  cell(r.change),
  cell(r.other),
];

function measured({ rows, more, labels }: LetterContent): Content[] {
  if (rows.length === 0) return [];
  const head = [labels.measure, labels.side, labels.first, labels.last, labels.change, labels.other];
  return [
    heading('H2', labels.measured, { fontSize: 11.5, margin: [0, 8, 0, 2] }),
    {
      fontSize: 8.5,
      table: {
        headerRows: 1,
        widths: ['*', 'auto', 'auto', 'auto', 'auto', 'auto'],
        body: [head.map((text) => cell(text, { color: '#5d5348' })), ...rows.map(row)],
      },
      layout: {
        hLineWidth: (i: number) => (i === 0 ? 0 : 0.6),
        vLineWidth: () => 0,
        hLineColor: () => LINE,
        paddingLeft: (i: number) => (i === 0 ? 0 : 5),
        paddingRight: () => 0,
        paddingTop: () => 1.5,
        paddingBottom: () => 1.5,
      },
    },
    ...(more === 0 ? [] : [p(labels.more, { fontSize: 8.5, margin: [0, 2, 0, 0] })]),
  ];
}

const chart = ({ title, alt, svg }: LetterChart): Content & { width: string } => ({
  width: '*',
  stack: [p(title, { fontSize: 8.5 }), { svg, width: 240, alt } as Content],
});

const part = ({ title, lines }: LetterContent['parts'][number]): Content => ({
  margin: [0, 6, 0, 0],
  stack: [heading('H2', title, { fontSize: 11.5 }), ...lines.map((text) => p(text))],
});

/** What was written by hand: a paragraph each, single ends of lines kept. */
const written = (texts: readonly string[]): Content[] =>
  texts.map((text) => p(text, { margin: [0, 6, 0, 0] as Margins }));

/** The letter as one page: what it is about, open signs, the table, the charts, then words. */
export function letterDocument(letter: LetterContent): TDocumentDefinitions {
  return {
    language: 'en',
    tagged: true,
    displayTitle: true,
    version: '1.7',
    pageSize: 'A4',
    pageMargins: [44, 36, 44, 40],
    defaultStyle: { font: FONT, fontSize: 9.5, lineHeight: 1.14, color: INK },
    info: { title: `${letter.title}, ${letter.person}`, author: letter.signed, subject: letter.day },
    content: [
      {
        columns: [
          { width: '*', stack: [heading('H1', letter.title, { fontSize: 19 })] },
          {
            width: 'auto',
            alignment: 'right',
            fontSize: 8.5,
            stack: [letter.clinic, ...(letter.letterhead ?? []), letter.day].map((line) => p(line)),
          },
        ],
      },
      ...(letter.to.length === 0
        ? []
        : [{ margin: [0, 6, 0, 8] as Margins, stack: letter.to.map((line) => p(line)) }]),
      p(letter.person, { bold: true, fontSize: 12 }),
      ...letter.about.map(({ label, text }): Content => ({
        text: [{ text: `${label}: `, bold: true }, ...runs(text)],
      })),
      ...written(letter.opening),
      ...(letter.open.length === 0
        ? []
        : [
            {
              margin: [0, 6, 0, 0] as Margins,
              color: RUST,
              stack: [
                heading('H2', letter.labels.open, { fontSize: 11.5 }),
                ...letter.open.map((text) => p(text, { bold: true })),
              ],
            },
          ]),
      ...measured(letter),
      ...(letter.charts.length === 0
        ? []
        : [
            {
              margin: [0, 8, 0, 0] as Margins,
              columnGap: 14,
              columns: letter.charts.map(chart),
            },
          ]),
      ...letter.parts.map(part),
      ...written(letter.closing),
      p(letter.signed, { bold: true, margin: [0, 12, 0, 0] }),
      p(letter.notice, { fontSize: 8, margin: [0, 3, 0, 0] }),
    ],
    footer: (page, pages) => ({
      text: runs(filled(letter.labels.footer, { page, pages }), 'Artifact'),
      fontSize: 8,
      alignment: 'center',
      margin: [0, 12, 0, 0],
    }),
  };
}
