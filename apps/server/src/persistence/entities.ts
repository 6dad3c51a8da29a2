import type { StageKey } from '@heathstep/core';
import type { AppointmentState, ClinicDefaults, EventKind, Outcome } from '@heathstep/contracts';
import { Audit, ContentReview } from './auditRow.js';
import { Consent, PersonMerge } from './consent.js';
import { Erasure, KeptResource, MeasurementImport, PeopleImport, ProgramKey } from './exchange.js';
import { LabCapture } from './labCapture.js';
import { LetterRow, LetterTemplateRow } from './letters.js';
import { OutingRow } from './outing.js';
import { AccountLink, AppUser, AuditSeal, Passkey, RecoveryCode, UserSession } from './staff.js';
import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';

const JSONB = { type: 'jsonb' } as const;
const UUID = { type: 'uuid' } as const;
const TEXT = { type: 'text' } as const;
const INT = { type: 'integer' } as const;
const TIME = { type: 'timestamptz' } as const;

@Entity('clinic')
export class Clinic {
  @PrimaryColumn(UUID) id!: string;
  @Column(TEXT) name!: string;
  @Column(TEXT) locale!: string;
  @Column({ name: 'time_zone', ...TEXT }) timeZone!: string;
  @Column(TEXT) phone!: string;
  @Column({ name: 'emergency_number', ...TEXT }) emergencyNumber!: string;
  /** What it has decided for all of its work, as far as it has. */
  @Column({ ...JSONB, default: {} }) defaults!: Partial<ClinicDefaults>;
}

abstract class OfClinic {
  @Column({ name: 'clinic_id', ...UUID }) clinicId!: string;
}

@Entity('person')
@Index('person_of_clinic', ['clinicId', 'id'], { unique: true })
@Index('person_clinic_name', ['clinicId', 'name'])
export class Person extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column(TEXT) name!: string;
  @Column({ name: 'birth_date', type: 'date', nullable: true }) birthDate!: string | null;
  @Column(TEXT) occupation!: string;
  @Column({ type: 'text', nullable: true }) sex!: 'female' | 'male' | null;
  /** ISO 639-1; null is English. */
  @Column({ type: 'text', nullable: true }) language!: string | null;
  @Column(INT) version!: number;
  @Column({ name: 'created_at', ...TIME }) createdAt!: Date;
}

@Entity('episode')
@Index('episode_of_clinic', ['clinicId', 'id'], { unique: true })
@Index('episode_person', ['clinicId', 'personId'])
export class EpisodeRow extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'person_id', ...UUID }) personId!: string;
  @Column(TEXT) condition!: string;
  @Column(TEXT) protocol!: string;
  @Column({ name: 'protocol_version', ...INT }) protocolVersion!: number;
  @Column(TEXT) affected!: 'left' | 'right' | 'both';
  @Column(JSONB) schools!: Record<string, string>;
  @Column(JSONB) equipment!: string[];
  @Column({ name: 'weights_kg', ...JSONB, default: [] }) weightsKg!: number[];
  @Column({ name: 'minutes_per_day', ...INT }) minutesPerDay!: number;
  @Column({ name: 'exercise_time', type: 'text', nullable: true }) exerciseTime!: string | null;
  @Column({ type: 'text', nullable: true }) stage!: StageKey | null;
  @Column({ name: 'stage_since', type: 'timestamptz', nullable: true }) stageSince!: Date | null;
  @Column({ name: 'started_at', ...TIME }) startedAt!: Date;
  @Column(TEXT) status!: string;
  @Column({ name: 'ended_at', type: 'timestamptz', nullable: true }) endedAt!: Date | null;
  @Column({ name: 'ended_by', type: 'uuid', nullable: true }) endedBy!: string | null;
  @Column({ type: 'text', nullable: true }) outcome!: Outcome | null;
  @Column({ name: 'end_note', type: 'text', nullable: true }) endNote!: string | null;
  @Column({ name: 'came_back_at', type: 'timestamptz', nullable: true }) cameBackAt!: Date | null;
  @Column(INT) version!: number;
}

@Entity('stage_span')
@Index('stage_span_episode', ['clinicId', 'episodeId', 'since'])
export class StageSpanRow extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(TEXT) stage!: StageKey;
  @Column(TIME) since!: Date;
  @Column(TEXT) reason!: string;
}

@Entity('visit')
@Index('visit_of_clinic', ['clinicId', 'id'], { unique: true })
@Index('visit_episode', ['clinicId', 'episodeId', 'startedAt'])
@Index('visit_import', ['clinicId', 'importId'], { where: 'import_id IS NOT NULL' })
export class Visit extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(TEXT) kind!: 'first' | 'review';
  @Column({ name: 'started_at', ...TIME }) startedAt!: Date;
  @Column({ name: 'signed_at', type: 'timestamptz', nullable: true }) signedAt!: Date | null;
  @Column({ name: 'signed_by', type: 'uuid', nullable: true }) signedBy!: string | null;
  /** Of the table of measurements it came from; null for one that was made here. */
  @Column({ name: 'import_id', type: 'uuid', nullable: true }) importId!: string | null;
}

@Entity('visit_entry')
@Unique('visit_entry_version', ['visitId', 'key', 'version'])
@Index('visit_entry_seq', ['visitId', 'seq'])
@Index('visit_entry_told', ['clinicId', 'key', 'visitId', 'version'], {
  where: `key IN ('story.worst', 'story.activities')`,
})
class VisitEntry extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'visit_id', ...UUID }) visitId!: string;
  @Column(TEXT) key!: string;
  @Column(INT) version!: number;
  @Column({ ...JSONB, nullable: true }) value!: unknown;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
  @Column({ type: 'text', nullable: true }) reason!: string | null;
  /** Order of writing within a visit, for those who follow it. */
  @Column({ type: 'bigint', generated: 'identity', generatedIdentity: 'ALWAYS' }) seq!: string;
}

@Entity('visit_presence')
class VisitPresence extends OfClinic {
  @PrimaryColumn({ name: 'visit_id', ...UUID }) visitId!: string;
  @PrimaryColumn({ name: 'user_id', ...UUID }) userId!: string;
  @Column(TEXT) step!: string;
  @Column(TIME) at!: Date;
}

@Entity('clinic_measure')
export class ClinicMeasure {
  @PrimaryColumn({ name: 'clinic_id', ...UUID }) clinicId!: string;
  @PrimaryColumn(TEXT) key!: string;
  @PrimaryColumn(INT) version!: number;
  @Column(JSONB) filled!: unknown;
  @Column(JSONB) definition!: unknown;
  @Column({ type: 'boolean' }) retired!: boolean;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('clinic_exercise')
export class ClinicExercise {
  @PrimaryColumn({ name: 'clinic_id', ...UUID }) clinicId!: string;
  @PrimaryColumn(TEXT) key!: string;
  @PrimaryColumn(INT) version!: number;
  @Column({ name: 'filled_id', ...UUID }) filledId!: string;
  @Column(JSONB) file!: unknown;
  @Column(JSONB) definition!: unknown;
  @Column(JSONB) figure!: unknown;
  @Column({ type: 'boolean' }) retired!: boolean;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('clinic_routine')
@Index('clinic_routine_name', { synchronize: false })
export class ClinicRoutine extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column(TEXT) name!: string;
  @Column(JSONB) items!: unknown;
  @Column({ type: 'boolean' }) retired!: boolean;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('exercise_favourite')
export class ExerciseFavourite {
  @PrimaryColumn({ name: 'clinic_id', ...UUID }) clinicId!: string;
  @PrimaryColumn({ name: 'user_id', ...UUID }) userId!: string;
  @PrimaryColumn(TEXT) exercise!: string;
}

@Entity('exercise_note')
export class ExerciseNote {
  @PrimaryColumn({ name: 'clinic_id', ...UUID }) clinicId!: string;
  @PrimaryColumn(TEXT) exercise!: string;
  @PrimaryColumn(INT) version!: number;
  @Column(TEXT) text!: string;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('band_calibration')
@Index('band_calibration_band', ['clinicId', 'band', 'at'])
export class BandCalibration extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column(TEXT) band!: string;
  @Column(JSONB) points!: unknown;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('taught_exercise')
@Index('taught_exercise_episode', ['clinicId', 'episodeId', 'at'])
export class TaughtExercise extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(TEXT) exercise!: string;
  @Column(TEXT) side!: 'left' | 'right' | 'both';
  @Column(INT) reps!: number;
  @Column(JSONB) faults!: string[];
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('photo')
@Index('photo_of_clinic', ['clinicId', 'id'], { unique: true })
@Index('photo_visit', ['clinicId', 'visitId'])
export class Photo extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'visit_id', ...UUID }) visitId!: string;
  @Column(TEXT) measure!: string;
  @Column(TEXT) side!: 'left' | 'right';
  @Column(TEXT) type!: string;
  @Column(INT) width!: number;
  @Column(INT) height!: number;
  @Column({ type: 'bytea', select: false }) bytes!: Buffer;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('photo_placement')
@Index('photo_placement_photo', ['clinicId', 'photoId'])
export class PhotoPlacement extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'photo_id', ...UUID }) photoId!: string;
  @Column(JSONB) landmarks!: Record<string, { x: number; y: number }>;
  @Column({ name: 'ruler_mm', type: 'double precision', nullable: true }) rulerMm!: number | null;
  @Column({ type: 'double precision' }) value!: number;
  @Column({ name: 'plus_minus', type: 'double precision' }) plusMinus!: number;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('closure')
@Index('closure_episode', ['clinicId', 'episodeId'])
@Index('closure_one_stop', { synchronize: false })
export class ClosureRow extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column({ name: 'visit_id', type: 'uuid', nullable: true }) visitId!: string | null;
  @Column(TEXT) subject!: string;
  @Column(TEXT) side!: 'left' | 'right' | 'none';
  @Column(TEXT) kind!: 'closed' | 'overridden';
  @Column({ name: 'assessed_on', type: 'date', nullable: true }) assessedOn!: string | null;
  @Column({ name: 'assessed_by', type: 'text', nullable: true }) assessedBy!: string | null;
  /** How it was assessed, where the rule says what clears it. */
  @Column({ type: 'text', nullable: true }) done!: string | null;
  @Column(TEXT) text!: string;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('plan')
@Index('plan_of_clinic', ['clinicId', 'id'], { unique: true })
@Unique('plan_number', ['episodeId', 'number'])
@Index('plan_one_draft', ['episodeId'], { unique: true, where: "status = 'draft'" })
export class PlanRow extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(INT) number!: number;
  @Column(TEXT) stage!: StageKey;
  @Column(TEXT) status!: 'draft' | 'given';
  @Column(INT) version!: number;
  @Column(JSONB) items!: unknown[];
  @Column({ name: 'left_out', ...JSONB }) leftOut!: unknown[];
  /** The stage as it stood when the plan was made; null for plans from before it was kept. */
  @Column({ name: 'made_of', type: 'jsonb', nullable: true }) madeOf!: unknown;
  @Column({ name: 'content_version', ...TEXT }) contentVersion!: string;
  @Column({ name: 'created_by', ...UUID }) createdBy!: string;
  @Column({ name: 'created_at', ...TIME }) createdAt!: Date;
  @Column({ name: 'given_by', type: 'uuid', nullable: true }) givenBy!: string | null;
  @Column({ name: 'given_at', type: 'timestamptz', nullable: true }) givenAt!: Date | null;
}

/** A protocol as it stood when an episode first used it. */
@Entity('protocol_version')
export class ProtocolVersion {
  @PrimaryColumn({ name: 'clinic_id', ...UUID }) clinicId!: string;
  @PrimaryColumn(TEXT) key!: string;
  @PrimaryColumn(INT) version!: number;
  @Column(JSONB) definition!: unknown;
  @Column({ name: 'kept_at', ...TIME }) keptAt!: Date;
}

/** A clinic's own version of a protocol; `replaces` is the key of the shipped one it stands for. */
@Entity('clinic_protocol')
@Check('clinic_protocol_status_check', `status IN ('draft', 'published', 'withdrawn')`)
@Index('clinic_protocol_draft', ['clinicId', 'replaces'], { unique: true, where: `status = 'draft'` })
export class ClinicProtocol {
  @PrimaryColumn({ name: 'clinic_id', ...UUID }) clinicId!: string;
  @PrimaryColumn(TEXT) replaces!: string;
  @PrimaryColumn(INT) version!: number;
  @Column(TEXT) status!: 'draft' | 'published' | 'withdrawn';
  /** Counts the savings of a draft. */
  @Column(INT) edition!: number;
  /** Version of the shipped one it was made from. */
  @Column({ name: 'based_on', ...INT }) basedOn!: number;
  @Column(JSONB) file!: unknown;
  @Column(JSONB) definition!: unknown;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
  @Column({ name: 'signed_by', type: 'uuid', nullable: true }) signedBy!: string | null;
  @Column({ name: 'signed_at', type: 'timestamptz', nullable: true }) signedAt!: Date | null;
}

@Entity('home_link')
@Index('home_link_of_clinic', ['clinicId', 'id'], { unique: true })
@Index('home_link_token', ['tokenHash'], { unique: true })
@Index('home_link_episode', ['clinicId', 'episodeId'])
export class HomeLink extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column({ name: 'token_hash', ...TEXT }) tokenHash!: string;
  @Column({ name: 'code_hash', ...TEXT }) codeHash!: string;
  @Column({ name: 'wrong_codes', ...INT }) wrongCodes!: number;
  @Column({ name: 'locked_at', type: 'timestamptz', nullable: true }) lockedAt!: Date | null;
  @Column({ name: 'created_by', ...UUID }) createdBy!: string;
  @Column({ name: 'created_at', ...TIME }) createdAt!: Date;
  @Column({ name: 'expires_at', ...TIME }) expiresAt!: Date;
  @Column({ name: 'revoked_at', type: 'timestamptz', nullable: true }) revokedAt!: Date | null;
}

@Entity('home_session')
export class HomeSession extends OfClinic {
  @PrimaryColumn({ name: 'token_hash', ...TEXT }) tokenHash!: string;
  @Column({ name: 'link_id', ...UUID }) linkId!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column({ name: 'created_at', ...TIME }) createdAt!: Date;
  @Column({ name: 'expires_at', ...TIME }) expiresAt!: Date;
}

@Entity('home_entry')
@Index('home_entry_one_morning', { synchronize: false })
@Index('home_entry_episode', ['clinicId', 'episodeId', 'day'])
export class HomeEntry extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @PrimaryColumn(INT) version!: number;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column({ name: 'plan_id', type: 'uuid', nullable: true }) planId!: string | null;
  @Column(TEXT) kind!: 'session' | 'morning' | 'stop';
  @Column({ type: 'date' }) day!: string;
  @Column(JSONB) payload!: unknown;
  @Column(TIME) at!: Date;
}

@Entity('decision')
@Index('decision_episode', ['clinicId', 'episodeId', 'at'])
export class DecisionRow extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(TEXT) suggested!: string;
  @Column(JSONB) suggestion!: unknown;
  @Column(TEXT) decision!: string;
  @Column({ type: 'boolean' }) agreed!: boolean;
  @Column(TEXT) reason!: string;
  @Column({ name: 'content_version', ...TEXT }) contentVersion!: string;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('appointment')
@Check('appointment_time_check', `time ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'`)
@Check('appointment_minutes_check', 'minutes BETWEEN 5 AND 240')
@Check('appointment_state_check', `state IN ('planned', 'came', 'missed', 'cancelled')`)
@Index('appointment_day', ['clinicId', 'day'])
@Index('appointment_uid', ['clinicId', 'uid'], { unique: true, where: 'uid IS NOT NULL' })
export class Appointment extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'person_id', ...UUID }) personId!: string;
  /** The clinic's own day and time, whatever the clocks do. */
  @Column({ type: 'date' }) day!: string;
  @Column(TEXT) time!: string;
  @Column(INT) minutes!: number;
  @Column(TEXT) note!: string;
  @Column(TEXT) state!: AppointmentState;
  /** Of the event of a calendar it was taken from. */
  @Column({ type: 'text', nullable: true }) uid!: string | null;
  @Column(INT) version!: number;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

@Entity('home_question')
@Index('home_question_episode', ['clinicId', 'episodeId', 'at'])
export class HomeQuestion extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(TEXT) text!: string;
  @Column(TIME) at!: Date;
  @Column({ type: 'text', nullable: true }) answer!: string | null;
  @Column({ name: 'answered_at', type: 'timestamptz', nullable: true }) answeredAt!: Date | null;
  @Column({ name: 'answered_by', type: 'uuid', nullable: true }) answeredBy!: string | null;
}

@Entity('course_event')
@Index('course_event_episode', ['clinicId', 'episodeId', 'day'])
export class CourseEvent extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'episode_id', ...UUID }) episodeId!: string;
  @Column(TEXT) kind!: EventKind;
  @Column({ type: 'date' }) day!: string;
  @Column(TEXT) note!: string;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
  @Column({ name: 'removed_at', type: 'timestamptz', nullable: true }) removedAt!: Date | null;
}

@Entity('set_aside')
@Index('set_aside_until', ['clinicId', 'until'], { where: 'ended_at IS NULL' })
export class SetAside extends OfClinic {
  @PrimaryColumn(UUID) id!: string;
  @Column({ name: 'person_id', ...UUID }) personId!: string;
  @Column({ name: 'episode_id', type: 'uuid', nullable: true }) episodeId!: string | null;
  @Column(TEXT) kind!: string;
  @Column(INT) weight!: number;
  @Column({ type: 'date' }) until!: string;
  @Column(TEXT) reason!: string;
  /** When it was taken back before its day. */
  @Column({ name: 'ended_at', type: 'timestamptz', nullable: true }) endedAt!: Date | null;
  @Column({ name: 'author_id', ...UUID }) authorId!: string;
  @Column(TIME) at!: Date;
}

export { Audit, ContentReview } from './auditRow.js';
export { Consent, PersonMerge } from './consent.js';
export { Erasure, KeptResource, MeasurementImport, PeopleImport, ProgramKey } from './exchange.js';
export { LetterRow, LetterTemplateRow } from './letters.js';
export { OutingRow } from './outing.js';
export { AccountLink, AppUser, Passkey, UserSession } from './staff.js';

export const ENTITIES = [
  Clinic,
  AppUser,
  UserSession,
  AccountLink,
  AuditSeal,
  RecoveryCode,
  Passkey,
  Person,
  EpisodeRow,
  StageSpanRow,
  Visit,
  VisitEntry,
  VisitPresence,
  ClinicMeasure,
  ClinicExercise,
  ClinicRoutine,
  ExerciseFavourite,
  ExerciseNote,
  BandCalibration,
  TaughtExercise,
  Photo,
  PhotoPlacement,
  ClosureRow,
  PlanRow,
  ProtocolVersion,
  ClinicProtocol,
  HomeLink,
  HomeSession,
  HomeEntry,
  DecisionRow,
  Appointment,
  SetAside,
  HomeQuestion,
  CourseEvent,
  LabCapture,
  KeptResource,
  ProgramKey,
  Erasure,
  PeopleImport,
  MeasurementImport,
  LetterRow,
  LetterTemplateRow,
  OutingRow,
  Consent,
  PersonMerge,
  Audit,
  ContentReview,
];
