import { Controller, Get, Header, Param, Req, Res, StreamableFile } from '@nestjs/common';
import type { Request, Response } from 'express';
import { type HandoutContent, handoutText } from '@heathstep/contracts';
import { figureSvg } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import type { Library } from '../content/library.js';
import { EpisodeReader } from '../episodes/reader.js';
import { refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db } from '../persistence/db.js';
import { handoutContent } from './content.js';
import { handoutDocument } from './document.js';
import { Printer } from './render.js';
import { Settings } from '../settings.js';

@Controller('api')
export class HandoutController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly content: Content,
    private readonly printer: Printer,
    private readonly settings: Settings,
  ) {}

  /** What the paper says, for the page that shows and prints it; refused while nothing may be given. */
  @Get('episodes/:id/handout')
  @Header('cache-control', 'no-store')
  async paper(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<HandoutContent> {
    return (await this.read(me, id)).paper;
  }

  /** The same as plain text. */
  @Get('episodes/:id/handout.txt')
  @Header('content-type', 'text/plain; charset=utf-8')
  @Header('cache-control', 'no-store')
  async text(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<string> {
    return handoutText((await this.read(me, id)).paper);
  }

  /** The same as a PDF of one or two pages. */
  @Get('episodes/:id/handout.pdf')
  async pdf(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { paper, library } = await this.read(me, id);
    const here = `${request.protocol}://${request.get('host') ?? 'localhost'}`;
    const home = `${this.settings.config.publicUrl ?? here}/home`;
    const bytes = await this.printer.pdf(
      handoutDocument(paper, home, ({ key, sides }) => {
        const figure = library.figure(key);
        return figure === undefined ? null : figureSvg(figure, sides);
      }),
    );
    response.setHeader('cache-control', 'no-store');
    return new StreamableFile(bytes, {
      type: 'application/pdf',
      disposition: `inline; filename="plan.pdf"`,
      length: bytes.length,
    });
  }

  /** The paper with the drawings it may need, and a line in the audit that it was read. */
  private read(me: SignedIn, id: string): Promise<{ paper: HandoutContent; library: Library }> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      const paper = handoutContent(record, this.content.bundle);
      if (paper === null)
        throw refusedNow(
          record.view.heldBack[0] === undefined
            ? 'There is no plan to print yet'
            : `Nothing is printed: ${record.view.heldBack[0]}`,
        );
      await audit(tx, me, { action: 'print', subject: 'handout', personId: record.row.personId });
      return { paper, library: record.library };
    });
  }
}
