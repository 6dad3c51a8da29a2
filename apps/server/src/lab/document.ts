import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { CAPTURE_WEARING_WORDS, type CaptureView, type LabMeasure } from '@heathstep/contracts';
import { LAB_TASK_WORDS, say, shown, type Side, type Tongue, unitAfter } from '@heathstep/core';
import { plainWords } from '@heathstep/core/lab';
import { FONT, heading, INK, LINE, p, runs } from '../handout/document.js';
import type { Analysed } from './analysed.js';
import type { PrintPicture } from './pictures.js';

export interface LabPage {
  readonly capture: Omit<CaptureView, 'by' | 'from'>;
  readonly day: string;
  readonly person: string;
  readonly clinic: string;
  readonly found: Analysed;
  readonly measures: readonly LabMeasure[];
  readonly print: PrintPicture | null;
  readonly wave: string | null;
  /** The patient's language. */
  readonly tongue: Tongue;
}

const cell = (text: string, style: object = {}): TableCell => ({ text: runs(text), ...style });

function values({ measures, found }: LabPage): Content[] {
  const of = (m: LabMeasure, side: Side): string => {
    const q = found.quantities[side][m.source.quantity];
    return q === undefined ? '–' : `${shown(q.value, m.measure.decimals)}${unitAfter(m.measure)}`;
  };
  const rows = measures.filter((m) => of(m, 'left') !== '–' || of(m, 'right') !== '–');
  if (rows.length === 0) return [];
  return [
    {
      margin: [0, 10, 0, 0],
      table: {
        headerRows: 1,
        widths: ['*', 'auto', 'auto'],
        body: [
          ['', say('Left'), say('Right')].map((t) => cell(t, { color: '#5d5348' })),
          ...rows.map((m) => [
            cell(`${m.measure.label}, ${m.measure.brief}`),
            cell(of(m, 'left'), { bold: true }),
            cell(of(m, 'right'), { bold: true }),
          ]),
        ],
      },
      layout: {
        hLineWidth: (i: number) => (i === 0 ? 0 : 0.6),
        vLineWidth: () => 0,
        hLineColor: () => LINE,
        paddingTop: () => 2,
        paddingBottom: () => 2,
      },
    },
  ];
}

/** As wide as the page has room for, and no larger than the feet are. */
const MOST_WIDE = 420;
const POINTS_PER_MM = 2.835;

function picture({ print, wave }: LabPage): Content[] {
  if (print !== null) {
    const width = Math.min(MOST_WIDE, print.widthMm * POINTS_PER_MM);
    return [
      { image: print.image, width, alignment: 'center', margin: [0, 12, 0, 2] },
      p(
        say('Left foot on the left, as one looks down. Paper is no pressure, the darkest {{top}} kPa', {
          top: print.topKpa,
        }),
        { fontSize: 8.5, alignment: 'center' },
      ),
    ];
  }
  if (wave === null) return [];
  return [
    { svg: wave, width: 460, margin: [0, 12, 0, 2] },
    p(
      say(
        'Heel under the shin from the heel strike to the toe-off, degrees, inward up; left blue, right rust, thin lines one spread around',
      ),
      { fontSize: 8.5 },
    ),
  ];
}

/** A capture as one page: the picture in plain words for the patient, the numbers below. */
export function labDocument(page: LabPage): TDocumentDefinitions {
  const { capture, found, tongue } = page;
  const title = say('Foot lab: {{task}}', { task: say(LAB_TASK_WORDS[capture.task]).toLowerCase() });
  const warnings = found.notes.map((n) => n.text);
  return {
    language: 'en',
    tagged: true,
    displayTitle: true,
    version: '1.7',
    pageSize: 'A4',
    pageMargins: [44, 36, 44, 40],
    defaultStyle: { font: FONT, fontSize: 10, lineHeight: 1.16, color: INK },
    info: { title: `${title}, ${page.person}`, subject: page.day },
    content: [
      {
        columns: [
          { width: '*', stack: [heading('H1', title, { fontSize: 19 })] },
          { width: 'auto', alignment: 'right', fontSize: 8.5, stack: [p(page.clinic), p(page.day)] },
        ],
      },
      p(
        `${page.person}. ${say(CAPTURE_WEARING_WORDS[capture.wearing])}${capture.note === '' ? '' : `, ${capture.note}`}`,
        {
          bold: true,
        },
      ),
      ...plainWords(capture.kind, capture.task, found.quantities, tongue).map((text) =>
        p(text, { fontSize: 13, margin: [0, 4, 0, 0] }),
      ),
      ...picture(page),
      ...values(page),
      ...(capture.simulated
        ? [
            p(say('From a simulated instrument: a made-up person, no measurement'), {
              bold: true,
              margin: [0, 8, 0, 0],
            }),
          ]
        : []),
      ...(warnings.length === 0
        ? []
        : [
            p(say('To be minded: {{list}}', { list: warnings.join('. ') }), {
              fontSize: 8.5,
              margin: [0, 6, 0, 0],
            }),
          ]),
      p(
        say('{{device}}, {{seconds}} s. What the numbers mean is for whoever treats; they are no diagnosis', {
          device: capture.device,
          seconds: shown(capture.seconds, 0),
        }),
        { fontSize: 8.5, margin: [0, 6, 0, 0] },
      ),
    ],
  };
}
