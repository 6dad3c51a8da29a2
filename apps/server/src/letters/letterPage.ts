import { Injectable } from '@nestjs/common';
import { createHash } from 'node:crypto';
import {
  composeLetter,
  type LetterContent,
  type LetterPageView,
  type LettersOpen,
  type LetterText,
  type LetterView,
} from '@heathstep/contracts';
import { fillLetter, localDay, openGaps, say, spoken, stageOf } from '@heathstep/core';
import type { LetterKind } from '@heathstep/core';
import type { SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { daysOf, letterContent } from '../discharge/content.js';
import { Assessment } from '../episodes/assessment.js';
import { EpisodeReader } from '../episodes/reader.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { namesOf } from '../episodes/rows.js';
import { saidNo } from '../people/consents.js';
import type { Tx } from '../persistence/db.js';
import { AppUser, type LetterRow } from '../persistence/entities.js';
import { templateOf } from './templates.js';

/** Of all that is shown, so that what goes out is what was read. The day it is written on does not count. */
const markOf = (content: LetterContent): string =>
  createHash('sha256')
    .update(JSON.stringify({ ...content, day: '' }))
    .digest('hex');

/** What a letter cannot be begun for now, of each kind. */
export const openFor = (record: EpisodeRecord): LettersOpen => ({
  referral: null,
  progress:
    record.view.ended === null ? null : say('This complaint has ended: the letter for that is the discharge'),
  discharge:
    record.view.ended === null ? say('This complaint has not ended: end it first, on its course') : null,
});

export const letterView = (row: LetterRow, names: ReadonlyMap<string, string>): LetterView => ({
  id: row.id,
  episodeId: row.episodeId,
  kind: row.kind,
  to: row.text.to,
  version: row.version,
  startedAt: row.startedAt.toISOString(),
  at: row.at.toISOString(),
  by: names.get(row.authorId) ?? '',
  sent:
    row.sentOn === null || row.sentWay === null
      ? null
      : { on: row.sentOn, way: row.sentWay, by: names.get(row.sentBy ?? '') ?? '' },
  dropped: row.droppedAt !== null,
});

/** Why a draft cannot go out as it is written; null where it can. */
function notAsItIs(record: EpisodeRecord, kind: LetterKind, text: LetterText): string | null {
  const open = openFor(record)[kind];
  if (open !== null) return open;
  if (text.to.trim() === '') return say('Write to whom it goes');
  const [gap] = openGaps(`${text.opening}\n${text.closing}`);
  if (gap !== undefined) return say('Nothing has filled {{gap}} yet', { gap });
  return null;
}

/** Reads letters with what the record shows in them. */
@Injectable()
export class LetterPages {
  constructor(
    private readonly reader: EpisodeReader,
    private readonly assessment: Assessment,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** All that a record has for a letter, written by who is signed in. */
  async contentFor(tx: Tx, me: SignedIn, record: EpisodeRecord): Promise<LetterContent> {
    const author = await tx.findOneByOrFail(AppUser, { id: me.userId });
    const assessed = this.assessment.assess(record, null);
    return letterContent({
      record,
      assessed,
      content: this.content.bundle,
      upkeep: this.assessment.upkeep(record, assessed),
      author: { name: author.name, registration: author.registration },
      today: localDay(this.clock.now(), record.clinic.timeZone),
    });
  }

  /** What a letter begins with: the clinic's text for its kind, its gaps filled from the record. */
  async begun(tx: Tx, me: SignedIn, record: EpisodeRecord, kind: LetterKind): Promise<LetterText> {
    const template = await templateOf(tx, this.content.bundle, kind);
    const author = await tx.findOneByOrFail(AppUser, { id: me.userId });
    const { view, clinic, protocol, row } = record;
    const { onDay } = daysOf(record);
    const pathway = this.content.bundle.pathways.find((p) => p.key === row.condition)?.name ?? '';
    const values = {
      person: view.person.name,
      born: view.person.birthDate === null ? say('day not known') : onDay(view.person.birthDate),
      complaint: `${spoken().inside(say(pathway))}, ${row.affected === 'both' ? say('both sides') : say(row.affected)}`,
      from: onDay(localDay(row.startedAt, clinic.timeZone)),
      visits: String(view.visits.length),
      stage: view.stage === null ? say('no stage') : say(stageOf(protocol, view.stage)?.name ?? view.stage),
      clinic: clinic.name,
      phone: clinic.phone,
      author: author.name,
    };
    return {
      to: '',
      opening: fillLetter(template?.opening ?? '', values),
      closing: fillLetter(template?.closing ?? '', values),
      shows: template?.shows ?? [],
    };
  }

  /** A letter as its page shows it: one that went out as it went out, whatever became of the record since. */
  async page(tx: Tx, me: SignedIn, row: LetterRow): Promise<LetterPageView> {
    const record = await this.reader.shown(tx, row.episodeId);
    const letter = letterView(row, await namesOf(tx));
    const person = { id: record.row.personId, name: record.view.person.name };
    if (row.content !== null)
      return { letter, text: row.text, content: row.content, mark: null, refused: false, not: null, person };
    const content = await this.contentFor(tx, me, record);
    return {
      letter,
      text: row.text,
      content,
      mark: markOf(content),
      refused: await saidNo(tx, person.id, 'letters'),
      not: notAsItIs(record, row.kind, row.text),
      person,
    };
  }
}

/** A letter as it is printed. */
export const asRead = ({ letter, text, content }: LetterPageView): LetterContent =>
  letter.sent === null ? composeLetter(content, letter.kind, text) : content;
