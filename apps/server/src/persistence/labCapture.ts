import type { LabTask, RecordingKind } from '@heathstep/core';
import type { CaptureWearing } from '@heathstep/contracts';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** A capture of a pressure mat or a motion pair; its readings are the packed file that is exported. */
@Entity('lab_capture')
@Index('lab_capture_episode', ['clinicId', 'episodeId', 'at'])
export class LabCapture {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'episode_id', type: 'uuid' }) episodeId!: string;
  @Column({ type: 'text' }) kind!: RecordingKind;
  @Column({ type: 'text' }) task!: LabTask;
  @Column({ type: 'text' }) side!: 'left' | 'right' | 'both';
  @Column({ type: 'text' }) wearing!: CaptureWearing;
  @Column({ type: 'text' }) source!: 'device' | 'file';
  @Column({ type: 'text' }) note!: string;
  @Column({ name: 'mass_kg', type: 'double precision', nullable: true }) massKg!: number | null;
  @Column({ type: 'double precision', nullable: true }) factor!: number | null;
  @Column({ type: 'double precision' }) seconds!: number;
  @Column({ type: 'text' }) device!: string;
  @Column({ type: 'boolean' }) simulated!: boolean;
  @Column({ type: 'bytea', select: false }) bytes!: Buffer;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  @Column({ name: 'discarded_at', type: 'timestamptz', nullable: true }) discardedAt!: Date | null;
}
