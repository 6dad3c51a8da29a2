import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

@Entity('audit')
@Index('audit_person', ['clinicId', 'personId', 'at'])
@Index('audit_user', ['clinicId', 'userId', 'at'])
@Index('audit_seq', ['clinicId', 'seq'], { unique: true })
export class Audit {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  /** `program`: by a key of the clinic; `user_id` is then who made the key. */
  @Column({ type: 'text' }) actor!: 'user' | 'home' | 'program';
  @Column({ name: 'user_id', type: 'uuid', nullable: true }) userId!: string | null;
  @Column({ name: 'person_id', type: 'uuid', nullable: true }) personId!: string | null;
  @Column({ type: 'text' }) action!: string;
  @Column({ type: 'text' }) subject!: string;
  /** People whom a list showed, by id; null where it is about one. */
  @Column({ type: 'jsonb', nullable: true }) shown!: readonly string[] | null;
  /** Order of writing; what is sealed is sealed by it. */
  @Column({ type: 'bigint', generated: 'identity', generatedIdentity: 'ALWAYS' }) seq!: string;
}

@Entity('content_review')
export class ContentReview {
  @PrimaryColumn({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'text' }) item!: string;
  @PrimaryColumn({ type: 'integer' }) version!: number;
  @Column({ type: 'text' }) reviewer!: string;
  @Column({ name: 'reviewed_on', type: 'date' }) reviewedOn!: string;
}
