import { Controller, Get, Param, Req, Res, StreamableFile } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Me, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { EpisodeReader } from '../episodes/reader.js';
import { refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db } from '../persistence/db.js';
import { handoutContent } from './content.js';
import { handoutDocument } from './document.js';
import { Printer } from './render.js';

@Controller('api')
export class HandoutController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly content: Content,
    private readonly printer: Printer,
  ) {}

  /** The plan the patient has as a PDF of one or two pages; refused while nothing may be given. */
  @Get('episodes/:id/handout.pdf')
  async pdf(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const paper = await this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.read(tx, id);
      const made = handoutContent(record, this.content.bundle);
      if (made === null)
        throw refusedNow(
          record.view.heldBack[0] === undefined
            ? 'There is no plan to print yet'
            : `Nothing is printed: ${record.view.heldBack[0]}`,
        );
      await audit(tx, me, { action: 'print', subject: 'handout', personId: record.row.personId });
      return made;
    });
    const home = `${request.protocol}://${request.get('host') ?? 'localhost'}/home`;
    const bytes = await this.printer.pdf(handoutDocument(paper, home));
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/pdf',
      disposition: `inline; filename="plan.pdf"`,
      length: bytes.length,
    });
  }
}
