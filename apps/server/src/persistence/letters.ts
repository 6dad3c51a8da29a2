import type { LetterContent, LetterText, LetterWay } from '@heathstep/contracts';
import type { LetterKind, LetterPart } from '@heathstep/core';
import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** A letter of a complaint: a draft, or one that went out with all it said. */
@Entity('letter')
@Index('letter_episode', ['clinicId', 'episodeId', 'startedAt'])
@Check(
  'letter_sent_check',
  `(sent_on IS NULL) = (sent_way IS NULL) AND (sent_on IS NULL) = (sent_by IS NULL)
    AND (sent_on IS NULL) = (content IS NULL) AND (sent_on IS NULL OR dropped_at IS NULL)`,
)
export class LetterRow {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'episode_id', type: 'uuid' }) episodeId!: string;
  @Column({ type: 'text' }) kind!: LetterKind;
  @Column({ type: 'jsonb' }) text!: LetterText;
  @Column({ type: 'integer' }) version!: number;
  @Column({ name: 'started_at', type: 'timestamptz' }) startedAt!: Date;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  @Column({ name: 'dropped_at', type: 'timestamptz', nullable: true }) droppedAt!: Date | null;
  @Column({ name: 'sent_on', type: 'date', nullable: true }) sentOn!: string | null;
  @Column({ name: 'sent_way', type: 'text', nullable: true }) sentWay!: LetterWay | null;
  @Column({ name: 'sent_by', type: 'uuid', nullable: true }) sentBy!: string | null;
  /** All it said, of one that went out. */
  @Column({ type: 'jsonb', nullable: true }) content!: LetterContent | null;
}

/** What a clinic begins its letters of a kind with; the newest version holds. */
@Entity('letter_template')
export class LetterTemplateRow {
  @PrimaryColumn({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'text' }) letter!: LetterKind;
  @PrimaryColumn({ type: 'integer' }) version!: number;
  @Column({ type: 'text' }) opening!: string;
  @Column({ type: 'text' }) closing!: string;
  @Column({ type: 'jsonb' }) shows!: LetterPart[];
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
}
