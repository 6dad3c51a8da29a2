import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** Someone of a clinic. Who left stays, by name, under what they did. */
@Entity('app_user')
@Index('app_user_of_clinic', ['clinicId', 'id'], { unique: true })
@Check('app_user_role_check', `role IN ('lead', 'clinician', 'assistant')`)
export class AppUser {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ type: 'text' }) email!: string;
  @Column({ type: 'text' }) name!: string;
  @Column({ type: 'text' }) role!: 'lead' | 'clinician' | 'assistant';
  /** Null until they chose one by their link. */
  @Column({ name: 'password_hash', type: 'text', nullable: true }) passwordHash!: string | null;
  @Column({ type: 'text', nullable: true }) registration!: string | null;
  @Column({ name: 'left_at', type: 'timestamptz', nullable: true }) leftAt!: Date | null;
  /** Of an authenticator that has not shown a code yet. */
  @Column({ name: 'totp_pending', type: 'text', nullable: true }) totpPending!: string | null;
  @Column({ name: 'totp_secret', type: 'text', nullable: true }) totpSecret!: string | null;
  /** Step of time of the last code that was used: none is used twice. */
  @Column({ name: 'totp_last', type: 'integer', nullable: true }) totpLast!: number | null;
}

/** A code for when the authenticator is lost; used once. */
@Entity('recovery_code')
export class RecoveryCode {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ name: 'user_id', type: 'uuid' }) userId!: string;
  @PrimaryColumn({ name: 'code_hash', type: 'text' }) codeHash!: string;
  @Column({ name: 'used_at', type: 'timestamptz', nullable: true }) usedAt!: Date | null;
}

@Entity('user_session')
@Index('user_session_expiry', ['expiresAt'])
@Index('user_session_id', ['id'], { unique: true })
@Index('user_session_user', ['userId'])
export class UserSession {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ name: 'token_hash', type: 'text' }) tokenHash!: string;
  @Column({ type: 'uuid' }) id!: string;
  @Column({ type: 'text' }) agent!: string;
  @Column({ type: 'text' }) address!: string;
  @Column({ name: 'user_id', type: 'uuid' }) userId!: string;
  @Column({ name: 'created_at', type: 'timestamptz' }) createdAt!: Date;
  @Column({ name: 'expires_at', type: 'timestamptz' }) expiresAt!: Date;
}

/** A link by which someone chooses a password: for the first time, or anew. Used once. */
@Entity('account_link')
@Index('account_link_token', ['tokenHash'], { unique: true })
@Index('account_link_user', ['clinicId', 'userId'])
export class AccountLink {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'user_id', type: 'uuid' }) userId!: string;
  @Column({ name: 'token_hash', type: 'text' }) tokenHash!: string;
  /** Null where a command made it. */
  @Column({ name: 'created_by', type: 'uuid', nullable: true }) createdBy!: string | null;
  @Column({ name: 'created_at', type: 'timestamptz' }) createdAt!: Date;
  @Column({ name: 'expires_at', type: 'timestamptz' }) expiresAt!: Date;
  @Column({ name: 'used_at', type: 'timestamptz', nullable: true }) usedAt!: Date | null;
}

/** Closes the log of who saw and changed what up to a line of it: a hash over those lines and the seal before. */
@Entity('audit_seal')
export class AuditSeal {
  @PrimaryColumn({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'integer' }) number!: number;
  @Column({ name: 'to_seq', type: 'bigint' }) toSeq!: string;
  @Column({ type: 'integer' }) lines!: number;
  @Column({ type: 'text' }) hash!: string;
  @Column({ type: 'timestamptz' }) at!: Date;
}

/** A device that signs in by itself: what it is known by, and what its answers are checked with. */
@Entity('passkey')
@Index('passkey_credential', ['credential'], { unique: true })
@Index('passkey_user', ['clinicId', 'userId'])
export class Passkey {
  @Column({ name: 'clinic_id', type: 'uuid' }) clinicId!: string;
  @PrimaryColumn({ type: 'uuid' }) id!: string;
  @Column({ name: 'user_id', type: 'uuid' }) userId!: string;
  @Column({ type: 'text' }) credential!: string;
  @Column({ name: 'public_key', type: 'bytea' }) publicKey!: Buffer;
  @Column({ type: 'bigint' }) counter!: string;
  @Column({ type: 'jsonb' }) transports!: string[];
  @Column({ type: 'text' }) name!: string;
  @Column({ name: 'created_at', type: 'timestamptz' }) createdAt!: Date;
  @Column({ name: 'used_at', type: 'timestamptz', nullable: true }) usedAt!: Date | null;
}
