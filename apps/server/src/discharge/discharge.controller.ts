import { Controller, Get, Header, Param, Res, StreamableFile } from '@nestjs/common';
import type { Response } from 'express';
import type { LetterContent } from '@heathstep/contracts';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { EpisodeReader } from '../episodes/reader.js';
import { Printer } from '../handout/render.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db } from '../persistence/db.js';
import { LetterPages } from '../letters/letterPage.js';
import { letterDocument } from './document.js';

/** The letter of a course: of one that is closed the discharge, of one that goes on how it goes. */
@Controller('api/episodes/:id')
export class DischargeController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly pages: LetterPages,
    private readonly printer: Printer,
  ) {}

  /** What the letter says, for the page that shows and prints it. */
  @Roles('lead', 'clinician')
  @Get('letter')
  @Header('cache-control', 'no-store')
  letter(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<LetterContent> {
    return this.read(me, id);
  }

  /** The same as a PDF of one page. */
  @Roles('lead', 'clinician')
  @Get('letter.pdf')
  async pdf(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const bytes = await this.printer.pdf(letterDocument(await this.read(me, id)));
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/pdf',
      disposition: 'inline; filename="letter.pdf"',
      length: bytes.length,
    });
  }

  private read(me: SignedIn, id: string): Promise<LetterContent> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      await audit(tx, me, { action: 'print', subject: 'letter', personId: record.row.personId });
      return this.pages.contentFor(tx, me, record);
    });
  }
}
