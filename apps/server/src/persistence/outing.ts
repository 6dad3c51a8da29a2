import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** A run or a walk of a person as it was recorded. */
@Entity('outing')
@Check('outing_figures_check', 'seconds > 0 AND metres >= 0 AND run_seconds BETWEEN 0 AND seconds')
@Index('outing_once', ['clinicId', 'personId', 'startedAt'], { unique: true })
export class OutingRow {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'person_id', type: 'uuid' }) personId!: string;
  /** The clinic's own day. */
  @Column({ type: 'date' }) day!: string;
  @Column({ name: 'started_at', type: 'timestamptz' }) startedAt!: Date;
  @Column({ type: 'double precision' }) seconds!: number;
  @Column({ type: 'double precision' }) metres!: number;
  @Column({ name: 'run_seconds', type: 'double precision' }) runSeconds!: number;
  @Column({ name: 'climb_metres', type: 'double precision', nullable: true }) climbMetres!: number | null;
  @Column({ type: 'text' }) file!: string;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  @Column({ name: 'removed_at', type: 'timestamptz', nullable: true }) removedAt!: Date | null;
}
