import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import type { HandoutContent, HandoutExercise, HandoutPart } from '@heathstep/contracts';
import { filled } from '@heathstep/core';
import type { PdfTag } from './tags.js';

export const FONT = 'Hanken';
/** Letters that the first font has not. */
export const FONT_MORE = 'HankenMore';

export const INK = '#2a2420';
export const LINE = '#d9d2c4';
const HEATHER = '#55386a';

/** A text in runs of the font that has its letters, and what it is to a reading program. */
export const runs = (text: string, tag: PdfTag = 'P'): { text: string; font?: string; tag: PdfTag }[] =>
  (text.match(/[\u0100-\u024f\u1e00-\u1eff]+|[^\u0100-\u024f\u1e00-\u1eff]+/g) ?? []).map((part) =>
    /^[\u0100-\u024f\u1e00-\u1eff]/.test(part) ? { text: part, font: FONT_MORE, tag } : { text: part, tag },
  );

export const p = (text: string, style: object = {}): Content => ({ text: runs(text), ...style });

export const heading = (tag: PdfTag, text: string, style: object): Content => ({
  text: runs(text, tag),
  bold: true,
  ...style,
});

const labelled = (label: string, text: string): Content[] =>
  text === ''
    ? []
    : [{ text: [{ text: `${label} `, bold: true }, ...runs(`${text}.`)], margin: [0, 2, 0, 0] }];

/** A box to tick for each weekday it is done; the others stay empty. */
function ticks(days: readonly boolean[], names: readonly string[]): Content {
  return {
    margin: [0, 4, 0, 0],
    columnGap: 4,
    columns: names.map((day, i) => ({
      width: 44,
      columns: [
        {
          width: 14,
          canvas:
            days[i] === true
              ? [{ type: 'rect' as const, x: 0, y: 1, w: 10, h: 10, r: 2, lineWidth: 1.1, lineColor: INK }]
              : [],
        },
        { width: '*', text: days[i] === true ? day : '', fontSize: 9.5 },
      ],
    })),
  };
}

/** The picture of an exercise on the sides it is done, as SVG; null where there is none. */
export type FigureOf = (exercise: Pick<HandoutExercise, 'key' | 'sides'>) => string | null;

function exercise(e: HandoutExercise, number: number, { labels, figureOf }: Setting): Content {
  const svg = figureOf(e);
  return {
    unbreakable: true,
    margin: [0, 8, 0, 0],
    columnGap: 10,
    columns: [
      { width: 16, text: String(number), bold: true, fontSize: 18, color: HEATHER },
      svg === null
        ? { width: 104, text: '' }
        : ({ width: 104, svg, fit: [104, 92], alt: e.name } as Content & { width: number }),
      {
        width: '*',
        stack: [
          heading('H3', e.name, { fontSize: 14.5 }),
          p(e.dose, { bold: true, fontSize: 12.5, margin: [0, 1, 0, 2] }),
          p(e.steps),
          ...labelled(labels.feel, e.feel),
          ...labelled(e.cue.label, e.cue.text),
          ...labelled(labels.needs, e.needs),
          ticks(e.days, labels.weekdays),
        ],
      },
    ],
  };
}

const rule = (): Content => ({
  margin: [0, 7, 0, 0],
  canvas: [{ type: 'line', x1: 0, y1: 0, x2: 507, y2: 0, lineWidth: 0.8, lineColor: LINE }],
});

interface Setting {
  readonly labels: HandoutContent['labels'];
  readonly figureOf: FigureOf;
}

function part(of: HandoutPart, from: number, setting: Setting): Content[] {
  return [
    ...(of.title === '' ? [] : [heading('H2', of.title, { fontSize: 17, margin: [0, 16, 0, 0] })]),
    ...(of.purpose === '' ? [] : [p(`${of.purpose}.`, { margin: [0, 2, 0, 0] })]),
    ...of.exercises.flatMap((e, i) => [
      ...(e.inTurn === '' ? [] : [p(e.inTurn, { bold: true, color: HEATHER, margin: [0, 10, 0, 0] })]),
      exercise(e, from + i, setting),
      rule(),
    ]),
    ...points(setting.labels.beside, of.beside),
    ...points(
      setting.labels.goesOn,
      of.goesOnWhen.map((c) => `${c}.`),
    ),
  ];
}

/** A list under its heading, together on one page; nothing where it is empty. */
const points = (title: string, list: readonly string[]): Content[] =>
  list.length === 0
    ? []
    : [
        {
          unbreakable: true,
          margin: [0, 10, 0, 0],
          stack: [
            heading('H2', title, { fontSize: 13.5 }),
            { ul: list.map((text) => p(text)), margin: [0, 2, 0, 0] },
          ],
        },
      ];

/** The paper: in reading order, large, with figures as lines and not as dots. */
export function handoutDocument(
  content: HandoutContent,
  homeUrl: string,
  figureOf: FigureOf,
): TDocumentDefinitions {
  const { allRight, stop, labels } = content;
  let count = 1;
  const parts = content.parts.flatMap((of) => {
    const made = part(of, count, { labels, figureOf });
    count += of.exercises.length;
    return made;
  });
  return {
    language: content.language,
    tagged: true,
    displayTitle: true,
    version: '1.7',
    pageSize: 'A4',
    pageMargins: [44, 40, 44, 44],
    defaultStyle: { font: FONT, fontSize: 11.5, lineHeight: 1.18, color: INK },
    info: { title: content.title, author: content.clinic, subject: content.version },
    content: [
      {
        columnGap: 12,
        columns: [
          {
            width: '*',
            stack: [
              heading('H1', content.title, { fontSize: 23 }),
              p(content.clinic),
              p(content.version, { fontSize: 9.5 }),
            ],
          },
          {
            width: 62,
            stack: [
              { qr: homeUrl, fit: 58, foreground: INK },
              { text: labels.page, fontSize: 8, alignment: 'center' },
            ],
          },
        ],
      },
      ...parts,
      {
        unbreakable: true,
        margin: [0, 14, 0, 0],
        columnGap: 18,
        columns: [
          {
            width: '*',
            stack: [heading('H2', allRight.title, { fontSize: 13.5 }), p(allRight.text)],
          },
          {
            width: '*',
            stack: [
              heading('H2', stop.title, { fontSize: 13.5 }),
              ...labelled(stop.emergency.label, stop.emergency.signs),
              ...labelled(stop.review.label, stop.review.signs),
              ...stop.notes.map((note) => p(note, { margin: [0, 2, 0, 0] })),
            ],
          },
        ],
      },
      p(content.notice, { fontSize: 9.5, margin: [0, 10, 0, 0] }),
    ],
    footer: (page, pages) => ({
      text: runs(filled(labels.footer, { page, pages }), 'Artifact'),
      fontSize: 8.5,
      alignment: 'center',
      margin: [0, 14, 0, 0],
    }),
  };
}
