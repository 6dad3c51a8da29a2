import { Body, Controller, Get, Param, Put } from '@nestjs/common';
import { LetterTemplateBody, type LetterTemplateView } from '@heathstep/contracts';
import { LETTER_KINDS, type LetterKind, say, unknownGaps } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { badRequest, conflict, type FieldError, notFound } from '../http/problem.js';
import { audit, Db } from '../persistence/db.js';
import { LetterTemplateRow } from '../persistence/entities.js';
import { templateOf, templatesOf } from './templates.js';

const gapsIn = (field: 'opening' | 'closing', text: string): FieldError[] =>
  unknownGaps(text).map((gap) => ({
    pointer: `/${field}`,
    detail: say('Nothing fills {{gap}}', { gap: `{{${gap}}}` }),
  }));

/** What the letters of a clinic begin with. */
@Controller('api/clinic/letters')
export class LetterTemplatesController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  @Roles('lead', 'clinician')
  @Get()
  list(@Me() me: SignedIn): Promise<LetterTemplateView[]> {
    return this.db.inClinic(me.clinicId, (tx) => templatesOf(tx, this.content.bundle));
  }

  @Roles('lead')
  @Put(':letter')
  write(
    @Me() me: SignedIn,
    @Param('letter') letter: string,
    @Body() body: LetterTemplateBody,
  ): Promise<LetterTemplateView[]> {
    const kind = LETTER_KINDS.find((k): k is LetterKind => k === letter);
    if (kind === undefined) throw notFound();
    const wrong = [...gapsIn('opening', body.opening), ...gapsIn('closing', body.closing)];
    if (wrong.length > 0) throw badRequest(wrong);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const standing = await templateOf(tx, this.content.bundle, kind);
      if (standing?.version !== body.version)
        throw conflict(say('Someone else changed this since you opened it'), standing ?? null);
      await tx.insert(LetterTemplateRow, {
        clinicId: me.clinicId,
        letter: kind,
        version: body.version + 1,
        opening: body.opening,
        closing: body.closing,
        shows: body.shows,
        authorId: me.userId,
        at: this.clock.now(),
      });
      await audit(tx, me, { action: 'change', subject: 'letter template', personId: null });
      return templatesOf(tx, this.content.bundle);
    });
  }
}
