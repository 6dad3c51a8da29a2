import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** What came with a person from elsewhere and has no place of ours: kept as it came. */
@Entity('kept_resource')
@Index('kept_resource_person', ['clinicId', 'personId'])
export class KeptResource {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'person_id', type: 'uuid' }) personId!: string;
  @Column({ type: 'text' }) type!: string;
  @Column({ type: 'jsonb' }) resource!: Record<string, unknown>;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
}

/** A key by which another program reads a clinic's records. */
@Entity('program_key')
@Index('program_key_token', ['tokenHash'], { unique: true })
export class ProgramKey {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ type: 'text' }) name!: string;
  @Column({ name: 'token_hash', type: 'text' }) tokenHash!: string;
  @Column({ name: 'created_by', type: 'uuid' }) createdBy!: string;
  @Column({ name: 'created_at', type: 'timestamptz' }) createdAt!: Date;
  @Column({ name: 'expires_at', type: 'timestamptz' }) expiresAt!: Date;
  @Column({ name: 'revoked_at', type: 'timestamptz', nullable: true }) revokedAt!: Date | null;
  @Column({ name: 'used_at', type: 'timestamptz', nullable: true }) usedAt!: Date | null;
}

/** That a record was erased, by whom and why; nothing of what it was. */
@Entity('erasure')
@Index('erasure_of_clinic', ['clinicId', 'at'])
export class Erasure {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'person_id', type: 'uuid' }) personId!: string;
  @Column({ type: 'text' }) reason!: string;
  @Column({ type: 'integer' }) rows!: number;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
}

/** A table of people that was taken: who came by it, and whether it was taken back. */
@Entity('people_import')
@Index('people_import_clinic', ['clinicId', 'at'])
export class PeopleImport {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ type: 'text' }) file!: string;
  /** Their ids. */
  @Column({ type: 'jsonb' }) people!: string[];
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  @Column({ name: 'undone_at', type: 'timestamptz', nullable: true }) undoneAt!: Date | null;
}

/** A table of measurements that was taken; the visits it made name it. */
@Entity('measurement_import')
@Index('measurement_import_clinic', ['clinicId', 'at'])
export class MeasurementImport {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ type: 'text' }) file!: string;
  @Column({ type: 'integer' }) lines!: number;
  @Column({ name: 'author_id', type: 'uuid' }) authorId!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
  @Column({ name: 'undone_at', type: 'timestamptz', nullable: true }) undoneAt!: Date | null;
}
