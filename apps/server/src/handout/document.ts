import type { Content, Margins, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import type { HandoutContent, HandoutExercise, HandoutPart } from './content.js';

export const FONT = 'Hanken';
/** Letters that the first font has not. */
export const FONT_MORE = 'HankenMore';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const INK = '#2a2420';
const LINE = '#d9d2c4';
const HEATHER = '#55386a';

/** A text in runs of the font that has its letters. */
const runs = (text: string): { text: string; font?: string }[] =>
  (text.match(/[\u0100-\u024f\u1e00-\u1eff]+|[^\u0100-\u024f\u1e00-\u1eff]+/g) ?? []).map((part) =>
    /^[\u0100-\u024f\u1e00-\u1eff]/.test(part) ? { text: part, font: FONT_MORE } : { text: part },
  );

const p = (text: string, style: object = {}): Content => ({ text: runs(text), ...style });

const labelled = (label: string, text: string): Content[] =>
  text === ''
    ? []
    : [{ text: [{ text: `${label} `, bold: true }, ...runs(`${text}.`)], margin: [0, 2, 0, 0] }];

/** A box to tick for each weekday it is done; the others stay empty. */
function ticks(days: readonly boolean[]): Content {
  return {
    margin: [0, 4, 0, 0],
    columnGap: 4,
    columns: DAYS.map((day, i) => ({
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

function exercise(e: HandoutExercise, number: number): Content {
  return {
    unbreakable: true,
    margin: [0, 8, 0, 0],
    columnGap: 10,
    columns: [
      { width: 16, text: String(number), bold: true, fontSize: 18, color: HEATHER },
      e.figure === null ? { width: 104, text: '' } : { width: 104, svg: e.figure, fit: [104, 92] },
      {
        width: '*',
        stack: [
          p(e.name, { bold: true, fontSize: 14.5 }),
          p(e.dose, { bold: true, fontSize: 12.5, margin: [0, 1, 0, 2] }),
          p(e.steps),
          ...labelled('You should feel:', e.feel),
          ...labelled('Mind:', e.cue),
          ...labelled('You need:', e.needs),
          ticks(e.days),
        ],
      },
    ],
  };
}

const rule = (): Content => ({
  margin: [0, 7, 0, 0],
  canvas: [{ type: 'line', x1: 0, y1: 0, x2: 507, y2: 0, lineWidth: 0.8, lineColor: LINE }],
});

function part(of: HandoutPart, from: number): Content[] {
  return [
    ...(of.title === '' ? [] : [p(of.title, { bold: true, fontSize: 17, margin: [0, 16, 0, 0] })]),
    ...(of.purpose === '' ? [] : [p(`${of.purpose}.`, { margin: [0, 2, 0, 0] })]),
    ...of.exercises.flatMap((e, i) => [exercise(e, from + i), rule()]),
    ...(of.beside.length === 0
      ? []
      : [
          {
            unbreakable: true,
            margin: [0, 10, 0, 0] as Margins,
            stack: [
              p('Beside the exercises', { bold: true, fontSize: 13.5 }),
              { ul: of.beside.map((text) => p(text)), margin: [0, 2, 0, 0] as Margins },
            ],
          },
        ]),
  ];
}

/** The paper: in reading order, large, with figures as lines and not as dots. */
export function handoutDocument(content: HandoutContent, homeUrl: string): TDocumentDefinitions {
  let count = 1;
  const parts = content.parts.flatMap((of) => {
    const made = part(of, count);
    count += of.exercises.length;
    return made;
  });
  return {
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
              p(content.title, { bold: true, fontSize: 23 }),
              p(content.clinic),
              p(content.version, { fontSize: 9.5 }),
            ],
          },
          {
            width: 62,
            stack: [
              { qr: homeUrl, fit: 58, foreground: INK },
              { text: 'your page', fontSize: 8, alignment: 'center' },
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
            stack: [p('Is this pain all right?', { bold: true, fontSize: 13.5 }), p(content.allRight)],
          },
          {
            width: '*',
            stack: [
              p('Stop', { bold: true, fontSize: 13.5 }),
              ...labelled(`Stop and call ${content.emergency.call}:`, content.emergency.signs),
              ...labelled(`Stop for today and tell us, ${content.review.call}:`, content.review.signs),
            ],
          },
        ],
      },
      p(
        `Made for you by your physiotherapist. It does not replace their advice.${content.usually === '' ? '' : ` ${content.usually}.`}`,
        { fontSize: 9.5, margin: [0, 10, 0, 0] },
      ),
    ],
    footer: (page, pages) => ({
      text: `${content.title}, page ${page} of ${pages}`,
      fontSize: 8.5,
      alignment: 'center',
      margin: [0, 14, 0, 0],
    }),
  };
}
