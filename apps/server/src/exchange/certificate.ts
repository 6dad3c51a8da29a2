import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';
import type { ErasureView } from '@heathstep/contracts';
import { localTime, say } from '@heathstep/core';
import { defaultsOf } from '../clinic/defaults.js';
import { FONT, heading, INK, p } from '../handout/document.js';
import type { Clinic } from '../persistence/entities.js';

/** That a record was erased: when, by whom, why, how much; nothing of whom, since nothing of that is kept. */
export function certificateOf(erasure: ErasureView, clinic: Clinic): TDocumentDefinitions {
  const at = localTime(new Date(erasure.at), clinic.timeZone);
  const day = new Intl.DateTimeFormat(clinic.locale, { dateStyle: 'long', timeZone: 'UTC' }).format(
    new Date(`${at.slice(0, 10)}T12:00:00Z`),
  );
  const title = say('A record was erased');
  const head = [clinic.name, ...defaultsOf(clinic).letterhead.split('\n'), clinic.phone].filter(
    (line) => line.trim() !== '',
  );
  const line = (label: string, text: string) => p(`${label}: ${text}`, { margin: [0, 4, 0, 0] });
  return {
    language: 'en',
    tagged: true,
    displayTitle: true,
    version: '1.7',
    pageSize: 'A4',
    pageMargins: [60, 56, 60, 56],
    defaultStyle: { font: FONT, fontSize: 11, lineHeight: 1.25, color: INK },
    info: { title, author: clinic.name },
    content: [
      ...head.map((text) => p(text, { fontSize: 9.5 })),
      heading('H1', title, { fontSize: 21, margin: [0, 28, 0, 10] }),
      line(say('Erased on'), `${day}, ${at.slice(11, 16)}`),
      line(say('By'), erasure.by),
      line(say('Why, and who decided it'), erasure.reason),
      line(say('Rows of the database taken away'), String(erasure.rows)),
      line(say('Number of this erasure'), erasure.id),
      p(
        say(
          'Everything that was recorded of the person was taken out of the records of this clinic. Whose it was is not kept, so it does not stand here. Copies in backups go with the backups, and the log keeps who looked and changed without what was there.',
        ),
        { margin: [0, 16, 0, 0] },
      ),
      p(say('To be filled in by hand: the record was that of'), { margin: [0, 36, 0, 0] }),
      { canvas: [{ type: 'line', x1: 0, y1: 18, x2: 300, y2: 18, lineWidth: 0.7, lineColor: INK }] },
      p(say('Day and signature'), { margin: [0, 28, 0, 0] }),
      { canvas: [{ type: 'line', x1: 0, y1: 18, x2: 300, y2: 18, lineWidth: 0.7, lineColor: INK }] },
    ],
  };
}
