import type { ConsentKind, ConsentWay } from '@heathstep/contracts';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** What someone agreed to or did not; the newest of a kind stands. */
@Entity('consent')
@Index('consent_person', ['clinicId', 'personId', 'kind', 'at'])
export class Consent {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'person_id', type: 'uuid' }) personId!: string;
  @Column({ type: 'text' }) kind!: ConsentKind;
  @Column({ type: 'boolean' }) given!: boolean;
  @Column({ type: 'text' }) way!: ConsentWay;
  @Column({ type: 'date' }) on!: string;
  @Column({ type: 'text' }) note!: string;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
}

/** Two records of one person that were brought together, with what it takes to undo it. */
@Entity('person_merge')
@Index('person_merge_person', ['clinicId', 'personId'])
@Index('person_merge_gone', ['clinicId', 'goneId'])
export class PersonMerge {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  /** Whose record was kept. */
  @Column({ name: 'person_id', type: 'uuid' }) personId!: string;
  @Column({ name: 'gone_id', type: 'uuid' }) goneId!: string;
  /** Both people as they stood before. */
  @Column({ type: 'jsonb' }) gone!: { readonly name: string; readonly birth_date: string | null };
  @Column({ type: 'jsonb' }) kept!: object;
  /** What came along, by table. */
  @Column({ type: 'jsonb' }) moved!: Readonly<Record<string, readonly unknown[]>>;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  @Column({ name: 'undone_at', type: 'timestamptz', nullable: true }) undoneAt!: Date | null;
}
