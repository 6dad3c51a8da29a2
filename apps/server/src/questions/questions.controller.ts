import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { AnswerBody, MOST_OPEN_QUESTIONS, QuestionBody, type QuestionView } from '@heathstep/contracts';
import { say } from '@heathstep/core';
import { IsNull } from 'typeorm';
import { type AtHome, Me, Open, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { EpisodeReader } from '../episodes/reader.js';
import { conflict, notFound, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { Clinic, EpisodeRow, HomeQuestion } from '../persistence/entities.js';
import { questionsOf } from './questions.js';

/** As many as are read at once. */
const SHOWN = 20;

/** What patients ask from home, and the answers. */
@Controller('api')
export class QuestionsController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly clock: Clock,
  ) {}

  @Get('episodes/:id/questions')
  of(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<QuestionView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episode = await tx.findOneBy(EpisodeRow, { id });
      if (episode === null) throw notFound();
      await audit(tx, me, { action: 'read', subject: 'questions', personId: episode.personId });
      return this.list(tx, me.clinicId, id);
    });
  }

  /** Answers once; a second answer is refused with the first, so that the patient never reads two. */
  @Roles('lead', 'clinician')
  @HttpCode(200)
  @Post('questions/:id/answer')
  answer(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() { answer }: AnswerBody,
  ): Promise<QuestionView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const question = await tx.findOneBy(HomeQuestion, { id });
      if (question === null) throw notFound();
      const text = answer.trim();
      const { affected } = await tx.update(
        HomeQuestion,
        { id, answeredAt: IsNull() },
        { answer: text, answeredAt: this.clock.now(), answeredBy: me.userId },
      );
      if (affected !== 1 && question.answer !== text)
        throw conflict(say('Someone has answered this already'), { answer: question.answer });
      const episode = await tx.findOneByOrFail(EpisodeRow, { id: question.episodeId });
      await audit(tx, me, { action: 'answer', subject: 'question', personId: episode.personId });
      return this.list(tx, me.clinicId, question.episodeId);
    });
  }

  @Open('home')
  @Get('home/questions')
  own(@Me() me: AtHome): Promise<QuestionView[]> {
    return this.db.inClinic(me.clinicId, async (tx) =>
      this.list(tx, me.clinicId, await this.treated(tx, me)),
    );
  }

  @Open('home')
  @HttpCode(201)
  @Post('home/questions')
  ask(@Me() me: AtHome, @Body() body: QuestionBody): Promise<QuestionView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episodeId = await this.treated(tx, me);
      const standing = await tx.findOneBy(HomeQuestion, { id: body.id });
      const text = body.text.trim();
      if (standing !== null && (standing.episodeId !== episodeId || standing.text !== text))
        throw conflict('This id has another question already', null);
      if (standing === null) {
        const open = await tx.countBy(HomeQuestion, { episodeId, answeredAt: IsNull() });
        if (open >= MOST_OPEN_QUESTIONS)
          throw refusedNow('Your clinic has not answered the questions before yet');
        await tx.insert(HomeQuestion, {
          id: body.id,
          clinicId: me.clinicId,
          episodeId,
          text,
          at: this.clock.now(),
          answer: null,
          answeredAt: null,
          answeredBy: null,
        });
        const episode = await tx.findOneByOrFail(EpisodeRow, { id: episodeId });
        await audit(tx, me, { action: 'ask', subject: 'question', personId: episode.personId });
      }
      return this.list(tx, me.clinicId, episodeId);
    });
  }

  /** What the link is of, or another complaint that is treated still where that one is closed. */
  private async treated(tx: Tx, me: AtHome): Promise<string> {
    return (await this.reader.openBeside(tx, me.episodeId))[0]?.id ?? me.episodeId;
  }

  private async list(tx: Tx, clinicId: string, episodeId: string): Promise<QuestionView[]> {
    const { timeZone } = await tx.findOneByOrFail(Clinic, { id: clinicId });
    return questionsOf(tx, episodeId, { timeZone, most: SHOWN });
  }
}
