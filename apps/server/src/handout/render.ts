import { join } from 'node:path';
import { Injectable } from '@nestjs/common';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { Settings } from '../settings.js';
import { FONT, FONT_MORE } from './document.js';
import { teachTags } from './tags.js';

/** Sets papers in the application's own letters; nothing is ever fetched, and no other file is read. */
@Injectable()
export class Printer {
  constructor(settings: Settings) {
    const root = settings.config.fontsRoot;
    const weights = (subset: string) => {
      const file = (weight: number) => join(root, `hanken-grotesk-${subset}-${weight}-normal.woff`);
      return { normal: file(400), bold: file(700), italics: file(400), bolditalics: file(700) };
    };
    pdfmake.addFonts({ [FONT]: weights('latin'), [FONT_MORE]: weights('latin-ext') });
    teachTags();
    pdfmake.setUrlAccessPolicy(() => false);
    pdfmake.setLocalAccessPolicy((path) => path.startsWith(root));
  }

  /** A document as the bytes of a PDF. */
  pdf(document: TDocumentDefinitions): Promise<Buffer> {
    return pdfmake.createPdf(document).getBuffer();
  }
}
